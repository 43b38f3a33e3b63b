import { renameJob, type History, type Job } from '@/core/job';
import { createJobOf } from './bundles';
import { newId } from './ids';
import { jobCardOf } from './job-card';
import type { Answer, Surroundings } from './job-line';
import { createJobStore, type JobStore } from './job-store';
import { Lease, type NotHeld } from './lease';
import type { JobRepository, Opened } from './repository';
import { keys, type KeyValueStorage } from './storage';

export interface OpenDesk {
  readonly jobs: JobStore;
  readonly lease: Lease;
  readonly opened: Opened;
  /** What the window that had the job could not store: it is still there. */
  readonly leftElsewhere: boolean;
  /** Writes what is not written and lets the job go. */
  close(): Promise<void>;
}

export interface DeskOptions {
  readonly repository: JobRepository;
  readonly storage: KeyValueStorage;
  readonly surroundings?: Surroundings;
  /** Take the job from the window that has it. */
  readonly takeOver?: boolean;
  thumbnail?(job: Job): string | undefined;
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
    ...opened, repository, cardOf: (job, derived) => jobCardOf(job, derived, new Date(), options.thumbnail?.(job)), guard: () => lease.guard, onRefused: () => lease.check(),
  });
  jobs.getState().setReadOnly(lease.why);
  lease.serve(writerOf(jobs, options));
  const close = () => jobs.getState().flush().then(() => lease.release());
  return { jobs, lease, opened, leftElsewhere: answer?.holdsMore ?? false, close };
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

/** What came of something that was asked of a job from the list. */
export type Outside = { readonly kind: 'done' } | { readonly kind: 'refused'; readonly code: string };

const DONE: Outside = { kind: 'done' };
const refused = (code: string): Outside => ({ kind: 'refused', code });
const REFUSED_BY: Readonly<Record<NotHeld, string>> = { elsewhere: 'job-open-elsewhere', taken: 'job-open-elsewhere', deleted: 'job-gone', full: 'storage-full', failed: 'storage-failed' };

/** Renames a job: the window that has it open does it, else it is done here. */
export async function renameStored(id: string, name: string, options: DeskOptions): Promise<Outside> {
  const desk = await openJob(id, options);
  if (!desk) return refused('job-gone');
  const { jobs, lease } = desk;
  try {
    if (lease.held) {
      jobs.getState().run(renameJob(name));
      await jobs.getState().flush();
      return jobs.getState().isBehind() ? refused(jobs.getState().saveState === 'full' ? 'storage-full' : 'storage-failed') : DONE;
    }
    if (lease.why !== 'elsewhere') return refused(REFUSED_BY[lease.why!]);
    const answer = await lease.ask({ kind: 'rename', name });
    return answer && !answer.holdsMore ? DONE : refused('job-open-elsewhere');
  } finally {
    await desk.close();
  }
}

/** A copy of a job as it stands, with what the window that has it open has not written yet. */
export async function duplicateStored(id: string, options: DeskOptions): Promise<Outside> {
  const { repository, storage, surroundings } = options;
  if ((await storage.getItem(keys.lease(id))) !== null) {
    const lease = new Lease(storage, id, surroundings);
    await lease.ask({ kind: 'write' }, 1000);
    lease.release();
  }
  const opened = await repository.open(id);
  if (!opened) return refused('job-gone');
  const { job } = opened.history;
  const card = (await repository.listCards()).find((known) => known.id === id);
  await createJobOf({ ...job, id: newId(), name: `${job.name.slice(0, 190)} (copy)` }, card?.thumbnail, repository);
  return DONE;
}

/** Deletes a job for good, unless a window has it open. */
export async function deleteStored(id: string, { repository, storage, surroundings }: DeskOptions): Promise<Outside> {
  const lease = new Lease(storage, id, surroundings);
  try {
    // Where nothing can be stored, deleting is what makes room.
    if (!(await lease.claim()) && lease.why !== 'full') return refused(REFUSED_BY[lease.why!]);
    return (await repository.remove(id, lease.guard)) ? DONE : refused('job-open-elsewhere');
  } finally {
    lease.release();
  }
}
