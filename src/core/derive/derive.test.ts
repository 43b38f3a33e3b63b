/** What is worked out anew when something changes, and what is not. */
import * as calibrate from '../calibrate';
import {
  addEvidence,
  addOutline,
  addRelations,
  addSheet,
  createJob,
  createView,
  cutView,
  mirrorView,
  changeOutline,
  renameView,
  runCommand,
  setDatum,
  setFrame,
  setHidden,
  setLook,
  startHistory,
  type Command,
  type Evidence,
  type Job,
} from '../job';
import type { Vec } from '../geometry';
import type { Chain } from '../outline';
import { createDeriver } from '.';
import { scanOf } from '../job/for-tests';

jest.mock('../calibrate', () => {
  const actual: typeof calibrate = jest.requireActual('../calibrate');
  return { ...actual, adjustEvidence: jest.fn(actual.adjustEvidence) };
});
const adjusted = jest.mocked(calibrate.adjustEvidence);

const sheet = scanOf(3000, 2000);
const length: Evidence = {
  id: 'e',
  kind: 'length',
  groups: [['p', 'q']],
  said: { length: { value: 200, written: '200' } },
  guess: false,
  role: 'use',
};
const ends = (
  [
    [500, 400],
    [2500, 400],
  ] as readonly Vec[]
).map((at, i) => ({ id: 'pq'[i]!, at, sigma: 1 }));
const line = (id: string, plane: string, y: number): Chain => ({
  shape: 'chain',
  id,
  plane,
  layer: 'outline',
  closed: false,
  segments: [{ kind: 'line' }],
  nodes: [500, 1500].map((x, i) => ({
    id: `${id}${i}`,
    smooth: false,
    place: { kind: 'pointed', at: [x, y], sigma: 1 },
  })),
});
const job: Job = [
  addSheet(sheet, createView('v', sheet)),
  addEvidence('v', length, ends),
  cutView({ ...createView('w', sheet), shares: 'v' }),
  cutView({ ...createView('x', sheet), shares: 'v' }),
  ...['v', 'w', 'x'].map((plane, i) => addOutline(line(`l${plane}`, plane, 700 + 300 * i))),
  addOutline(line('held', 'v', 1800)),
  addRelations([{ id: 'r', plane: 'v', kind: 'length', on: [{ outline: 'held', segment: 'held0' }], value: 100.1 }]),
].reduce(runCommand, startHistory(createJob('j', 'Job', new Date(0)))).job;

function deriveWith(...commands: readonly Command[]) {
  const derive = createDeriver();
  adjusted.mockClear();
  const before = derive(job);
  const first = adjusted.mock.calls.length;
  const changed = commands.reduce(runCommand, startHistory(job)).job;
  const after = derive(changed);
  return { before, after, first, again: adjusted.mock.calls.length - first };
}

it('views that share their evidence are fitted once, each in its own axes', () => {
  const { before, first } = deriveWith();
  expect(first).toBe(1);
  const zeros = [...before.views.values()].map(({ fit, view }) => fit.toPlane(view.datum.origin));
  for (const zero of zeros) expect(Math.hypot(...zero)).toBeLessThan(1e-9);
});

it.each([
  ['a name', renameView('v', 'Front')],
  ['how it is shown', setLook('v', { opacity: 0.4, contrast: 1.2, grey: true })],
  [
    'a crop',
    setFrame('v', [
      [0, 0],
      [900, 0],
      [900, 900],
    ]),
  ],
  ['that it is hidden', setHidden('w', true)],
] as const)('%s changes no fit and no shape, and is seen', (_, command) => {
  const { before, after, again } = deriveWith(command);
  expect(again).toBe(0);
  for (const [id, shape] of before.shapes) expect(after.shapes.get(id)).toBe(shape);
  for (const [id, { fit }] of before.views) expect(after.views.get(id)!.fit).toBe(fit);
  const { views } = runCommand(startHistory(job), command).job;
  for (const view of views)
    expect(after.views.get(view.id)!.view).toMatchObject({ name: view.name, look: view.look, hidden: view.hidden });
  expect(after.planes.get('v')!.views[0]).toBe(after.views.get('v'));
});

it('other axes of one view leave the others alone', () => {
  const { before, after, again } = deriveWith(setDatum('w', { origin: [700, 900], direction: 0.2 }));
  expect(again).toBe(0);
  expect(after.shapes.get('lv')).toBe(before.shapes.get('lv'));
  expect(after.shapes.get('lx')).toBe(before.shapes.get('lx'));
  expect(after.shapes.get('lw')).not.toBe(before.shapes.get('lw'));
});

it('from behind the same evidence needs no judging of its own', () => {
  expect(deriveWith(mirrorView('x')).again).toBe(0);
});

it('an outline that is moved leaves every fit and every other shape as it is', () => {
  const { before, after, again } = deriveWith(changeOutline(line('lw', 'w', 1400)));
  expect(again).toBe(0);
  expect(['lv', 'lx', 'held'].map((id) => after.shapes.get(id) === before.shapes.get(id))).toEqual([true, true, true]);
});
