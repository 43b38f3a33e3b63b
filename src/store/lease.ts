import { newId } from './ids';
import { keys, type KeyValueStorage } from './storage';

/** Which tab may write a job. The storage has no compare-and-set: a tab writes its claim and reads it again a moment later. */
interface Claim {
  readonly tab: string;
  readonly at: number;
}

/** What tabs say to each other about one job. */
interface Message {
  readonly kind: 'who-holds-it' | 'i-do' | 'i-take-over';
  readonly tab: string;
}

const RENEW_MS = 2000;
const STALE_MS = 6000;
const SETTLE_MS = 60;
/** How long a tab that holds the job has to answer. One that was closed or reloaded does not, whatever its claim says. */
const ANSWER_MS = 250;

export interface Lease {
  readonly held: boolean;
  takeOver(): Promise<void>;
  release(): void;
}

const wait = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

/**
 * Claims a job for this tab. `onLost` is called when another tab takes over, before it starts to write. Weak: where there
 * is no BroadcastChannel, a reloaded tab has to wait until its old claim goes stale.
 */
export async function claimJob(storage: KeyValueStorage, job: string, onLost: () => void): Promise<Lease> {
  const lease = new TabLease(storage, job, onLost);
  if (await lease.isFree()) await lease.hold();
  return lease;
}

class TabLease implements Lease {
  held = false;
  private readonly tab = newId();
  private readonly key: string;
  private readonly channel: BroadcastChannel | undefined;
  private wasAnswered = false;
  private timer: ReturnType<typeof setInterval> | undefined;

  constructor(private readonly storage: KeyValueStorage, job: string, private readonly onLost: () => void) {
    this.key = keys.lease(job);
    this.channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(`bryony/${job}`);
    this.channel?.addEventListener('message', ({ data }: MessageEvent<Message>) => this.hear(data));
  }

  async isFree(): Promise<boolean> {
    const other = await this.read();
    if (!other || Date.now() - other.at > STALE_MS) return true;
    if (!this.channel) return false;
    this.tell('who-holds-it');
    await wait(ANSWER_MS);
    return !this.wasAnswered;
  }

  async hold(): Promise<void> {
    await this.write();
    await wait(SETTLE_MS);
    if ((await this.read())?.tab !== this.tab) return;
    this.held = true;
    // A renewal that fails (storage full) is tried again with the next one; saving says so to the user.
    this.timer = setInterval(() => void this.renew().catch(() => undefined), RENEW_MS);
  }

  async takeOver(): Promise<void> {
    this.tell('i-take-over');
    await wait(4 * SETTLE_MS);
    await this.hold();
  }

  release(): void {
    clearInterval(this.timer);
    this.channel?.close();
    if (this.held) void this.storage.removeMany([this.key]).catch(() => undefined);
    this.held = false;
  }

  private async renew(): Promise<void> {
    const claim = await this.read();
    if (claim && claim.tab !== this.tab) this.lose();
    else await this.write();
  }

  private lose(): void {
    if (!this.held) return;
    this.held = false;
    clearInterval(this.timer);
    this.onLost();
  }

  private hear({ kind }: Message): void {
    if (kind === 'i-take-over') this.lose();
    else if (kind === 'i-do') this.wasAnswered = true;
    else if (this.held) this.tell('i-do');
  }

  private tell(kind: Message['kind']): void {
    this.channel?.postMessage({ kind, tab: this.tab } satisfies Message);
  }

  private async read(): Promise<Claim | null> {
    return JSON.parse((await this.storage.getItem(this.key)) ?? 'null') as Claim | null;
  }

  private write(): Promise<void> {
    return this.storage.setItem(this.key, JSON.stringify({ tab: this.tab, at: Date.now() } satisfies Claim));
  }
}
