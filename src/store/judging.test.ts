/** What takes long to judge is judged elsewhere: the job goes on, and what comes of it is shown once it is there. */
import type { Scene } from '@/core/arrange';
import { fitOf, toldOf, toldOfScene, type Told, type ToldScene } from '@/core/derive';
import { ALL, benchOf, joining, RIGHT, sized } from '@/core/derive/bench-for-tests';
import {
  addEvidence,
  addSheet,
  createJob,
  createView,
  cutView,
  removeEvidence,
  renameView,
  setLook,
  startHistory,
  type Command,
  type Sheet,
} from '@/core/job';
import type { ToJudge } from '@/workers';
import { createJobStore } from './job-store';
import type { Judge } from './judging';
import { testCard, testDevice } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({ pictureWorker: {}, fileWorker: {} }));

const sheet: Sheet = {
  id: 's',
  name: 's',
  picture: 'a'.repeat(64),
  mediaType: 'image/jpeg',
  bytes: 1,
  width: 4000,
  height: 3000,
  kind: 'scan',
  taken: {},
};
const length = (i: number, mm: number) => {
  const said = { length: { value: mm, written: String(mm) } };
  const piece = { id: `e${i}`, kind: 'length', groups: [[`p${i}`, `q${i}`]], said, guess: false, role: 'use' } as const;
  const y = 200 + 200 * i;
  return addEvidence('v', piece, [
    { id: `p${i}`, at: [300, y], sigma: 1 },
    { id: `q${i}`, at: [2300 + 100 * i, y + 150], sigma: 1 },
  ]);
};

/** A judge that answers when it is told to. */
function createJudge() {
  const asked: { readonly view: ToJudge; readonly signal: AbortSignal; answer(told?: Told): void }[] = [];
  const scenes: { readonly scene: Scene; readonly signal: AbortSignal; answer(told?: ToldScene): void }[] = [];
  const judge: Judge = {
    view: (view, signal) => new Promise((resolve) => void asked.push({ view, signal, answer: resolve })),
    together: (scene, signal) => new Promise((resolve) => void scenes.push({ scene, signal, answer: resolve })),
  };
  return { asked, scenes, judge };
}

function open(judge: Judge, job = createJob('j', 'Job', new Date(0))) {
  const { repository } = testDevice();
  const history = startHistory(job);
  const jobs = createJobStore({
    history,
    repository,
    cardOf: testCard,
    guard: () => undefined,
    onRefused: () => undefined,
    draft: null,
    judge,
  } as never);
  const { run } = jobs.getState();
  if (job.sheets.length === 0) run(addSheet(sheet, createView('v', sheet)));
  return { jobs, run, fitted: () => jobs.getState().derived.views.get('v')! };
}

/** Every second one wrong, each by something else. */
const contradict = (run: (command: Command) => void) =>
  Array.from({ length: 10 }, (_, i) =>
    run(length(i, (Math.hypot(2000 + 100 * i, 150) / 10) * (i % 2 ? 1 : 1.1 + i / 40))),
  );
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

it('shows a contradiction as pending, asks about it once, and shows what it came to', async () => {
  const { asked, judge } = createJudge();
  const { run, fitted } = open(judge);
  contradict(run);
  expect(fitted().isPending).toBe(true);
  const open_ = asked.filter(({ signal }) => !signal.aborted);
  expect(open_).toHaveLength(1);
  const { view } = open_[0]!;
  open_[0]!.answer(toldOf(fitOf(view.view, view.sheet, view.owner)));
  await settled();
  expect(fitted().isPending).toBe(false);
  expect(fitted().fit.suspects.length).toBeGreaterThan(0);
  expect(asked.filter(({ signal }) => !signal.aborted)).toHaveLength(1);
});

it('gives up a question when the view is changed, and hears no late answer to it', async () => {
  const { asked, judge } = createJudge();
  const { run, fitted } = open(judge);
  contradict(run);
  const first = asked.at(-1)!;
  run(removeEvidence('v', 'e1'));
  expect(first.signal.aborted).toBe(true);
  first.answer(toldOf(fitOf(first.view.view, first.view.sheet, first.view.owner)));
  await settled();
  expect(fitted().isPending).toBe(true);
  expect(fitted().view.evidence).toHaveLength(9);
});

