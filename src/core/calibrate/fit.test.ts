import fc from 'fast-check';
import { slopesByDifferences } from '../adjust';
import { distance, type Vec } from '../geometry';
import {
  ASSUMED,
  bowed,
  checkEvidence,
  errorEllipse,
  fitView,
  isMonotone,
  listAdvice,
  listDoubts,
  measuredLength,
  measuredPlace,
  OWN_PLANE,
  positionSigma,
  readEvidence,
  scaleInMiddle,
  squaredFrame,
  straightened,
  toPlane,
  toSheet,
  unscaledFit,
  type Observation,
  type Fit,
  type FitInput,
  type PictureGeometry,
  type Points,
  type SheetPoint,
} from '.';
import { conditionsOf, type EvidenceContext } from './evidence';
import { createSlopes } from './map-slopes';
import { mapBlocks, chooseModel } from './models';
import { pointedByHand, trueMap } from './simulation';
import { allowanceOf, createTeller } from './stories';

const photo: PictureGeometry = { width: 4032, height: 3024, kind: 'photo', focal35mm: 52 };
const scan: PictureGeometry = { width: 4960, height: 7016, kind: 'scan' };
const drawing: PictureGeometry = { width: 4960, height: 7016, kind: 'drawing' };
const datum = { origin: [0, 3024] as const, direction: 0 };
const at = (x: number, y: number, sigma = 1): SheetPoint => ({ at: [x, y], sigma });

/** A length between two points of its own, with these points. */
function span(
  id: string,
  from: SheetPoint,
  to: SheetPoint,
  mm: number,
  sigma = 0.1,
  check = false,
): { piece: Observation; points: Points } {
  return {
    piece: { id, kind: 'length', from: `${id}:a`, to: `${id}:b`, mm, sigma, check },
    points: { [`${id}:a`]: from, [`${id}:b`]: to },
  };
}

function inputOf(spans: readonly ReturnType<typeof span>[], more: Partial<FitInput> = {}): FitInput {
  return {
    picture: photo,
    datum,
    lift: { mm: 0, sigma: ASSUMED.lift },
    points: Object.assign({}, ...spans.map(({ points }) => points)),
    evidence: spans.map(({ piece }) => piece),
    ...more,
  };
}

function fitted(input: FitInput): Fit {
  const fit = fitView(input);
  if (!fit.ok) throw new Error(`${fit.code} ${JSON.stringify(fit.detail)}`);
  return fit.value;
}

