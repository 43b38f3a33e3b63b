/**
 * Windows that open, change, sleep, take over and die at any moment, with what they do to the storage in any order: there are never two writers, what was called saved is there, and what was not is kept aside or still in its window.
 */
import fc, { type Scheduler } from 'fast-check';
import type { Command } from '@/core/job';
import { deleteStored, duplicateStored, renameStored } from './from-list';
import { openJob, type OpenDesk } from './own-desk';
import { JobRepository } from './repository';
import type { KeyValueStorage } from './storage';
import { testCard, testDevice, testJob, testWindows } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({ pictureWorker: {}, fileWorker: {} }));

/** A change that can be told from every other: a guide of its own would do, a layer's name is as good. */
const mark = (word: string): Command => ({
  name: { code: 'add-sheet', detail: {} },
  apply: (draft) => void draft.layers.push({ ...draft.layers[0]!, id: word, name: word }),
});
const marksOf = (job: { readonly layers: readonly { readonly id: string }[] }) =>
  job.layers.map(({ id }) => id).filter((id) => id.startsWith('mark-'));

/** What is done, and how much of what was begun goes on before the next. */
type Step = { readonly pause: number } & Doing;
type Doing =
  | {
      readonly does: 'open' | 'take-over' | 'change' | 'change-and-write' | 'sleep' | 'wake' | 'look' | 'close' | 'die';
      readonly window: number;
    }
  | { readonly does: 'rename' | 'duplicate' | 'delete' | 'fill' | 'make-room' };

const doings: fc.Arbitrary<Doing> = fc.oneof(
  {
    weight: 8,
    arbitrary: fc.record({
      does: fc.constantFrom(
        'open' as const,
        'take-over' as const,
        'change' as const,
        'change-and-write' as const,
        'change-and-write' as const,
        'sleep' as const,
        'wake' as const,
        'look' as const,
        'close' as const,
        'die' as const,
      ),
      window: fc.nat(2),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constantFrom(
        'rename' as const,
        'duplicate' as const,
        'delete' as const,
        'fill' as const,
        'make-room' as const,
      ),
    }),
  },
);
const steps = fc.array(
  fc.tuple(doings, fc.nat(14)).map(([doing, pause]): Step => ({ ...doing, pause })),
  { minLength: 6, maxLength: 30 },
);

/** One window: what it has open, and whether it still lives. */
class Window {
  desk: OpenDesk | undefined;
  isAlive = true;
  private opening: Promise<void> = Promise.resolve();
  surroundings: ReturnType<ReturnType<typeof testWindows>['newWindow']>;
  readonly storage: KeyValueStorage;
  readonly repository: JobRepository;

  constructor(private readonly world: World) {
    this.surroundings = world.windows.newWindow();
    const mine = <T>(does: () => Promise<T>): Promise<T> => world.inTurn(this, does);
    const { device } = world;
    this.storage = {
      getItem: (key) => mine(() => device.storage.getItem(key)),
      getMany: (some) => mine(() => device.storage.getMany(some)),
      getAllKeys: () => mine(() => device.storage.getAllKeys()),
      commit: (commit) => mine(() => device.storage.commit(commit)),
    };
    this.repository = new JobRepository(this.storage);
  }

  /** One after the other, as a screen does. */
  open(takeOver: boolean): Promise<void> {
    this.opening = this.opening.then(() => this.openNow(takeOver));
    return this.opening;
  }

  /** A screen that goes: nothing is done in it any more, and what it had is written. */
  async close(): Promise<void> {
    const { desk } = this;
    this.desk = undefined;
    await desk?.close();
  }

  private async openNow(takeOver: boolean): Promise<void> {
    await this.close();
    const surroundings = { openChannel: this.surroundings.openChannel, wait: () => this.world.later() };
    this.desk = await openJob('j', {
      repository: this.repository,
      storage: this.storage,
      surroundings,
      takeOver,
      onKeptAside: () => undefined,
    });
  }

  change(): void {
    const { desk, world } = this;
    if (!desk || desk.jobs.getState().readOnly) return;
    desk.jobs.getState().run(mark(`mark-${world.count++}`));
  }

  /** Changes and writes; what is called saved then has to be there ever after. */
  async changeAndWrite(): Promise<void> {
    this.change();
    const { desk } = this;
    if (!desk) return;
    await desk.jobs.getState().flush();
    if (this.isAlive && !desk.jobs.getState().isBehind())
      marksOf(desk.jobs.getState().job).forEach((word) => this.world.saved.add(word));
  }
}

class World {
  readonly device = testDevice();
  readonly windows = testWindows((does) => this.scheduler.schedule(Promise.resolve()).then(does));
  readonly saved = new Set<string>();
  readonly all: Window[] = [];
  count = 0;
  isDeleted = false;

  constructor(private readonly scheduler: Scheduler) {
    for (let i = 0; i < 3; i++) this.all.push(new Window(this));
  }

  later = (): Promise<void> => this.scheduler.schedule(Promise.resolve());

