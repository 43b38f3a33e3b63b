/** Monte Carlo: over many worlds drawn from what is stated or assumed, the truth lies where the plus-minus says. */
import { distance, type Vec } from '../geometry';
import {
  ASSUMED,
  averagedPoint,
  fitView,
  measuredLength,
  steadinessOf,
  type Observation,
  type Fit,
  type FitInput,
  type LensWish,
  type ModelWish,
  type PictureGeometry,
  type Points,
} from '.';
import { lensSigma } from './models';
import type { Random } from '../basics';
import { createRandom, placesUnder, pointedByHand, trueMap } from './simulation';
import type { SheetMap } from './sheet-map';

const photo: PictureGeometry = { width: 4032, height: 3024, kind: 'photo', focal35mm: 26 };
const drawing: PictureGeometry = { ...photo, kind: 'drawing' };
const datum = { origin: [0, 3024] as const, direction: 0 };
const FOCAL = Math.log(26 / (Math.hypot(36, 24) / 2));
/** A camera 330 mm above the plane. */
const ABOVE = Math.log(330);

/** True places on the plane, mm: a big quadrilateral, a card by its sides, a ring of 50 mm, points in a line, and what is asked for. */
const ring = (turn: number): Vec => [80 + 25 * Math.cos(turn), 40 + 25 * Math.sin(turn)];
const PLANE: Readonly<Record<string, Vec>> = {
  a: [-120, -80],
  b: [130, -85],
  c: [125, 90],
  d: [-115, 88],
  e: [0, 10],
  g: [-60, 70],
  h: [70, -60],
  q: [10, -50],
  r1: [-40, -27],
  r2: [45.6, -27],
  r3: [45.6, 26.98],
  r4: [-40, 26.98],
  s1: [-30, -27],
  s2: [30, -27],
  s3: [45.6, -20],
  s4: [45.6, 20],
  s5: [30, 26.98],
  s6: [-30, 26.98],
  s7: [-40, 20],
  s8: [-40, -20],
  k0: ring(0),
  k1: ring(Math.PI / 2),
  k2: ring(Math.PI),
  k3: ring(-Math.PI / 2),
  k4: ring(Math.PI / 4),
  k5: ring((-3 * Math.PI) / 4),
  l1: [-100, 0],
  l2: [-30, 35],
  l3: [40, 70],
  l4: [5, 52.5],
};
const SIDES = [
  ['s1', 's2'],
  ['s3', 's4'],
  ['s5', 's6'],
  ['s7', 's8'],
];
const CORNERS = ['r1', 'r2', 'r3', 'r4'];
const ROUND = ['k0', 'k1', 'k2', 'k3', 'k4', 'k5'];
const LINE = ['l1', 'l2', 'l3', 'l4'];

type Noise = () => number;
const length = (id: string, from: string, to: string, noise: Noise, sigma = 0.2): Observation => ({
  id,
  kind: 'length',
  from,
  to,
  mm: distance(PLANE[from]!, PLANE[to]!) + sigma * noise(),
  sigma,
});
const card = (noise: Noise, sigma: number, by: { corners: string[] } | { sides: string[][] }): Observation => ({
  id: 'card',
  kind: 'rectangle',
  ...by,
  widthMm: 85.6 + sigma * noise(),
  heightMm: 53.98 + sigma * noise(),
  sigma,
});
const SIX = [
  ['a', 'b'],
  ['b', 'c'],
  ['c', 'd'],
  ['d', 'a'],
  ['a', 'c'],
  ['g', 'h'],
] as const;

function fitOf(input: Pick<FitInput, 'points' | 'evidence'> & Partial<FitInput>): Fit {
  const fit = fitView({ picture: photo, datum, lift: { mm: 0, sigma: 1e-9 }, ...input });
  if (!fit.ok) throw new Error(`${fit.code} ${JSON.stringify(fit.detail)}`);
  return fit.value;
}

