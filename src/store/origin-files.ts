import type { Alone, Aside } from './second-copy';

const FOLDER = 'second-copy';

/** What TypeScript's own library does not know of folders yet. */
type Folder = FileSystemDirectoryHandle & { values(): AsyncIterable<FileSystemFileHandle> };

/** The files of an origin, which a browser keeps apart from its database; one for each text. Undefined where a browser has none, or does not give them. */
export async function openOriginFiles(): Promise<Aside | undefined> {
  try {
    const root = await navigator.storage.getDirectory();
    await root.getDirectoryHandle(FOLDER, { create: true });
    return asideIn(root);
  } catch {
    return undefined;
  }
}

function asideIn(root: FileSystemDirectoryHandle): Aside {
  // Asked for anew every time: another window may have taken the folder away.
  const folder = async () => (await root.getDirectoryHandle(FOLDER, { create: true })) as Folder;
  return {
    async list() {
      const names: string[] = [];
      for await (const handle of (await folder()).values())
        if (!isHalf(handle.name) && (await textIn(handle)) !== null) names.push(decodeURIComponent(handle.name));
      return names;
    },
    async read(key) {
      const text = await missing((await folder()).getFileHandle(nameOf(key)).then(textIn));
      return (await text?.text()) ?? null;
    },
    async write(key, text) {
      const file = await (await folder()).getFileHandle(nameOf(key), { create: true });
      const stream = await file.createWritable();
      // What is written takes the file's place when it is closed, whole.
      await stream.write(text);
      await stream.close();
    },
    async remove(key) {
      await missing((await folder()).removeEntry(nameOf(key)));
    },
    async clear() {
      await missing(root.removeEntry(FOLDER, { recursive: true }));
    },
  };
}

const nameOf = (key: string) => encodeURIComponent(key);
/** What a browser leaves of a file whose window was closed while it was written. */
const isHalf = (name: string) => name.endsWith('.crswap');

/** Null where it was begun only: no text is empty. */
async function textIn(handle: FileSystemFileHandle): Promise<File | null> {
  const file = await handle.getFile();
  return file.size > 0 ? file : null;
}

/** What is not there is no failure. */
async function missing<T>(asked: Promise<T>): Promise<T | undefined> {
  try {
    return await asked;
  } catch (problem) {
    if ((problem as DOMException).name === 'NotFoundError') return undefined;
    throw problem;
  }
}

const LOCK = 'second-copy';
const PATIENCE_MS = 5000;

/** Alone among the windows of this origin, whenever that is; where a browser cannot tell, at once. */
export const aloneInOrigin: Alone = (does) => lock(does, {});
/** The same, within a few seconds; else it throws. */
export const aloneSoon: Alone = (does) => lock(does, { signal: AbortSignal.timeout(PATIENCE_MS) });

const lock = <T>(does: () => Promise<T>, options: LockOptions): Promise<T> =>
  navigator.locks ? (navigator.locks.request(LOCK, options, does) as Promise<T>) : does();
