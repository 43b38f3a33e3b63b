import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer';
import type { Command, CommandName } from './command';
import type { Job } from './schema';

enablePatches();

/** One done command as a diff, forwards and back. */
export interface HistoryEntry {
  readonly name: CommandName;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
  readonly merge?: string | undefined;
}

/** A job and everything that was done to it. `cursor` entries are done, those behind it are undone and can be redone. */
export interface History {
  readonly job: Job;
  readonly entries: readonly HistoryEntry[];
  readonly cursor: number;
}

export const startHistory = (job: Job): History => ({ job, entries: [], cursor: 0 });

/** Does a command; what was undone before is forgotten. The same history comes back when the command changes nothing. */
export function runCommand(history: History, command: Command): History {
  const [job, patches, inverse] = produceWithPatches(history.job, (draft) => command.apply(draft));
  if (patches.length === 0) return history;
  const entry: HistoryEntry =
    command.merge === undefined
      ? { name: command.name, patches, inverse }
      : { name: command.name, patches, inverse, merge: command.merge };
  const done = history.entries.slice(0, history.cursor);
  const last = done.at(-1);
  const entries =
    last && isContinued(last, entry) ? [...done.slice(0, -1), { ...entry, inverse: last.inverse }] : [...done, entry];
  return { job, entries, cursor: entries.length };
}

/** Whether an entry replaces just what the one before it replaced, under the same key: then the two are one step. */
function isContinued(last: HistoryEntry, next: HistoryEntry): boolean {
  const paths = (patches: readonly Patch[]) => patches.map((patch) => `${patch.op} ${patch.path.join('/')}`).join();
  return (
    next.merge !== undefined &&
    last.merge === next.merge &&
    paths(last.patches) === paths(next.patches) &&
    next.patches.every((patch) => patch.op === 'replace')
  );
}

export function undo(history: History): History {
  const entry = history.entries[history.cursor - 1];
  if (!entry) return history;
  return { ...history, job: applyPatches(history.job, [...entry.inverse]), cursor: history.cursor - 1 };
}

export function redo(history: History): History {
  const entry = history.entries[history.cursor];
  if (!entry) return history;
  return { ...history, job: applyPatches(history.job, [...entry.patches]), cursor: history.cursor + 1 };
}
