/** What windows do to one job, case by case; `two-writers.test.ts` does it in any order. */
import { renameJob, setUnits } from '@/core/job';
import { deleteStored, duplicateStored, renameStored } from './from-list';
import { openJob, type DeskOptions } from './own-desk';
import { testCard, testDevice, testJob, testWindows } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({ pictureWorker: {}, fileWorker: {} }));

/** A device with one job, and windows on it. */
async function begin() {
  const { device, storage, repository } = testDevice();
  await repository.create(testJob(), testCard(testJob()));
  const windows = testWindows();
  const kept: string[] = [];
  const optionsOf = (more: Partial<DeskOptions> = {}): DeskOptions => ({
    repository,
    storage,
    surroundings: windows.newWindow(),
    onKeptAside: (name) => kept.push(name),
    ...more,
  });
  const open = async (more?: Partial<DeskOptions>) => (await openJob('j', optionsOf(more)))!;
  const nameOf = async () => (await repository.open('j'))?.history.job.name;
  const names = async () => (await repository.listCards()).map(({ name }) => name).sort();
  return { device, repository, windows, kept, optionsOf, open, nameOf, names };
}

it('a second window only shows the job; taken over, it has the last change, and the first lets go', async () => {
  const { open, nameOf } = await begin();
  const first = await open();
  first.jobs.getState().run(renameJob('Not yet written'));
  const second = await open();
  expect(second.jobs.getState()).toMatchObject({ readOnly: 'elsewhere', job: { name: 'Job' } });
  const third = await open({ takeOver: true });
  expect(third).toMatchObject({ leftElsewhere: false });
  expect(third.jobs.getState()).toMatchObject({ readOnly: undefined, job: { name: 'Not yet written' } });
  expect(first.jobs.getState()).toMatchObject({ readOnly: 'taken', saveState: 'saved' });
  first.jobs.getState().run(renameJob('Too late'));
  third.jobs.getState().run(renameJob('Mine'));
  await Promise.all([first.jobs.getState().flush(), third.jobs.getState().flush()]);
  expect(await nameOf()).toBe('Mine');
});

it('a window that slept cannot write over the one that took over; what it had not written is a job of its own', async () => {
  const { open, windows, nameOf, names, kept } = await begin();
  const surroundings = windows.newWindow();
  const slept = await open({ surroundings });
  surroundings.asleep = true;
  const awake = await open();
  expect(awake.jobs.getState().readOnly).toBeUndefined();
  slept.jobs.getState().run(renameJob('Asleep'));
  awake.jobs.getState().run(renameJob('Awake'));
  await awake.jobs.getState().flush();
  surroundings.asleep = false;
  await slept.jobs.getState().flush();
  expect(slept.jobs.getState().readOnly).toBe('taken');
  expect(await nameOf()).toBe('Awake');
  expect(await names()).toEqual(['Asleep (kept aside)', 'Awake']);
  expect(kept).toEqual(['Asleep (kept aside)']);
  // Looking again keeps nothing twice.
  await slept.lease.check();
  await slept.close();
  expect(await names()).toHaveLength(2);
});

it('a window that could not write what it changed says so to the one that takes over, and keeps it', async () => {
  const { open, device } = await begin();
  const first = await open();
  device.full = true;
  first.jobs.getState().run(renameJob('No room'));
  const second = await open({ takeOver: true });
  expect(second.leftElsewhere).toBe(true);
  expect(first.jobs.getState()).toMatchObject({ readOnly: 'taken', saveState: 'full', job: { name: 'No room' } });
});

it('a full device opens a job to be read; with room again it is opened to be written', async () => {
  const { open, device, optionsOf, names } = await begin();
  device.full = true;
  expect((await open()).jobs.getState()).toMatchObject({ readOnly: 'full', job: { name: 'Job' } });
  expect(await renameStored('j', 'Other', optionsOf())).toEqual({ kind: 'refused', code: 'storage-full' });
  await expect(duplicateStored('j', optionsOf())).rejects.toMatchObject({ kind: 'full' });
  device.full = false;
  expect((await open({ takeOver: true })).jobs.getState().readOnly).toBeUndefined();
  device.full = true;
  expect(await deleteStored('j', optionsOf())).toEqual({ kind: 'refused', code: 'job-open-elsewhere' });
  expect(await names()).toEqual(['Job']);
});