interface Tally {
  covered: number;
  squares: number;
  sigmas: number;
  /** Sum of squared errors in units of the stated sigma. */
  normalized: number;
  count: number;
}
const tally = (): Tally => ({ covered: 0, squares: 0, sigmas: 0, normalized: 0, count: 0 });

function add(to: Tally, fit: Fit, points: Points, truth: number): void {
  const said = measuredLength(fit, { ...points.q!, height: 0 }, { ...points.g!, height: 0 });
  const error = said.value - truth;
  to.covered += Math.abs(error) <= 2 * said.sigma ? 1 : 0;
  to.squares += error * error;
  to.sigmas += said.sigma;
  to.normalized += (error / said.sigma) ** 2;
  to.count += 1;
}

const TRUTH = distance(PLANE.q!, PLANE.g!);
const TRIALS = 200;

describe.each<[ModelWish, LensWish, string, readonly number[], (noise: Noise) => Observation[]]>([
  ['similarity', 'none', 'one length', [5.4], (n) => [length('1', 'a', 'b', n)]],
  [
    'similarity',
    'none',
    'a circle of known diameter',
    [5.4],
    (n) => [{ id: 'k', kind: 'circle', through: ROUND, diameterMm: 50 + 0.05 * n(), sigma: 0.05 }],
  ],
  ['two-scale', 'none', 'a rectangle by its sides', [5.4, 0.03], (n) => [card(n, 0.1, { sides: SIDES })]],
  [
    'similarity',
    'none',
    'a box by what it stands on and touches',
    [5.4],
    (n) => [card(n, 0.1, { sides: [['s1', 's2'], ['s3'], ['s5'], ['s7']] })],
  ],
  [
    'affine',
    'none',
    'a rectangle by its corners, a length',
    [5.4, 0.03, 0.02],
    (n) => [card(n, 0.1, { corners: CORNERS }), length('1', 'a', 'c', n)],
  ],
  [
    'projective',
    'none',
    'a rectangle, two lengths, a straight line',
    [5.4, 0.03, 0.02, 0.3, -0.1],
    (n) => [
      card(n, 0.1, { corners: CORNERS }),
      length('1', 'a', 'c', n),
      length('2', 'b', 'd', n),
      { id: 's', kind: 'straight', through: LINE },
    ],
  ],
  [
    'projective',
    'none',
    'five known points',
    [5.4, 0.03, 0.02, 0.3, -0.1],
    (n) =>
      ['a', 'b', 'c', 'd', 'e'].map((point) => ({
        id: point,
        kind: 'known-point',
        point,
        mm: [PLANE[point]![0] + 0.1 * n(), PLANE[point]![1] + 0.1 * n()],
        sigma: 0.1,
      })),
  ],
  [
    'camera',
    'none',
    'a card and a length, slanted by 33°',
    [ABOVE, 0.5, 0.3, FOCAL],
    (n) => [card(n, 0.05, { sides: SIDES }), length('1', 'a', 'b', n)],
  ],
  [
    'camera',
    'k1',
    'lengths, right angle, parallels, equals',
    [ABOVE, 0.5, 0.3, FOCAL, 0.03],
    (n) => [
      length('1', 'a', 'b', n),
      length('2', 'c', 'd', n),
      length('3', 'a', 'c', n),
      length('4', 'b', 'd', n),
      { id: 's', kind: 'straight', through: LINE },
      {
        id: 'sq',
        kind: 'square',
        lines: [
          ['r1', 'r2'],
          ['r2', 'r3'],
        ],
      },
      {
        id: 'p',
        kind: 'parallel',
        lines: [
          ['r1', 'r2'],
          ['r4', 'r3'],
          ['s1', 's2'],
        ],
      },
      {
        id: 'e',
        kind: 'equal',
        lines: [
          ['k0', 'k2'],
          ['k1', 'k3'],
        ],
      },
    ],
  ],
  [
    'camera',
    'k1k2',
    'circle of unknown size, level, angle, straight lines',
    [ABOVE, 0.3, 0.1, FOCAL, 0.03, -0.01],
    (n) => [
      length('1', 'a', 'b', n),
      length('2', 'c', 'd', n),
      length('3', 'a', 'c', n),
      length('4', 'b', 'd', n),
      { id: 'k', kind: 'circle', through: ROUND, sigma: 1 },
      { id: 'l', kind: 'level', line: ['r1', 'r2'], degrees: 0 },
      {
        id: 'an',
        kind: 'angle',
        lines: [
          ['r1', 'r2'],
          ['r1', 'r4'],
        ],
        degrees: 90 + 0.2 * n(),
        sigmaDegrees: 0.2,
      },
      { id: 's1', kind: 'straight', through: LINE },
      { id: 's2', kind: 'straight', through: ['r1', 's1', 's2', 'r2'] },
      { id: 's3', kind: 'straight', through: ['r1', 's8', 's7', 'r4'] },
    ],
  ],
])('%s with lens %s: %s', (model, lens, _name, numbers, evidenceOf) => {
  it('covers the truth 95 times in 100, states its spread, and reaches the bound', () => {
    const random = createRandom(20261125);
    const result = tally();
    for (let i = 0; i < TRIALS; i++) {
      // What the camera tells of its focal length is evidence with its own doubt: it is drawn like the rest.
      const drawn = numbers.map((value, k) =>
        model === 'camera' && k === 3 ? value + ASSUMED.focalTold * random.normal() : value,
      );
      const points = pointedByHand(trueMap(photo, model, lens, drawn), PLANE, 1, random);
      add(result, fitOf({ points, evidence: evidenceOf(() => random.normal()), model, lens }), points, TRUTH);
    }
    const map = trueMap(photo, model, lens, numbers);
    // The Cramér-Rao bound: what the same evidence without its noise says of itself at the truth.
    const exact = pointedByHand(map, PLANE, 1, undefined);
    const bound = measuredLength(
      fitOf({ points: exact, evidence: evidenceOf(() => 0), model, lens }),
      { ...exact.q!, height: 0 },
      { ...exact.g!, height: 0 },
    ).sigma;
    expectTrue(result);
    expect(Math.sqrt(result.squares / result.count) / bound).toBeGreaterThan(0.9);
    expect(Math.sqrt(result.squares / result.count) / bound).toBeLessThan(1.1);
  });
});