describe('a fit from one length', () => {
  const one = inputOf([span('a', at(1000, 1000), at(2000, 1000), 100)]);

  it('has the scale of that length, and no more', () => {
    const fit = fitted(one);
    expect(measuredLength(fit, at(500, 2500), at(500, 1500)).value).toBeCloseTo(100, 4);
    expect(fit.diagnosis).toMatchObject({ redundancy: 0, varianceFactor: null, isConsistent: null });
    expect(fit.diagnosis!.groups.find(({ group }) => group === 'a')!.normalized).toBeNull();
    expect(fit.parts.filter(({ from }) => from === 'assumed').map(({ part }) => part)).toEqual([
      'tilt',
      'focal',
      'lens',
      'lens-centre',
    ]);
  });

  it('puts the datum at zero with its direction along x, y up', () => {
    const turned = { origin: [700, 800] as const, direction: Math.PI / 6 };
    const fit = fitted({ ...one, datum: turned });
    expect(distance(fit.toPlane(turned.origin), [0, 0])).toBeLessThan(1e-9);
    expect(
      Math.abs(fit.toPlane([700 + 100 * Math.cos(Math.PI / 6), 800 + 100 * Math.sin(Math.PI / 6)])[1]),
    ).toBeLessThan(1e-6);
    expect(fit.toPlane([700, 700])[1]).toBeGreaterThan(0);
  });

  it('grows its plus-minus away from what was measured', () => {
    const fit = fitted({ ...one, lift: { mm: 0, sigma: 1e-6 } });
    const near = positionSigma(fit, at(1500, 1000, 0.01));
    const [far, further] = [positionSigma(fit, at(3500, 2600, 0.01)), positionSigma(fit, at(4000, 3000, 0.01))];
    expect(near).toBeLessThan(0.01);
    expect(far).toBeGreaterThan(1);
    expect(further).toBeGreaterThan(far);
    expect(errorEllipse(fit, at(4000, 3000, 0.01)).axes[0]).toBe(further);
    expect(listDoubts(fit)[0]!.part).toBe('tilt');
  });

  it('says what a click costs where nothing else is in doubt', () => {
    const fit = fitted(
      inputOf([span('a', at(100, 100, 1e-6), at(4100, 100, 1e-6), 400, 1e-6)], { picture: scan, model: 'similarity' }),
    );
    expect(measuredLength(fit, at(1000, 1000), at(1100, 1000)).sigma).toBeCloseTo(Math.SQRT2 / 10, 6);
  });

  it('knows a place on an edge of the picture better across it than along', () => {
    const fit = fitted(
      inputOf([span('a', at(100, 100, 1e-6), at(4100, 100, 1e-6), 400, 1e-6)], { picture: scan, model: 'similarity' }),
    );
    // Two upright edges, 1000 px apart: their normals lie along x, which is where the length runs.
    const onEdge = (x: number, y: number): SheetPoint => ({ ...at(x, y, 3), edge: { normal: 0, sigma: 0.2 } });
    expect(measuredLength(fit, onEdge(1000, 1000), onEdge(2000, 1000)).sigma).toBeCloseTo((Math.SQRT2 * 0.2) / 10, 6);
    expect(measuredLength(fit, onEdge(1000, 1000), onEdge(1000, 2000)).sigma).toBeCloseTo((Math.SQRT2 * 3) / 10, 6);
  });

  it('says how good a place is whatever zero and level were chosen', () => {
    const place = at(3300, 2100, 0.01);
    const turned = { origin: [3000, 2900] as const, direction: 0.6 };
    expect(positionSigma(fitted({ ...one, datum: turned }), place)).toBeCloseTo(positionSigma(fitted(one), place), 6);
  });

  it('squares the picture up in a frame that holds it, no larger than is wished', () => {
    const fit = fitted(one);
    const whole = squaredFrame(fit, 1e9);
    expect(whole.perMm).toBeCloseTo(scaleInMiddle(fit), 9);
    for (const corner of [
      [0, 0],
      [4032, 3024],
      [4032, 0],
    ] as const) {
      const [x, y] = fit.toPlane(corner);
      const [u, v] = [(x - whole.corner[0]) * whole.perMm, (whole.corner[1] - y) * whole.perMm];
      expect(u >= -1 && v >= -1 && u <= whole.width + 1 && v <= whole.height + 1).toBe(true);
    }
    const small = squaredFrame(fit, 1e6);
    expect(small.width * small.height).toBeLessThan(1.01e6);
  });

  it('advises a second length across the first, and says what it brings', () => {
    const [first] = listAdvice(fitted(one), {
      within: [
        [500, 500],
        [3500, 500],
        [3500, 2500],
        [500, 2500],
      ],
      clickSigma: 1,
      sigmaOf: () => 0.1,
    });
    const now = first!.worstSigmaNow;
    const measured = span(
      'b',
      at(...first!.from),
      at(...first!.to),
      measuredLength(fitted(one), at(...first!.from), at(...first!.to)).value,
    );
    const then = listAdvice(
      fitted({ ...one, points: { ...one.points, ...measured.points }, evidence: [...one.evidence, measured.piece] }),
      {
        within: [
          [500, 500],
          [3500, 500],
          [3500, 2500],
          [500, 2500],
        ],
        clickSigma: 1,
        sigmaOf: () => 0.1,
      },
    );
    expect(first!.worstSigmaThen).toBeLessThan(0.8 * now);
    expect((then[0]?.worstSigmaNow ?? first!.worstSigmaThen) / first!.worstSigmaThen).toBeCloseTo(1, 1);
  });
});

it('takes places to the plane and back without loss, lens and slant and all', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -0.6, max: 0.6, noNaN: true }),
      fc.double({ min: -0.6, max: 0.6, noNaN: true }),
      fc.double({ min: -0.1, max: 0.1, noNaN: true }),
      fc.double({ min: 0, max: 4032, noNaN: true }),
      fc.double({ min: 0, max: 3024, noNaN: true }),
      (across, up, k1, x, y) => {
        const map = trueMap(photo, 'camera', 'k1k2', [6, across, up, 0.8, k1, k1 / 5]);
        expect(distance(toSheet(map, toPlane(map, [x, y])), [x, y])).toBeLessThan(1e-7);
      },
    ),
  );
});

