/** What takes long to judge is judged elsewhere: the job goes on, and what comes of it is shown once it is there. */
import { fitOf, toldOf, type Told } from '@/core/derive';
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
  const judge = (view: ToJudge, signal: AbortSignal) =>
    new Promise<Told | undefined>((resolve) => void asked.push({ view, signal, answer: resolve }));
  return { asked, judge };
}

function open(judge: ReturnType<typeof createJudge>['judge']) {
  const { repository } = testDevice();
  const history = startHistory(createJob('j', 'Job', new Date(0)));
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
  run(addSheet(sheet, createView('v', sheet)));
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
