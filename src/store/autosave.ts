import type { Derived } from '@/core/derive';
import type { History, Job } from '@/core/job';
import type { JobCard, JobRepository } from './repository';
import { isStorageFull, type Commit } from './storage';

export type SaveState = 'saved' | 'saving' | 'full' | 'failed';

export interface AutosaveOptions {
  readonly history: History;
  readonly snapshotAt: number;
  readonly draft: string | null;
  readonly repository: Pick<JobRepository, 'save'>;
  cardOf(job: Job, derived: Derived): JobCard;
  /** What has to stand in the storage for anything to be written; undefined: nothing may be. */
  guard(): Commit['onlyIf'];
  /** A write was refused, since it did not stand there. */
  onRefused(): Promise<void>;
}

/** What is to be written, and where its state is told. */
export interface Saved {
  read(): {
    readonly history: History;
    readonly derived: Derived;
    readonly readOnly: unknown;
    readonly saveState: SaveState;
  };
  tell(saveState: SaveState): void;
}

/** Half a second of quiet, and a second at most, lies between a change and the device. */
const QUIET_MS = 300;

/** Writes a job and what is being drawn to the device, a little after they change. */
export class Autosave {
  private stored: { readonly history: History; readonly draft: string; readonly snapshotAt: number };
  private draft: string;
  private isCardStale = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private writing: Promise<void> = Promise.resolve();

  constructor(
    private readonly options: AutosaveOptions,
    private readonly saved: Saved,
  ) {
    const { history, draft, snapshotAt } = options;
    this.draft = draft ?? '';
    this.stored = { history, draft: this.draft, snapshotAt };
  }

  setDraft(draft: string): void {
    if (draft === this.draft) return;
    this.draft = draft;
    this.schedule();
  }

  renewCard(): void {
    this.isCardStale = true;
    this.schedule();
  }

  schedule(): void {
    const { readOnly, saveState } = this.saved.read();
    if (readOnly) return;
    if (saveState === 'saved') this.saved.tell('saving');
    this.timer ??= setTimeout(() => void this.flush(), QUIET_MS);
  }

  /** Writes what is not written yet, now. One write at a time; each writes everything that changed until it starts. */
  flush(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.writing = this.writing.then(() => this.write());
    return this.writing;
  }

  /** Whether the job was changed since it was written. */
  isBehind(): boolean {
    return this.saved.read().history !== this.stored.history;
  }

  private async write(): Promise<void> {
    const { history, derived } = this.saved.read();
    const { draft, stored } = this;
    const onlyIf = this.options.guard();
    if (!onlyIf || (history === stored.history && draft === stored.draft && !this.isCardStale)) return;
    this.isCardStale = false;
    try {
      const snapshotAt = await this.options.repository.save({
        onlyIf,
        history,
        storedEntries: countShared(stored.history, history),
        snapshotAt: stored.snapshotAt,
        card: this.options.cardOf(history.job, derived),
        draft,
      });
      if (snapshotAt === undefined) return await this.options.onRefused();
      this.stored = { history, draft, snapshotAt };
      this.saved.tell(this.isBehind() || this.draft !== draft ? 'saving' : 'saved');
    } catch (problem) {
      this.saved.tell(isStorageFull(problem) ? 'full' : 'failed');
    }
  }
}

/** How many leading entries two histories share: they are written already. */
function countShared(a: History, b: History): number {
  const most = Math.min(a.entries.length, b.entries.length);
  let shared = most;
  while (shared > 0 && a.entries[shared - 1] !== b.entries[shared - 1]) shared--;
  return shared;
}
