import { createStore, type StoreApi } from 'zustand/vanilla';
import { createDeriver, type Derived } from '@/core/derive';
import { redo, runCommand, undo, type Command, type CommandName, type History, type Job } from '@/core/job';
import type { JobCard, JobRepository } from './repository';
import { isStorageFull } from './storage';

export type SaveState = 'saved' | 'saving' | 'full' | 'failed';

export interface JobState {
  readonly history: History;
  readonly job: Job;
  readonly derived: Derived;
  readonly saveState: SaveState;
  /** Another tab writes this job: it is shown here and not changed. */
  readonly readOnly: boolean;
  /** What was done last, for the notice that names it. */
  readonly lastDone: { readonly name: CommandName; readonly way: 'done' | 'undone' | 'redone'; readonly at: number } | undefined;
  run(command: Command): void;
  undo(): void;
  redo(): void;
  setReadOnly(readOnly: boolean): void;
  /** What is being drawn, as text; saved with the job and given back when it is opened. */
  setDraft(draft: string): void;
  /** The card has something new that is not in the job (its thumbnail): it is written again. */
  renewCard(): void;
  /** Writes what is not written yet, now. */
  flush(): Promise<void>;
}

export type JobStore = StoreApi<JobState>;

export interface JobStoreOptions {
  readonly history: History;
  readonly snapshotAt: number;
  readonly draft: string | null;
  readonly repository: Pick<JobRepository, 'save'>;
  cardOf(job: Job, derived: Derived): JobCard;
}

/** Half a second of quiet, and a second at most, lies between a change and the device. */
const QUIET_MS = 300;

export function createJobStore(options: JobStoreOptions): JobStore {
  const derive = createDeriver();
  let stored: { history: History; draft: string; snapshotAt: number } = { history: options.history, draft: options.draft ?? '', snapshotAt: options.snapshotAt };
  let draft = stored.draft;
  let cardStale = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let writing: Promise<void> = Promise.resolve();

  const store: JobStore = createStore<JobState>()((set, get) => {
    const show = (history: History, lastDone: JobState['lastDone']) => {
      if (history === get().history) return;
      set({ history, job: history.job, derived: derive(history.job), lastDone });
      schedule();
    };
    const step = (way: 'undone' | 'redone', move: (history: History) => History) => {
      const { history } = get();
      const entry = history.entries[way === 'undone' ? history.cursor - 1 : history.cursor];
      if (entry && !get().readOnly) show(move(history), { name: entry.name, way, at: Date.now() });
    };
    return {
      history: options.history,
      job: options.history.job,
      derived: derive(options.history.job),
      saveState: 'saved',
      readOnly: false,
      lastDone: undefined,
      run(command) {
        if (!get().readOnly) show(runCommand(get().history, command), { name: command.name, way: 'done', at: Date.now() });
      },
      undo: () => step('undone', undo),
      redo: () => step('redone', redo),
      setReadOnly: (readOnly) => set({ readOnly }),
      setDraft(next) {
        if (next === draft) return;
        draft = next;
        schedule();
      },
      renewCard() {
        cardStale = true;
        schedule();
      },
      flush: () => {
        clearTimeout(timer);
        timer = undefined;
        return write();
      },
    };
  });

  function schedule(): void {
    if (store.getState().readOnly) return;
    if (store.getState().saveState === 'saved') store.setState({ saveState: 'saving' });
    timer ??= setTimeout(() => {
      timer = undefined;
      void write();
    }, QUIET_MS);
  }

  /** One write at a time; each writes everything that changed until it starts. */
  function write(): Promise<void> {
    writing = writing.then(async () => {
      const { history, derived, readOnly } = store.getState();
      if (readOnly || (history === stored.history && draft === stored.draft && !cardStale)) return;
      cardStale = false;
      const writtenDraft = draft;
      try {
        const snapshotAt = await options.repository.save({
          history, storedEntries: countShared(stored.history, history), snapshotAt: stored.snapshotAt, card: options.cardOf(history.job, derived), draft: writtenDraft,
        });
        stored = { history, draft: writtenDraft, snapshotAt };
        const behind = store.getState().history !== history || draft !== writtenDraft;
        store.setState({ saveState: behind ? 'saving' : 'saved' });
      } catch (problem) {
        store.setState({ saveState: isStorageFull(problem) ? 'full' : 'failed' });
      }
    });
    return writing;
  }
  return store;
}

/** How many leading entries two histories share: they are written already. */
function countShared(a: History, b: History): number {
  const most = Math.min(a.entries.length, b.entries.length);
  let shared = most;
  while (shared > 0 && a.entries[shared - 1] !== b.entries[shared - 1]) shared--;
  return shared;
}