/** A fit allows for cameras that lean more than is usual: of those that do not, a few more lie within. */
const MORE = 0.01;

/** Two-sigma coverage of 95 %, as far as so many trials tell (within 1.8 of their own sigmas), and a stated sigma within 12 % of the spread. */
function expectTrue({ covered, count, normalized }: Tally): void {
  const miss = 1.8 * Math.sqrt((0.95 * 0.05) / count);
  expect(covered / count).toBeGreaterThan(0.95 - miss);
  expect(covered / count).toBeLessThan(0.95 + miss + MORE);
  expect(Math.sqrt(normalized / count)).toBeGreaterThan(0.88);
  expect(Math.sqrt(normalized / count)).toBeLessThan(1.12);
}

type Draw = (sigma: number) => number;

/** A photo by hand as auto takes it: tilt, focal length and lens off by what is drawn. */
function handHeld(tilt: Vec, draw: Draw, steep = 0): SheetMap {
  return trueMap(photo, 'auto', 'auto', [
    ABOVE,
    steep + tilt[0],
    tilt[1],
    FOCAL + draw(ASSUMED.focalTold),
    draw(lensSigma(photo)[0]),
    draw(lensSigma(photo)[1]),
    draw(ASSUMED.lensCentre),
    draw(ASSUMED.lensCentre),
  ]);
}