it('undoes a lens that keeps its order, and says when one does not', () => {
  expect(isMonotone({ k1: -0.2, k2: 0.02 })).toBe(true);
  expect(isMonotone({ k1: -0.5, k2: 0 })).toBe(false);
  expect(
    distance(
      straightened(
        { k1: -0.2, k2: 0.02, centre: [0.02, -0.03] },
        bowed({ k1: -0.2, k2: 0.02, centre: [0.02, -0.03] }, [0.6, 0.5]),
      ),
      [0.6, 0.5],
    ),
  ).toBeLessThan(1e-12);
});

const PLACES: Readonly<Record<string, Vec>> = {
  a: [-100, -60],
  b: [110, -70],
  c: [100, 70],
  d: [-90, 80],
  e: [20, 10],
  f: [-40, 30],
};
const KINDS: readonly Observation[] = [
  { id: 'length', kind: 'length', from: 'a', to: 'b', mm: 200, sigma: 0.3 },
  {
    id: 'equal',
    kind: 'equal',
    lines: [
      ['a', 'b'],
      ['c', 'd'],
    ],
  },
  { id: 'circle', kind: 'circle', through: ['a', 'b', 'c', 'e'], diameterMm: 200, sigma: 0.1 },
  { id: 'corners', kind: 'rectangle', corners: ['a', 'b', 'c', 'd'], widthMm: 200, heightMm: 140, sigma: 0.1 },
  {
    id: 'sides',
    kind: 'rectangle',
    sides: [
      ['a', 'b'],
      ['b', 'c'],
      ['c', 'd'],
      ['d', 'a'],
    ],
    proportion: 1.4,
    sigma: 1,
  },
  {
    id: 'parallel',
    kind: 'parallel',
    lines: [
      ['a', 'b'],
      ['c', 'd'],
    ],
  },
  {
    id: 'square',
    kind: 'square',
    lines: [
      ['a', 'b'],
      ['b', 'c'],
    ],
    sigmaDegrees: 0.5,
  },
  {
    id: 'angle',
    kind: 'angle',
    lines: [
      ['a', 'b'],
      ['a', 'e'],
    ],
    degrees: 30,
  },
  { id: 'level', kind: 'level', line: ['a', 'b'], degrees: 5 },
  { id: 'straight', kind: 'straight', through: ['a', 'e', 'c'] },
  { id: 'known', kind: 'known-point', point: 'e', mm: [10, 20], sigma: 0.1 },
];

describe('slopes in closed form', () => {
  it.each(KINDS.map((piece) => [piece.id, piece] as const))('of %s are those by differences', (_id, piece) => {
    const model = chooseModel(photo, 'auto', 'auto', { turns: true, shifts: true });
    const numbers = [6, 0.2, -0.3, 0.8, 0.03, -0.01, 0.02, -0.01, 0.1, 5, -7];
    const points = pointedByHand(model.mapAt(numbers, OWN_PLANE), PLACES, 1, undefined);
    const context: EvidenceContext = {
      model,
      points,
      slopesAt: (parts, height) => createSlopes(model)(parts.flat(), height),
      place: (name) => PLACES[name]!,
    };
    const { conditions, blocks } = conditionsOf(piece, context);
    expect(conditions.some((condition) => condition.linearize)).toBe(true);
    const known = new Map([...mapBlocks(model, numbers), ...blocks].map(({ id, start }) => [id, start]));
    for (const condition of conditions) {
      const values = condition.blocks.map((id) => [...(known.get(id) ?? points[id.replace('point:', '')]!.at)]);
      const closed = condition.linearize?.(values).slopes;
      const byDifferences = slopesByDifferences(condition, values);
      closed?.forEach((row, i) =>
        row.forEach((slope, k) =>
          expect(Math.abs(slope - byDifferences[i]![k]!)).toBeLessThan(1e-4 * Math.max(1, Math.abs(slope))),
        ),
      );
    }
  });
});

describe('checks', () => {
  const card = span('card', at(1000, 1000), at(1926, 1000), 85.6);
  it('agree or differ, and never change the fit', () => {
    const right = span('rule', at(300, 2800), at(2896, 2800), 240, 0.1, true);
    const fit = fitted(inputOf([card, right]));
    expect(fit.values).toEqual(fitted(inputOf([card])).values);
    expect(checkEvidence(fit, right.piece).verdict).toBe('agrees');
    expect(checkEvidence(fit, { ...right.piece, mm: 200 } as Observation).verdict).toBe('differs');
  });
});

