import { createAsyncStorage } from '@react-native-async-storage/async-storage';
import { openDB, type IDBPDatabase } from 'idb';
import { StorageProblem, type Commit, type KeyValueStorage } from './storage';

const NAME = 'bryony';
/** The one table of AsyncStorage on the web. */
const TABLE = 'entries';

/**
 * IndexedDB, read through AsyncStorage. AsyncStorage knows no write that depends on what is stored, and keeps to itself why one failed; so writes go to the same table in a transaction of their own. Throws where there is no IndexedDB,
 * and where it cannot be opened.
 */
export async function openDevice(): Promise<KeyValueStorage> {
  let database = open();
  await database;
  const store = createAsyncStorage(NAME);
  const commit = async (wanted: Commit): Promise<boolean> => {
    try {
      return await write(await database, wanted);
    } catch (problem) {
      // A browser may close a database on its own (its data were cleared, the disk went away): the next write opens it again.
      if ((problem as DOMException)?.name === 'InvalidStateError') database = open();
      throw storageProblemOf(problem);
    }
  };
  return {
    getItem: (key) => store.getItem(key).catch(fail),
    getMany: (some) => store.getMany(some).catch(fail),
    getAllKeys: () => store.getAllKeys().catch(fail),
    commit,
  };
}

function open(): Promise<IDBPDatabase> {
  return openDB(NAME, 1, {
    upgrade(database) {
      if (!database.objectStoreNames.contains(TABLE)) database.createObjectStore(TABLE);
    },
  });
}

/** All in one transaction, on the disk when it is through; when anything fails it is as if nothing had been begun. */
async function write(database: IDBPDatabase, { onlyIf = {}, set = {}, remove = [] }: Commit): Promise<boolean> {
  const transaction = database.transaction(TABLE, 'readwrite', { durability: 'strict' });
  const ended = transaction.done.then(
    () => undefined,
    (problem: unknown) => problem,
  );
  try {
    for (const [key, text] of Object.entries(onlyIf)) {
      if (((await transaction.store.get(key)) ?? null) !== text) return false;
    }
    await Promise.all([
      ...remove.map((key) => transaction.store.delete(key)),
      ...Object.entries(set).map(([key, text]) => transaction.store.put(text, key)),
    ]);
  } catch (problem) {
    abort(transaction);
    await ended;
    // Requests of a transaction that ended by itself say only that it did; one that we ended has no reason of its own.
    throw transaction.error ?? problem;
  }
  const problem = await ended;
  if (problem) throw transaction.error ?? problem;
  return true;
}

function abort(transaction: { abort(): void }): void {
  try {
    transaction.abort();
  } catch {
    // It has ended by itself.
  }
}

/** By name where the browser gives one, else by what browsers say. */
export function storageProblemOf(problem: unknown): StorageProblem {
  if (problem instanceof StorageProblem) return problem;
  const { name = '', message = '' } = (problem ?? {}) as { name?: string; message?: string };
  return new StorageProblem(
    /^QuotaExceeded/.test(name) || /quota|disk is full|no space|not enough (disk )?space/i.test(message)
      ? 'full'
      : 'failed',
    problem,
  );
}

function fail(problem: unknown): never {
  throw storageProblemOf(problem);
}
