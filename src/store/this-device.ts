import { openDevice } from './device';
import { markStorage } from './mark';
import { memoryStorage } from './memory';
import { aloneInOrigin, aloneSoon, openOriginFiles } from './origin-files';
import { DoubledStorage, isCopyAhead, putBack, type Aside } from './second-copy';
import type { KeyValueStorage } from './storage';

interface Begun {
  readonly device: KeyValueStorage;
  /** It ends with its window. */
  readonly isKept: boolean;
  /** The browser had thrown it away, and a second copy was put back. */
  readonly isPutBack: boolean;
}

/** The device, or memory where the browser gives no storage (some private windows): found out with the first question. */
const begun: Promise<Begun> = openDevice().then(openDoubled, () => ({
  device: memoryStorage(),
  isKept: false,
  isPutBack: false,
}));

/** A device with its second copy, which is put back first where the device lost what it held. */
async function openDoubled(device: KeyValueStorage): Promise<Begun> {
  const single = { device, isKept: true, isPutBack: false };
  const aside = await openOriginFiles();
  if (!aside) return single;
  try {
    // Asked without a lock: a window that sleeps may hold it for hours.
    const isPutBack = (await isCopyAhead(device, aside)) && (await aloneSoon(() => putBackOnce(device, aside)));
    return { device: new DoubledStorage(device, aside, aloneInOrigin), isKept: true, isPutBack };
  } catch {
    // The copy stays as it is, for the next time.
    return single;
  }
}

/** Of several windows that begin at once the first puts it back. */
async function putBackOnce(device: KeyValueStorage, aside: Aside): Promise<boolean> {
  const isAhead = await isCopyAhead(device, aside);
  if (isAhead) await putBack(device, aside);
  return isAhead;
}

/** This device's storage. */
export const storage: KeyValueStorage = {
  getItem: async (key) => (await begun).device.getItem(key),
  getMany: async (some) => (await begun).device.getMany(some),
  getAllKeys: async () => (await begun).device.getAllKeys(),
  commit: async (commit) => (await begun).device.commit(commit),
};

/** For a device that holds a job now: marks it, asks the browser to keep it when there is little room, and copies it. Nothing of it is needed for the work to go on. */
export async function keepStorage(): Promise<void> {
  if (await isKept()) await markStorage(storage, localStorage).catch(() => undefined);
  await navigator.storage?.persist?.().catch(() => undefined);
  copying ??= setTimeout(() => void copyStorage(), COPY_AFTER_MS);
}

/** What is being opened comes first. */
const COPY_AFTER_MS = 1500;
/** Once a window: from then on the copy follows. */
let copying: ReturnType<typeof setTimeout> | undefined;

async function copyStorage(): Promise<void> {
  const { device } = await begun;
  // What it has not looked through it looks through when the next window begins.
  if (device instanceof DoubledStorage) await device.catchUp(hasRoomForTwo).catch(() => undefined);
}

/** What is taken fits in once more, as far as the browser says. */
async function hasRoomForTwo(): Promise<boolean> {
  const { usage = 0, quota = 0 } = await navigator.storage.estimate();
  return 2 * usage < quota;
}

/** Whether anything is kept when the window is closed. */
export const isKept = async (): Promise<boolean> => (await begun).isKept;

/** Whether what is here was put back from its second copy when this window began. */
export const isPutBack = async (): Promise<boolean> => (await begun).isPutBack;
