import { applyPatches } from 'immer';
import type { HistoryEntry, Job } from '@/core/job';

/** The job at `to` done entries, from the job at `from` done entries: forwards by patches, back by their inverses. */
export function applyHistory(job: Job, entries: readonly HistoryEntry[], from: number, to: number): Job {
  let at = job;
  for (let i = from; i < to; i++) at = applyPatches(at, [...entries[i]!.patches]);
  for (let i = from - 1; i >= to; i--) at = applyPatches(at, [...entries[i]!.inverse]);
  return at;
}