  /** What a window asks of the storage happens when it is its turn; a window that died gets no answer, and asks nothing any more. */
  async inTurn<T>(window: Window, does: () => Promise<T>): Promise<T> {
    await this.scheduler.schedule(Promise.resolve());
    if (!window.isAlive) return new Promise<T>(() => undefined);
    return does();
  }

  /** Begins a step, without waiting for the ones before it. */
  begin(step: Doing): Promise<unknown> {
    const { device } = this.device;
    if (!('window' in step)) {
      const { repository, storage, surroundings } = new Window(this);
      const list = { repository, storage, surroundings: { openChannel: surroundings.openChannel, wait: this.later } };
      switch (step.does) {
        case 'rename':
          return renameStored('j', `Name ${this.count++}`, list);
        case 'duplicate':
          return duplicateStored('j', list);
        case 'delete':
          return deleteStored('j', list).then(({ kind }) => (this.isDeleted ||= kind === 'done'));
        case 'fill':
          return Promise.resolve((device.full = true));
        case 'make-room':
          return Promise.resolve((device.full = false));
      }
    }
    const window = this.all[step.window]!;
    if (!window.isAlive) return Promise.resolve();
    switch (step.does) {
      case 'open':
        return window.open(false);
      case 'take-over':
        return window.open(true);
      case 'change':
        return Promise.resolve(window.change());
      case 'change-and-write':
        return window.changeAndWrite();
      case 'sleep':
        return Promise.resolve((window.surroundings.asleep = true));
      case 'wake':
        return Promise.resolve((window.surroundings.asleep = false));
      case 'look':
        return window.desk?.lease.check() ?? Promise.resolve();
      case 'close':
        return window.close();
      case 'die':
        return Promise.resolve((window.isAlive = false));
    }
  }
}

async function play(scheduler: Scheduler, plan: readonly Step[]): Promise<World> {
  const world = new World(scheduler);
  const first = testJob();
  await world.device.repository.create(first, testCard(first));
  const begun: Promise<unknown>[] = [];
  for (const step of plan) {
    begun.push(world.begin(step).catch(() => undefined));
    for (let i = 0; i < step.pause && scheduler.count() > 0; i++) await scheduler.waitOne();
  }
  await scheduler.waitIdle();
  return world;
}

/** Whoever is left wakes, finds room, and looks at what became of its job. */
async function wakeAll(scheduler: Scheduler, world: World): Promise<void> {
  world.device.device.full = false;
  for (const window of world.all) {
    window.surroundings.asleep = false;
    if (!window.isAlive) continue;
    void window.desk?.jobs.getState().flush();
    void window.desk?.lease.check();
  }
  await scheduler.waitIdle();
}

/** All marks that are stored anywhere, job by job. */
async function storedMarks({ device }: World): Promise<ReadonlyMap<string, readonly string[]>> {
  const found = new Map<string, readonly string[]>();
  for (const { id } of await device.repository.listCards()) {
    const opened = await device.repository.open(id);
    expect(opened).toMatchObject({ isShortened: false });
    found.set(id, marksOf(opened!.history.job));
  }
  return found;
}

it('what was called saved is there, whoever writes, sleeps, takes over or dies', async () => {
  await fc.assert(
    fc.asyncProperty(fc.scheduler(), steps, async (scheduler, plan) => {
      const world = await play(scheduler, plan);
      await wakeAll(scheduler, world);
      const stored = await storedMarks(world);
      const mine = stored.get('j') ?? [];
      expect(stored.has('j')).toBe(!world.isDeleted);
      if (!world.isDeleted) expect([...world.saved].filter((word) => !mine.includes(word))).toEqual([]);
      expect(new Set(mine).size).toBe(mine.length);
      // Never two writers: of those that live, one at most may write, and its word stands.
      const writers = world.all.filter(({ isAlive, desk }) => isAlive && desk?.lease.held);
      expect(writers.length).toBeLessThanOrEqual(1);
      // What a window that lives shows is stored, in the job or aside; where the device was full it may still wait in a window that says so.
      const everywhere = new Set([...stored.values()].flat());
      const wasFull = plan.some(({ does }) => does === 'fill');
      for (const { isAlive, desk } of world.all) {
        if (!isAlive || !desk || world.isDeleted || (wasFull && desk.jobs.getState().isBehind())) continue;
        expect(marksOf(desk.jobs.getState().job).filter((word) => !everywhere.has(word))).toEqual([]);
      }
    }),
    { numRuns: 1500 },
  );
}, 240_000);

it('two windows that open a job at the same moment: one writes', async () => {
  await fc.assert(
    fc.asyncProperty(fc.scheduler(), fc.boolean(), async (scheduler, diedBefore) => {
      const before: Step[] = [
        { does: 'open', window: 2, pause: 99 },
        { does: 'die', window: 2, pause: 0 },
      ];
      const plan: Step[] = [
        ...(diedBefore ? before : []),
        { does: 'open', window: 0, pause: 0 },
        { does: 'open', window: 1, pause: 0 },
      ];
      const world = await play(scheduler, plan);
      expect(world.all.filter(({ isAlive, desk }) => isAlive && desk?.lease.held)).toHaveLength(1);
    }),
    { numRuns: 300 },
  );
});
