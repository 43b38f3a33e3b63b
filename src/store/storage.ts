import { createAsyncStorage } from '@react-native-async-storage/async-storage';

/** The device's storage (IndexedDB on the web). Values are strings; one `setMany` is one transaction. */
export const storage = createAsyncStorage('bryony');

export type KeyValueStorage = Pick<typeof storage, 'getItem' | 'getMany' | 'setItem' | 'setMany' | 'removeMany' | 'getAllKeys'>;

export const OWN_SHELF = 'shelf/';

/** Every key that is stored, in one place. */
export const keys = {
  card: (job: string) => `job/${job}/card`,
  head: (job: string) => `job/${job}/head`,
  snapshot: (job: string) => `job/${job}/snapshot`,
  entry: (job: string, index: number) => `job/${job}/entry/${index}`,
  draft: (job: string) => `job/${job}/draft`,
  lease: (job: string) => `job/${job}/lease`,
  own: (thing: string) => `${OWN_SHELF}${thing}`,
  picture: (hash: string) => `picture/${hash}`,
  piece: (hash: string, index: number) => `picture/${hash}/${index}`,
};

export function isJobKey(key: string, job: string): boolean {
  return key.startsWith(`job/${job}/`);
}

/** Storage that is full says so in its own words, which differ between browsers. */
export function isStorageFull(problem: unknown): boolean {
  return /quota|full|exceeded|no space/i.test(`${problem} ${(problem as { cause?: unknown })?.cause ?? ''}`);
}
