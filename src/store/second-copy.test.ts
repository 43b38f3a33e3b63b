/** The second copy follows what is stored whoever writes it, gives way when room is short, and brings a device back that a browser threw away. */
import * as fc from 'fast-check';
import { markStorage, MARK } from './mark';
import { memoryStorage } from './memory';
import { DoubledStorage, isCopyAhead, putBack, type Alone, type Aside } from './second-copy';
import { StorageProblem, type Commit } from './storage';
import { testDevice } from './testing';

/** Files that can be cut off from one write on, as when the window is closed. */
function testAside() {
  const files = new Map<string, string>();
  const state = { files, left: Infinity, log: [] as string[] };
  const change = (does: () => void) => {
    if (state.left-- <= 0) throw new Error('cut off');
    does();
  };
  const aside: Aside = {
    list: async () => [...files.keys()],
    read: async (key) => files.get(key) ?? null,
    write: async (key, text) => change(() => (state.log.push(key), files.set(key, text))),
    remove: async (key) => change(() => files.delete(key)),
    clear: async () => files.clear(),
  };
  return { aside, state };
}

/** One after the other, as a lock of the browser does. */
function testLock(): Alone {
  let last: Promise<unknown> = Promise.resolve();
  return (does) => {
    const mine = last.then(does);
    last = mine.catch(() => undefined);
    return mine;
  };
}

const beside = { getItem: () => null, setItem: () => undefined, removeItem: () => undefined };
const roomy = async () => true;
const lasting = (values: ReadonlyMap<string, string>) =>
  Object.fromEntries([...values].filter(([key]) => !/lease|coming/.test(key)));

const key = fc.constantFrom(
  'job/a/head',
  'job/a/entry/0',
  'job/a/lease',
  'job/b/head',
  'picture/x',
  'picture/x/coming',
);
const commit: fc.Arbitrary<Commit> = fc.record({
  set: fc.dictionary(key, fc.string({ minLength: 1 }), { maxKeys: 4 }),
  remove: fc.array(key, { maxLength: 2 }),
});

it('after any commits of two windows it holds what the device holds, but for what windows say to each other', async () => {
  let written = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(commit, fc.nat(1)), { maxLength: 12 }), async (commits) => {
      const [values, lock, { aside, state }] = [new Map<string, string>(), testLock(), testAside()];
      const windows = [0, 1].map(() => new DoubledStorage(memoryStorage(values), aside, lock));
      await Promise.all(commits.map(([wanted, window]) => windows[window]!.commit(wanted)));
      await Promise.all(windows.map((window) => window.settled()));
      expect(Object.fromEntries(state.files)).toEqual(lasting(values));
      written += state.files.size;
    }),
    { numRuns: 200 },
  );
  expect(written).toBeGreaterThan(200);
});

it('what was refused because something else was stored is not copied', async () => {
  const { aside, state } = testAside();
  const device = new DoubledStorage(memoryStorage(), aside, testLock());
  expect(await device.commit({ onlyIf: { 'job/a/lease': 'mine' }, set: { 'job/a/head': '1' } })).toBe(false);
  await device.settled();
  expect(state.files.size).toBe(0);
});

it('closed at any moment, it is put back whole after the next look through, or not at all before the first', async () => {
  const commits: Commit[] = [
    { set: { 'picture/x/0': 'piece', 'picture/x': 'head' } },
    { set: { 'job/a/snapshot': 's', 'job/a/head': '0', 'job/a/lease': 'w' } },
    { set: { 'job/a/entry/0': 'e', 'job/a/head': '1' }, remove: ['picture/x/coming'] },
    { set: { 'job/b/snapshot': 't' }, remove: ['job/a/entry/0'] },
  ];
  for (let cut = 0; cut <= 12; cut++) {
    const [values, { aside, state }] = [new Map<string, string>(), testAside()];
    state.left = cut;
    // A window that is closed gives nothing up: it does nothing any more.
    const closing: Aside = { ...aside, clear: () => new Promise(() => undefined) };
    const first = new DoubledStorage(memoryStorage(values), closing, testLock());
    for (const wanted of commits) await first.commit(wanted);
    await markStorage(first, beside);
    await Promise.race([first.catchUp(roomy), new Promise((resolve) => setTimeout(resolve, 5))]);
    expect(values.size).toBeGreaterThan(4);

    const lost = memoryStorage();
    if (state.files.has(MARK)) {
      expect(Object.fromEntries(state.files)).toEqual(lasting(values));
    } else expect(await isCopyAhead(lost, aside)).toBe(false);

    state.left = Infinity;
    await new DoubledStorage(memoryStorage(values), aside, testLock()).catchUp(roomy);
    expect(await isCopyAhead(memoryStorage(values), aside)).toBe(false);
    expect(await isCopyAhead(lost, aside)).toBe(true);
    await putBack(lost, aside);
    const all = await lost.getMany(await lost.getAllKeys());
    expect(all).toEqual(lasting(values));
    expect(await isCopyAhead(lost, aside)).toBe(false);
  }
});

