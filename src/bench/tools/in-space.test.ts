/** Outlines of two views pointed at as one curve in space, and an edge that a view stands on, as in the app. */
import type { Vec } from '@/core/geometry';
import {
  addFeature,
  addOutline,
  addSheet,
  createView,
  removeOutlines,
  runCommand,
  setSide,
  setStandsOn,
  type Command,
  type Feature,
} from '@/core/job';
import { scanOf } from '@/core/job/for-tests';
import type { Chain } from '@/core/outline';
import { HandBench } from './bench-for-tests';
import { toolOf, type ToolName } from '.';

const chain = (id: string, plane: string, places: readonly (readonly [number, number])[], curved = false): Chain => ({
  shape: 'chain',
  id,
  plane,
  layer: 'outline',
  closed: false,
  nodes: places.map((at, i) => ({ id: `${id}${i}`, place: { kind: 'pointed', at, sigma: 0.5 }, smooth: false })),
  segments: places.slice(1).map(() => ({ kind: curved ? 'curve' : 'line' })),
});

/** A front with two outlines that cross, and a plan with one and with a bend. */
function benchWith(tool: ToolName): HandBench {
  const bench = new HandBench(tool);
  const top = { ...scanOf(2000, 1000), id: 't' };
  const commands: readonly Command[] = [
    addSheet(top, createView('w', top)),
    setSide('v', 'front'),
    setSide('w', 'top'),
    addOutline(
      chain('arm', 'v', [
        [100, 800],
        [900, 200],
      ]),
    ),
    addOutline(
      chain('brace', 'v', [
        [100, 200],
        [900, 800],
      ]),
    ),
    addOutline(
      chain('plan', 'w', [
        [100, 500],
        [900, 600],
        [1500, 600],
      ]),
    ),
    addOutline(
      chain(
        'bow',
        'w',
        [
          [100, 900],
          [500, 700],
          [900, 900],
        ],
        true,
      ),
    ),
  ];
  bench.history = commands.reduce(runCommand, bench.history);
  return bench;
}
const at = (bench: HandBench, x: number, y: number) => bench.give({ kind: 'set', aim: bench.aim(x, y) });
const hintOf = (bench: HandBench) => toolOf(bench.tool).hint?.(bench.tool.state, bench.context())?.code;
const stateOf = (bench: HandBench) => bench.tool.state as { readonly first?: string; readonly view?: string };

it('one outline here and one in another view make a curve, called by the next free name', () => {
  const bench = benchWith('spaceCurve');
  expect(hintOf(bench)).toBe('curve-first');
  at(bench, 300, 650);
  expect([stateOf(bench).first, hintOf(bench)]).toEqual(['arm', 'curve-elsewhere']);
  // Another one here takes its place; the same one again is let go of.
  at(bench, 300, 350);
  expect(stateOf(bench).first).toBe('brace');
  expect(stateOf(at(bench, 300, 350)).first).toBeUndefined();
  at(bench, 300, 650);
  bench.view = 'w';
  expect(hintOf(bench)).toBe('curve-second');
  at(bench, 1200, 600);
  expect(bench.history.job.spaceCurves).toMatchObject([{ name: 'Curve 1', of: ['arm', 'plan'] }]);
  bench.view = 'v';
  at(bench, 300, 350);
  bench.view = 'w';
  at(bench, 1200, 600);
  expect(bench.history.job.spaceCurves.map(({ name, of }) => [name, of])).toEqual([
    ['Curve 1', ['arm', 'plan']],
    ['Curve 2', ['brace', 'plan']],
  ]);
  expect(bench.said).toEqual([]);
  // What was pointed at first and is gone since is none: the next one is the first.
  bench.view = 'v';
  at(bench, 300, 650);
  bench.history = runCommand(bench.history, removeOutlines(['arm']));
  bench.view = 'w';
  expect(hintOf(bench)).toBe('curve-first');
  at(bench, 1200, 600);
  expect([stateOf(bench).first, bench.history.job.spaceCurves.map(({ name }) => name)]).toEqual(['plan', ['Curve 2']]);
});

it('where nothing lies that is said; where two lie over each other one goes on to the other', () => {
  const bench = at(benchWith('spaceCurve'), 1500, 100);
  expect(bench.said).toEqual(['curve-nothing-here']);
  at(bench, 500, 500);
  const first = stateOf(bench).first!;
  bench.give({ kind: 'another' });
  expect([first, stateOf(bench).first].sort()).toEqual(['arm', 'brace']);
  bench.give({ kind: 'another' });
  expect(stateOf(bench).first).toBe(first);
  expect(stateOf(bench.give({ kind: 'cancel' })).first).toBeUndefined();
  bench.history = runCommand(bench.history, setSide('v', undefined));
  expect([hintOf(bench), at(bench, 300, 650).said.at(-1)]).toEqual(['side-first', 'side-first']);
});

