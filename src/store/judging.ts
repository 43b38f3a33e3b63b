import { fitOf, toldOf, type Derived, type Told, type ToldOfViews } from '@/core/derive';
import type { Job, View } from '@/core/job';
import type { ToJudge } from '@/workers';

/** Judges a view's evidence to the end, somewhere else; undefined where nobody there can. */
export type Judge = (asked: ToJudge, signal: AbortSignal) => Promise<Told | undefined>;

/** So many pieces are adjusted to judge a view's evidence before it is left to somebody else: a tenth of a second. */
export const MOST_AT_ONCE = 120;

/** Has pending views judged, one after the other. A view that was changed meanwhile is another one: what was asked about it before is given up. */
export class Judging {
  private told: ToldOfViews = new Map();
  private asked: { readonly view: View; readonly stop: AbortController } | undefined;

  constructor(
    private readonly judge: Judge,
    private readonly onTold: () => void,
  ) {}

  /** What is known of the views of a job. */
  toldOf({ views }: Job): ToldOfViews {
    const gone = [...this.told.keys()].some((view) => !views.includes(view));
    if (gone) this.told = new Map([...this.told].filter(([view]) => views.includes(view)));
    return this.told;
  }

  /** Asks about the next view that is pending. */
  ask(job: Job, derived: Derived): void {
    const pending = [...derived.views.values()].filter(({ isPending }) => isPending);
    if (pending.some(({ view }) => sourceOf(job, view.id) === this.asked?.view)) return;
    this.asked?.stop.abort();
    this.asked = undefined;
    const [next] = pending;
    const view = next && sourceOf(job, next.view.id);
    if (!view) return;
    const owner = job.views.find(({ id }) => id === view.shares) ?? view;
    void this.hear({ view, sheet: next.sheet, owner });
  }

  private async hear(asked: ToJudge): Promise<void> {
    const stop = new AbortController();
    this.asked = { view: asked.view, stop };
    const answer = await this.judge(asked, stop.signal).catch(() => undefined);
    if (stop.signal.aborted) return;
    // Where there is nobody to ask it is done here, late but right.
    const told = answer ?? toldOf(fitOf(asked.view, asked.sheet, asked.owner));
    this.told = new Map([...this.told, [asked.view, told]]);
    this.asked = undefined;
    this.onTold();
  }
}

/** The view as it stands in the job: a fitted one that shares another's evidence shows that as its own. */
const sourceOf = ({ views }: Job, id: string): View | undefined => views.find((view) => view.id === id);
