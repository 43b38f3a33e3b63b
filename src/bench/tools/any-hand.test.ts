/** Every tool in a hand that does anything, in any order: its state stays plain data that comes back from the device, and what it does to the job is a job that can be kept. */
import fc from 'fast-check';
import type { Vec } from '@/core/geometry';
import { addOutline, isHoldable, runCommand } from '@/core/job';
import type { Chain, CircleOutline } from '@/core/outline';
import { wordsForHint } from '@/ui/hint-words';
import {
  isToolLike,
  startTool,
  toolOf,
  TOOLS,
  type ActiveTool,
  type ToolContext,
  type ToolInput,
  type ToolName,
} from '.';
import { HandBench } from './bench-for-tests';

const pointed = (at: Vec) => ({ kind: 'pointed' as const, at, sigma: 0.5 });
const plate: Chain = {
  shape: 'chain',
  id: 'plate',
  plane: 'v',
  layer: 'outline',
  closed: true,
  nodes: (
    [
      [200, 800],
      [900, 800],
      [900, 300],
      [200, 300],
    ] as const
  ).map((at, i) => ({ id: `c${i}`, place: pointed(at), smooth: false })),
  segments: Array.from({ length: 4 }, () => ({ kind: 'line' })),
};
const hole: CircleOutline = {
  shape: 'circle',
  id: 'hole',
  plane: 'v',
  layer: 'outline',
  by: { kind: 'rim', centre: pointed([500, 550]), rim: pointed([600, 550]) },
};

/** Places that mean something for a tool (corners, rims, middles) as often as any other. */
const KNOWN: readonly Vec[] = [
  [200, 800],
  [900, 800],
  [550, 800],
  [500, 550],
  [600, 550],
  [0, 500],
  [1000, 500],
];
const place = fc.oneof(
  fc.constantFrom(...KNOWN),
  fc.tuple(fc.integer({ min: -50, max: 2050 }), fc.integer({ min: -50, max: 1050 })) as fc.Arbitrary<Vec>,
);
const number = fc.constantFrom(0, 12.5, -3, 1e-9, 1e6);

/** What a hand can do, as a function of where it points. */
type Deed = (bench: HandBench) => ToolInput;
const deed: fc.Arbitrary<Deed> = fc.oneof(
  { weight: 6, arbitrary: place.map(([x, y]): Deed => (bench) => ({ kind: 'set', aim: bench.aim(x, y), seek: true })) },
  {
    weight: 4,
    arbitrary: fc
      .tuple(fc.constantFrom('grab', 'drag', 'drop'), place)
      .map(([kind, [x, y]]): Deed => (bench) => ({ kind, aim: bench.aim(x, y), reach: 14 })),
  },
  {
    weight: 2,
    arbitrary: fc
      .tuple(number, number, place)
      .map(([length, angle, [x, y]]): Deed => (bench) => ({ kind: 'typed', length, angle, aim: bench.aim(x, y) })),
  },
  {
    weight: 1,
    arbitrary: fc
      .array(place, { minLength: 3, maxLength: 6 })
      .map((at): Deed => () => ({ kind: 'found', points: at.map((one) => ({ at: one, sigma: 0.2 })) })),
  },
  { weight: 1, arbitrary: number.map((by): Deed => () => ({ kind: 'nudge', by: [by, 1], sigma: 0.5 })) },
  {
    weight: 3,
    arbitrary: fc
      .constantFrom('back', 'another', 'finish', 'close', 'cancel', 'release', 'not-found', 'propose')
      .map((kind): Deed => () => ({ kind })),
  },
);

/** Only what JSON knows, and nothing that it would change but for what is undefined. */
function isPlain(value: unknown): boolean {
  if (value === null || value === undefined || typeof value === 'string' || typeof value === 'boolean') return true;
  if (typeof value === 'number') return Number.isFinite(value);
  if (Array.isArray(value)) return value.every(isPlain);
  const isObject = typeof value === 'object' && Object.getPrototypeOf(value) === Object.prototype;
  return isObject && Object.values(value as object).every(isPlain);
}

/** Whatever its state, a tool says what it waits for in words, and shows only what there is. */
function expectDeclared(tool: ActiveTool, context: ToolContext): void {
  const { hint, marks, between } = toolOf(tool);
  const waitsFor = hint?.(tool.state, context);
  if (waitsFor) expect(wordsForHint(waitsFor)).toEqual(expect.any(String));
  for (const mark of marks?.(tool.state) ?? []) {
    if (mark.kind !== 'chosen-outlines') continue;
    const known = context.job.outlines.map(({ id }) => id);
    expect(mark.outlines.filter((id) => !known.includes(id))).toEqual([]);
  }
  expect((between?.(tool.state) ?? []).every(({ sigma }) => sigma > 0)).toBe(true);
}

const stored = (tool: ActiveTool): ActiveTool => JSON.parse(JSON.stringify(tool)) as ActiveTool;

function benchWith(name: ToolName, scaled: boolean): HandBench {
  const bench = new HandBench(name, scaled);
  for (const outline of [plate, hole]) bench.history = runCommand(bench.history, addOutline(outline));
  bench.tool = startTool(name);
  return bench;
}

describe.each(Object.keys(TOOLS) as ToolName[])('the tool %s', (name) => {
  it('keeps plain data, shows it again as it was stored, and lets a job be kept', () => {
    let changed = 0;
    fc.assert(
      fc.property(fc.boolean(), fc.array(deed, { minLength: 1, maxLength: 14, size: 'max' }), (scaled, deeds) => {
        const bench = benchWith(name, scaled);
        for (const make of deeds) {
          const { job } = bench.history;
          bench.give(make(bench));
          expect([name, bench.tool.state, isPlain(bench.tool.state)]).toEqual([name, bench.tool.state, true]);
          expect(isHoldable(job, bench.history.job)).toBe(true);
          if (bench.history.job !== job) changed++;
        }
        const [context, aim] = [bench.context(), bench.aim(640, 410)];
        expectDeclared(bench.tool, context);
        const again = stored(bench.tool);
        expect(isToolLike(again)).toBe(true);
        const shown = toolOf(bench.tool).preview(bench.tool.state, aim, context);
        expect(toolOf(again).preview(again.state, aim, context)).toEqual(shown);
      }),
      { seed: 3, numRuns: 12 },
    );
    if (['chain', 'circle', 'shape', 'guide'].includes(name)) expect([name, changed > 0]).toEqual([name, true]);
  });

  it('lets go of all that it holds when that is cancelled, and has done nothing for it', () => {
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 3 }), ([first, ...others]) => {
        const bench = benchWith(name, true);
        bench.give({ kind: 'grab', aim: bench.aim(...first!), reach: 14 });
        const { job } = bench.history;
        for (const [x, y] of others) bench.give({ kind: 'drag', aim: bench.aim(x, y), reach: 14 });
        bench.give({ kind: 'cancel' });
        expect(JSON.parse(JSON.stringify(bench.history.job))).toEqual(JSON.parse(JSON.stringify(job)));
        expect('grabbed' in bench.tool.state ? bench.tool.state.grabbed : undefined).toBeUndefined();
      }),
      { seed: 4, numRuns: 12 },
    );
  });
});
