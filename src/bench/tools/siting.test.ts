/** A drawing that is set on another plane, said of and moved by pointing, as in the app. */
import { sitedIn } from '@/core/derive';
import { distance, type Vec } from '@/core/geometry';
import {
  addEvidence,
  addOutline,
  addSheet,
  createView,
  setOnPlane,
  setWorkAlong,
  runCommand,
  type Command,
  type Evidence,
} from '@/core/job';
import { scanOf } from '@/core/job/for-tests';
import type { Chain, Hold } from '@/core/outline';
import { HandBench } from './bench-for-tests';
import { toolOf } from '.';

const chain = (id: string, plane: string, places: readonly Vec[]): Chain => ({
  shape: 'chain',
  id,
  plane,
  layer: 'outline',
  closed: true,
  nodes: places.map((at, i) => ({ id: `${id}${i}`, place: { kind: 'pointed', at, sigma: 0.5 }, smooth: false })),
  segments: places.map(() => ({ kind: 'line' })),
});
const scale: Evidence = {
  id: 'f',
  kind: 'length',
  groups: [['r', 's']],
  said: { length: { value: 100, written: '100' } },
  guess: false,
  role: 'use',
};

/** A plot in one view and a house in another, both of 10 px a millimetre; the house is set down with its lower left corner at [800, 500] of the plot's picture. */
function benchWith(...more: readonly Command[]): HandBench {
  const bench = new HandBench('site');
  const plan = { ...scanOf(2000, 1000), id: 't' };
  const commands: readonly Command[] = [
    addSheet(plan, createView('w', plan)),
    addEvidence('w', scale, [
      { id: 'r', at: [0, 500], sigma: 1 },
      { id: 's', at: [1000, 500], sigma: 1 },
    ]),
    addOutline(
      chain('plot', 'v', [
        [200, 900],
        [1800, 900],
        [1800, 100],
        [200, 260],
      ]),
    ),
    addOutline(
      chain('house', 'w', [
        [100, 900],
        [400, 900],
        [400, 700],
        [100, 700],
      ]),
    ),
  ];
  bench.history = [...commands, ...more].reduce(runCommand, bench.history);
  const there = bench.context().fitted.placing.toPlane([800, 500]);
  const own = bench.context().shapes.get('house')!.nodes[0]!;
  bench.history = runCommand(
    bench.history,
    setOnPlane(
      { id: 'set', plane: 'v', of: 'w', holds: [], put: { at: [there[0] - own[0], there[1] - own[1]], turn: 0 } },
      [
        {
          shape: 'made',
          id: 'there',
          layer: 'outline',
          plane: 'v',
          recipe: { kind: 'sited', of: ['house'], siting: 'set' },
        },
      ],
    ),
  );
  return bench;
}
const sitingOf = ({ history }: HandBench) => history.job.sitings[0]!;
const holdsOf = (bench: HandBench): readonly Partial<Hold>[] => sitingOf(bench).holds.map(({ id: _, ...hold }) => hold);
/** Where a corner of the house lies on the plot's picture, px. */
function cornerOf(bench: HandBench, i: number): Vec {
  const { fitted, shapes, job } = bench.context();
  const [a, b, c, d, e, f] = sitedIn(sitingOf(bench), job, { shapes }).map;
  const [x, y] = shapes.get('house')!.nodes[i]!;
  return fitted.fit.toSheet([a * x + c * y + e, b * x + d * y + f]);
}
const hintOf = (bench: HandBench) => toolOf(bench.tool).hint?.(bench.tool.state, bench.context())?.code;

