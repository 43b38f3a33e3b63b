import {
  fitView,
  measuredLength,
  type Observation,
  type FitInput,
  type Measured,
  type Points,
} from '../../src/core/calibrate';
import { add, distance, polar, type Vec } from '../../src/core/geometry';
import type { World } from './world';

/** What lies on the bench, mm from its middle: a bank card a little askew, a rule along the top with an upright one beside it, and the sizes that are asked for. */
const ASKEW = 0.17;
const cardPlace = ([u, v]: Vec): Vec => [
  -120 + Math.cos(ASKEW) * u - Math.sin(ASKEW) * v,
  -100 + Math.sin(ASKEW) * u + Math.cos(ASKEW) * v,
];
const CARD_SIDES: readonly (readonly Vec[])[] = [
  [
    [14, 0],
    [71, 0],
  ],
  [
    [85.6, 10],
    [85.6, 44],
  ],
  [
    [71, 53.98],
    [14, 53.98],
  ],
  [
    [0, 44],
    [0, 10],
  ],
];
const LENGTHS: readonly (readonly [Vec, Vec])[] = [
  [
    [-100, 115],
    [100, 115],
  ],
  [
    [140, -100],
    [140, 100],
  ],
  [
    [-80, 60],
    [70, -40],
  ],
];
const RULE_EDGE: readonly Vec[] = [-150, -75, 0, 75, 150].map((x) => [x, 130]);
const ASKED: readonly (readonly [Vec, Vec])[] = [
  [
    [-80, 60],
    [70, 60],
  ],
  [
    [-20, -60],
    [-20, 90],
  ],
  [
    [20, 0],
    [110, 80],
  ],
  [
    [-120, 90],
    [130, -50],
  ],
  [
    [60, 20],
    [80, 20],
  ],
  [
    [-100, 30],
    [-40, 100],
  ],
];

const TOKEN: readonly Vec[] = [0.3, 1.4, 2.5, 3.6, 4.7, 5.7].map((turn) => add([120, -60], polar(12.5, turn)));

/** One sigma of a card's sides, and of a length read off a rule. mm. */
const CARD_SIGMA = 0.06;
const READ_SIGMA = 0.15;

export interface Known {
  readonly card?: boolean;
  readonly lengths?: number;
  readonly edge?: boolean;
  /** A token of 25 mm by its rim. */
  readonly token?: boolean;
}

export interface Shown {
  readonly points: Points;
  readonly evidence: readonly Observation[];
}

/** What somebody says of the bench, pointed at with this sigma (px), and read off as well as it is said. */
export function showTo(
  world: World,
  { card = false, lengths = 0, edge = false, token = false }: Known,
  sigma: number,
): Shown {
  const points: Record<string, Points[string]> = {};
  const { random, see } = world;
  const point = (id: string, at: Vec) => {
    const [x, y] = see(at);
    points[id] = { at: [x + sigma * random.normal(), y + sigma * random.normal()], sigma, height: 0 };
    return id;
  };
  const sides = () => CARD_SIDES.map((side, s) => side.map((at, i) => point(`side ${s}.${i}`, cardPlace(at))));
  const evidence: Observation[] = [
    ...(card
      ? [{ id: 'card', kind: 'rectangle' as const, sides: sides(), widthMm: 85.6, heightMm: 53.98, sigma: CARD_SIGMA }]
      : []),
    ...LENGTHS.slice(0, lengths).map(([a, b], i) => ({
      id: `length ${i}`,
      kind: 'length' as const,
      from: point(`from ${i}`, a),
      to: point(`to ${i}`, b),
      mm: distance(a, b) + READ_SIGMA * random.normal(),
      sigma: READ_SIGMA,
    })),
    ...(edge
      ? [{ id: 'edge', kind: 'straight' as const, through: RULE_EDGE.map((at, i) => point(`edge ${i}`, at)) }]
      : []),
    ...(token
      ? [
          {
            id: 'token',
            kind: 'circle' as const,
            through: TOKEN.map((at, i) => point(`rim ${i}`, at)),
            diameterMm: 25,
            sigma: 0.05,
          },
        ]
      : []),
  ];
  return { points, evidence };
}

export function fitShown({ picture }: World, { points, evidence }: Shown) {
  const input: FitInput = {
    picture,
    datum: { origin: [0, picture.height], direction: 0 },
    points,
    evidence,
    lift: { mm: 0, sigma: 1e-9 },
  };
  return fitView(input);
}

/** The sizes that are asked for, pointed at without any error, and how far they are off. */
export function measureAsked(
  world: World,
  fit: Extract<ReturnType<typeof fitShown>, { ok: true }>['value'],
): (Measured & { readonly truth: number; readonly off: number })[] {
  const exact = (at: Vec) => ({ at: world.see(at), sigma: 1e-6, height: 0 });
  return ASKED.map(([a, b]) => {
    const measured = measuredLength(fit, exact(a), exact(b));
    return { ...measured, truth: distance(a, b), off: measured.value - distance(a, b) };
  });
}