describe.each<[string, (noise: Noise) => Observation[]]>([
  ['one length', (n) => [length('1', 'a', 'b', n)]],
  ['two lengths', (n) => [length('1', 'a', 'b', n), length('2', 'b', 'c', n)]],
  ['a card', (n) => [card(n, 0.05, { sides: SIDES })]],
  ['a card and a length', (n) => [card(n, 0.05, { sides: SIDES }), length('1', 'a', 'b', n)]],
])('auto, a photo by hand: %s', (_name, evidenceOf) => {
  const run = (tiltOf: (random: Random) => Vec) => {
    const random = createRandom(11);
    const result = tally();
    for (let i = 0; i < TRIALS; i++) {
      const points = pointedByHand(
        handHeld(tiltOf(random), (sigma) => sigma * random.normal()),
        PLANE,
        1,
        random,
      );
      add(result, fitOf({ points, evidence: evidenceOf(() => random.normal()) }), points, TRUTH);
    }
    return result;
  };

  it('is true when tilt and lens are drawn from what is assumed', () => {
    expectTrue(run((random) => [ASSUMED.tilt * random.normal(), ASSUMED.tilt * random.normal()]));
  });

  // Held far more askew than a hand that tries; what the phone said of it is off by what is assumed of phones and tables.
  it('is true when the phone measured how it was held, however it was held', () => {
    const random = createRandom(12);
    const result = tally();
    for (let i = 0; i < TRIALS; i++) {
      const tilt: Vec = [4 * ASSUMED.tilt * random.normal(), 4 * ASSUMED.tilt * random.normal()];
      const measured: Vec = [
        tilt[0] + ASSUMED.tiltMeasured * random.normal(),
        tilt[1] + ASSUMED.tiltMeasured * random.normal(),
      ];
      const points = pointedByHand(
        handHeld(tilt, (sigma) => sigma * random.normal()),
        PLANE,
        1,
        random,
      );
      add(
        result,
        fitOf({ picture: { ...photo, tilt: measured }, points, evidence: evidenceOf(() => random.normal()) }),
        points,
        TRUTH,
      );
    }
    expectTrue(result);
  });

  // At the edge the tilt is no accident any more: it is there in every trial, and takes its share of the two sigma with it.
  it('still holds the truth most of the time when the tilt is the most that is allowed for, 3° some way', () => {
    const { covered, count } = run((random) => {
      const way = 2 * Math.PI * random.uniform();
      return [2 * ASSUMED.tilt * Math.cos(way), 2 * ASSUMED.tilt * Math.sin(way)];
    });
    expect(covered / count).toBeGreaterThan(0.86);
  });
});

it('auto, a copy or print: stretch and skew drawn from what is assumed', () => {
  const random = createRandom(3);
  const result = tally();
  for (let i = 0; i < TRIALS; i++) {
    const map = trueMap(drawing, 'affine', 'none', [
      5.4,
      ASSUMED.stretch.drawing * random.normal(),
      ASSUMED.skew.drawing * random.normal(),
    ]);
    const points = pointedByHand(map, PLANE, 1, random);
    add(
      result,
      fitOf({ picture: drawing, points, evidence: [length('1', 'a', 'b', () => random.normal())] }),
      points,
      TRUTH,
    );
  }
  expectTrue(result);
});

