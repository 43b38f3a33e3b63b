/** Records that were cut off, mixed up or lost: what can be read is shown, what cannot is named, and nothing else is touched. */
import fc from 'fast-check';
import { addSheet, createView, renameJob, setLocked, turnView, type Sheet } from '@/core/job';
import { openJob } from './own-desk';
import type { JobRepository } from './repository';
import { keys } from './storage';
import { testCard, testDevice, testJob, testWindows } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({ pictureWorker: {}, fileWorker: {} }));

/** Two jobs on a device, the first of them renamed so many times. */
async function device(renamed: number) {
  const {
    device: { values },
    storage,
    repository,
  } = testDevice();
  for (const id of ['j', 'other']) {
    const job = testJob(id, `Job ${id}`);
    await repository.create(job, testCard(job));
  }
  const open = async () => (await openJob('j', { storage, repository, surroundings: testWindows().newWindow() }))!;
  const { jobs, close } = await open();
  for (let i = 1; i <= renamed; i++) {
    jobs.getState().run(renameJob(`Name ${i}`));
    await jobs.getState().flush();
  }
  await close();
  return { values, repository, open };
}

const nameOf = async (repository: JobRepository, id = 'j') => (await repository.open(id))?.history.job.name;

it('a damaged card hides no other, and its job opens', async () => {
  const { values, repository } = await device(3);
  for (const text of ['{"id":"j","na', 'null', '[]', '{"id":7}', '', '"card"']) {
    values.set(keys.card('j'), text);
    const cards = await repository.listCards();
    expect(cards.map(({ id }) => id).sort()).toEqual(['j', 'other']);
    expect(cards.find(({ id }) => id === 'j')).toMatchObject({ fit: 'unreadable' });
    expect(await nameOf(repository)).toBe('Name 3');
  }
});

it('a damaged head or snapshot is named as damaged, and comes out as it is stored', async () => {
  for (const key of [keys.head('j'), keys.snapshot('j')]) {
    const { values, repository } = await device(3);
    values.set(key, values.get(key)!.slice(0, 20));
    expect(await repository.open('j')).toBeUndefined();
    expect(await repository.holds('j')).toBe(true);
    expect(JSON.parse(await repository.readRaw('j'))).toEqual(
      Object.fromEntries([...values].filter(([name]) => name.startsWith('job/j/'))),
    );
    expect(await nameOf(repository, 'other')).toBe('Job other');
  }
  expect(await (await device(0)).repository.holds('never')).toBe(false);
});

it('a change that is lost shortens the history there and says so; what is done next is kept', async () => {
  const { values, repository, open } = await device(7);
  values.delete(keys.entry('j', 4));
  const { opened, jobs: store } = await open();
  expect(opened).toMatchObject({ isShortened: true, history: { cursor: 4, job: { name: 'Name 4' } } });
  store.getState().run(renameJob('After'));
  await store.getState().flush();
  const again = (await repository.open('j'))!;
  expect(again).toMatchObject({ isShortened: false, history: { cursor: 5, job: { name: 'After' } } });
  store.getState().undo();
  expect(store.getState().job.name).toBe('Name 4');
});

it('before its snapshot nothing can be taken back, and the snapshot stands', async () => {
  const { values, repository } = await device(60);
  values.set(keys.entry('j', 2), 'null');
  expect(await repository.open('j')).toMatchObject({
    isShortened: true,
    history: { entries: [], cursor: 0, job: { name: 'Name 40' } },
  });
});

it('whatever is done to any one record, opening and listing answer', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.nat(),
      fc.oneof(
        fc.string(),
        fc.json(),
        fc.constantFrom(
          '{}',
          '{"cursor":9,"count":3,"snapshotAt":0}',
          '{"cursor":1,"count":1,"snapshotAt":99}',
          '{"patches":[{"op":"replace","path":["a","b"],"value":1}],"inverse":[]}',
        ),
      ),
      async (which, text) => {
        const { values, repository } = await device(4);
        const names = [...values.keys()].filter((name) => name.startsWith('job/j/'));
        values.set(names[which % names.length]!, text);
        expect(await repository.listCards()).toHaveLength(2);
        const opened = await repository.open('j');
        expect(opened === undefined || opened.history.cursor <= opened.history.entries.length).toBe(true);
        expect(await nameOf(repository, 'other')).toBe('Job other');
      },
    ),
    { numRuns: 300 },
  );
});

it('a change that could not be read again is not done, says so, and the job opens as it was', async () => {
  const { repository, open } = await device(1);
  const { jobs: store } = await open();
  store.getState().run(renameJob('x'.repeat(500)));
  await store.getState().flush();
  expect(store.getState()).toMatchObject({ job: { name: 'Name 1' }, lastDone: { way: 'refused' }, saveState: 'saved' });
  expect(await nameOf(repository)).toBe('Name 1');
});

it('what would change a locked view is not done, says which view it is, and is done once that is unlocked', async () => {
  const { repository, open } = await device(1);
  const { jobs: store } = await open();
  const sheet: Sheet = {
    id: 's',
    name: 's',
    picture: 'a'.repeat(64),
    mediaType: 'image/png',
    bytes: 1,
    width: 400,
    height: 300,
    kind: 'scan',
    taken: {},
  };
  const { run, flush } = store.getState();
  run(addSheet(sheet, { ...createView('v', sheet), name: 'Blade', locked: true }));
  run(turnView('v', 1));
  await flush();
  expect(store.getState()).toMatchObject({
    job: { views: [{ datum: { direction: 0 } }] },
    lastDone: { way: 'refused', lock: { id: 'v', name: 'Blade' } },
  });
  run(setLocked('v', false));
  run(turnView('v', 1));
  await flush();
  expect(store.getState()).toMatchObject({ lastDone: { way: 'done' } });
  expect((await repository.open('j'))!.history.job.views[0]!.datum.direction).toBe(-1);
});
