import { isSameList } from '../basics';
import { shapeOf, type DrawnOutline, type Outline, type Shape } from '../outline';
import { groundOf, type Job, type Sheet, type View } from '../job';
import { allowanceOf, type Adjustment, type Fit } from '../calibrate';
import { createArranging, type Arranged } from './arranged';
import type { ToldOfScenes } from './fitted-together';
import {
  judgeView,
  questionOf,
  seeView,
  toldOf,
  type FittedView,
  type JudgedView,
  type Question,
  type Told,
} from './fits';
import { createMaking } from './made';
import type { Derived, RelatedPlanes, SeenPlane } from './derived';
import { listPlanes } from './planes';
import { createRelating } from './related';
import { standingIn } from './known-standing';
import { listTied } from './tied';
import { createSpaceCurves } from './space-curves';

/**
 * A deriver remembers by identity: a view whose evidence did not change, its own or that which it shares, keeps its fit, an outline its shape. The memory is
 * the caller's to keep or to throw away. `most`: so many pieces may be adjusted to judge a view's evidence, and so many, with what ties them, to fit views together; where that is not enough a fit is pending, until what it came
 * to elsewhere is told.
 */
export function createDeriver({ most = Infinity, mostTogether = Infinity } = {}): (
  job: Job,
  told?: ToldOfJob,
) => Derived {
  const [fit, relate, draw, make] = [createFitting(most), createRelating(), createDrawing(), createMaking()];
  const [arrange, see, curve] = [createArranging(mostTogether), createSeeing(), createSpaceCurves()];
  let last: { job: Job; told: ToldOfJob; derived: Derived } | undefined;
  return (job, told = NOTHING_TOLD) => {
    if (last?.job === job && last.told === told) return last.derived;
    const alone = fit(job, told.questions);
    const { arranged: found, views: standing } = arrange(job, alone, told.scenes, (fitted, adjustment) =>
      see(fitted.source, fitted.sheet, fitted.view, judgedAmong(adjustment), fitted.ground),
    );
    const views = new Map(standing);
    const stands = new Map(found.stands);
    const arranged: Arranged = { ...found, stands };
    const planes = listPlanes(views.values());
    const related = new Map<string, RelatedPlanes>();
    // Each by itself, when it is asked for: what is drawn on other planes may not be known yet.
    const drawn = {
      get: (id: string) =>
        draw({ outlines: job.outlines.filter((outline) => outline.id === id) }, planes, related).get(id),
    };
    for (const tied of listTied(planes, job.outlines, job.relations)) {
      const made = relate(tied, (plane) => standingIn(plane, { job, derived: { views, arranged, shapes: drawn } }));
      for (const { id } of tied.planes) related.set(id, made);
      // Sizes that were typed move the fit within its doubt, and all that is traced in the view with it.
      for (const plane of made.moved) {
        planes.set(plane.id, plane);
        for (const fitted of plane.views) views.set(fitted.view.id, fitted);
      }
      for (const [view, pose] of made.poses) stands.set(view, { ...stands.get(view)!, pose });
    }
    const shapes = make(job, planes, draw(job, planes, related));
    const spaceCurve = curve(job, { views, shapes, arranged });
    last = { job, told, derived: { views, alone, arranged, planes, shapes, spaceCurve, related } };
    return last.derived;
  };
}

/** What the evidence of views came to where it was judged to the end. */
export type ToldOfQuestions = ReadonlyMap<Question, Told>;

/** What a job came to where it was judged to the end. */
export interface ToldOfJob {
  readonly questions: ToldOfQuestions;
  readonly scenes: ToldOfScenes;
}

export const NOTHING_TOLD: ToldOfJob = { questions: new Map(), scenes: new Map() };

/** What a job that was derived has come to: another job whose views ask the same need not judge them again. */
export function toldIn({ alone, arranged }: Pick<Derived, 'alone' | 'arranged'>): ToldOfJob {
  return {
    questions: new Map(
      [...alone.values()].flatMap((fitted) => (fitted.isPending ? [] : [[fitted.question, toldOf(fitted)] as const])),
    ),
    scenes: arranged.told(),
  };
}

interface Judged {
  readonly told: Told | undefined;
  readonly judged: JudgedView;
}

interface Seen {
  readonly judged: JudgedView;
  readonly fitted: FittedView;
}

/** A view that only looks otherwise, or has another name, keeps its fit. */
function createSeeing() {
  const seen = new Map<string, Seen>();
  return (view: View, sheet: Sheet, owner: View, judged: JudgedView, ground: string): FittedView => {
    const before = seen.get(view.id);
    const fitted = seeView(view, sheet, owner, judged, {
      ground,
      before: before?.judged === judged ? before.fitted : undefined,
    });
    seen.set(view.id, { judged, fitted });
    return fitted;
  };
}

const judgedBefore = new WeakMap<Adjustment, JudgedView>();

/** What views came to together, for one of them. */
function judgedAmong(adjustment: Adjustment): JudgedView {
  const known = judgedBefore.get(adjustment);
  const judged = known ?? { adjustment, refusal: undefined, without: [], isPending: false };
  judgedBefore.set(adjustment, judged);
  return judged;
}

/** Views whose evidence asks the same are judged once; a view that only looks otherwise, or has another name, keeps its fit. */
function createFitting(most: number) {
  const answers = new WeakMap<Question, Judged>();
  const see = createSeeing();
  const judge = (view: View, sheet: Sheet, owner: View, question: Question, told: Told | undefined): JudgedView => {
    const known = answers.get(question);
    if (known && known.told === told) return known.judged;
    const judged = judgeView(view, sheet, owner, told ? { told } : { allowance: allowanceOf(most) });
    answers.set(question, { told, judged });
    return judged;
  };
  return (job: Pick<Job, 'views' | 'sheets' | 'planes'>, told: ToldOfQuestions): Map<string, FittedView> =>
    new Map(
      job.views.flatMap((view) => {
        const sheet = job.sheets.find(({ id }) => id === view.sheet);
        if (!sheet) return [];
        const owner = job.views.find(({ id }) => id === view.shares) ?? view;
        const question = questionOf(view, sheet, owner);
        const judged = judge(view, sheet, owner, question, told.get(question));
        return [[view.id, see(view, sheet, owner, judged, groundOf(job, view.plane))] as const];
      }),
    );
}

/** Where every outline is that stands on places of its own: as it was drawn, or where relations put it. */
function createDrawing(): (
  job: Pick<Job, 'outlines'>,
  planes: ReadonlyMap<string, SeenPlane>,
  related: ReadonlyMap<string, RelatedPlanes>,
) => ReadonlyMap<string, Shape> {
  const shapes = new WeakMap<Outline, { readonly of: readonly Fit[]; readonly shape: Shape }>();
  const drawn = (outline: DrawnOutline, { fits, placing }: SeenPlane): Shape => {
    const known = shapes.get(outline);
    if (known && isSameList(known.of, fits)) return known.shape;
    const shape = shapeOf(outline, placing);
    shapes.set(outline, { of: fits, shape });
    return shape;
  };
  return ({ outlines }, planes, related) =>
    new Map(
      outlines.flatMap((outline) => {
        const plane = planes.get(outline.plane);
        if (!plane || outline.shape === 'made') return [];
        return [[outline.id, related.get(outline.plane)?.shapes.get(outline.id) ?? drawn(outline, plane)] as const];
      }),
    );
}
