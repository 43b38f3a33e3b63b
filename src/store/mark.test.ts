/** A browser that throws the storage away without a word is found out. */
import { forgetMark, isThrownAway, markStorage, type StorageBeside } from './mark';
import { memoryStorage } from './memory';

function besideOf(values = new Map<string, string>()): StorageBeside {
  return {
    getItem: (key) => values.get(key) ?? null,
    setItem: (key, value) => void values.set(key, value),
    removeItem: (key) => void values.delete(key),
  };
}

const REFUSING: StorageBeside = {
  getItem: () => {
    throw new Error('denied');
  },
  setItem: () => {
    throw new Error('denied');
  },
  removeItem: () => {
    throw new Error('denied');
  },
};

it('a storage that is as it was, or was never marked, was not thrown away', async () => {
  const [values, beside] = [new Map<string, string>(), besideOf()];
  expect(await isThrownAway(memoryStorage(values), beside)).toBe(false);
  await markStorage(memoryStorage(values), beside);
  await markStorage(memoryStorage(values), beside);
  expect(await isThrownAway(memoryStorage(values), beside)).toBe(false);
});

it('one that is empty again was, until it is said', async () => {
  const beside = besideOf();
  await markStorage(memoryStorage(), beside);
  const emptied = memoryStorage();
  // What is stored meanwhile does not hide it.
  await markStorage(emptied, beside);
  expect(await isThrownAway(emptied, beside)).toBe(true);
  forgetMark(beside);
  expect(await isThrownAway(emptied, beside)).toBe(false);
  await markStorage(emptied, beside);
  expect(await isThrownAway(emptied, beside)).toBe(false);
});

it('what was beside is gone alone: it is marked again, and nothing is said', async () => {
  const values = new Map<string, string>();
  await markStorage(memoryStorage(values), besideOf());
  const beside = besideOf();
  expect(await isThrownAway(memoryStorage(values), beside)).toBe(false);
  await markStorage(memoryStorage(values), beside);
  expect(await isThrownAway(memoryStorage(), beside)).toBe(true);
});

it('where nothing can be kept beside, nothing breaks', async () => {
  const storage = memoryStorage();
  await markStorage(storage, REFUSING);
  forgetMark(REFUSING);
  expect(await isThrownAway(storage, REFUSING)).toBe(false);
});
