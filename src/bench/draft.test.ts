/** What was in hand when a sitting ended comes back as it was, and does no harm where it is damaged. */
import fc from 'fast-check';
import { createDeriver } from '@/core/derive';
import { addSheet, createJob, createView, runCommand, startHistory, type Sheet } from '@/core/job';
import type { JobStore } from '@/store';
import { Session } from './session';
import { isToolLike, startTool, TOOLS, type ToolName } from './tools';

const sheet: Sheet = { id: 's', name: 's', picture: 'a'.repeat(64), mediaType: 'image/png', bytes: 1, width: 4000, height: 3000, kind: 'photo', taken: {} };
const { job } = runCommand(startHistory(createJob('j', 'Job', new Date(0))), addSheet(sheet, createView('v', sheet)));
const state = { job, derived: createDeriver()(job), readOnly: undefined, setDraft: () => undefined, run: () => undefined };
const begun = (draft: string) => new Session({ getState: () => state } as unknown as JobStore, draft).getState();
const NAMES = Object.keys(TOOLS) as ToolName[];

it.each(NAMES)('%s comes back', (name) => {
  const tool = startTool(name);
  expect(isToolLike(JSON.parse(JSON.stringify(tool)))).toBe(true);
  expect(begun(JSON.stringify({ view: 'v', tool })).tool).toMatchObject({ name });
});

it.each(['', 'null', '7', '[]', '{"tool":', '{"tool":null}', '{"tool":{"name":"toString","state":{}}}', '{"tool":{"name":"evidence"}}', '{"tool":{"name":"evidence","state":{"points":[null]}}}', '{"view":7,"tool":{"name":"chain","state":[]}}'])('%s leaves nothing in hand', (draft) => {
  expect(begun(draft)).toMatchObject({ viewId: 'v', tool: { name: 'select' } });
});

it('whatever stands in its place, a sitting begins', () => {
  fc.assert(fc.property(fc.constantFrom(...NAMES), fc.json(), fc.nat(), (name, text, which) => {
    const tool = JSON.parse(JSON.stringify(startTool(name))) as { state: Record<string, unknown> };
    const keys = Object.keys(tool.state);
    tool.state[keys[which % keys.length] ?? 'points'] = JSON.parse(text);
    expect(begun(JSON.stringify({ view: 'v', tool })).viewId).toBe('v');
  }), { numRuns: 500 });
});
