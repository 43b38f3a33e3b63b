import { readJob, startHistory, type History, type HistoryEntry, type Job } from '@/core/job';
import { applyHistory } from './journal';
import { PictureStore } from './pictures';
import { isJobKey, keys, storage, type KeyValueStorage } from './storage';

/** What the jobs list shows of a job without opening it. */
export interface JobCard {
  readonly id: string;
  readonly name: string;
  readonly changed: string;
  readonly thumbnail: string | undefined;
  readonly pictures: number;
  readonly outlines: number;
  /** `no-pictures`, `no-scale`, or the plus-minus as text. */
  readonly fit: string;
  readonly checked: boolean;
}

interface Head {
  readonly cursor: number;
  readonly count: number;
  /** How many entries are done in the snapshot. */
  readonly snapshotAt: number;
}

/** Entries between two snapshots: what has to be replayed at most when a job is opened. */
const SNAPSHOT_EVERY = 40;

/** What is written of a job when it changed: new entries, the head, now and then a snapshot, the card; one transaction. */
export interface SaveRequest {
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
    const cards = Object.values(found).flatMap((text) => (text ? [JSON.parse(text) as JobCard] : []));
    return cards.sort((a, b) => b.changed.localeCompare(a.changed));
  }

  async create(job: Job, card: JobCard): Promise<void> {
    const head: Head = { cursor: 0, count: 0, snapshotAt: 0 };
    await this.storage.setMany({
      [keys.snapshot(job.id)]: JSON.stringify(job), [keys.head(job.id)]: JSON.stringify(head), [keys.card(job.id)]: JSON.stringify(card),
    });
  }

  /** Undefined when there is no such job or it cannot be read. */
  async open(id: string): Promise<{ history: History; snapshotAt: number; draft: string | null } | undefined> {
    const base = await this.storage.getMany([keys.head(id), keys.snapshot(id), keys.draft(id)]);
    const [headText, snapshotText] = [base[keys.head(id)], base[keys.snapshot(id)]];
    if (!headText || !snapshotText) return undefined;
    const head = JSON.parse(headText) as Head;
    const snapshot = readJob(JSON.parse(snapshotText));
    if (!snapshot.ok) return undefined;
    const names = Array.from({ length: head.count }, (_, i) => keys.entry(id, i));
    const texts = names.length > 0 ? await this.storage.getMany(names) : {};
    const entries = names.map((name) => JSON.parse(texts[name] ?? 'null') as HistoryEntry | null);
    if (entries.some((entry) => entry === null)) return { history: startHistory(snapshot.value), snapshotAt: 0, draft: null };
    const job = applyHistory(snapshot.value, entries as HistoryEntry[], head.snapshotAt, head.cursor);
    return { history: { job, entries: entries as HistoryEntry[], cursor: head.cursor }, snapshotAt: head.snapshotAt, draft: base[keys.draft(id)] ?? null };
  }

  /** Writes a change; returns where the snapshot now stands. Throws what the storage throws. */
  async save({ history, storedEntries, snapshotAt, card, draft }: SaveRequest): Promise<number> {
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
    await this.storage.setMany(writes);
    return nextSnapshot;
  }

  /** Removes a job for good and every picture that no job and no history needs any more. */
  async remove(id: string): Promise<void> {
    const mine = (await this.storage.getAllKeys()).filter((key) => isJobKey(key, id));
    if (mine.length > 0) await this.storage.removeMany(mine);
    await this.pictures.sweep(await this.usedPictures());
  }

  /** Hashes that any snapshot or history entry mentions. */
  private async usedPictures(): Promise<ReadonlySet<string>> {
    const names = (await this.storage.getAllKeys()).filter((key) => /^job\/[^/]+\/(snapshot$|entry\/)/.test(key));
    const texts = names.length > 0 ? await this.storage.getMany(names) : {};
    const hashes = Object.values(texts).flatMap((text) => [...(text ?? '').matchAll(/"(?:picture|file)":"([0-9a-f]{64})"/g)].map((match) => match[1]!));
    return new Set(hashes);
  }
}

export const repository = new JobRepository(storage);
