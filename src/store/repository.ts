import { z } from '@/core/schema';
import { JOB_VERSION, readJob, startHistory, type History, type HistoryEntry, type Job } from '@/core/job';
import { applyHistory } from './journal';
import { PictureStore } from './pictures';
import { isJobKey, keys, parsed, type Commit, type KeyValueStorage } from './storage';
import { storage } from './this-device';

/** What the jobs list shows of a job without opening it. `fit` is `no-pictures`, `no-scale`, `unreadable` (the card is damaged, the job perhaps not), or the plus-minus as text. */
const Card = z.object({
  id: z.string(),
  name: z.string(),
  changed: z.string(),
  thumbnail: z.string().optional(),
  pictures: z.number(),
  outlines: z.number(),
  fit: z.string(),
  checked: z.boolean(),
});
export type JobCard = Readonly<Omit<z.infer<typeof Card>, 'thumbnail'>> & { readonly thumbnail: string | undefined };

/** `snapshotAt`: how many entries are done in the snapshot. */
const Head = z.object({ cursor: z.int().min(0), count: z.int().min(0), snapshotAt: z.int().min(0) });
type Head = z.infer<typeof Head>;

/** What was stored, as far as it can be read. */
export interface Opened {
  readonly history: History;
  readonly snapshotAt: number;
  readonly draft: string | null;
  /** Something of the last changes cannot be read any more. */
  readonly isShortened: boolean;
}

/** What a stored text says, where it is what it should be. */
const readAs = <T>(schema: z.ZodType<T>, text: string | null | undefined): T | undefined =>
  schema.safeParse(parsed(text)).data;

/** Of an entry what is asked for here; what it does to a job shows when it is done. */
const Entry = z.object({ patches: z.array(z.unknown()), inverse: z.array(z.unknown()) }).loose();

/**
 * The job that a snapshot and its journal lead to. What was written by an older version is replayed as it was written and brought up then, and its history starts anew: its steps speak of a shape that is gone. Where entries do not fit,
 * the snapshot stands, and its history starts anew. Undefined where the snapshot itself makes no job.
 */
function openJournal(
  document: unknown,
  head: Head,
  entries: readonly HistoryEntry[],
): Omit<Opened, 'draft'> | undefined {
  const snapshot = readJob(document);
  if (!snapshot.ok) return undefined;
  const isOlder = (document as { version: number }).version < JOB_VERSION;
  const cursor = Math.min(head.cursor, entries.length);
  // A snapshot that was brought up and then changed, without being taken again: its entries fit what it was brought up to.
  for (const begin of isOlder ? [document, snapshot.value] : [document]) {
    const job = replayed(begin, entries, head.snapshotAt, cursor);
    if (!job) continue;
    const isShortened = entries.length < head.count;
    return isOlder
      ? { history: startHistory(job), snapshotAt: Infinity, isShortened }
      : { history: { job, entries, cursor }, snapshotAt: head.snapshotAt, isShortened };
  }
  return { history: startHistory(snapshot.value), snapshotAt: 0, isShortened: true };
}

function replayed(document: unknown, entries: readonly HistoryEntry[], from: number, to: number): Job | undefined {
  // The snapshot is a place of the history that is still whole: from there as far as it goes.
  if (from > entries.length) return undefined;
  try {
    const job = readJob(applyHistory(document as Job, entries, from, to));
    return job.ok ? job.value : undefined;
  } catch {
    return undefined;
  }
}

/** Entries between two snapshots: what has to be replayed at most when a job is opened. */
const SNAPSHOT_EVERY = 40;

/** What is written of a job when it changed: new entries, the head, now and then a snapshot, the card; one transaction. */
export interface SaveRequest {
  /** What has to stand in the storage for the job to be ours to write. */
  readonly onlyIf: Commit['onlyIf'];
  readonly history: History;
  /** Entries before this index are stored already. */
  readonly storedEntries: number;
  readonly snapshotAt: number;
  readonly card: JobCard;
  /** What is being drawn right now, so that it comes back too. */
  readonly draft: string;
}

export class JobRepository {
  readonly pictures: PictureStore;
  constructor(private readonly storage: KeyValueStorage) {
    this.pictures = new PictureStore(storage);
  }

  async listCards(): Promise<readonly JobCard[]> {
    const names = (await this.storage.getAllKeys()).filter((key) => /^job\/[^/]+\/card$/.test(key));
    const found = names.length > 0 ? await this.storage.getMany(names) : {};
    const cards = names.map((key): JobCard => {
      const { thumbnail, ...card } = readAs(Card, found[key]) ?? {
        id: key.split('/')[1]!,
        name: 'Unnamed job',
        changed: '',
        pictures: 0,
        outlines: 0,
        fit: 'unreadable',
        checked: false,
      };
      return { ...card, thumbnail };
    });
    return cards.sort((a, b) => b.changed.localeCompare(a.changed));
  }

