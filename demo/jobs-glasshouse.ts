import { createJob, createView, type Feature, type Job, type View } from '../src/core/job';
import type { Chain } from '../src/core/outline';
import { scanner } from './generator/scan';
import { chain, known, length, sheetOf, withEvidence, type Px } from './hand';
import { line } from './jobs-bench';
import { GLASSHOUSE, glasshousePlan } from './scenes/glasshouse';
import { fromBehind, FRONT_AT, glasshouseBack, glasshouseRight, glasshouseSides } from './scenes/glasshouse-elevations';

const { length: long, width: wide, low, eaves, ridge, gutter, door, hatch } = GLASSHOUSE;
const [plan, sides, back, right] = [glasshousePlan, glasshouseSides, glasshouseBack, glasshouseRight].map(scanner) as [
  ReturnType<typeof scanner>,
  ReturnType<typeof scanner>,
  ReturnType<typeof scanner>,
  ReturnType<typeof scanner>,
];

/** Where places of the glasshouse are seen on its sheets, px: across and deep in the plan, along each side and up in its elevation. */
export const SEEN = {
  above: (across: number, deep: number): Px => plan.project([across, deep]),
  front: (across: number, up: number): Px => sides.project([FRONT_AT + across, up]),
  left: (deep: number, up: number): Px => sides.project([wide - deep, up]),
  /** Drawn by hand: off by some centimetres. */
  back: (across: number, up: number): Px => back.project([long - across, up]),
  right: (deep: number, up: number): Px => fromBehind([deep, up]),
} as const;
const { above, front, left, back: behind, right: mirrored } = SEEN;

const [PLAN, FRONT, LEFT, BACK, RIGHT] = [
  'glasshouse-plan',
  'glasshouse-front',
  'glasshouse-left',
  'glasshouse-back',
  'glasshouse-right',
] as const;

const SHEETS = {
  plan: sheetOf(glasshousePlan.name, 'Plan', 'scan', plan),
  sides: sheetOf(glasshouseSides.name, 'Left and front', 'scan', sides),
  back: sheetOf(glasshouseBack.name, 'Back, by hand', 'scan', back),
  right: sheetOf(glasshouseRight.name, 'Right', 'scan', right),
};

type Sides = NonNullable<View['side']>;

function viewOf(id: string, name: string, sheet: (typeof SHEETS)[keyof typeof SHEETS], side: Sides, zero: Px): View {
  const view = createView(id, sheet);
  return { ...view, name, side, datum: { ...view.datum, origin: zero }, joins: true };
}

