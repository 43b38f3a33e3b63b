import { Matrix } from 'ml-matrix';
import { chiSquareQuantile99, covarianceOf, propagate, solve } from '../adjust';
import { distance, type Vec } from '../geometry';
import { applyHomography, ASSUMED_LIFT, ASSUMED_TILT, checkLength, compose, fitView, inverse, measuredLength, modelFor, positionSigma, type Fit, type FitInput, type LengthEvidence, type PictureGeometry, type SheetPoint } from '.';

const photo: PictureGeometry = { width: 4032, height: 3024, kind: 'photo', focal35mm: 52 };
const scan: PictureGeometry = { width: 4960, height: 7016, kind: 'scan' };
const datum = { origin: [0, 3024] as const, direction: 0 };
const at = (x: number, y: number, sigma = 1): SheetPoint => ({ at: [x, y], sigma });

function length(id: string, from: SheetPoint, to: SheetPoint, mm: number, sigma = 0.1, check = false): LengthEvidence {
  return { id, from, to, mm, sigma, check };
}

function fitted(input: Partial<FitInput> & Pick<FitInput, 'evidence'>): Fit {
  const fit = fitView({ picture: photo, datum, lift: { mm: 0, sigma: ASSUMED_LIFT }, ...input });
  if (!fit.ok) throw new Error(fit.code);
  return fit.value;
}

/** A seeded generator of uniform and normal deviates (mulberry32; Box & Muller 1958). */
function createRandom(seed: number) {
  let state = seed;
  const uniform = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return { uniform, normal: () => Math.sqrt(-2 * Math.log(uniform() + 1e-300)) * Math.cos(2 * Math.PI * uniform()) };
}

describe('a fit from one length', () => {
  it('has the scale of that length, and no more', () => {
    const fit = fitted({ evidence: [length('a', at(1000, 1000), at(2000, 1000), 100)] });
    expect(measuredLength(fit, at(500, 2500), at(500, 1500)).value).toBeCloseTo(100, 6);
    expect(fit.diagnosis).toMatchObject({ redundancy: 0, varianceFactor: null, isConsistent: null });
  });

  it('puts the datum at zero with its direction along x, y up', () => {
    const turned = { origin: [700, 800] as const, direction: Math.PI / 6 };
    const fit = fitted({ datum: turned, evidence: [length('a', at(1000, 1000), at(2000, 1000), 100)] });
    const along: Vec = [700 + 100 * Math.cos(Math.PI / 6), 800 + 100 * Math.sin(Math.PI / 6)];
    expect(distance(applyHomography(fit.toPlane, turned.origin), [0, 0])).toBeLessThan(1e-9);
    expect(distance(applyHomography(fit.toPlane, along), [10, 0])).toBeLessThan(1e-6);
    expect(applyHomography(fit.toPlane, [700, 700])[1]).toBeGreaterThan(0);
  });

  it('grows its plus-minus away from what was measured', () => {
    const fit = fitted({ evidence: [length('a', at(1000, 1000), at(2000, 1000), 100)] });
    const near = positionSigma(fit, at(1500, 1000, 0.01));
    const far = positionSigma(fit, at(3500, 2600, 0.01));
    const further = positionSigma(fit, at(4000, 3000, 0.01));
    expect(near).toBeLessThan(0.01);
    expect(far).toBeGreaterThan(1);
    expect(further).toBeGreaterThan(far);
  });

  it('says what a click costs where nothing else is in doubt', () => {
    // A scan of 10 px/mm with an exact length from exact points: what is left of a 10 mm distance is its own two clicks
    // and the stretch that a scan is allowed.
    const fit = fitted({ picture: scan, evidence: [length('a', at(100, 100, 1e-6), at(4100, 100, 1e-6), 400, 1e-6)] });
    const { sigma } = measuredLength(fit, at(1000, 1000), at(1100, 1000));
    expect(sigma).toBeCloseTo(Math.SQRT2 / 10, 3);
  });

  it('is taken back without loss', () => {
    const fit = fitted({ evidence: [length('a', at(1000, 1000), at(2000, 1000), 100), length('b', at(300, 2800), at(300, 300), 260)] });
    for (const place of [[0, 0], [4032, 3024], [17, 2900]] as const) {
      expect(distance(applyHomography(fit.toSheet, applyHomography(fit.toPlane, place)), place)).toBeLessThan(1e-8);
    }
    const round = compose(inverse(fit.toPlane), fit.toPlane).map((v, _, all) => v / all[8]!);
    [1, 0, 0, 0, 1, 0, 0, 0, 1].forEach((wanted, i) => expect(round[i]).toBeCloseTo(wanted, 9));
  });
});