describe('pieces that disagree', () => {
  const two = (mm: number) =>
    inputOf([span('a', at(1000, 1000), at(2000, 1000), 100), span('b', at(1000, 1100), at(2000, 1100), mm)]);
  it('widen the plus-minus when nothing tells which is wrong, and both are named', () => {
    expect(fitted(two(100)).warnings).toEqual([]);
    const fit = fitted(two(108));
    expect(fit).toMatchObject({ warnings: ['evidence-disagrees'], suspects: ['a', 'b'], suspectsKept: true });
    expect(fit.covariance.get(0, 0)).toBeGreaterThan(10 * fitted(two(100)).covariance.get(0, 0));
  });

  it('leave the one out that the others contradict', () => {
    const fit = fitted(
      inputOf([
        span('a', at(1000, 1000), at(2000, 1000), 100),
        span('b', at(1000, 1100), at(2000, 1100), 108),
        span('c', at(1000, 1200), at(2000, 1200), 100),
      ]),
    );
    expect(fit).toMatchObject({ warnings: [], suspects: ['b'], suspectsKept: false });
  });

  it('let a copy be stretched before anybody’s word is doubted', () => {
    // 10 px a mm upright, 10.18 across: two heights and a width.
    const fit = fitted(
      inputOf(
        [
          span('w', at(500, 500), at(4572, 500), 400),
          span('h1', at(500, 500), at(500, 6500), 600),
          span('h2', at(4000, 500), at(4000, 6500), 600),
        ],
        { picture: drawing },
      ),
    );
    const stretch = fit.parts.find(({ part }) => part === 'stretch')!;
    expect(fit.suspects).toEqual([]);
    expect(['found', 'overruled']).toContain(stretch.from);
    expect(Math.expm1(Math.abs(stretch.values[0]!))).toBeCloseTo(0.018, 3);
  });
});

it('corrects the parallax of a height that is given', () => {
  // 85.6 mm over 926 px through 52 mm on 35 mm film: the camera stands Z above; what is 3 mm nearer is Z / (Z − 3) larger.
  const card = span('card', at(1553, 1512), at(2479, 1512), 85.6);
  const [flat, lifted] = [0, 3].map((mm) => fitted(inputOf([card], { lift: { mm, sigma: 0.1 } })));
  const focal = (52 / Math.hypot(36, 24)) * Math.hypot(4032, 3024);
  const ratio =
    measuredLength(lifted!, at(900, 1512), at(3000, 1512)).value /
    measuredLength(flat!, at(900, 1512), at(3000, 1512)).value;
  expect(ratio).toBeCloseTo(1 - 3 / ((85.6 * focal) / 926), 6);
  // A point that says its own height needs no height of what is traced.
  expect(measuredLength(flat!, { ...at(900, 1512), height: 3 }, { ...at(3000, 1512), height: 3 }).value).toBeCloseTo(
    measuredLength(lifted!, at(900, 1512), at(3000, 1512)).value,
    6,
  );
});

describe('a rectangle pointed at in any order', () => {
  // A card of 85.6 × 53.98 mm at 10 px a mm, its corners around from the lower left one.
  const corners: Readonly<Record<string, SheetPoint>> = {
    a: at(1000, 2000),
    b: at(1856, 2000),
    c: at(1856, 1460.2),
    d: at(1000, 1460.2),
  };
  const card = (order: string): FitInput =>
    inputOf([], {
      points: corners,
      evidence: [{ id: 'card', kind: 'rectangle', corners: [...order], widthMm: 85.6, heightMm: 53.98, sigma: 0.06 }],
    });
  const sizeOf = (order: string) => measuredLength(fitted(card(order)), at(500, 500), at(1500, 500)).value;

  it.each(['abcd', 'dcba', 'acbd', 'adbc', 'bcda', 'badc', 'cabd', 'dbca'])(
    '%s: put in order, begun on the side that fits, and read off the right way round',
    (order) => {
      const fit = fitted(card(order));
      expect(fit.suspects).toEqual([]);
      expect(sizeOf(order)).toBeCloseTo(100, 1);
      const [width, height] = readEvidence(fit, card(order).evidence[0]!);
      expect(width!.comesTo.value).toBeCloseTo(85.6, 1);
      expect(height!.comesTo.value).toBeCloseTo(53.98, 1);
    },
  );

  it('is checked the right way round too', () => {
    const scale = span('rule', at(500, 500), at(2500, 500), 200);
    const input = card('bcda');
    const check = { ...input.evidence[0]!, check: true } as Observation;
    const fit = fitted({ ...input, points: { ...corners, ...scale.points }, evidence: [scale.piece, check] });
    expect(checkEvidence(fit, check).verdict).toBe('agrees');
  });

  it('has sides that may be begun anywhere, on a slanted photo', () => {
    const map = trueMap(photo, 'auto', 'auto', [5.5, 0.5, 0.3, Math.log(52 / (Math.hypot(36, 24) / 2)), 0, 0, 0, 0]);
    const sides: Readonly<Record<string, Vec>> = {
      s0: [-30, -27],
      s1: [30, -27],
      e0: [42.8, -20],
      e1: [42.8, 20],
      n0: [30, 26.98],
      n1: [-30, 26.98],
      w0: [-42.8, 20],
      w1: [-42.8, -20],
    };
    const points = pointedByHand(map, sides, 0.2, undefined);
    const order = ['e', 's', 'n', 'w'].map((side) => [`${side}0`, `${side}1`]);
    const fit = fitted({
      picture: photo,
      datum,
      lift: { mm: 0, sigma: 1e-9 },
      points,
      evidence: [{ id: 'card', kind: 'rectangle', sides: order, widthMm: 85.6, heightMm: 53.98, sigma: 0.06 }],
    });
    expect(fit.suspects).toEqual([]);
    expect(measuredLength(fit, points.s0!, points.s1!).value).toBeCloseTo(60, 0);
  });
});