const around = (corners: readonly Px[]): readonly Px[] => {
  const [[x0, y0], [x1, y1]] = [Math.min, Math.max].map((most): Px => [
    most(...corners.map(([x]) => x)),
    most(...corners.map(([, y]) => y)),
  ]) as [Px, Px];
  return [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
};

function viewsOf(): View[] {
  const { plan: seenAbove, sides: onOne, back: byHand, right: fromOtherSide } = SHEETS;
  const room = 500;
  return [
    withEvidence(viewOf(PLAN, 'Plan', seenAbove, 'top', above(0, 0)), [
      length('plan-long', above(0, 0), above(long, 0), long, { name: 'printed length', plusMinus: 5 }),
      length('plan-wide', above(long, 0), above(long, wide), wide, { name: 'printed width', plusMinus: 5 }),
      known('plan-level', 'level', [[above(0, 0), above(long, 0)]], { angle: 0 }, { name: 'its front' }),
    ]),
    withEvidence(
      {
        ...viewOf(FRONT, 'Front', onOne, 'front', front(0, 0)),
        frame: [...around([front(-800, -900), front(long + room, ridge + room)])],
        liesAt: 'front-face',
      },
      [
        length('front-long', front(0, 0), front(long, 0), long, { name: 'printed length', plusMinus: 5 }),
        length('front-high', front(0, 0), front(0, ridge), ridge, { name: 'printed height', plusMinus: 5 }),
        known('front-level', 'level', [[front(0, 0), front(long, 0)]], { angle: 0 }, { name: 'the ground' }),
      ],
    ),
    {
      ...viewOf(LEFT, 'Left', onOne, 'left', left(0, 0)),
      frame: [...around([left(wide + room, -room), left(-room, ridge + room)])],
      liesAt: 'left-end',
      shares: FRONT,
    },
    { ...viewOf(BACK, 'Back', byHand, 'back', behind(0, 0)), liesAt: 'rear-face' },
    withEvidence({ ...viewOf(RIGHT, 'Right', fromOtherSide, 'right', mirrored(0, 0)), liesAt: 'right-end' }, [
      length('right-wide', mirrored(0, 0), mirrored(wide, 0), wide, { name: 'printed width', plusMinus: 5 }),
    ]),
  ];
}

/** A place that a hand drew, so well as that can be: it is pointed at as it is drawn, and drawn off by centimetres. */
const SKETCHED = 3;
const sketched = (feature: Feature): Feature => ({
  ...feature,
  seen: feature.seen.map((seen) => (seen.view === BACK ? { ...seen, sigma: SKETCHED } : seen)),
});

/** How high things lie, seen from all four sides. */
const heights = () =>
  [
    ['ground', 'Ground', 0],
    ['eaves', 'Gutter', eaves],
    ['ridge', 'Ridge', ridge],
  ].map(([id, name, up]) => {
    const at = Number(up);
    // A gable has one place at the top.
    const inset = id === 'ridge' ? wide / 2 : 0;
    return line(
      String(id),
      String(name),
      'up',
      [
        [FRONT, front(0, at)],
        [FRONT, front(long, at)],
        [LEFT, left(inset, at)],
        [LEFT, left(wide - inset, at)],
        [BACK, behind(0, at)],
        [BACK, behind(long, at)],
        [RIGHT, mirrored(inset, at)],
        [RIGHT, mirrored(wide - inset, at)],
      ],
      at === 0,
    );
  });

const uprights = () => [
  ...[0, long].map((across) =>
    line(
      across === 0 ? 'left-end' : 'right-end',
      across === 0 ? 'Left end' : 'Right end',
      'across',
      [
        [PLAN, above(across, 0)],
        [PLAN, above(across, wide)],
        [FRONT, front(across, 0)],
        [FRONT, front(across, eaves)],
        [BACK, behind(across, 0)],
        [BACK, behind(across, eaves)],
      ],
      across === 0,
    ),
  ),
  ...[0, wide].map((deep) =>
    line(
      deep === 0 ? 'front-face' : 'rear-face',
      deep === 0 ? 'Front face' : 'Rear face',
      'deep',
      [
        [PLAN, above(0, deep)],
        [PLAN, above(long, deep)],
        [LEFT, left(deep, 0)],
        [LEFT, left(deep, eaves)],
        [RIGHT, mirrored(deep, 0)],
        [RIGHT, mirrored(deep, eaves)],
      ],
      deep === 0,
    ),
  ),
  line('hatch', 'Hatch', 'deep', [
    [PLAN, above(long, hatch.from)],
    [RIGHT, mirrored(hatch.from, 100)],
    [RIGHT, mirrored(hatch.from, hatch.height - 100)],
  ]),
];

type Seen = (along: number, up: number) => Px;
const box = (seen: Seen, from: number, to: number, low: number, high: number): readonly Px[] => [
  seen(from, low),
  seen(to, low),
  seen(to, high),
  seen(from, high),
];
const gable = (seen: Seen): readonly Px[] => [
  ...box(seen, 0, wide, 0, eaves).slice(0, 3),
  seen(wide / 2, ridge),
  seen(0, eaves),
];

const drawn = (): readonly Chain[] => [
  chain('house', PLAN, 'outline', box(above, 0, long, 0, wide)),
  chain('gutters', PLAN, 'gutter', box(above, 0, long, -gutter, wide + gutter)),
  chain('front', FRONT, 'outline', box(front, 0, long, 0, ridge)),
  chain('low-wall', FRONT, 'wall', box(front, 0, long, 0, low)),
  chain('left', LEFT, 'outline', gable(left)),
  chain('door', LEFT, 'openings', box(left, door.from, door.from + door.width, 0, door.height)),
  chain('right', RIGHT, 'outline', gable(mirrored)),
  chain('hatch', RIGHT, 'openings', box(mirrored, hatch.from, hatch.from + hatch.width, 0, hatch.height)),
];

const LAYERS: Job['layers'] = [
  { id: 'outline', name: 'Outline', color: 'berry', show: true, lock: false },
  { id: 'gutter', name: 'Gutter', color: 'plum', show: true, lock: false, liesAt: 'eaves' },
  { id: 'wall', name: 'Low wall', color: 'straw', show: true, lock: false },
  { id: 'openings', name: 'Openings', color: 'ink', show: true, lock: false },
];

/** The glasshouse from its plan and four elevations: the back, drawn by hand, has no size of its own, and the right one was scanned from behind. */
export function glasshouseJob(made: Date): Job {
  return {
    ...createJob('glasshouse', 'Glasshouse, plan and four sides', made),
    sheets: Object.values(SHEETS),
    views: viewsOf(),
    projection: 'third',
    layers: LAYERS,
    features: [...heights(), ...uprights()].map(sketched),
    outlines: [...drawn()],
  };
}
