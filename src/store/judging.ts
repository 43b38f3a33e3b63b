import { fitOf, toldOf, type Derived, type Question, type Told, type ToldOfQuestions } from '@/core/derive';
import type { Job } from '@/core/job';
import type { ToJudge } from '@/workers';

/** Judges a view's evidence to the end, somewhere else; undefined where nobody there can. */
export type Judge = (asked: ToJudge, signal: AbortSignal) => Promise<Told | undefined>;

/** So many pieces are adjusted to judge a view's evidence before it is left to somebody else: a tenth of a second. */
export const MOST_AT_ONCE = 120;

/** Has what pending views ask judged, one question after the other; views that share evidence ask one. Where the evidence is changed meanwhile that is another question, and the one before is given up. */
export class PendingViews {
  /** What is known of the views of a job. */
  told: ToldOfQuestions = new Map();
  private asked: { readonly question: Question; readonly stop: AbortController } | undefined;

  constructor(
    private readonly judge: Judge,
    private readonly onTold: () => void,
  ) {}

  /** Asks the next question that is pending, and forgets what nobody asks any more. */
  ask(job: Job, derived: Derived): void {
    const views = [...derived.alone.values()];
    this.keep(new Set(views.map(({ question }) => question)));
    const pending = views.filter(({ isPending }) => isPending);
    if (pending.some(({ question }) => question === this.asked?.question)) return;
    this.asked?.stop.abort();
    this.asked = undefined;
    const [next] = pending;
    if (!next) return;
    const { source: view, sheet, question } = next;
    const owner = job.views.find(({ id }) => id === view.shares) ?? view;
    void this.hear(question, { view, sheet, owner });
  }

  private keep(asked: ReadonlySet<Question>): void {
    if ([...this.told.keys()].every((question) => asked.has(question))) return;
    this.told = new Map([...this.told].filter(([question]) => asked.has(question)));
  }

  private async hear(question: Question, asked: ToJudge): Promise<void> {
    const stop = new AbortController();
    this.asked = { question, stop };
    const answer = await this.judge(asked, stop.signal).catch(() => undefined);
    if (stop.signal.aborted) return;
    // Where there is nobody to ask it is done here, late but right.
    const told = answer ?? toldOf(fitOf(asked.view, asked.sheet, asked.owner));
    this.told = new Map([...this.told, [question, told]]);
    this.asked = undefined;
    this.onTold();
  }
}