it('a view that is renamed, shown otherwise or cut in two asks nothing new', async () => {
  const { asked, judge } = createJudge();
  const { run, fitted, jobs } = open(judge);
  contradict(run);
  const before = asked.length;
  run(renameView('v', 'Front'));
  run(setLook('v', { opacity: 0.5, contrast: 1, grey: false }));
  run(cutView({ ...createView('w', sheet), shares: 'v' }));
  expect([asked.length, asked.at(-1)!.signal.aborted, fitted().isPending]).toEqual([before, false, true]);
  const { view } = asked.at(-1)!;
  asked.at(-1)!.answer(toldOf(fitOf(view.view, view.sheet, view.owner)));
  await settled();
  const { views } = jobs.getState().derived;
  expect([...views.values()].map(({ isPending, fit }) => [isPending, fit.suspects])).toEqual([
    [false, fitted().fit.suspects],
    [false, fitted().fit.suspects],
  ]);
  run(renameView('v', 'Side'));
  expect([asked.length, fitted().isPending, fitted().view.name]).toEqual([before, false, 'Side']);
});

it('judges here where nobody answers', async () => {
  const { asked, judge } = createJudge();
  const { run, fitted } = open(judge);
  contradict(run);
  asked.at(-1)!.answer(undefined);
  await settled();
  expect([fitted().isPending, fitted().fit.scaled]).toEqual([false, true]);
});

it('asks nobody about what agrees', () => {
  const { asked, judge } = createJudge();
  const { run, fitted } = open(judge);
  for (let i = 0; i < 6; i++) run(length(i, Math.hypot(2000 + 100 * i, 150) / 10));
  expect([asked.length, fitted().isPending, fitted().fit.scaled]).toEqual([0, false, true]);
});

describe('views that stand together', () => {
  const bench = () => benchOf(undefined, [sized(RIGHT, 'foot', 'back', 1, () => 0, 1.2), ...joining(...ALL)]);

  it('what contradicts is pending, asked about once, and shown with what came of it', async () => {
    const { scenes, judge } = createJudge();
    const { jobs } = open(judge, bench());
    const arranged = () => jobs.getState().derived.arranged;
    expect([arranged().pending.length, scenes.length, arranged().isDoubted]).toEqual([1, 1, false]);
    scenes[0]!.answer(toldOfScene(scenes[0]!.scene));
    await settled();
    expect([arranged().pending.length, scenes.length, arranged().isDoubted]).toEqual([0, 1, true]);
    jobs.getState().run(renameView('side', 'From the right'));
    expect([arranged().pending.length, scenes.length]).toEqual([0, 1]);
  });

  it('a change gives up the question, and asks the new one', async () => {
    const { scenes, judge } = createJudge();
    const { jobs } = open(judge, bench());
    jobs.getState().run(removeEvidence('front', 'front-size'));
    const waits = () => jobs.getState().derived.arranged.pending.length;
    // Without that size nothing contradicts, which is seen at once.
    expect([scenes.length, scenes[0]!.signal.aborted, waits()]).toEqual([1, true, 0]);
    jobs.getState().undo();
    expect([scenes.length, scenes[1]!.signal.aborted, waits()]).toEqual([2, false, 1]);
    scenes[0]!.answer(toldOfScene(scenes[0]!.scene));
    await settled();
    expect(waits()).toBe(1);
    scenes[1]!.answer(toldOfScene(scenes[1]!.scene));
    await settled();
    expect([waits(), jobs.getState().derived.arranged.isDoubted]).toEqual([0, true]);
  });

  it('are fitted here where nobody answers', async () => {
    const { scenes, judge } = createJudge();
    const { jobs } = open(judge, bench());
    scenes[0]!.answer(undefined);
    await settled();
    expect([...jobs.getState().derived.arranged.stands.keys()]).toEqual(['front', 'side', 'plan']);
    expect(jobs.getState().derived.arranged.pending).toEqual([]);
  });

  it('whose evidence has to be judged too are asked about one after the other', async () => {
    const { asked, scenes, judge } = createJudge();
    const { jobs, run } = open(judge, bench());
    scenes[0]!.answer(toldOfScene(scenes[0]!.scene));
    await settled();
    for (let i = 0; i < 10; i++)
      run({ ...length(i, (Math.hypot(2000 + 100 * i, 150) / 10) * (i % 2 ? 1 : 1.1 + i / 40)) });
    const waits = () => [...jobs.getState().derived.alone.values()].filter(({ isPending }) => isPending).length;
    for (let round = 0; round < 4 && (waits() > 0 || jobs.getState().derived.arranged.pending.length > 0); round++) {
      const view = asked.findLast(({ signal }) => !signal.aborted);
      const scene = scenes.findLast(({ signal }) => !signal.aborted);
      if (waits() > 0) view!.answer(toldOf(fitOf(view!.view.view, view!.view.sheet, view!.view.owner)));
      else scene!.answer(toldOfScene(scene!.scene));
      await settled();
    }
    expect([waits(), jobs.getState().derived.arranged.pending.length]).toEqual([0, 0]);
  });
});