describe('checks', () => {
  const evidence = [length('card', at(1000, 1000), at(1926, 1000), 85.6)];
  it('agree or differ, and never change the fit', () => {
    const right = length('rule', at(300, 2800), at(2896, 2800), 240, 0.1, true);
    const wrong = { ...right, mm: 200 };
    const fit = fitted({ evidence: [...evidence, right] });
    expect(fit.values).toEqual(fitted({ evidence }).values);
    expect(checkLength(fit, right).verdict).toBe('agrees');
    expect(checkLength(fit, wrong).verdict).toBe('differs');
  });
});

it('says when lengths contradict each other, and widens the plus-minus', () => {
  const good = [length('a', at(1000, 1000), at(2000, 1000), 100), length('b', at(1000, 1100), at(2000, 1100), 100)];
  const bad = [good[0]!, { ...good[1]!, mm: 108 }];
  expect(fitted({ evidence: good }).warnings).toEqual([]);
  const fit = fitted({ evidence: bad });
  expect(fit.warnings).toEqual(['evidence-disagrees']);
  expect(fit.covariance.get(0, 0)).toBeGreaterThan(100 * fitted({ evidence: good }).covariance.get(0, 0));
});

it('corrects the parallax of a height that is given', () => {
  // 85.6 mm over 926 px through 52 mm on 35 mm film: the camera stands Z above; what is 3 mm nearer is Z/(Z − 3) larger.
  const evidence = [length('card', at(1553, 1512), at(2479, 1512), 85.6)];
  const flat = fitted({ evidence, lift: { mm: 0, sigma: 0.1 } });
  const lifted = fitted({ evidence, lift: { mm: 3, sigma: 0.1 } });
  const focal = (52 / Math.hypot(36, 24)) * Math.hypot(4032, 3024);
  const height = (85.6 * focal) / 926;
  const ratio = measuredLength(lifted, at(900, 1512), at(3000, 1512)).value / measuredLength(flat, at(900, 1512), at(3000, 1512)).value;
  expect(ratio).toBeCloseTo(1 - 3 / height, 6);
});

it.each([
  [length('a', at(1, 1), at(900, 1), 0), 'evidence-length-not-positive'],
  [length('a', at(1, 1), at(900, 1), -4), 'evidence-length-not-positive'],
  [length('a', at(1, 1), at(2, 1), 5), 'evidence-ends-coincide'],
  [length('a', at(1, 1), at(900, NaN), 5), 'evidence-not-a-number'],
  [length('a', at(1, 1), at(900, 1), 5, 0), 'evidence-sigma-not-positive'],
])('refuses what cannot be evidence', (evidence, code) => {
  expect(fitView({ picture: photo, datum, evidence: [evidence], lift: { mm: 0, sigma: 1 } })).toMatchObject({ ok: false, code, detail: { id: 'a' } });
});

it('has no scale without evidence, and checks do not count', () => {
  expect(fitted({ evidence: [] }).scaled).toBe(false);
  expect(fitted({ evidence: [length('a', at(1, 1), at(900, 1), 5, 0.1, true)] }).scaled).toBe(false);
});

/**
 * The plus-minus is true: worlds are drawn from what the model assumes, photographed, clicked at and fitted; the truth of a
 * length that was not measured has to lie within two sigma about 95 times in 100.
 */