it('two edges are said to run along each other, the way in which they do now', () => {
  const bench = benchWith().set_({ saying: 'parallel' });
  expect(hintOf(bench)).toBe('site-parallel');
  bench.set([900, 500]);
  expect([
    hintOf(bench),
    toolOf(bench.tool).preview(bench.tool.state, undefined, bench.context()).pieces?.list.length,
  ]).toEqual(['site-parallel-to', 1]);
  // The plot's upper edge runs back, and down a little.
  bench.set([1000, 180]);
  expect(holdsOf(bench)).toEqual([
    {
      kind: 'parallel',
      own: { outline: 'house', segment: 'house0' },
      to: { outline: 'plot', segment: 'plot2' },
      value: Math.PI,
    },
  ]);
  const [a, b] = [cornerOf(bench, 0), cornerOf(bench, 1)];
  expect((b[1] - a[1]) / (b[0] - a[0])).toBeCloseTo(-0.1, 6);
});

it.each([
  [
    'edge to edge',
    [950, 500],
    [1000, 900],
    { kind: 'off', own: { segment: 'house0' }, to: { segment: 'plot0' }, value: 40 },
  ],
  [
    'corner to edge',
    [800, 500],
    [1000, 900],
    { kind: 'off', own: { node: 'house0' }, to: { segment: 'plot0' }, value: 40 },
  ],
  [
    'edge to corner',
    [950, 500],
    [200, 900],
    { kind: 'off', own: { segment: 'house0' }, to: { node: 'plot0' }, value: -40 },
  ],
  [
    'corner to corner',
    [800, 500],
    [200, 900],
    { kind: 'apart', own: { node: 'house0' }, to: { node: 'plot0' }, value: 72 },
  ],
] as const)('a distance from %s is what it is now, in whole millimetres', (_, own, to, hold) => {
  const bench = benchWith().set_({ saying: 'distance' }).set(own, to);
  expect(holdsOf(bench)).toMatchObject([hold]);
  expect(bench.said).toEqual([]);
});

it('along an edge it is counted from the end that is nearer to where one points', () => {
  const bench = benchWith().set_({ saying: 'along' });
  expect(holdsOf(bench.set([810, 500], [300, 900]))).toMatchObject([
    { kind: 'along', to: { segment: 'plot0' }, value: 60 },
  ]);
  expect(holdsOf(bench.set([810, 500], [1700, 900]))[1]).toMatchObject({ fromEnd: true, value: 100 });
});

it('it goes where a hand puts it: by two places, dragged, or step by step, as far as what is said lets it', () => {
  const bench = benchWith();
  expect(hintOf(bench)).toBe('site-move');
  bench.set([900, 500]);
  expect(hintOf(bench)).toBe('site-move-to');
  bench.set([1000, 600]);
  expect(distance(cornerOf(bench, 0), [900, 600])).toBeLessThan(1e-6);
  bench.give(
    { kind: 'grab', aim: bench.aim(1000, 600), reach: 2 },
    { kind: 'drag', aim: bench.aim(1100, 560), reach: 0 },
  );
  const { span, pieces } = toolOf(bench.tool).preview(bench.tool.state, undefined, bench.context());
  expect([span?.to, pieces?.list.length]).toEqual([[expect.closeTo(1100, 6), expect.closeTo(560, 6)], 4]);
  bench.give({ kind: 'drop', aim: bench.aim(1100, 560), reach: 0 });
  bench.give({ kind: 'nudge', by: [3, -2], sigma: 1 });
  expect(distance(cornerOf(bench, 0), [1003, 558])).toBeLessThan(1e-6);
  // Once it keeps 40 mm off the lower edge it slides along that.
  bench.set_({ saying: 'distance' }).set([1100, 558], [1000, 900]);
  const [, y] = cornerOf(bench, 0);
  bench.set_({ saying: 'move' }).set([1100, y], [1150, y - 80]);
  const [corner, other] = [cornerOf(bench, 0), cornerOf(bench, 1)];
  expect(corner[1] + other[1]).toBeCloseTo(2 * y, 4);
  expect(corner[0]).toBeGreaterThan(1040);
});