it('of a device that held jobs before there was a copy, the mark is copied after them, however early it is written', async () => {
  const { aside, state } = testAside();
  const device = new DoubledStorage(memoryStorage(new Map([['job/a/head', '1']])), aside, testLock());
  await markStorage(device, beside);
  await device.settled();
  expect(await isCopyAhead(memoryStorage(), aside)).toBe(false);
  await device.catchUp(roomy);
  expect(state.log).toEqual(['job/a/head', MARK]);
});

it('pictures are put back before the jobs that mention them; broken off, it is put back once more', async () => {
  const [values, { aside, state }] = [new Map<string, string>(), testAside()];
  const device = new DoubledStorage(memoryStorage(values), aside, testLock());
  for (let i = 0; i < 6; i++) await device.commit({ set: { [`job/${i}/head`]: 'h', [`picture/${i}`]: 'p' } });
  await markStorage(device, beside);
  await device.catchUp(roomy);
  expect(state.log.at(-1)).toBe(MARK);

  for (let allowed = 0; allowed < 4; allowed++) {
    const found = new Map<string, string>();
    let left = allowed;
    const memory = memoryStorage(found);
    const breaking = {
      ...memory,
      commit: (wanted: Commit) => (left-- > 0 ? memory.commit(wanted) : Promise.reject(new Error('full'))),
    };
    await expect(putBack(breaking, aside)).rejects.toThrow('full');
    if ([...found.keys()].some((name) => name.startsWith('job/')))
      expect([...found.keys()].filter((name) => name.startsWith('picture/'))).toHaveLength(6);
    expect(await isCopyAhead(memory, aside)).toBe(true);
    await putBack(memory, aside);
    expect(Object.fromEntries(found)).toEqual(lasting(values));
  }
});

it('what was stored after the loss stays beside what is put back', async () => {
  const { aside } = testAside();
  const device = new DoubledStorage(memoryStorage(), aside, testLock());
  await device.commit({ set: { 'job/a/head': '1' } });
  await markStorage(device, beside);
  await device.catchUp(roomy);
  const since = new Map([['job/new/head', '2']]);
  await putBack(memoryStorage(since), aside);
  expect([since.get('job/a/head'), since.get('job/new/head')]).toEqual(['1', '2']);
});

it('on a full device the copy is taken away for what is to be stored, once', async () => {
  const { device, storage } = testDevice();
  const { aside, state } = testAside();
  const clearing: Aside = {
    ...aside,
    clear: async () => {
      await aside.clear();
      device.full = false;
    },
  };
  const doubled = new DoubledStorage(storage, clearing, testLock());
  await doubled.commit({ set: { 'job/a/head': '1' } });
  await doubled.settled();
  expect(state.files.size).toBe(1);
  device.full = true;
  expect(await doubled.commit({ set: { 'job/a/head': '2' } })).toBe(true);
  await doubled.settled();
  expect([device.values.get('job/a/head'), state.files.size]).toEqual(['2', 0]);
  device.full = true;
  await expect(doubled.commit({ set: { 'job/a/head': '3' } })).rejects.toThrow(StorageProblem);
});

it('a copy that cannot be written, or has no room to begin, is taken away, and work goes on', async () => {
  const { aside, state } = testAside();
  const doubled = new DoubledStorage(memoryStorage(), aside, testLock());
  await doubled.commit({ set: { 'job/a/head': '1' } });
  await doubled.settled();
  state.left = 0;
  expect(await doubled.commit({ set: { 'job/a/head': '2' } })).toBe(true);
  await doubled.settled();
  expect([state.files.size, await doubled.getItem('job/a/head')]).toEqual([0, '2']);

  const cramped = testAside();
  const other = new DoubledStorage(memoryStorage(new Map([['job/a/head', '1']])), cramped.aside, testLock());
  await other.commit({ set: { 'job/a/head': '2' } });
  await other.catchUp(async () => false);
  expect(cramped.state.files.size).toBe(0);
});
