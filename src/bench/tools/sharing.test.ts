/** What several views share, pointed at as in the app. */
import { addSheet, createView, runCommand, setSide, type ViewSide } from '@/core/job';
import { scanOf } from '@/core/job/for-tests';
import { HandBench } from './bench-for-tests';
import { toolOf, type ShareState } from '.';

const at = (bench: HandBench, x: number, y: number) => bench.give({ kind: 'set', aim: bench.aim(x, y) });
const stateOf = (bench: HandBench) => bench.tool.state as ShareState;
const hintOf = (bench: HandBench) => toolOf(bench.tool).hint?.(bench.tool.state, bench.context())?.code;
const showing = (side: ViewSide | undefined) => {
  const bench = new HandBench('share');
  if (side) bench.history = runCommand(bench.history, setSide('v', side));
  return bench;
};

it('asks first which side the view shows', () => {
  const bench = showing(undefined);
  expect(hintOf(bench)).toBe('side-first');
  at(bench, 300, 400);
  expect([bench.said, bench.history.job.features]).toEqual([['side-first'], []]);
  expect(at(showing('section'), 300, 400).history.job.features).toEqual([]);
});

it.each([
  ['front', 'level', 'up', 'Base line'],
  ['front', 'upright', 'across', 'Centre line'],
  ['top', 'level', 'deep', 'Back line'],
  ['right', 'upright', 'deep', 'Back line'],
  ['left', 'place', undefined, 'Place 1'],
] as const)('in a view from the %s, what runs %s means a coordinate: %s', (side, shape, along, name) => {
  const bench = showing(side);
  bench.tool = { name: 'share', state: { shape } };
  at(bench, 300, 400);
  expect(bench.history.job.features).toMatchObject([{ name, said: {}, seen: [{ view: 'v', at: [300, 400] }] }]);
  expect(bench.history.job.features[0]!.along).toBe(along);
});

it('further places are of the same line until it is done; the last one is nudged and taken back', () => {
  const bench = at(at(showing('front'), 300, 400), 1500, 404);
  const seen = () => bench.history.job.features.map((feature) => feature.seen.map((each) => each.at));
  expect(seen()).toEqual([
    [
      [300, 400],
      [1500, 404],
    ],
  ]);
  bench.give({ kind: 'nudge', by: [0, -3], sigma: 0.3 });
  expect(seen()[0]![1]).toEqual([1500, 401]);
  bench.give({ kind: 'back' });
  expect(seen()).toEqual([[[300, 400]]]);
  // Another back lets go of the line, and the next place begins another.
  at(bench.give({ kind: 'back' }), 300, 700);
  expect(bench.history.job.features.map(({ name }) => name)).toEqual(['Base line', 'Line 2']);
  expect(stateOf(bench.give({ kind: 'cancel' }))).toEqual({ shape: 'level' });
});

it('a line that this side cannot show is not pointed at here, and that is said', () => {
  const bench = at(showing('front'), 300, 400);
  bench.history = [
    addSheet({ ...scanOf(900, 900), id: 't' }, createView('w', scanOf(900, 900))),
    setSide('v', 'top'),
  ].reduce(runCommand, bench.history);
  expect(hintOf(bench)).toBe('share-elsewhere');
  at(bench, 500, 500);
  expect(bench.said).toEqual(['feature-not-shown']);
  expect(bench.history.job.features[0]!.seen).toHaveLength(1);
});

it('with nothing in hand a mark is chosen by pointing at it, and nudged; a mouse drags it', () => {
  const bench = at(showing('front'), 300, 400).give({ kind: 'cancel' });
  at(bench, 304, 402);
  expect(stateOf(bench)).toMatchObject({ feature: bench.history.job.features[0]!.id });
  bench.give({ kind: 'nudge', by: [1, 1], sigma: 0.4 });
  const only = () => bench.history.job.features.map(({ seen }) => seen.map((each) => each.at));
  expect(only()).toEqual([[[301, 401]]]);
  bench.give({ kind: 'cancel' });
  bench.give(
    { kind: 'grab', aim: bench.aim(301, 402), reach: 1 },
    { kind: 'drag', aim: bench.aim(350, 380), reach: 0 },
  );
  expect(only()).toEqual([[[350, 380]]]);
  bench.give({ kind: 'drop', aim: bench.aim(360, 390), reach: 0 });
  expect([only(), stateOf(bench).grabbed]).toEqual([[[[360, 390]]], undefined]);
  // What is let go of while it is dragged goes back.
  bench.give({ kind: 'grab', aim: bench.aim(360, 390), reach: 1 }, { kind: 'drag', aim: bench.aim(90, 90), reach: 0 });
  bench.give({ kind: 'cancel' });
  expect(only()).toEqual([[[360, 390]]]);
});

it('while one aims, the line is shown as it runs in this view', () => {
  const bench = showing('front');
  const { lines = [] } = toolOf(bench.tool).preview(bench.tool.state, bench.aim(900, 500), bench.context());
  const [[a, b]] = lines as [[readonly [number, number], readonly [number, number]]];
  expect(a[1]).toBeCloseTo(500, 6);
  expect(b[1]).toBeCloseTo(500, 6);
  expect(a[0]).toBeLessThan(0);
  expect(b[0]).toBeGreaterThan(2000);
});

it('what lies halfway is pointed at by both its sides, as surely as both together, in every view', () => {
  const bench = showing('front');
  bench.tool = { name: 'share', state: { shape: 'upright', halfway: true } };
  at(bench, 300, 400);
  expect([bench.history.job.features, hintOf(bench)]).toEqual([[], 'share-halfway']);
  // The line is shown where it would lie.
  const { preview } = toolOf(bench.tool);
  const [line] = preview(bench.tool.state, bench.aim(700, 420), bench.context()).lines!;
  expect(line!.map(([x]) => x)).toEqual([500, 500]);
  at(bench, 700, 420);
  const { sigma } = bench.aim(0, 0);
  expect(bench.history.job.features).toMatchObject([
    { name: 'Centre line', along: 'across', seen: [{ at: [500, 410], sigma: expect.closeTo(sigma / Math.SQRT2, 9) }] },
  ]);
  // Once more, far along it: the same line; a side that was pointed at in vain is taken back first.
  at(bench, 310, 900);
  bench.give({ kind: 'back' });
  expect([stateOf(bench).side, bench.history.job.features[0]!.seen.length]).toEqual([undefined, 1]);
  at(at(bench, 310, 900), 710, 900);
  expect(bench.history.job.features.map(({ seen }) => seen.map((each) => each.at.map(Math.round)))).toEqual([
    [
      [500, 410],
      [510, 900],
    ],
  ]);
  expect(stateOf(bench.give({ kind: 'cancel' }))).toEqual({ shape: 'upright', halfway: true });
});
