import { createJob, createView, type Feature, type Job, type Span, type View } from '../src/core/job';
import { scanner } from './generator/scan';
import { length, pointed, sheetOf, withEvidence, type Px } from './hand';
import { BENCH, BENCH_PLACES, benchViews, WRONG_DEPTH } from './scenes/bench-set';

const { project, width, height } = scanner(benchViews);
const { side, top, leansBack } = BENCH_PLACES;

/** Places of the bench on the sheet: across and up in the front, deep and up in the side, across and deep in the top. mm of the bench. */
const front = (across: number, up: number): Px => project([across, up]);
const right = (deep: number, up: number): Px => project([side + deep, up]);
const above = (across: number, deep: number): Px => project([across, top + deep]);

const frame = (from: readonly [number, number], to: readonly [number, number]): Px[] =>
  [from, [to[0], from[1]] as const, to, [from[0], to[1]] as const].map((corner) => project(corner));

const SHEET = 'bench-views-sheet';
const FRONT = 'bench-front';

/** What each view shows of the sheet, and where its zero is. */
const SHOWN = [
  {
    id: FRONT,
    name: 'Front',
    side: 'front',
    frame: frame([-330, -230], [BENCH.length + 190, 930]),
    origin: front(0, 0),
  },
  {
    id: 'bench-side',
    name: 'Side',
    side: 'right',
    frame: frame([side - 120, -230], [side + 720, 930]),
    origin: right(0, 0),
  },
  {
    id: 'bench-top',
    name: 'Top',
    side: 'top',
    frame: frame([-120, top - 90], [BENCH.length + 120, top + 670]),
    origin: above(0, 0),
  },
];

function viewsOf(sheet: ReturnType<typeof sheetOf>): View[] {
  const [f, r, t] = SHOWN.map(({ id, name, side: shows, frame: around, origin }): View => ({
    ...createView(id, sheet),
    name,
    side: shows as View['side'],
    frame: around,
    datum: { origin, direction: (-benchViews.askew * Math.PI) / 180 },
    joins: true,
    ...(id === FRONT ? {} : { shares: FRONT }),
  })) as [View, View, View];
  return [
    withEvidence(f, [
      length('length', front(0, 0), front(BENCH.length, 0), BENCH.length, { name: 'printed length' }),
      length('height', front(0, 0), front(0, BENCH.height), BENCH.height, { name: 'printed height' }),
    ]),
    r,
    t,
  ];
}

/** A shared line, seen at these places of views. */
export function line(
  id: string,
  name: string,
  along: NonNullable<Feature['along']>,
  seen: readonly (readonly [string, Px])[],
  zero = false,
): Feature {
  return {
    id,
    name,
    along,
    said: zero ? { [along]: { value: 0, written: '0' } } : {},
    seen: seen.map(([view, px], i) => {
      const { at, sigma } = pointed(px);
      return { id: `${id}-${i}`, view, at, sigma };
    }),
  };
}

const span = (id: string, from: string, to: string, mm: number): Span => ({
  id,
  from,
  to,
  said: { value: mm, written: String(mm) },
  plusMinus: 4,
  guess: false,
  role: 'use',
});

const { length: long, height: high, depth: deep, seat } = BENCH;
const [F, S, T] = [FRONT, 'bench-side', 'bench-top'] as const;

/** How high things lie, seen in the front and the side. */
const levels = () => [
  line(
    'base',
    'Base line',
    'up',
    [
      [F, front(0, 0)],
      [F, front(long, 0)],
      [S, right(0, 0)],
      [S, right(deep, 0)],
    ],
    true,
  ),
  line('seat', 'Top of the seat', 'up', [
    [F, front(long / 2, seat)],
    [S, right(0, seat)],
    [S, right(deep - 70, seat)],
  ]),
  line('crown', 'Top of the back', 'up', [
    [F, front(long / 2, high)],
    [S, right(deep + leansBack - 30, high)],
  ]),
];

/** How far across and how deep, seen in the top and one of the others. */
const uprights = () => [
  line(
    'left',
    'Left end',
    'across',
    [
      [F, front(0, seat)],
      [F, front(0, high - 20)],
      [T, above(0, 60)],
      [T, above(0, deep - 60)],
    ],
    true,
  ),
  line('rightend', 'Right end', 'across', [
    [F, front(long, 60)],
    [F, front(long, seat)],
    [T, above(long, 60)],
    [T, above(long, deep - 60)],
  ]),
  line(
    'edge',
    'Front edge',
    'deep',
    [
      [S, right(0, 60)],
      [S, right(0, seat - 20)],
      [T, above(200, 0)],
      [T, above(long - 200, 0)],
    ],
    true,
  ),
  line('rear', 'Rear edge', 'deep', [
    [S, right(deep, 60)],
    [S, right(deep, seat - 60)],
  ]),
];

const SPANS: readonly Span[] = [
  span('rise', 'base', 'seat', seat),
  span('depth', 'edge', 'rear', WRONG_DEPTH),
  { ...span('over', 'left', 'rightend', long), role: 'check' },
];

/** The garden bench from one old sheet: three views that stand on one base line, and a printed depth that is wrong. */
export function benchJob(made: Date): Job {
  const sheet = { ...sheetOf('bench-views', 'Garden bench', 'scan', { width, height }), id: SHEET };
  return {
    ...createJob('bench-views', 'Garden bench, three views', made),
    sheets: [sheet],
    views: viewsOf(sheet),
    projection: 'third',
    features: [...levels(), ...uprights()],
    spans: SPANS,
  };
}
