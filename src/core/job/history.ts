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

/** Whether an entry changes, under the same key, nothing but what the one before it changed: then the two are one step. A name and a figure of one thing are two. */
function isContinued(last: HistoryEntry, next: HistoryEntry): boolean {
  const paths = ({ patches }: HistoryEntry) => patches.map(({ path }) => path.join('/')).join();
  if (next.merge === undefined || last.merge !== next.merge || paths(last) !== paths(next)) return false;
  if (![...last.patches, ...next.patches].every(({ op }) => op === 'replace')) return false;
  const before = new Set(listChanged(last));
  return listChanged(next).every((path) => before.has(path));
}

/** Paths to the values that an entry changed: to each by itself also where it replaced what holds them. */
const listChanged = ({ patches, inverse }: HistoryEntry): readonly string[] =>
  patches.flatMap(({ path, value }) => {
    const name = path.join('/');
    const before = inverse.find((other) => other.path.join('/') === name);
    return listDifferences(before?.value, value).map((rest) => name + rest);
  });

/** Where two values differ. A place is one value: which of its numbers it was moved by is no matter. */
function listDifferences(a: unknown, b: unknown): readonly string[] {
  if (a === b) return [];
  if (!isHolder(a) || !isHolder(b) || Array.isArray(a) !== Array.isArray(b)) return [''];
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].flatMap((key) => listDifferences(a[key], b[key]).map((rest) => `/${key}${rest}`));
}

const isHolder = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !(Array.isArray(value) && value.every(Number.isFinite));

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
