import { openDevice } from './device';
import { markStorage } from './mark';
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

/** For a device that holds a job now: marks it, and asks the browser to keep it when there is little room. Neither is needed for the work to go on. */
export async function keepStorage(): Promise<void> {
  if (await isKept()) await markStorage(storage, localStorage).catch(() => undefined);
  await navigator.storage?.persist?.().catch(() => undefined);
}

/** Whether anything is kept when the window is closed. */
export const isKept = async (): Promise<boolean> => (await begun).isKept;
