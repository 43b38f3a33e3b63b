import { newId } from './ids';
import type { KeyValueStorage } from './storage';

/** What little is kept beside the storage: `localStorage`, which a browser keeps in another place. */
export type StorageBeside = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/** The word by which a storage is known. */
export const MARK = 'device/mark';

/**
 * Marks a storage that holds something, there and beside it, so that it is noticed when the browser throws it away. One that was thrown away is not marked before that is said. Where nothing can be kept beside,
 * nothing is noticed.
 */
export async function markStorage(storage: KeyValueStorage, beside: StorageBeside): Promise<void> {
  if (await isThrownAway(storage, beside)) return;
  const fresh = newId();
  const isFirst = await storage.commit({ onlyIf: { [MARK]: null }, set: { [MARK]: fresh } });
  const mark = isFirst ? fresh : await storage.getItem(MARK);
  if (mark) keep(beside, mark);
}

/**
 * Whether the browser threw away what was stored: what stands beside the storage is not in it any more. Browsers do so when their own files are damaged (a power cut while they start can be enough), or when
 * a device is nearly full; they say nothing of it.
 */
export async function isThrownAway(storage: KeyValueStorage, beside: StorageBeside): Promise<boolean> {
  const known = readBeside(beside);
  return known !== null && (await storage.getItem(MARK)) !== known;
}

/** It was said: from here on this storage counts. */
export function forgetMark(beside: StorageBeside): void {
  try {
    beside.removeItem(MARK);
  } catch {
    // Nothing is kept beside here.
  }
}

function keep(beside: StorageBeside, mark: string): void {
  try {
    beside.setItem(MARK, mark);
  } catch {
    // Nothing is kept beside here.
  }
}

function readBeside(beside: StorageBeside): string | null {
  try {
    return beside.getItem(MARK);
  } catch {
    return null;
  }
}
