import { createDeriver } from '@/core/derive';
import { createJob, renameJob, setUnits, startHistory } from '@/core/job';
import { jobCardOf } from './job-card';
import { createJobStore, type JobStore } from './job-store';
import { OwnShelf } from './own-shelf';
import { JobRepository } from './repository';
import { isStorageFull, type KeyValueStorage } from './storage';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({ pictureWorker: {}, fileWorker: {} }));

/** A device with nothing but a map; it can be full. */
function memory() {
  const values = new Map<string, string>();
  const device = { full: false, values };
  const storage: KeyValueStorage = {
    getItem: async (key) => values.get(key) ?? null,
    getMany: async (keys) => Object.fromEntries(keys.map((key) => [key, values.get(key) ?? null])),
    setItem: async (key, value) => storage.setMany({ [key]: value }),
    setMany: async (entries) => {
      if (device.full) throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      Object.entries(entries).forEach(([key, value]) => values.set(key, value));
    },
    removeMany: async (keys) => keys.forEach((key) => values.delete(key)),
    getAllKeys: async () => [...values.keys()],
  };
  return { device, repository: new JobRepository(storage), shelf: new OwnShelf(storage) };
}

const job = createJob('j', 'Job', new Date(0));
const cardOf: Parameters<typeof createJobStore>[0]['cardOf'] = (of, derived) => jobCardOf(of, derived, new Date(0), undefined);

async function opened(repository: JobRepository): Promise<JobStore> {
  const state = await repository.open('j');
  if (!state) throw new Error('missing');
  return createJobStore({ ...state, repository, cardOf });
}

describe('a job on the device', () => {
  it('comes back as it was, history and draft included, however often it is opened', async () => {
    const { repository } = memory();
    await repository.create(job, cardOf(job, createDeriver()(job)));
    for (let round = 0; round < 30; round++) {
      const store = await opened(repository);
      for (let i = 0; i < 5; i++) store.getState().run(renameJob(`Name ${round}.${i}`));
      store.getState().undo();
      if (round % 3 === 0) store.getState().undo();
      if (round % 4 === 0) store.getState().run(setUnits({ style: 'cm', denominator: round % 8 ? 4 : 8 }));
      store.getState().setDraft(`draft ${round}`);
      await store.getState().flush();
      const again = await repository.open('j');
      expect(again?.history).toEqual(store.getState().history);
      expect(again?.draft).toBe(`draft ${round}`);
    }
    const store = await opened(repository);
    while (store.getState().history.cursor > 0) store.getState().undo();
    expect(store.getState().job).toEqual(startHistory(job).job);
  });

  it('is kept in memory when the device is full, and written when there is room again', async () => {
    const { repository, device } = memory();
    await repository.create(job, cardOf(job, createDeriver()(job)));
    const store = await opened(repository);
    device.full = true;
    store.getState().run(renameJob('Kept'));
    await store.getState().flush();
    expect(store.getState()).toMatchObject({ saveState: 'full', job: { name: 'Kept' } });
    device.full = false;
    await store.getState().flush();
    expect(store.getState().saveState).toBe('saved');
    expect((await repository.open('j'))?.history.job.name).toBe('Kept');
  });

  it('is not changed by a window that only shows it', async () => {
    const { repository } = memory();
    await repository.create(job, cardOf(job, createDeriver()(job)));
    const store = await opened(repository);
    store.getState().setReadOnly(true);
    store.getState().run(renameJob('Other'));
    store.getState().undo();
    expect(store.getState().job.name).toBe('Job');
  });

  it('takes its pictures along only when nothing else needs them', async () => {
    const { repository, device } = memory();
    const used = 'a'.repeat(64);
    const picture = { ...job, sheets: [{ id: 's', name: 's', picture: used, mediaType: 'image/png', bytes: 1, width: 9, height: 9, kind: 'scan' as const, taken: {} }] };
    await repository.create(picture, cardOf(picture, createDeriver()(picture)));
    await repository.create({ ...picture, id: 'k' }, cardOf(picture, createDeriver()(picture)));
    [`picture/${used}`, `picture/${used}/0`, `picture/${'b'.repeat(64)}/0`].forEach((key) => device.values.set(key, '{}'));
    await repository.remove('j');
    expect([...device.values.keys()].filter((key) => key.startsWith('picture/'))).toEqual([`picture/${used}`, `picture/${used}/0`]);
    await repository.remove('k');
    expect([...device.values.keys()]).toEqual([]);
  });
});

it('keeps somebody’s own things, shows them by name, and leaves alone what it cannot read', async () => {
  const { shelf, device } = memory();
  const block = { id: '1', name: 'setting block', shape: { kind: 'rectangle' as const, width: 120, height: 40 }, tolerance: 0.05 };
  await shelf.keep(block);
  await shelf.keep({ ...block, id: '2', name: 'bung', shape: { kind: 'circle', diameter: 50 } });
  device.values.set('shelf/3', '{"id":');
  device.values.set('shelf/4', JSON.stringify({ ...block, tolerance: -1 }));
  expect((await shelf.list()).map(({ name, standing }) => [name, standing])).toEqual([['bung', 'own'], ['setting block', 'own']]);
  await shelf.remove('2');
  expect(await shelf.list()).toMatchObject([block]);
  expect(device.values.has('shelf/3')).toBe(true);
});

it('knows a full device by what browsers say', () => {
  expect(isStorageFull(new DOMException('x', 'QuotaExceededError'))).toBe(true);
  expect(isStorageFull(new Error('The current transaction exceeded its quota limitations.'))).toBe(true);
  expect(isStorageFull(new Error('offline'))).toBe(false);
});
