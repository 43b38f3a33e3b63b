import { renameJob, setUnits, startHistory } from '@/core/job';
import { storageProblemOf } from './device';
import type { JobStore } from './job-store';
import { openJob } from './own-desk';
import type { JobRepository } from './repository';
import { isStorageFull, type KeyValueStorage } from './storage';
import { testCard, testDevice, testJob, testWindows } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({ pictureWorker: {}, fileWorker: {} }));

const job = testJob();

async function opened(of: {
  repository: JobRepository;
  storage: KeyValueStorage;
}): Promise<{ store: JobStore; close: () => Promise<void> }> {
  const desk = await openJob('j', { ...of, surroundings: testWindows().newWindow() });
  if (!desk) throw new Error('missing');
  return { store: desk.jobs, close: desk.close };
}

describe('a job on the device', () => {
  it('comes back as it was, history and draft included, however often it is opened', async () => {
    const device = testDevice();
    const { repository } = device;
    await repository.create(job, testCard(job));
    for (let round = 0; round < 30; round++) {
      const { store, close } = await opened(device);
      for (let i = 0; i < 5; i++) store.getState().run(renameJob(`Name ${round}.${i}`));
      store.getState().undo();
      if (round % 3 === 0) store.getState().undo();
      if (round % 4 === 0) store.getState().run(setUnits({ style: 'cm', denominator: round % 8 ? 4 : 8 }));
      store.getState().setDraft(`draft ${round}`);
      await store.getState().flush();
      const again = await repository.open('j');
      expect(again?.history).toEqual(store.getState().history);
      expect(again?.draft).toBe(`draft ${round}`);
      await close();
    }
    const { store } = await opened(device);
    while (store.getState().history.cursor > 0) store.getState().undo();
    expect(store.getState().job).toEqual(startHistory(job).job);
  });

  it('is kept in memory when the device is full, and written when there is room again', async () => {
    const { repository, storage, device } = testDevice();
    await repository.create(job, testCard(job));
    const { store } = await opened({ repository, storage });
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
    const device = testDevice();
    await device.repository.create(job, testCard(job));
    const { store } = await opened(device);
    store.getState().setReadOnly('elsewhere');
    store.getState().run(renameJob('Other'));
    store.getState().undo();
    expect(store.getState().job.name).toBe('Job');
  });

  it('is discarded by the window that has it, and written by nobody after that', async () => {
    const device = testDevice();
    await device.repository.create(job, testCard(job));
    const desk = (await openJob('j', { ...device, surroundings: testWindows().newWindow() }))!;
    desk.jobs.getState().setDraft('a draft that is not written yet');
    await desk.discard();
    expect(desk.jobs.getState().readOnly).toBe('deleted');
    desk.jobs.getState().run(renameJob('Too late'));
    desk.jobs.getState().setDraft('too late');
    await desk.close();
    expect(await device.repository.holds('j')).toBe(false);
    expect(await device.repository.listCards()).toEqual([]);
  });

  it('is not discarded by a window that only shows it', async () => {
    const device = testDevice();
    await device.repository.create(job, testCard(job));
    const windows = testWindows();
    const [first, second] = [windows.newWindow(), windows.newWindow()];
    const writer = (await openJob('j', { ...device, surroundings: first }))!;
    const reader = (await openJob('j', { ...device, surroundings: second }))!;
    await reader.discard();
    expect(reader.jobs.getState().readOnly).toBe('elsewhere');
    expect(await device.repository.holds('j')).toBe(true);
    await Promise.all([reader.close(), writer.close()]);
  });

  it('takes its pictures along only when nothing else needs them', async () => {
    const { repository, device } = testDevice();
    const used = 'a'.repeat(64);
    const picture = {
      ...job,
      sheets: [
        {
          id: 's',
          name: 's',
          picture: used,
          mediaType: 'image/png',
          bytes: 1,
          width: 9,
          height: 9,
          kind: 'scan' as const,
          taken: {},
        },
      ],
    };
    await repository.create(picture, testCard(picture));
    await repository.create({ ...picture, id: 'k' }, testCard(picture));
    [`picture/${used}`, `picture/${used}/0`, `picture/${'b'.repeat(64)}/0`].forEach((key) =>
      device.values.set(key, '{}'),
    );
    await repository.remove('j');
    expect([...device.values.keys()].filter((key) => key.startsWith('picture/'))).toEqual([
      `picture/${used}`,
      `picture/${used}/0`,
    ]);
    await repository.remove('k');
    expect([...device.values.keys()]).toEqual([]);
  });
});

it('keeps somebody’s own things, shows them by name, and leaves alone what it cannot read', async () => {
  const { shelf, device } = testDevice();
  const block = {
    id: '1',
    name: 'setting block',
    shape: { kind: 'rectangle' as const, width: 120, height: 40 },
    tolerance: 0.05,
  };
  await shelf.keep(block);
  await shelf.keep({ ...block, id: '2', name: 'bung', shape: { kind: 'circle', diameter: 50 } });
  device.values.set('shelf/3', '{"id":');
  device.values.set('shelf/4', JSON.stringify({ ...block, tolerance: -1 }));
  expect((await shelf.list()).map(({ name, standing }) => [name, standing])).toEqual([
    ['bung', 'own'],
    ['setting block', 'own'],
  ]);
  await shelf.remove('2');
  expect(await shelf.list()).toMatchObject([block]);
  expect(device.values.has('shelf/3')).toBe(true);
});

it('knows a full device by what browsers say', () => {
  expect(isStorageFull(storageProblemOf(new DOMException('x', 'QuotaExceededError')))).toBe(true);
  expect(isStorageFull(storageProblemOf(new Error('The current transaction exceeded its quota limitations.')))).toBe(
    true,
  );
  expect(isStorageFull(storageProblemOf(new Error('offline')))).toBe(false);
  expect(isStorageFull(storageProblemOf(undefined))).toBe(false);
});
