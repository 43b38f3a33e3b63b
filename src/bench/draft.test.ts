/** What was in hand when a sitting ended comes back as it was, and does no harm where it is damaged. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { createDeriver } from '@/core/derive';
import { addSheet, createJob, createView, readJob, runCommand, startHistory, type Sheet } from '@/core/job';
import type { JobStore } from '@/store';
import { Session } from './session';
import { isToolLike, startTool, toolOf, TOOLS, type ActiveTool, type ToolName } from './tools';

const sheet: Sheet = {
  id: 's',
  name: 's',
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 4000,
  height: 3000,
  kind: 'photo',
  taken: {},
};
const { job } = runCommand(startHistory(createJob('j', 'Job', new Date(0))), addSheet(sheet, createView('v', sheet)));
const state = {
  job,
  derived: createDeriver()(job),
  readOnly: undefined,
  setDraft: () => undefined,
  run: () => undefined,
};
const begun = (draft: string) => new Session({ getState: () => state } as unknown as JobStore, draft).getState();
const NAMES = Object.keys(TOOLS) as ToolName[];

it.each(NAMES)('%s comes back', (name) => {
  const tool = startTool(name);
  expect(isToolLike(JSON.parse(JSON.stringify(tool)))).toBe(true);
  expect(begun(JSON.stringify({ view: 'v', tool })).tool).toMatchObject({ name });
});

it.each([
  '',
  'null',
  '7',
  '[]',
  '{"tool":',
  '{"tool":null}',
  '{"tool":{"name":"toString","state":{}}}',
  '{"tool":{"name":"evidence"}}',
  '{"tool":{"name":"evidence","state":{"points":[null]}}}',
  '{"view":7,"tool":{"name":"chain","state":[]}}',
])('%s leaves nothing in hand', (draft) => {
  expect(begun(draft)).toMatchObject({ viewId: 'v', tool: { name: 'select' } });
});

it('whatever stands in its place, a sitting begins', () => {
  fc.assert(
    fc.property(fc.constantFrom(...NAMES), fc.json(), fc.nat(), (name, text, which) => {
      const tool = JSON.parse(JSON.stringify(startTool(name))) as { state: Record<string, unknown> };
      const keys = Object.keys(tool.state);
      tool.state[keys[which % keys.length] ?? 'points'] = JSON.parse(text);
      expect(begun(JSON.stringify({ view: 'v', tool })).viewId).toBe('v');
    }),
    { numRuns: 500 },
  );
});

/** What the tools of every version before this one left in hand: a line with an arc in it, a circle of which two places are set, a length with one end, a guide. The first version had a tool of its own for lengths. */
it.each([1, 2, 3, 4, 5, 6, 7])('what version %i left in hand is carried on', (version) => {
  const drafts = JSON.parse(readFileSync(join(__dirname, 'drafts', `v${version}.json`), 'utf8')) as readonly {
    readonly tool: ActiveTool;
  }[];
  expect(drafts.map((draft) => begun(JSON.stringify(draft)).tool)).toEqual(
    drafts.map(({ tool }) => ((tool.name as string) === 'length' ? startTool('select') : tool)),
  );

  const [chain] = drafts as [{ readonly tool: ActiveTool }];
  const context = {
    job,
    fitted: state.derived.views.get('v')!,
    layer: job.layers[0]!.id,
    shapes: state.derived.shapes,
    newId: () => 'new',
  };
  const [, effects] = toolOf(chain.tool).step(chain.tool.state, { kind: 'finish' }, context);
  const drawn = effects.reduce(
    (history, effect) => (effect.kind === 'run' ? runCommand(history, effect.command) : history),
    startHistory(job),
  );
  expect(readJob(JSON.parse(JSON.stringify(drawn.job)))).toMatchObject({
    ok: true,
    value: {
      outlines: [
        { shape: 'chain', nodes: { length: 4 }, segments: [{ kind: 'line' }, { kind: 'arc' }, { kind: 'line' }] },
      ],
    },
  });
});