describe('frames', () => {
  it('are those of known places, to which the datum yields', () => {
    const map = trueMap(photo, 'similarity', 'none', [5]);
    const points = pointedByHand(map, PLACES, 0.5, undefined);
    const moved = (name: string): Vec => [1000 - PLACES[name]![1], 500 + PLACES[name]![0]];
    const fit = fitted({
      picture: photo,
      datum,
      lift: { mm: 0, sigma: 1e-6 },
      points,
      model: 'similarity',
      evidence: ['a', 'c'].map((point) => ({ id: point, kind: 'known-point', point, mm: moved(point), sigma: 0.1 })),
    });
    const [x, y] = measuredPlace(fit, points.e!);
    expect(x.value).toBeCloseTo(moved('e')[0], 4);
    expect(y.value).toBeCloseTo(moved('e')[1], 4);
  });

  it('turn with a level line', () => {
    const fit = fitted(
      inputOf([span('a', at(1000, 1000), at(2000, 1000), 100)], {
        model: 'similarity',
        points: { 'a:a': at(1000, 1000), 'a:b': at(2000, 1000), p: at(1000, 2000), q: at(2000, 1900) },
        evidence: [
          { id: 'a', kind: 'length', from: 'a:a', to: 'a:b', mm: 100, sigma: 0.1 },
          { id: 'l', kind: 'level', line: ['p', 'q'], degrees: 0 },
        ],
      }),
    );
    expect(fit.toPlane([2000, 1900])[1] - fit.toPlane([1000, 2000])[1]).toBeCloseTo(0, 6);
  });
});

