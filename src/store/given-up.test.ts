/** A bundle that is given up while it is put on the device leaves nothing of it. */
import { storeJob } from './bundles';
import { testDevice, testJob } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({
  fileWorker: {},
  pictureWorker: { call: async () => ({ kind: 'done', value: ['piece', 'piece'] }) },
}));

const pictures = ['a', 'b', 'c'].map((letter) => ({ hash: letter.repeat(64), bytes: new Uint8Array(2000).buffer }));

it.each([0, 1, 2, 3])('after %d of three pictures', async (after) => {
  const { repository, device } = testDevice();
  const stop = new AbortController();
  const put = repository.pictures.put.bind(repository.pictures);
  let stored = 0;
  if (after === 0) stop.abort();
  repository.pictures.put = async (hash, bytes) => {
    await put(hash, bytes);
    if (++stored === after) stop.abort();
  };
  const outcome = await storeJob({ job: testJob(), pictures }, repository, stop.signal);
  expect(outcome).toMatchObject({ kind: 'refused', code: 'cancelled' });
  expect(stored).toBe(after);
  // Not even that a picture was on its way in.
  expect([...device.values.keys()]).toEqual([]);
});