it('deleting makes room on a full device', async () => {
  const { device, optionsOf, names } = await begin();
  device.full = true;
  expect(await deleteStored('j', optionsOf())).toEqual({ kind: 'done' });
  expect(await names()).toEqual([]);
  expect([...device.values.keys()]).toEqual([]);
});

it('a job that is open is renamed by its window, copied with what it has not written, and not deleted', async () => {
  const { open, optionsOf, nameOf, names, repository } = await begin();
  const desk = await open();
  desk.jobs.getState().run(setUnits({ style: 'cm', denominator: 4 }));
  expect(await renameStored('j', 'Renamed', optionsOf())).toEqual({ kind: 'done' });
  expect(desk.jobs.getState()).toMatchObject({ job: { name: 'Renamed', units: { style: 'cm' } }, saveState: 'saved' });
  desk.jobs.getState().run(setUnits({ style: 'm', denominator: 4 }));
  expect(await duplicateStored('j', optionsOf())).toEqual({ kind: 'done' });
  expect(await names()).toEqual(['Renamed', 'Renamed (copy)']);
  const copy = (await repository.listCards()).find(({ name }) => name === 'Renamed (copy)')!;
  expect((await repository.open(copy.id))?.history.job.units.style).toBe('m');
  expect(await deleteStored('j', optionsOf())).toEqual({ kind: 'refused', code: 'job-open-elsewhere' });
  expect(await nameOf()).toBe('Renamed');
  desk.jobs.getState().undo();
  desk.jobs.getState().undo();
  expect(desk.jobs.getState().job).toMatchObject({ name: 'Job', units: { style: 'cm' } });
  await desk.close();
  expect(await deleteStored('j', optionsOf())).toEqual({ kind: 'done' });
  expect(await names()).toEqual(['Renamed (copy)']);
});

it('a copy of a copy is another copy of the first', async () => {
  const { optionsOf, names, repository } = await begin();
  const idOf = async (wanted: string) => (await repository.listCards()).find(({ name }) => name === wanted)!.id;
  for (const of of ['Job', 'Job (copy)', 'Job (copy 2)', 'Job'])
    expect(await duplicateStored(await idOf(of), optionsOf())).toEqual({ kind: 'done' });
  expect(await names()).toEqual(['Job', 'Job (copy 2)', 'Job (copy 3)', 'Job (copy 4)', 'Job (copy)']);
});

it('renaming what nobody has open is a step of its history', async () => {
  const { open, optionsOf } = await begin();
  expect(await renameStored('j', 'Renamed', optionsOf())).toEqual({ kind: 'done' });
  const { jobs } = await open();
  expect(jobs.getState().job.name).toBe('Renamed');
  jobs.getState().undo();
  expect(jobs.getState().job.name).toBe('Job');
  expect(await renameStored('other', 'x', optionsOf())).toEqual({ kind: 'refused', code: 'job-gone' });
});

it('a window whose job was deleted while it slept says so, and writes nothing', async () => {
  const { open, optionsOf, windows, device } = await begin();
  const surroundings = windows.newWindow();
  const slept = await open({ surroundings });
  surroundings.asleep = true;
  expect(await deleteStored('j', optionsOf())).toEqual({ kind: 'done' });
  surroundings.asleep = false;
  await slept.lease.check();
  expect(slept.jobs.getState().readOnly).toBe('deleted');
  slept.jobs.getState().renewCard();
  await slept.jobs.getState().flush();
  expect([...device.values.keys()]).toEqual([]);
});

it('a job that comes with an id that is here already gets another', async () => {
  const { repository } = await begin();
  expect(await repository.create(testJob('j', 'Twin'), testCard(testJob('j', 'Twin')))).toBe(false);
  expect((await repository.listCards()).map(({ name }) => name)).toEqual(['Job']);
});
