/** A device and the windows on it, for tests: storage that can be full, and channels between windows that can be deaf. */
import { createDeriver } from '@/core/derive';
import { createJob, type Job } from '@/core/job';
import { jobCardOf } from './job-card';
import type { Channel, Surroundings } from './job-line';
import { memoryStorage } from './memory';
import { OwnShelf } from './own-shelf';
import { JobRepository } from './repository';
import { StorageProblem, type KeyValueStorage } from './storage';

export const testJob = (id = 'j', name = 'Job'): Job => createJob(id, name, new Date(0));

export const testCard = (job: Job) => jobCardOf(job, createDeriver()(job), new Date(0), undefined);

export function testDevice() {
  const values = new Map<string, string>();
  const device = { full: false, values };
  const memory = memoryStorage(values);
  const storage: KeyValueStorage = {
    ...memory,
    commit: async (commit) => {
      if (device.full && Object.keys(commit.set ?? {}).length > 0) throw new StorageProblem('full', undefined);
      return memory.commit(commit);
    },
  };
  return { device, storage, repository: new JobRepository(storage), shelf: new OwnShelf(storage) };
}

/** Windows that hear each other: what one says arrives at all others a little later. */
export function testWindows(later: <T>(does: () => T) => Promise<T> = async (does) => does()) {
  const open = new Set<Channel & { name: string; asleep: boolean }>();
  return {
    /** What a window lives in; `asleep` makes it deaf, as one that the browser has stopped. */
    newWindow(): Surroundings & { asleep: boolean } {
      const mine: { asleep: boolean }[] = [];
      return {
        get asleep() {
          return mine.some(({ asleep }) => asleep);
        },
        set asleep(asleep) {
          mine.forEach((channel) => (channel.asleep = asleep));
        },
        // A question that nobody waits for any more does not keep the tests alive.
        wait: (ms) => new Promise((resolve) => (setTimeout(resolve, ms) as unknown as { unref(): void }).unref()),
        openChannel(name) {
          const channel = {
            name,
            asleep: false,
            onmessage: null as Channel['onmessage'],
            postMessage(data: unknown) {
              if (channel.asleep) return;
              for (const other of open)
                if (other !== channel && other.name === name)
                  void later(
                    () =>
                      other.asleep ||
                      !open.has(other) ||
                      other.onmessage?.({ data: structuredClone(data) } as MessageEvent),
                  );
            },
            close: () => void open.delete(channel),
          };
          open.add(channel);
          mine.push(channel);
          return channel;
        },
      };
    },
  };
}