  /** Whether it was stored: not where a job of this id is here already. */
  async create(job: Job, card: JobCard): Promise<boolean> {
    const head: Head = { cursor: 0, count: 0, snapshotAt: 0 };
    const set = {
      [keys.snapshot(job.id)]: JSON.stringify(job),
      [keys.head(job.id)]: JSON.stringify(head),
      [keys.card(job.id)]: JSON.stringify(card),
    };
    const done = await this.storage.commit({ onlyIf: { [keys.head(job.id)]: null }, set });
    if (done) await this.pictures.settle(filesIn(Object.values(set)));
    return done;
  }

  /** Whether anything is stored of a job. */
  async holds(id: string): Promise<boolean> {
    return (await this.storage.getAllKeys()).some((key) => isJobKey(key, id));
  }

  /** All that is stored of a job, readable or not, as it is. */
  async readRaw(id: string): Promise<string> {
    const mine = (await this.storage.getAllKeys()).filter((key) => isJobKey(key, id));
    return JSON.stringify(mine.length > 0 ? await this.storage.getMany(mine) : {}, null, 1);
  }

  /** Undefined when there is no such job or it cannot be read: `holds` tells which. */
  async open(id: string): Promise<Opened | undefined> {
    const base = await this.storage.getMany([keys.head(id), keys.snapshot(id), keys.draft(id)]);
    const [headText, snapshotText] = [base[keys.head(id)], base[keys.snapshot(id)]];
    const head = readAs(Head, headText);
    const document = readAs(z.unknown(), snapshotText);
    if (!head || document === undefined) return undefined;
    const names = Array.from({ length: head.count }, (_, i) => keys.entry(id, i));
    const texts = names.length > 0 ? await this.storage.getMany(names) : {};
    const read = names.map((name) => readAs(Entry, texts[name]) as HistoryEntry | undefined);
    const lost = read.indexOf(undefined);
    const opened = openJournal(document, head, (lost < 0 ? read : read.slice(0, lost)) as HistoryEntry[]);
    return opened && { ...opened, draft: opened.isShortened ? null : (base[keys.draft(id)] ?? null) };
  }

  /** Writes a change; returns where the snapshot now stands, undefined where the job is not ours to write. Throws what the storage throws. */
  async save({ onlyIf, history, storedEntries, snapshotAt, card, draft }: SaveRequest): Promise<number | undefined> {
    const { job, entries, cursor } = history;
    const writes: Record<string, string> = {};
    for (let i = storedEntries; i < entries.length; i++) writes[keys.entry(job.id, i)] = JSON.stringify(entries[i]);
    // Entries that were undone and then replaced would no longer lead from the snapshot: it has to be taken again.
    const renew = storedEntries < snapshotAt || Math.abs(cursor - snapshotAt) >= SNAPSHOT_EVERY;
    const nextSnapshot = renew ? cursor : snapshotAt;
    if (renew) writes[keys.snapshot(job.id)] = JSON.stringify(job);
    const head: Head = { cursor, count: entries.length, snapshotAt: nextSnapshot };
    writes[keys.head(job.id)] = JSON.stringify(head);
    writes[keys.card(job.id)] = JSON.stringify(card);
    writes[keys.draft(job.id)] = draft;
    if (!(await this.storage.commit({ ...(onlyIf && { onlyIf }), set: writes }))) return undefined;
    await this.pictures.settle(filesIn(Object.values(writes)));
    return nextSnapshot;
  }

  /** Removes a job for good and every picture that no job and no history needs any more. False where it is not ours to remove. */
  async remove(id: string, onlyIf: Commit['onlyIf'] = {}): Promise<boolean> {
    const mine = (await this.storage.getAllKeys()).filter((key) => isJobKey(key, id));
    const done = await this.storage.commit({ onlyIf, remove: mine });
    if (done) await this.sweep();
    return done;
  }

  /** Removes pictures that nothing needs any more. */
  sweep(): Promise<void> {
    return this.pictures.sweep(() => this.usedPictures());
  }

  /** Hashes that any snapshot or history entry mentions. */
  private async usedPictures(): Promise<ReadonlySet<string>> {
    const names = (await this.storage.getAllKeys()).filter((key) => /^job\/[^/]+\/(snapshot$|entry\/)/.test(key));
    const texts = names.length > 0 ? await this.storage.getMany(names) : {};
    return new Set(filesIn(Object.values(texts).map((text) => text ?? '')));
  }
}

/** Hashes of pictures and files that stored texts of jobs and histories mention. */
const filesIn = (texts: readonly string[]) =>
  texts.flatMap((text) => [...text.matchAll(/"(?:picture|file)":"([0-9a-f]{64})"/g)].map((match) => match[1]!));

export const repository = new JobRepository(storage);
