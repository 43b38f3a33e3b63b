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
  const tab = newId();
  const key = keys.lease(job);
  const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(`bryony/${job}`);
  const lease = { held: false, answered: false };
  let timer: ReturnType<typeof setInterval> | undefined;

  const tell = (kind: Message['kind']) => channel?.postMessage({ kind, tab } satisfies Message);
  const read = async () => JSON.parse((await storage.getItem(key)) ?? 'null') as Claim | null;
  const write = () => storage.setItem(key, JSON.stringify({ tab, at: Date.now() } satisfies Claim));
  const lose = () => {
    if (!lease.held) return;
    lease.held = false;
    clearInterval(timer);
    onLost();
  };
  const hold = async () => {
    await write();
    await wait(SETTLE_MS);
    if ((await read())?.tab !== tab) return;
    lease.held = true;
    // A renewal that fails (storage full) is tried again with the next one; saving says so to the user.
    timer = setInterval(() => void read().then((claim) => (claim && claim.tab !== tab ? lose() : write())).catch(() => undefined), RENEW_MS);
  };
  channel?.addEventListener('message', ({ data }: MessageEvent<Message>) => {
    if (data.kind === 'i-take-over') lose();
    else if (data.kind === 'i-do') lease.answered = true;
    else if (lease.held) tell('i-do');
  });
  const isFree = async () => {
    const other = await read();
    if (!other || Date.now() - other.at > STALE_MS) return true;
    if (!channel) return false;
    tell('who-holds-it');
    await wait(ANSWER_MS);
    return !lease.answered;
  };

  if (await isFree()) await hold();
  return {
    get held() {
      return lease.held;
    },
    async takeOver() {
      tell('i-take-over');
      await wait(4 * SETTLE_MS);
      await hold();
    },
    release() {
      clearInterval(timer);
      channel?.close();
      if (lease.held) void storage.removeMany([key]).catch(() => undefined);
      lease.held = false;
    },
  };
}
