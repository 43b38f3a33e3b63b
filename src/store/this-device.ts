import { openDevice } from './device';
import { memoryStorage } from './memory';
import type { KeyValueStorage } from './storage';

/** The device, or memory where the browser gives no storage (some private windows): found out with the first question. */
const begun = openDevice().then(
  (device) => ({ device, isKept: true }),
  () => ({ device: memoryStorage(), isKept: false }),
);

/** This device's storage. */
export const storage: KeyValueStorage = {
  getItem: async (key) => (await begun).device.getItem(key),
  getMany: async (some) => (await begun).device.getMany(some),
  getAllKeys: async () => (await begun).device.getAllKeys(),
  commit: async (commit) => (await begun).device.commit(commit),
};

/** Whether anything is kept when the window is closed. */
export const isKept = async (): Promise<boolean> => (await begun).isKept;