it('auto takes the height of what is traced into its plus-minus when nobody said it', () => {
  const random = createRandom(17);
  const result = tally();
  for (let i = 0; i < TRIALS; i++) {
    const tilt: Vec = [ASSUMED.tilt * random.normal(), ASSUMED.tilt * random.normal()];
    const numbers = [ABOVE, ...tilt, FOCAL, 0, 0];
    const flat = trueMap(photo, 'camera', 'k1k2', numbers);
    const raised = trueMap(photo, 'camera', 'k1k2', numbers, ASSUMED.lift * random.normal());
    const points = {
      ...pointedByHand(flat, PLANE, 1, random),
      ...pointedByHand(raised, { q: PLANE.q!, g: PLANE.g! }, 1, random),
    };
    const fit = fitOf({
      points,
      evidence: [length('1', 'a', 'b', () => random.normal()), length('2', 'b', 'c', () => random.normal())],
      lift: { mm: 0, sigma: ASSUMED.lift },
    });
    const said = measuredLength(fit, points.q!, points.g!);
    result.covered += Math.abs(said.value - TRUTH) <= 2 * said.sigma ? 1 : 0;
    result.normalized += ((said.value - TRUTH) / said.sigma) ** 2;
    result.count += 1;
  }
  expectTrue(result);
});

describe.each<[string, readonly string[]]>([
  ['one length on it', ['on']],
  ['one on it and one beside it', ['on', 'beside']],
])('a raised face whose height nobody said, %s', (_name, used) => {
  it('has true sizes, and a height that is as true as it is told', () => {
    const random = createRandom(29);
    const [result, heights] = [tally(), tally()];
    // Some heights are hardly told by their evidence: the mean of the plus-minus needs many.
    for (let i = 0; i < 2 * TRIALS; i++) {
      const numbers = [
        ABOVE,
        ASSUMED.tilt * random.normal(),
        ASSUMED.tilt * random.normal(),
        FOCAL + ASSUMED.focalTold * random.normal(),
        ...lensSigma(photo).map((sigma) => sigma * random.normal()),
      ];
      const lift = ASSUMED.lift * random.normal();
      const raised = Object.fromEntries(
        Object.entries(pointedByHand(trueMap(photo, 'camera', 'k1k2', numbers, lift), PLANE, 1, random)).map(
          ([name, point]) => [name, { ...point, height: 'traced' as const }],
        ),
      );
      const points = {
        ...raised,
        ...pointedByHand(trueMap(photo, 'camera', 'k1k2', numbers), { a: PLANE.a!, b: PLANE.b! }, 1, random),
      };
      const evidence = [
        length('on', 'c', 'd', () => random.normal()),
        length('beside', 'a', 'b', () => random.normal()),
      ].filter(({ id }) => used.includes(id));
      const fit = fitOf({ points, evidence, lift: { mm: 0, sigma: ASSUMED.lift } });
      const said = measuredLength(fit, points.q!, points.g!);
      for (const [to, value, sigma, truth] of [
        [result, said.value, said.sigma, TRUTH],
        [
          heights,
          fit.values.at(-1)!,
          Math.sqrt(fit.covariance.get(fit.values.length - 1, fit.values.length - 1)),
          lift,
        ],
      ] as const) {
        to.covered += Math.abs(value - truth) <= 2 * sigma ? 1 : 0;
        to.normalized += ((value - truth) / sigma) ** 2;
        to.sigmas += sigma;
        to.count += 1;
      }
    }
    expectTrue(result);
    expectTrue(heights);
    // What is measured on the face itself does not suffer from its height.
    expect(result.sigmas / result.count).toBeLessThan(0.95);
  });
});

describe.each([0.5, 1, 2])('a length pointed at five times by a hand %d times as shaky as assumed', (shaky) => {
  it('shows how shaky, and its average is as good as it says', () => {
    const random = createRandom(41);
    const result = tally();
    let factors = 0;
    for (let i = 0; i < TRIALS; i++) {
      const map = trueMap(photo, 'similarity', 'none', [5.4]);
      const point = (name: string) =>
        Array.from({ length: 5 }, () => ({
          ...pointedByHand(map, { [name]: PLANE[name]! }, shaky, random)[name]!,
          sigma: 1,
        }));
      const again = { a: point('a'), b: point('b') };
      const steadiness = steadinessOf(Object.values(again));
      factors += steadiness.factor / TRIALS;
      const single = Object.fromEntries(
        ['q', 'g'].map((name) => [name, { ...point(name)[0]!, sigma: steadiness.factor }]),
      );
      const points: Points = {
        ...single,
        a: averagedPoint(again.a, steadiness),
        b: averagedPoint(again.b, steadiness),
      };
      add(
        result,
        fitOf({
          points,
          evidence: [length('1', 'a', 'b', () => random.normal(), 0.05)],
          model: 'similarity',
          lens: 'none',
        }),
        points,
        TRUTH,
      );
    }
    // The assumption still counts as four of the twenty.
    expect(Math.abs(factors / Math.sqrt((4 + 16 * shaky ** 2) / 20) - 1)).toBeLessThan(0.05);
    const { covered, count } = result;
    expect(covered / count).toBeGreaterThan(shaky > 1 ? 0.89 : 0.92);
  });
});

