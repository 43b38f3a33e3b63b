import { newId } from './ids';
import { BROWSER, JobLine, type Answer, type Ask, type Surroundings } from './job-line';
import { isStorageFull, keys, type Commit, type KeyValueStorage } from './storage';

/** Why a window may not write a job: another has it, had it taken from this one, or the job was deleted; or the device stores nothing. */
export type NotHeld = 'elsewhere' | 'taken' | 'deleted' | 'full' | 'failed';

/** How long a window that holds a job has to say so. One that was closed does not, whatever is stored; one that sleeps finds out when it wakes. */
const THERE_MS = 400;
/** How long it has to write its last change. */
const LET_GO_MS = 4000;

/** What the window that writes a job does when another asks. */
export interface Writer {
  /** Writes what is not written; whether something is left that could not be. */
  write(): Promise<Answer>;
  rename(name: string): Promise<Answer>;
  /** Nothing is changed here from now on. */
  stop(why: NotHeld): void;
  /** The job is not ours any more: what could not be written of it is kept in another way. */
  leaveBehind(): Promise<Answer>;
}

/**
 * The right of one window to write one job: a random word that stands in the storage. Everything that is written of the job is written only if its word still stands there, in the same transaction; so there are never two writers, whatever
 * sleeps, is late or asks at the same moment. Weak: without a BroadcastChannel a window that lives cannot be told from one that died, and is taken over.
 */
export class Lease {
  /** Why it is not held; undefined while it is. */
  why: NotHeld | undefined = 'elsewhere';
  private readonly key: string;
  private readonly line: JobLine;
  private word: string | undefined;
  private attempt: Promise<unknown> = Promise.resolve();
  private writer: Writer | undefined;

  constructor(
    private readonly storage: KeyValueStorage,
    private readonly job: string,
    surroundings: Surroundings = BROWSER,
  ) {
    this.key = keys.lease(job);
    this.line = new JobLine(job, surroundings, (ask) => this.answer(ask));
  }

  get held(): boolean {
    return this.word !== undefined;
  }

  /** What has to stand in the storage for a write to be ours. Undefined: nothing may be written. */
  get guard(): Commit['onlyIf'] {
    return this.word === undefined ? undefined : { [this.key]: this.word };
  }

  /** Takes the job unless a window that lives has it. */
  claim(): Promise<boolean> {
    return this.take(
      async (seen) => seen !== null && (await this.ask({ kind: 'are-you-there' }, THERE_MS)) !== undefined,
    );
  }

  /** Takes the job from whoever has it, once it wrote its last change; what it could not write it still holds. */
  async takeOver(): Promise<Answer> {
    const isThere = (await this.ask({ kind: 'are-you-there' }, THERE_MS)) !== undefined;
    const answer = isThere ? await this.ask({ kind: 'let-go' }) : undefined;
    await this.take(async () => false);
    return answer ?? { holdsMore: false };
  }

  ask(ask: Ask, ms = LET_GO_MS): Promise<Answer | undefined> {
    return this.line.ask(ask, ms);
  }

  /** From now on this window answers as the one that writes. */
  serve(writer: Writer): void {
    this.writer = writer;
  }

  /** Looks whether the job is still ours, as after a sleep or a write that was refused. */
  async check(): Promise<void> {
    if (this.word === undefined) return;
    const mine = this.word;
    const stored = await this.storage.getMany([this.key, keys.head(this.job)]).catch(() => undefined);
    if (stored && mine === this.word && stored[this.key] !== mine)
      this.lose((stored[keys.head(this.job)] ?? null) === null ? 'deleted' : 'taken');
  }

  release(): void {
    const { guard } = this;
    this.word = undefined;
    this.line.close();
    if (guard) void this.storage.commit({ onlyIf: guard, remove: [this.key] }).catch(() => undefined);
  }

  private take(isTaken: (seen: string | null) => Promise<boolean>): Promise<boolean> {
    const attempt = this.tryToTake(isTaken);
    this.attempt = attempt;
    return attempt;
  }

  private async tryToTake(isTaken: (seen: string | null) => Promise<boolean>): Promise<boolean> {
    try {
      for (;;) {
        const seen = await this.storage.getItem(this.key);
        if (await isTaken(seen)) return false;
        const word = newId();
        if (!(await this.storage.commit({ onlyIf: { [this.key]: seen }, set: { [this.key]: word } }))) continue;
        this.word = word;
        this.why = undefined;
        // One that did not answer in time, and lives, finds out before it writes.
        if (seen !== null) this.line.tellOf({ kind: 'look' });
        return true;
      }
    } catch (problem) {
      this.why = isStorageFull(problem) ? 'full' : 'failed';
      return false;
    }
  }

  private lose(why: NotHeld): void {
    if (this.word === undefined) return;
    this.word = undefined;
    this.why = why;
    this.writer?.stop(why);
    void this.writer?.leaveBehind();
  }

  private async answer(ask: Ask): Promise<Answer | undefined> {
    // Who is about to hold it answers once that is settled; who waits for an answer itself must not be waited for.
    if (this.word === undefined && ask.kind === 'are-you-there') await this.attempt;
    if (this.word === undefined) return undefined;
    switch (ask.kind) {
      case 'look':
        return void this.check();
      case 'are-you-there':
        return { holdsMore: false };
      case 'write':
        return this.writer?.write();
      case 'rename':
        return this.writer?.rename(ask.name);
      case 'let-go':
        return this.letGo();
    }
  }

  private async letGo(): Promise<Answer> {
    const { writer } = this;
    writer?.stop('taken');
    const answer = await writer?.write();
    this.word = undefined;
    this.why = 'taken';
    return (answer?.holdsMore ? await writer?.leaveBehind() : answer) ?? { holdsMore: false };
  }
}