describe.each([
  ['a photo by hand', photo, 900], ['a scan', scan, 900],
] as const)('over many trials, %s', (_name, picture, trials) => {
  it('covers the truth within two sigma 93 to 97 times in 100, with the spread it states', () => {
    const random = createRandom(20260514);
    const model = modelFor(picture, { mm: 0, sigma: ASSUMED_LIFT });
    let covered = 0;
    let normalized = 0;
    for (let i = 0; i < trials; i++) {
      const truth = model.start.map((value, k) => {
        const assumed = model.assumed.find(({ name }) => name === model.names[k]);
        return assumed ? assumed.value + assumed.sigma * random.normal() : picture.kind === 'photo' ? Math.log(500 + 100 * random.uniform()) : value;
      });
      const [flat, lifted] = [model.homography(truth, false), model.homography(truth, true)];
      const place = (): Vec => [picture.width * (0.1 + 0.8 * random.uniform()), picture.height * (0.1 + 0.8 * random.uniform())];
      const click = (p: Vec): SheetPoint => at(p[0] + random.normal(), p[1] + random.normal());
      const evidence = [0, 1].map((id) => {
        const a = place();
        const b: Vec = [a[0] + (id ? 0 : 900), a[1] + (id ? 900 : 0)];
        const true_ = distance(applyHomography(flat, a), applyHomography(flat, b));
        return length(String(id), click(a), click(b), true_ + 0.1 * random.normal());
      });
      const fit = fitted({ picture, datum: { origin: [0, picture.height], direction: 0 }, evidence });
      const [p, q] = [place(), place()];
      const said = measuredLength(fit, click(p), click(q));
      const off = (said.value - distance(applyHomography(lifted, p), applyHomography(lifted, q))) / said.sigma;
      if (Math.abs(off) <= 2) covered++;
      normalized += off * off;
    }
    expect(covered / trials).toBeGreaterThan(0.93);
    expect(covered / trials).toBeLessThan(0.97);
    expect(Math.sqrt(normalized / trials)).toBeGreaterThan(0.9);
    expect(Math.sqrt(normalized / trials)).toBeLessThan(1.1);
  });
});

describe('the engine', () => {
  it('fits a straight line as the normal equations do', () => {
    // A worked example whose answer is by hand: y = 1 + 2x through (0,1), (1,3), (2,5.3), sigma 0.1.
    const points = [[0, 1], [1, 3], [2, 5.3]] as const;
    const problem = {
      blocks: [{ id: 'line', start: [0, 0] }],
      observations: points.map(([x, y], i) => ({ group: String(i), origin: 'stated' as const, blocks: ['line'], residuals: ([v]: readonly (readonly number[])[]) => [(v![0]! + v![1]! * x - y) / 0.1] })),
    };
    const solution = solve(problem);
    const covariance = covarianceOf(problem, solution);
    expect(solution.values.get('line')![0]).toBeCloseTo(0.95, 9);
    expect(solution.values.get('line')![1]).toBeCloseTo(2.15, 9);
    // Covariance sigma² (AᵀA)⁻¹ with AᵀA = [[3, 3], [3, 5]]: variances 5/6 and 1/2 of sigma².
    expect(covariance.kind === 'ok' && covariance.matrix.get(0, 0)).toBeCloseTo((5 / 6) * 0.01, 9);
    expect(covariance.kind === 'ok' && covariance.matrix.get(1, 1)).toBeCloseTo(0.5 * 0.01, 9);
  });

  it('names what is undetermined instead of giving a number', () => {
    const problem = { blocks: [{ id: 'seen', start: [1] }, { id: 'unseen', start: [1] }], observations: [{ group: 'a', origin: 'stated' as const, blocks: ['seen'], residuals: ([v]: readonly (readonly number[])[]) => [v![0]! - 2] }] };
    expect(covarianceOf(problem, solve(problem))).toMatchObject({ kind: 'rank-deficient', undetermined: ['unseen'] });
  });

  // 99 % quantiles of chi-square: 6.635, 9.210, 23.209 for 1, 2, 10 freedoms (Abramowitz & Stegun, table 26.8).
  it('knows the 99 % quantile of chi-square within 1 %', () => {
    for (const [freedoms, quantile] of [[1, 6.635], [2, 9.21], [10, 23.209]] as const) expect(Math.abs(chiSquareQuantile99(freedoms) / quantile - 1)).toBeLessThan(0.01);
  });

  it('propagates a product as the textbook does', () => {
    const { value, sigma } = propagate(([a, b]) => a! * b!, [3, 4], new Matrix([[0.01, 0], [0, 0.04]]));
    expect(value).toBe(12);
    expect(sigma).toBeCloseTo(Math.sqrt(16 * 0.01 + 9 * 0.04), 9);
  });
});

it('assumes a hand that is square-on within 3° on screen', () => {
  expect((2 * ASSUMED_TILT * 180) / Math.PI).toBeCloseTo(3, 12);
});
