/** What is written at once, or not at all. */
export interface Commit {
  /** What has to be stored at this moment (null: nothing) for anything to be written. Read and written in one transaction. */
  readonly onlyIf?: Readonly<Record<string, string | null>>;
  readonly set?: Readonly<Record<string, string>>;
  readonly remove?: readonly string[];
}

/** Texts by key. What it throws is a `StorageProblem`. */
export interface KeyValueStorage {
  getItem(key: string): Promise<string | null>;
  getMany(keys: string[]): Promise<Record<string, string | null>>;
  getAllKeys(): Promise<string[]>;
  /** Whether it was written: false when something else was stored than `onlyIf` says. */
  commit(commit: Commit): Promise<boolean>;
}

/** Why the device would not store something. */
export class StorageProblem extends Error {
  constructor(
    readonly kind: 'full' | 'failed',
    cause: unknown,
  ) {
    super(`storage ${kind}`, { cause });
  }
}

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
  coming: (hash: string) => `picture/${hash}/coming`,
};

export function isJobKey(key: string, job: string): boolean {
  return key.startsWith(`job/${job}/`);
}

export const isStorageFull = (problem: unknown): boolean =>
  problem instanceof StorageProblem && problem.kind === 'full';

/** What a stored text says; undefined where it says nothing, or is no JSON any more. */
export function parsed(text: string | null | undefined): unknown {
  try {
    return JSON.parse(text ?? '') as unknown;
  } catch {
    return undefined;
  }
}
