/** Whatever the device does to single writes, what is stored is always a job as it once was, and in the end as it is. */
import fc from 'fast-check';
import { addGuide, addSheet, createView, removeGuide, renameJob, setUnits, type Command, type Sheet } from '@/core/job';
import { openJob } from './own-desk';
import { JobRepository } from './repository';
import { StorageProblem, type KeyValueStorage } from './storage';
import { testCard, testDevice, testJob, testWindows } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({ pictureWorker: {}, fileWorker: {} }));

/** What the device makes of one write: it writes, does not, writes and says that it did not, or takes its time. */
const WAYS = ['writes', 'full', 'fails', 'writes and fails', 'late'] as const;
type Way = (typeof WAYS)[number];

function unruly(storage: KeyValueStorage, ways: readonly Way[]) {
  let next = 0;
  const device = { isRuly: false };
  const commit: KeyValueStorage['commit'] = async (wanted) => {
    const way = device.isRuly ? 'writes' : ways[next++ % ways.length]!;
    if (way === 'full' || way === 'fails') throw new StorageProblem(way === 'full' ? 'full' : 'failed', undefined);
    if (way === 'late') await new Promise((resolve) => setTimeout(resolve, 1));
    const done = await storage.commit(wanted);
    if (way === 'writes and fails') throw new StorageProblem('failed', undefined);
    return done;
  };
  return { device, storage: { ...storage, commit } };
}

const sheet: Sheet = {
  id: 's',
  name: 's',
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 100,
  height: 100,
  kind: 'scan',
  taken: {},
};
const guide = (i: number): Command =>
  addGuide({ id: `g${i}`, plane: 'v', through: { kind: 'pointed', at: [i, i], sigma: 1 }, angle: 0, offset: 0 });

const OPS = ['rename', 'guide', 'remove', 'units', 'undo', 'redo', 'draft', 'flush', 'wait'] as const;
const ops = fc.array(fc.constantFrom(...OPS), { minLength: 20, maxLength: 120 });
const ways = fc.array(fc.constantFrom(...WAYS), { minLength: 1, maxLength: 12 });

it('after any failures what is stored opens whole as it was at some moment, and once the device writes again as it is', async () => {
  let [failed, reopened] = [0, 0];
  await fc.assert(
    fc.asyncProperty(ops, ways, async (steps, howItWrites) => {
      const { storage: memory } = testDevice();
      const start = testJob();
      await new JobRepository(memory).create(start, testCard(start));
      const { device, storage } = unruly(memory, howItWrites);
      device.isRuly = true;
      const repository = new JobRepository(storage);
      const desk = (await openJob('j', { storage, repository, surroundings: testWindows().newWindow() }))!;
      device.isRuly = false;
      const { jobs } = desk;
      const state = () => jobs.getState();
      const once = new Set([JSON.stringify(state().job)]);
      const does: Readonly<Record<(typeof OPS)[number], (i: number) => unknown>> = {
        rename: (i) => state().run(renameJob(`Name ${i}`)),
        guide: (i) => state().run(guide(i)),
        remove: (i) => state().run(removeGuide(`g${i - 3}`)),
        units: (i) => state().run(setUnits({ style: i % 2 ? 'cm' : 'm', denominator: 16 })),
        undo: () => state().undo(),
        redo: () => state().redo(),
        draft: (i) => state().setDraft(`draft ${i}`),
        flush: () => state().flush(),
        wait: () => new Promise((resolve) => setTimeout(resolve, 1)),
      };
      state().run(addSheet(sheet, createView('v', sheet)));
      once.add(JSON.stringify(state().job));
      for (const [i, op] of steps.entries()) {
        await does[op](i);
        once.add(JSON.stringify(state().job));
        if (state().saveState === 'full' || state().saveState === 'failed') failed++;
        if (op !== 'flush') continue;
        const stored = await repository.open('j');
        expect(stored && !stored.isShortened && once.has(JSON.stringify(stored.history.job))).toBe(true);
        reopened++;
      }
      device.isRuly = true;
      await state().flush();
      const stored = await repository.open('j');
      expect(stored?.history).toEqual(state().history);
      expect(state().saveState).toBe('saved');
      await desk.close();
    }),
    { seed: 8, numRuns: 60 },
  );
  expect([failed > 100, reopened > 100]).toEqual([true, true]);
});
