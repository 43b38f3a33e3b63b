/** Pictures that come in while others are swept away, with everything that is done to the storage in any order. */
import fc, { type Scheduler } from 'fast-check';
import { PictureStore } from './pictures';
import { keys, type KeyValueStorage } from './storage';
import { testDevice } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({
  fileWorker: {},
  pictureWorker: {
    call: async (operation: string, { bytes, pieces }: { bytes: ArrayBuffer; pieces: string[] }) =>
      operation === 'toPieces'
        ? { kind: 'done', value: [...new Uint8Array(bytes)].map(String) }
        : { kind: 'done', value: new Uint8Array(pieces.map(Number)).buffer },
  },
}));

const HASH = 'a'.repeat(64);
const PICTURE = new Uint8Array([1, 2, 3, 4, 5, 6, 7, 8, 9]).buffer;

const isWhole = async (pictures: PictureStore) => {
  const got = await pictures.get(HASH);
  return got !== undefined && Buffer.compare(Buffer.from(got), Buffer.from(PICTURE)) === 0;
};

/** A window whose every question to the storage waits for its turn; one that died asks nothing more. */
function windowOn(storage: KeyValueStorage, scheduler: Scheduler) {
  const state = { isAlive: true };
  const mine = async <T>(does: () => Promise<T>): Promise<T> => {
    await scheduler.schedule(Promise.resolve());
    return state.isAlive ? does() : new Promise<T>(() => undefined);
  };
  const pictures = new PictureStore({
    getItem: (key) => mine(() => storage.getItem(key)),
    getMany: (some) => mine(() => storage.getMany(some)),
    getAllKeys: () => mine(() => storage.getAllKeys()),
    commit: (commit) => mine(() => storage.commit(commit)),
  });
  return { state, pictures };
}

/** What is used is what these keys say: one for each job that mentions the picture. */
const USES = 'uses/';
const findUsed = (storage: KeyValueStorage) => async (): Promise<ReadonlySet<string>> =>
  new Set((await storage.getAllKeys()).some((key) => key.startsWith(USES)) ? [HASH] : []);

type Step = {
  readonly does: 'bring-in' | 'bring-in-and-drop' | 'forget' | 'sweep' | 'die';
  readonly window: number;
  readonly pause: number;
};
const steps = fc.array(
  fc.record({
    does: fc.constantFrom(
      'bring-in' as const,
      'bring-in' as const,
      'bring-in-and-drop' as const,
      'forget' as const,
      'sweep' as const,
      'sweep' as const,
      'die' as const,
    ),
    window: fc.nat(3),
    pause: fc.nat(9),
  }),
  { minLength: 3, maxLength: 14 },
);

it('what a job mentions is there and whole, whoever sweeps, brings in or dies', async () => {
  await fc.assert(
    fc.asyncProperty(fc.scheduler(), steps, async (scheduler, plan) => {
      const { storage } = testDevice();
      const windows = Array.from({ length: 4 }, () => windowOn(storage, scheduler));
      let uses = 0;
      const begin = async ({ does, window }: Step): Promise<void> => {
        const { state, pictures } = windows[window]!;
        if (!state.isAlive) return;
        if (does === 'die') return void (state.isAlive = false);
        // A job that is deleted: what it used is swept.
        if (does === 'forget')
          return void (await storage.commit({
            remove: (await storage.getAllKeys()).filter((key) => key.startsWith(USES)).slice(0, 1),
          }));
        if (does === 'sweep') return pictures.sweep(findUsed(storage));
        await pictures.put(HASH, PICTURE);
        await scheduler.schedule(Promise.resolve());
        if (does === 'bring-in' && state.isAlive) await storage.commit({ set: { [`${USES}${uses++}`]: '' } });
        await pictures.settle([HASH]);
      };
      const begun: Promise<void>[] = [];
      for (const step of plan) {
        begun.push(begin(step));
        for (let i = 0; i < step.pause && scheduler.count() > 0; i++) await scheduler.waitOne();
      }
      await scheduler.waitIdle();
      const used = (await findUsed(storage)()).has(HASH);
      if (used) expect(await isWhole(new PictureStore(storage))).toBe(true);
      // When all who live are through, and nothing uses it, nothing of it is left, unless somebody died over it.
      await new PictureStore(storage).sweep(findUsed(storage));
      if (!used && windows.every(({ state }) => state.isAlive))
        expect((await storage.getAllKeys()).filter((key) => key.startsWith('picture/'))).toEqual([]);
      if (used) expect(await isWhole(new PictureStore(storage))).toBe(true);
    }),
    { numRuns: 3000 },
  );
}, 120_000);

it('a picture that comes in after a sweep looked at what is used is spared', async () => {
  const { storage } = testDevice();
  const [sweeping, bringing] = [new PictureStore(storage), new PictureStore(storage)];
  await sweeping.put(HASH, PICTURE);
  await sweeping.settle([HASH]);
  await sweeping.sweep(async () => {
    await bringing.put(HASH, PICTURE);
    await bringing.settle([HASH]);
    return new Set();
  });
  expect(await isWhole(bringing)).toBe(true);
});

it('a window that died while a picture came in leaves it to the sweep an hour later', async () => {
  const { storage } = testDevice();
  const now = jest.spyOn(Date, 'now').mockReturnValue(0);
  await new PictureStore(storage).put(HASH, PICTURE);
  const sweep = () => new PictureStore(storage).sweep(async () => new Set());
  now.mockReturnValue(50 * 60_000);
  await sweep();
  expect(await isWhole(new PictureStore(storage))).toBe(true);
  now.mockReturnValue(61 * 60_000);
  await sweep();
  expect(await storage.getAllKeys()).toEqual([]);
  now.mockRestore();
});

it('a picture that finds no room leaves nothing behind that fills it', async () => {
  const { storage, device } = testDevice();
  const pictures = new PictureStore({
    ...storage,
    commit: async (commit) => {
      device.full = Object.keys(commit.set ?? {}).some((key) => key === keys.piece(HASH, 4));
      return storage.commit(commit);
    },
  });
  await expect(pictures.put(HASH, PICTURE)).rejects.toMatchObject({ kind: 'full' });
  expect(await storage.getAllKeys()).toEqual([]);
});
