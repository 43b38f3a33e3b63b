import type { Scene } from '@/core/arrange';
import {
  fitOf,
  NOTHING_TOLD,
  toldOf,
  toldOfScene,
  type Derived,
  type FittedView,
  type Told,
  type ToldOfJob,
  type ToldScene,
} from '@/core/derive';
import type { Job } from '@/core/job';
import type { ToJudge } from '@/workers';

/** Judges to the end, somewhere else: a view's evidence, or views together; undefined where nobody there can. */
export interface Judge {
  view(asked: ToJudge, signal: AbortSignal): Promise<Told | undefined>;
  together(scene: Scene, signal: AbortSignal): Promise<ToldScene | undefined>;
}

/** What is done at once before it is left to somebody else: so many pieces adjusted to judge a view's evidence, a tenth of a second, and so many pieces and ties to fit views together, about a frame. */
export const AT_ONCE = { most: 120, mostTogether: 40 };

/** Something that is pending: what it is known by, and how it comes to what is told of it. */
interface Asked {
  readonly of: object;
  hear(signal: AbortSignal): Promise<(told: ToldOfJob) => ToldOfJob>;
}

interface Asking<T> {
  readonly of: object;
  there(signal: AbortSignal): Promise<T | undefined>;
  here(): T;
  keep(told: ToldOfJob, answer: T): ToldOfJob;
}

/** Where there is nobody to ask it is done here, late but right. */
const askedOf = <T>({ of, there, here, keep }: Asking<T>): Asked => ({
  of,
  async hear(signal) {
    const answer = await there(signal).catch(() => undefined);
    return (told) => keep(told, answer ?? here());
  },
});

/** Has what is pending in a job judged, one question after the other; views that share evidence ask one. Where what is asked is changed meanwhile that is another question, and the one before is given up. */
export class PendingFits {
  /** What is known of a job. */
  told: ToldOfJob = NOTHING_TOLD;
  private asked: { readonly of: object; readonly stop: AbortController } | undefined;

  constructor(
    private readonly judge: Judge,
    private readonly onTold: () => void,
  ) {}

  /** Asks the next question that is pending, and forgets what nobody asks any more. */
  ask(job: Job, derived: Derived): void {
    const views = [...derived.alone.values()];
    this.keep(new Set([...views.map(({ question }) => question), ...derived.arranged.asked]));
    const pending = [
      ...views.filter(({ isPending }) => isPending).map((fitted) => this.ofView(fitted, job)),
      ...derived.arranged.pending.map((scene) => this.ofScene(scene)),
    ];
    if (pending.some(({ of }) => of === this.asked?.of)) return;
    this.asked?.stop.abort();
    this.asked = undefined;
    const [next] = pending;
    if (next) void this.hear(next);
  }

  private keep(asked: ReadonlySet<object>): void {
    const { questions, scenes } = this.told;
    if ([...questions.keys(), ...scenes.keys()].every((of) => asked.has(of))) return;
    this.told = { questions: keptOf(questions, asked), scenes: keptOf(scenes, asked) };
  }

  private ofView({ source: view, sheet, question }: FittedView, job: Job): Asked {
    const owner = job.views.find(({ id }) => id === view.shares) ?? view;
    return askedOf({
      of: question,
      there: (signal) => this.judge.view({ view, sheet, owner }, signal),
      here: () => toldOf(fitOf(view, sheet, owner)),
      keep: (told, answer) => ({ ...told, questions: new Map([...told.questions, [question, answer]]) }),
    });
  }

  private ofScene(scene: Scene): Asked {
    return askedOf({
      of: scene,
      there: (signal) => this.judge.together(scene, signal),
      here: () => toldOfScene(scene),
      keep: (told, answer) => ({ ...told, scenes: new Map([...told.scenes, [scene, answer]]) }),
    });
  }

  private async hear({ of, hear }: Asked): Promise<void> {
    const stop = new AbortController();
    this.asked = { of, stop };
    const tell = await hear(stop.signal);
    if (stop.signal.aborted) return;
    this.told = tell(this.told);
    this.asked = undefined;
    this.onTold();
  }
}

const keptOf = <K extends object, V>(known: ReadonlyMap<K, V>, asked: ReadonlySet<object>): ReadonlyMap<K, V> =>
  new Map([...known].filter(([of]) => asked.has(of)));