/** The odd one out: one length is wrong by 3 to 8 %. */
describe.each<[string, number, (noise: Noise) => { lengths: Observation[]; others: Observation[] }]>([
  [
    'six lengths on a photo by hand',
    0,
    (n) => ({ lengths: SIX.map(([from, to], i) => length(String(i), from, to, n)), others: [] }),
  ],
  [
    'a card and three lengths on a photo slanted by 34°',
    0.6,
    (n) => ({
      lengths: SIX.slice(0, 3).map(([from, to], i) => length(String(i), from, to, n)),
      others: [card(n, 0.05, { sides: SIDES })],
    }),
  ],
])('the odd one out: %s', (_name, steep, evidenceOf) => {
  it('is named in at least 90 of 100 trials, an innocent piece in fewer than 5', () => {
    const random = createRandom(5);
    const trials = 60;
    let [named, innocent] = [0, 0];
    for (let i = 0; i < trials; i++) {
      const draw: Draw = (sigma) => sigma * random.normal();
      const points = pointedByHand(handHeld([draw(ASSUMED.tilt), draw(ASSUMED.tilt)], draw, steep), PLANE, 1, random);
      const { lengths, others } = evidenceOf(() => random.normal());
      const wrong = Math.floor(random.uniform() * lengths.length);
      const factor = 1 + (random.uniform() < 0.5 ? -1 : 1) * (0.03 + 0.05 * random.uniform());
      const spoiled = lengths.map((piece, k) =>
        k === wrong && piece.kind === 'length' ? { ...piece, mm: piece.mm * factor } : piece,
      );
      const { suspects } = fitOf({ points, evidence: [...others, ...spoiled] });
      if (suspects.includes(lengths[wrong]!.id)) named++;
      if (suspects.some((id) => id !== lengths[wrong]!.id)) innocent++;
    }
    expect(named / trials).toBeGreaterThanOrEqual(0.9);
    expect(innocent / trials).toBeLessThan(0.05);
  });
});

it('names nobody when nothing is wrong', () => {
  const random = createRandom(23);
  const trials = 150;
  let named = 0;
  for (let i = 0; i < trials; i++) {
    const draw: Draw = (sigma) => sigma * random.normal();
    const points = pointedByHand(handHeld([draw(ASSUMED.tilt), draw(ASSUMED.tilt)], draw), PLANE, 1, random);
    named +=
      fitOf({ points, evidence: SIX.map(([from, to], k) => length(String(k), from, to, () => random.normal())) })
        .suspects.length > 0
        ? 1
        : 0;
  }
  expect(named / trials).toBeLessThan(0.03);
});

it('places under a map and back are the same', () => {
  const map = trueMap(photo, 'camera', 'k1k2', [ABOVE, 0.3, -0.2, FOCAL, 0.05, -0.01]);
  const points = pointedByHand(map, PLANE, 1, undefined);
  const back = placesUnder(map, Object.fromEntries(Object.entries(points).map(([name, { at }]) => [name, at])));
  for (const [name, place] of Object.entries(PLANE)) expect(distance(back[name]!, place)).toBeLessThan(1e-8);
});
