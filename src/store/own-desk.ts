import { renameJob, type History, type Job } from '@/core/job';
import { createJobOf } from './bundles';
import { newId } from './ids';
import { jobCardOf } from './job-card';
import type { Answer, Surroundings } from './job-line';
import { createJobStore, type JobStore } from './job-store';
import type { Judge } from './judging';
import { Lease, type NotHeld } from './lease';
import type { JobRepository, Opened } from './repository';
import type { KeyValueStorage } from './storage';

export interface OpenDesk {
  readonly jobs: JobStore;
  readonly lease: Lease;
  readonly opened: Opened;
  /** What the window that had the job could not store: it is still there. */
  readonly leftElsewhere: boolean;
  /** Writes what is not written and lets the job go. */
  close(): Promise<void>;
  /** Takes the job off the device, as when nothing ever came into it; nothing where another window writes it. */
  discard(): Promise<void>;
}

export interface DeskOptions {
  readonly repository: JobRepository;
  readonly storage: KeyValueStorage;
  readonly surroundings?: Surroundings;
  /** Take the job from the window that has it. */
  readonly takeOver?: boolean;
  thumbnail?(job: Job): string | undefined;
  /** Judges evidence that contradicts itself, away from the screen. */
  readonly judge?: Judge;
  /** Changes that this window could not write, since the job was taken from it, were kept as a job of this name. Without it nothing is kept aside: whoever asked is told that it did not come about. */
  onKeptAside?(name: string): void;
}

/**
 * Opens a job to be written, or only to be looked at where another window writes it. First the right to write is taken, then the job is read: what the other window wrote last is in it. Undefined where there is no such job, or it makes no
 * sense.
 */
export async function openJob(id: string, options: DeskOptions): Promise<OpenDesk | undefined> {
  const { repository, storage, surroundings, takeOver = false } = options;
  if (!(await repository.holds(id))) return undefined;
  const lease = new Lease(storage, id, surroundings);
  const answer = takeOver ? await lease.takeOver() : (await lease.claim(), undefined);
  const opened = await repository.open(id).catch((problem: unknown) => (lease.release(), Promise.reject(problem)));
  if (!opened) return void lease.release();
  const jobs = createJobStore({
    ...opened,
    repository,
    cardOf: (job, derived) => jobCardOf(job, derived, new Date(), options.thumbnail?.(job)),
    judge: options.judge,
    guard: () => lease.guard,
    onRefused: () => lease.check(),
  });
  jobs.getState().setReadOnly(lease.why);
  lease.serve(writerOf(jobs, options));
  const close = () =>
    jobs
      .getState()
      .flush()
      .then(() => lease.release());
  const discard = async () => {
    if (!lease.held) return;
    await jobs.getState().flush();
    if (await repository.remove(id, lease.guard)) jobs.getState().setReadOnly('deleted');
  };
  return { jobs, lease, opened, leftElsewhere: answer?.holdsMore ?? false, close, discard };
}

function writerOf(jobs: JobStore, { repository, onKeptAside }: DeskOptions): Parameters<Lease['serve']>[0] {
  /** What was kept aside already. */
  let left: History | undefined;
  const write = async (): Promise<Answer> => {
    await jobs.getState().flush();
    return { holdsMore: jobs.getState().isBehind() };
  };
  return {
    write,
    rename(name) {
      jobs.getState().run(renameJob(name));
      return write();
    },
    stop: (why: NotHeld) => jobs.getState().setReadOnly(why),
    async leaveBehind() {
      const { history } = jobs.getState();
      if (!onKeptAside || history === left || !jobs.getState().isBehind()) return { holdsMore: false };
      try {
        const name = await keepAside(history, repository);
        left = history;
        jobs.setState({ saveState: 'saved' });
        onKeptAside(name);
        return { holdsMore: false };
      } catch {
        return { holdsMore: true };
      }
    },
  };
}

/** A job as it stands in a window that may not write it any more becomes a job of its own; its name comes back. */
async function keepAside({ job }: History, repository: JobRepository): Promise<string> {
  const name = `${job.name.slice(0, 180)} (kept aside)`;
  await createJobOf({ ...job, id: newId(), name }, undefined, repository);
  return name;
}
