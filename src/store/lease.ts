import { newId } from './ids';
import { keys, type KeyValueStorage } from './storage';

/** Which tab may write a job. The storage has no compare-and-set: a tab writes its claim and reads it again a moment later. */
interface Claim {
  readonly tab: string;
  readonly at: number;
}

const RENEW_MS = 2000;
const STALE_MS = 6000;
const SETTLE_MS = 60;

export interface Lease {
  readonly held: boolean;
  takeOver(): Promise<void>;
  release(): void;
}

/**
 * Claims a job for this tab. `onLost` is called when another tab takes over, before it starts to write. A tab that died
 * stops renewing, and its claim goes stale.
 */
export async function claimJob(storage: KeyValueStorage, job: string, onLost: () => void): Promise<Lease> {
  const tab = newId();
  const key = keys.lease(job);
  const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(`bryony/${job}`);
  let timer: ReturnType<typeof setInterval> | undefined;
  const lease = { held: false };

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
    await new Promise((resolve) => setTimeout(resolve, SETTLE_MS));
    if ((await read())?.tab !== tab) return;
    lease.held = true;
    timer = setInterval(() => void read().then((claim) => (claim && claim.tab !== tab ? lose() : write())), RENEW_MS);
  };
  channel?.addEventListener('message', ({ data }: MessageEvent<Claim>) => data.tab !== tab && lose());

  const other = await read();
  if (!other || Date.now() - other.at > STALE_MS) await hold();
  return {
    get held() {
      return lease.held;
    },
    async takeOver() {
      channel?.postMessage({ tab, at: Date.now() } satisfies Claim);
      await new Promise((resolve) => setTimeout(resolve, 4 * SETTLE_MS));
      await hold();
    },
    release() {
      clearInterval(timer);
      channel?.close();
      if (lease.held) void storage.removeMany([key]);
      lease.held = false;
    },
  };
}