describe('what cannot be fitted', () => {
  const points: Points = {
    a: at(1, 1),
    b: at(900, 1),
    c: at(2, 1),
    n: at(900, NaN),
    line: at(1800, 1),
    far: at(2700, 1),
    s: at(5, 5, 0),
    p: at(500, 900),
    q: at(600, 1700),
    inside: at(500, 400),
  };
  const length = { id: 'x', kind: 'length', from: 'a', to: 'b', mm: 5, sigma: 0.1 } as const;
  const cases: readonly (readonly [string, Observation[], Partial<FitInput>?])[] = [
    ['evidence-length-not-positive', [{ ...length, mm: 0 }]],
    ['evidence-length-not-positive', [{ ...length, mm: -4 }]],
    ['evidence-ends-coincide', [{ ...length, to: 'c' }]],
    ['evidence-ends-coincide', [{ ...length, to: 'a' }]],
    ['evidence-not-a-number', [{ ...length, to: 'n' }]],
    ['evidence-not-a-number', [{ ...length, mm: NaN }]],
    ['evidence-sigma-not-positive', [{ ...length, sigma: 0 }]],
    ['evidence-sigma-not-positive', [{ ...length, to: 's' }]],
    ['evidence-point-unknown', [{ ...length, to: 'nowhere' }]],
    ['evidence-points-in-line', [{ id: 'x', kind: 'circle', through: ['a', 'b', 'line'], diameterMm: 5, sigma: 1 }]],
    ['evidence-too-few-points', [{ id: 'x', kind: 'circle', through: ['a', 'b'], diameterMm: 5, sigma: 1 }]],
    [
      'evidence-corners-not-around',
      [{ id: 'x', kind: 'rectangle', corners: ['a', 'b', 'q', 'inside'], widthMm: 5, sigma: 1 }],
    ],
    ['evidence-too-few-lines', [{ id: 'x', kind: 'parallel', lines: [['a', 'b']] }]],
    ['scale-undetermined', []],
    ['scale-undetermined', [{ ...length, check: true }]],
    ['scale-undetermined', [{ id: 'x', kind: 'straight', through: ['a', 'b', 'p'] }]],
    ['tilt-undetermined', [length], { model: 'projective' }],
    ['stretch-undetermined', [length], { model: 'two-scale' }],
  ];
  it.each(cases.map(([code, evidence, more]) => ({ code, evidence, more })))('$code', ({ code, evidence, more }) => {
    expect(fitView({ picture: photo, datum, points, evidence, lift: { mm: 0, sigma: 1 }, ...more })).toMatchObject({
      ok: false,
      code,
    });
  });

  describe('exact relations that contradict each other', () => {
    const lines = [
      ['a', 'b'],
      ['p', 'q'],
    ] as const;
    const pair: Observation[] = [
      length,
      { id: 'p', kind: 'parallel', lines },
      { id: 't', kind: 'angle', lines, degrees: 20 },
    ];
    const withLine = (degrees: number, sigma: number) =>
      fitView({
        picture: photo,
        datum,
        evidence: pair,
        lift: { mm: 0, sigma: 1 },
        model: 'similarity',
        points: {
          a: at(1, 1, sigma),
          b: at(900, 1, sigma),
          p: at(500, 900, sigma),
          q: at(
            500 + 800 * Math.cos((degrees * Math.PI) / 180),
            900 - 800 * Math.sin((degrees * Math.PI) / 180),
            sigma,
          ),
        },
      });
    it('are refused when the points do not tell which is right', () => {
      expect(withLine(10, 60)).toMatchObject({ ok: false, code: 'evidence-contradicts' });
    });
    it('leave the one out that the points contradict, or both', () => {
      expect(withLine(20, 1)).toMatchObject({ ok: true, value: { suspects: ['p'], suspectsKept: false } });
      expect(withLine(10, 1)).toMatchObject({ ok: true, value: { suspects: ['p', 't'], suspectsKept: false } });
    });
  });
});

it('reads a piece off the fit as it was pointed', () => {
  const fit = fitted(
    inputOf([span('a', at(1000, 1000), at(2000, 1000), 100), span('b', at(1000, 1100), at(2000, 1100), 100)]),
  );
  const [figure] = readEvidence(fit, { id: 'a', kind: 'length', from: 'a:a', to: 'a:b', mm: 99, sigma: 0.1 });
  expect(figure).toMatchObject({ figure: { name: 'length', said: 99 } });
  expect(figure!.difference).toBeCloseTo(1, 1);
});

it('has no scale, and claims nothing, without evidence', () => {
  const fit = unscaledFit({ picture: photo, datum });
  expect(fit.scaled).toBe(false);
  expect(fit.toPlane([10, 3014])).toEqual([expect.closeTo(10, 9), expect.closeTo(10, 9)]);
});

it('assumes a hand that is square-on within 3° on screen', () => {
  expect((2 * ASSUMED.tilt * 180) / Math.PI).toBeCloseTo(3, 12);
});

it('stories are told until so many pieces were adjusted, and what was told before is still known', () => {
  const { points, evidence, lift } = inputOf([
    span('a', at(1000, 1000), at(2000, 1000), 100),
    span('b', at(1000, 2000), at(2000, 2000), 100),
    span('c', at(1000, 1000), at(1000, 2000), 100),
  ]);
  const tellOf = (most?: number) =>
    createTeller(
      chooseModel(scan, 'similarity', 'none', { turns: false, shifts: false }),
      evidence,
      { points, lift },
      () => true,
      undefined,
      most === undefined ? undefined : allowanceOf(most),
    ).tell;
  const aside = [[], ['a'], ['b'], ['c']].map((ids) => new Set(ids));
  const told = (most?: number) => {
    const tell = tellOf(most);
    return [...aside, aside[0]!].map((ids) => tell(new Set(), ids) !== undefined);
  };
  expect(told()).toEqual([true, true, true, true, true]);
  expect(told(2 * evidence.length)).toEqual([true, true, false, false, true]);
});
