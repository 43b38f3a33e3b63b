import { createStore, type StoreApi } from 'zustand/vanilla';
import { createDeriver, type Derived } from '@/core/derive';
import {
  findLock,
  isHoldable,
  redo,
  runCommand,
  undo,
  type Command,
  type CommandName,
  type History,
  type Job,
} from '@/core/job';
import { Autosave, type AutosaveOptions, type SaveState } from './autosave';
import { AT_ONCE, PendingFits, type Judge } from './judging';
import type { NotHeld } from './lease';

export interface JobState {
  readonly history: History;
  readonly job: Job;
  readonly derived: Derived;
  readonly saveState: SaveState;
  /** Why the job is only shown here and not changed; undefined where it can be. */
  readonly readOnly: NotHeld | undefined;
  /** What was done last, for the notice that names it; refused where a job cannot hold it, or for the `lock` of a view. */
  readonly lastDone:
    | {
        readonly name: CommandName;
        readonly way: 'done' | 'undone' | 'redone' | 'refused';
        readonly at: number;
        readonly lock?: { readonly id: string; readonly name: string } | undefined;
      }
    | undefined;
  run(command: Command): void;
  undo(): void;
  redo(): void;
  setReadOnly(readOnly: NotHeld | undefined): void;
  /** What is being drawn, as text; saved with the job and given back when it is opened. */
  setDraft(draft: string): void;
  /** The card has something new that is not in the job (its thumbnail): it is written again. */
  renewCard(): void;
  /** Writes what is not written yet, now. */
  flush(): Promise<void>;
  /** Whether the job was changed since it was written. */
  isBehind(): boolean;
}

export type JobStore = StoreApi<JobState>;

/** A job that is open: its history, what follows from it, and its way to the device. With a judge what takes longer than a moment to judge is left to it, and shown as pending until then. */
export function createJobStore({
  judge,
  ...options
}: AutosaveOptions & { readonly judge?: Judge | undefined }): JobStore {
  const derive = deriverWith(judge, () => {
    store.setState(({ job }) => ({ derived: derive(job) }));
    autosave.renewCard();
  });
  const { history: first } = options;
  const store: JobStore = createStore<JobState>()((set, get) => {
    const show = (history: History, name: CommandName, way: 'done' | 'undone' | 'redone') => {
      if (history === get().history) return;
      set({ history, job: history.job, derived: derive(history.job), lastDone: { name, way, at: Date.now() } });
      autosave.schedule();
    };
    const step = (way: 'undone' | 'redone', move: (history: History) => History) => {
      const { history, readOnly } = get();
      const entry = history.entries[way === 'undone' ? history.cursor - 1 : history.cursor];
      if (entry && !readOnly) show(move(history), entry.name, way);
    };
    return {
      history: first,
      job: first.job,
      derived: derive(first.job),
      saveState: 'saved',
      readOnly: undefined,
      lastDone: undefined,
      run(command) {
        const { history, readOnly } = get();
        if (readOnly) return;
        const next = ranOn(history, command);
        if ('entries' in next) show(next, command.name, 'done');
        else set({ lastDone: { name: command.name, way: 'refused', at: Date.now(), ...next } });
      },
      undo: () => step('undone', undo),
      redo: () => step('redone', redo),
      setReadOnly: (readOnly) => set({ readOnly }),
      setDraft: (draft) => autosave.setDraft(draft),
      renewCard: () => autosave.renewCard(),
      flush: () => autosave.flush(),
      isBehind: () => autosave.isBehind(),
    };
  });
  const autosave = new Autosave(options, { read: store.getState, tell: (saveState) => store.setState({ saveState }) });
  return store;
}

/** A history with one more command; or, where it is refused, for the lock of which view. */
function ranOn(history: History, command: Command): History | Pick<NonNullable<JobState['lastDone']>, 'lock'> {
  const lock = findLock(history.job, command);
  if (lock) return { lock };
  const next = runCommand(history, command);
  // What could not be read again is not written: better one change that is refused than a job that never opens.
  return next === history || isHoldable(history.job, next.job) ? next : {};
}

/** Derives at once, but for what a judge is asked about; `onTold` when that has answered. */
function deriverWith(judge: Judge | undefined, onTold: () => void): (job: Job) => Derived {
  if (!judge) return createDeriver();
  const derive = createDeriver(AT_ONCE);
  const judging = new PendingFits(judge, onTold);
  return (job) => {
    const derived = derive(job, judging.told);
    judging.ask(job, derived);
    return derived;
  };
}
