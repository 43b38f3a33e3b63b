import { firstFree } from '@/core/basics';
import { renameJob, type Job } from '@/core/job';
import { createJobOf } from './bundles';
import { newId } from './ids';
import { Lease, type NotHeld } from './lease';
import { openJob, type DeskOptions } from './own-desk';
import { keys } from './storage';

/** What came of something that was asked of a job from the list. */
export type Outside = { readonly kind: 'done' } | { readonly kind: 'refused'; readonly code: string };

const DONE: Outside = { kind: 'done' };
const refused = (code: string): Outside => ({ kind: 'refused', code });
const REFUSED_BY: Readonly<Record<NotHeld, string>> = {
  elsewhere: 'job-open-elsewhere',
  taken: 'job-open-elsewhere',
  deleted: 'job-gone',
  full: 'storage-full',
  failed: 'storage-failed',
};

/** Renames a job: the window that has it open does it, else it is done here. */
export async function renameStored(id: string, name: string, options: DeskOptions): Promise<Outside> {
  const desk = await openJob(id, options);
  if (!desk) return refused('job-gone');
  const { jobs, lease } = desk;
  try {
    if (lease.held) {
      jobs.getState().run(renameJob(name));
      await jobs.getState().flush();
      return jobs.getState().isBehind()
        ? refused(jobs.getState().saveState === 'full' ? 'storage-full' : 'storage-failed')
        : DONE;
    }
    if (lease.why !== 'elsewhere') return refused(REFUSED_BY[lease.why!]);
    const answer = await lease.ask({ kind: 'rename', name });
    return answer && !answer.holdsMore ? DONE : refused('job-open-elsewhere');
  } finally {
    await desk.close();
  }
}

/** A job as it stands, with what the window that has it open has not written yet; undefined where it is gone, or cannot be read. */
export async function readStored(
  id: string,
  { repository, storage, surroundings }: DeskOptions,
): Promise<Job | undefined> {
  if ((await storage.getItem(keys.lease(id))) !== null) {
    const lease = new Lease(storage, id, surroundings);
    await lease.ask({ kind: 'write' }, 1000);
    lease.release();
  }
  return (await repository.open(id))?.history.job;
}

/** A copy of a job as it stands. */
export async function duplicateStored(id: string, options: DeskOptions): Promise<Outside> {
  const { repository } = options;
  const job = await readStored(id, options);
  if (!job) return refused('job-gone');
  const cards = await repository.listCards();
  const name = nameOfCopy(job.name, new Set(cards.map((card) => card.name)));
  await createJobOf({ ...job, id: newId(), name }, cards.find((card) => card.id === id)?.thumbnail, repository);
  return DONE;
}

/** A copy of a copy is another copy of the first. */
function nameOfCopy(name: string, taken: ReadonlySet<string>): string {
  const first = name.replace(/ \(copy(?: \d+)?\)$/, '').slice(0, 180);
  return firstFree(taken, (count) => (count === 1 ? `${first} (copy)` : `${first} (copy ${count})`));
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