it('a view stands on the straight edge that is tapped in another one, and on nothing else', () => {
  const bench = benchWith('standOn');
  bench.history = runCommand(bench.history, setSide('v', 'face'));
  bench.tool = { name: 'standOn', state: { view: 'v' } };
  expect(hintOf(bench)).toBe('edge-elsewhere');
  at(bench, 300, 650);
  bench.view = 'w';
  expect(hintOf(bench)).toBe('edge-here');
  at(bench, 1800, 100);
  at(bench, 500, 700);
  expect(bench.said).toEqual(['edge-in-itself', 'edge-nothing-here', 'edge-bent']);
  at(bench, 1200, 600);
  expect(bench.history.job.views.map(({ id, standsOn }) => [id, standsOn])).toEqual([
    ['v', { outline: 'plan', from: 'plan1' }],
    ['w', undefined],
  ]);
  // It is done: what is tapped next is nothing.
  expect([stateOf(bench).view, hintOf(bench)]).toEqual([undefined, undefined]);
  expect(at(bench, 500, 550).history.job.views[0]!.standsOn).toMatchObject({ from: 'plan1' });
});

it('around a closed outline one looks from outside, whichever way round it was drawn', () => {
  const around = [
    [400, 300],
    [1400, 300],
    [1400, 800],
    [400, 800],
  ] as const;
  const turnedOf = (places: readonly (readonly [number, number])[]) => {
    const bench = benchWith('standOn');
    const room: Chain = { ...chain('room', 'w', places), closed: true, segments: places.map(() => ({ kind: 'line' })) };
    bench.history = [removeOutlines(['plan', 'bow']), setSide('v', 'face'), addOutline(room)].reduce(
      runCommand,
      bench.history,
    );
    bench.tool = { name: 'standOn', state: { view: 'v' } };
    bench.view = 'w';
    return at(bench, 900, 800).history.job.views[0]!.standsOn?.turned ?? false;
  };
  expect([turnedOf(around), turnedOf([...around].reverse())]).toEqual([true, false]);
});

it('both ends of the edge are pointed at in the view that stands, in whichever order, and shared with the plan', () => {
  const bench = benchWith('standOn');
  bench.history = [setSide('v', 'face'), setStandsOn('v', { outline: 'plan', from: 'plan1' })].reduce(
    runCommand,
    bench.history,
  );
  bench.tool = { name: 'standOn', state: { view: 'v', ends: [] } };
  bench.view = 'w';
  expect(hintOf(bench)).toBe('ends-there');
  at(bench, 700, 600);
  bench.view = 'v';
  expect(hintOf(bench)).toBe('edge-ends');
  at(bench, 900, 700);
  at(bench, 900, 701);
  expect(bench.said).toEqual(['ends-elsewhere', 'points-the-same']);
  // One can be taken back.
  bench.give({ kind: 'back' });
  at(bench, 800, 700);
  at(bench, 300, 690);
  const { views, features, outlines } = bench.history.job;
  const { ends } = views[0]!.standsOn!;
  const shownAt = (id: string | undefined, view: string) =>
    features
      .find((feature) => feature.id === id)!
      .seen.filter((seen) => seen.view === view)
      .map((seen) => seen.at);
  expect([ends!.from, ends!.to].map((id) => shownAt(id, 'v'))).toEqual([[[300, 690]], [[800, 700]]]);
  const plan = outlines.find(({ id }) => id === 'plan') as Chain;
  const nodes = [plan.nodes[1]!, plan.nodes[2]!].map(({ place }) => (place as { at: Vec }).at);
  expect([ends!.from, ends!.to].map((id) => shownAt(id, 'w'))).toEqual(nodes.map((node) => [node]));
  expect(features.map(({ name }) => name)).toEqual(['Place 1', 'Place 2']);
  expect(hintOf(bench)).toBeUndefined();
});

it('a view between the ends of its edge shows heights and places, and no upright lines', () => {
  const bench = benchWith('share');
  const corner = (id: string, x: number): Feature => ({
    id,
    name: id,
    said: {},
    seen: [{ id: `${id}-v`, view: 'v', at: [x, 700], sigma: 1 }],
  });
  bench.history = [
    setSide('v', undefined),
    addFeature(corner('a', 300)),
    addFeature(corner('b', 800)),
    setStandsOn('v', { outline: 'plan', from: 'plan1', ends: { from: 'a', to: 'b' } }),
  ].reduce(runCommand, bench.history);
  bench.tool = { name: 'share', state: { shape: 'upright' } };
  at(bench, 500, 400);
  expect(bench.said).toEqual(['share-no-upright']);
  bench.tool = { name: 'share', state: { shape: 'level' } };
  at(bench, 500, 400);
  expect(bench.history.job.features.at(-1)).toMatchObject({ along: 'up', seen: [{ view: 'v' }] });
});
