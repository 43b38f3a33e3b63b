import { isSameList } from '../basics';
import { shapeOf, type DrawnOutline, type Outline, type Shape } from '../outline';
import { groundOf, type Job, type Sheet, type View } from '../job';
import { allowanceOf } from '../calibrate';
import { fitOf, toldOf, type FittedView, type Told } from './fits';
import { createMaking } from './made';
import { listPlanes, type SeenPlane } from './planes';
import { createRelating, type RelatedPlane } from './related';

/** Everything that is computed from a job: a fit for every view, every plane as views see it, and a shape for every outline. */
export interface Derived {
  readonly views: ReadonlyMap<string, FittedView>;
  readonly planes: ReadonlyMap<string, SeenPlane>;
  /** Where each outline is: as it was drawn, or where relations put it. */
  readonly shapes: ReadonlyMap<string, Shape>;
  /** What relations make of a plane that has any. */
  readonly related: ReadonlyMap<string, RelatedPlane>;
}

/**
 * A deriver remembers by identity: a view whose document did not change, nor that of the view whose fit it shares, keeps its fit, an outline its shape. The memory is
 * the caller's to keep or to throw away. `most`: so many pieces may be adjusted to judge a view's evidence; where that is not enough its fit is pending, until what it came
 * to elsewhere is told.
 */
export function createDeriver({ most = Infinity } = {}): (job: Job, told?: ToldOfViews) => Derived {
  const [fit, relate, draw, make] = [createFitting(most), createRelating(), createDrawing(), createMaking()];
  let last: { job: Job; told: ToldOfViews; derived: Derived } | undefined;
  return (job, told = NOTHING_TOLD) => {
    if (last?.job === job && last.told === told) return last.derived;
    const views = fit(job, told);
    const planes = listPlanes(views.values());
    const related = new Map(
      [...planes].flatMap(([id, seen]) => {
        const made = relate(seen, job.outlines, job.relations);
        return made ? [[id, made] as const] : [];
      }),
    );
    // Sizes that were typed move the fit within its doubt, and all that is traced in the view with it.
    for (const [id, { moved }] of related) {
      planes.set(id, moved);
      for (const fitted of moved.views) views.set(fitted.view.id, fitted);
    }
    last = { job, told, derived: { views, planes, shapes: make(job, planes, draw(job, planes, related)), related } };
    return last.derived;
  };
}

/** What views' evidence came to where it was judged to the end, by the views themselves. */
export type ToldOfViews = ReadonlyMap<View, Told>;
const NOTHING_TOLD: ToldOfViews = new Map();

/** What a job that was derived has come to: another job with the same views need not judge them again. */
export function toldByViews({ views }: Pick<Job, 'views'>, derived: Pick<Derived, 'views'>): ToldOfViews {
  return new Map(
    views.flatMap((view) => {
      const fitted = derived.views.get(view.id);
      return fitted && !fitted.isPending ? [[view, toldOf(fitted)] as const] : [];
    }),
  );
}

interface Remembered {
  readonly sheet: Sheet;
  readonly owner: View;
  readonly told: Told | undefined;
  readonly fitted: FittedView;
}

function createFitting(most: number) {
  const fits = new WeakMap<View, Remembered>();
  const fitted = (view: View, sheet: Sheet, owner: View, told: Told | undefined, ground: string): FittedView => {
    const known = fits.get(view);
    const isKnown = known?.sheet === sheet && known.owner === owner && known.told === told;
    if (isKnown && known.fitted.ground === ground) return known.fitted;
    const found = isKnown
      ? { ...known.fitted, ground }
      : fitOf(view, sheet, owner, { ground, ...(told ? { told } : { allowance: allowanceOf(most) }) });
    fits.set(view, { sheet, owner, told, fitted: found });
    return found;
  };
  return (job: Pick<Job, 'views' | 'sheets' | 'planes'>, told: ToldOfViews): Map<string, FittedView> =>
    new Map(
      job.views.flatMap((view) => {
        const sheet = job.sheets.find(({ id }) => id === view.sheet);
        const owner = job.views.find(({ id }) => id === view.shares) ?? view;
        const ground = groundOf(job, view.plane);
        return sheet ? [[view.id, fitted(view, sheet, owner, told.get(view), ground)] as const] : [];
      }),
    );
}

/** Where every outline is that stands on places of its own: as it was drawn, or where relations put it. */
function createDrawing(): (
  job: Pick<Job, 'outlines'>,
  planes: ReadonlyMap<string, SeenPlane>,
  related: ReadonlyMap<string, RelatedPlane>,
) => ReadonlyMap<string, Shape> {
  const shapes = new WeakMap<Outline, { readonly of: readonly FittedView[]; readonly shape: Shape }>();
  const drawn = (outline: DrawnOutline, { views, laying }: SeenPlane): Shape => {
    const known = shapes.get(outline);
    if (known && isSameList(known.of, views)) return known.shape;
    const shape = shapeOf(outline, laying);
    shapes.set(outline, { of: views, shape });
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