it('what is pointed at in vain is said, and changes nothing', () => {
  const bench = benchWith();
  const before = bench.history;
  bench.set([1500, 500]);
  bench.set_({ saying: 'parallel' }).set([1500, 500]).set([900, 500], [1500, 500]);
  expect(bench.said).toEqual(['site-nothing-here', 'site-nothing-here', 'site-nothing-there']);
  expect(bench.history).toBe(before);
  bench.give({ kind: 'back' });
  expect(hintOf(bench)).toBe('site-parallel');
  bench.view = 'w';
  expect(hintOf(bench)).toBe('site-first');
});

it('an edge is kept clear of once, as far as the one before', () => {
  const bench = benchWith().set_({ saying: 'setback' }).set([1000, 900], [1100, 900], [1800, 500]);
  expect([bench.said, bench.history.job.setbacks.map(({ on: [end], mm }) => [end.segment, mm])]).toEqual([
    ['setback-twice'],
    [
      ['plot0', 3000],
      ['plot1', 3000],
    ],
  ]);
});

it('worked along an edge, the view lies level there; its plane keeps the axes that are told, and takes those that are not', () => {
  const told: Evidence = {
    ...scale,
    id: 'level',
    kind: 'level',
    groups: [['l', 'm']],
    said: { angle: { value: 0, written: '0' } },
  };
  const ends = [
    { id: 'l', at: [0, 600] as const, sigma: 1 },
    { id: 'm', at: [1900, 600] as const, sigma: 1 },
  ];
  const SLOPE = Math.atan2(-160, 1600);
  const viewAfter = (bench: HandBench) => bench.set_({ saying: 'frame' }).set([1000, 180]).history.job.views[0]!;
  const free = viewAfter(benchWith());
  expect([free.datum.direction, free.workAlong]).toEqual([expect.closeTo(SLOPE, 9), undefined]);
  const bench = benchWith(addEvidence('v', told, ends));
  const kept = viewAfter(bench);
  expect([kept.datum.direction, kept.workAlong]).toEqual([expect.closeTo(SLOPE, 9), expect.closeTo(-SLOPE, 3)]);
  const [p, q] = [[500, 600] as const, [900, 600] as const].map((at) => bench.context().fitted.fit.toPlane(at)) as [
    Vec,
    Vec,
  ];
  expect(q[1] - p[1]).toBeCloseTo(0, 6);
});

describe('drawn along what is worked along', () => {
  const ALONG = Math.atan2(160, 1600);
  const bench = (tool: 'chain' | 'shape') => {
    const made = new HandBench(tool);
    made.history = runCommand(made.history, setWorkAlong('v', -ALONG, ALONG));
    return made;
  };
  /** Which way each side of the outline runs, radians from what is worked along; half turns are the same. */
  const sidesOf = (made: HandBench) => {
    const { shapes } = made.context();
    return [...shapes.values()][0]!.pieces.map((piece) =>
      piece.kind === 'line'
        ? (Math.atan2(piece.b[1] - piece.a[1], piece.b[0] - piece.a[0]) - ALONG + 4 * Math.PI) % Math.PI
        : NaN,
    );
  };
  const isLevel = expect.closeTo(0, 2);
  const isUpright = expect.closeTo(Math.PI / 2, 2);
  const near = (angles: readonly number[]) => angles.map((angle) => (Math.PI - angle < 0.01 ? Math.PI - angle : angle));

  it('locked lines run level and upright to it', () => {
    const made = bench('chain').set_({ lock: true }).set([300, 800], [800, 780], [830, 300]).give({ kind: 'finish' });
    expect(near(sidesOf(made))).toEqual([isLevel, isUpright]);
  });

  it('rectangles lie along it', () => {
    const made = bench('shape').set_({ mode: 'rectangle' }).set([300, 800], [800, 400]);
    expect(near(sidesOf(made))).toEqual([isLevel, isUpright, isLevel, isUpright]);
    expect(made.history.job.relations.map(({ kind }) => kind)).toEqual(['direction', 'square', 'square', 'square']);
  });
});
