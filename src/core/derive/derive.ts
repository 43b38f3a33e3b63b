import { shapeOf, type DrawnOutline, type Outline, type Shape } from '../outline';
import type { Job, Sheet, View } from '../job';
import { fitOf, type FittedView } from './fits';
import { createMaking } from './made';
import { createRelating, type RelatedView } from './related';

/** Everything that is computed from a job: a fit for every view and a shape for every outline. */
export interface Derived {
  readonly views: ReadonlyMap<string, FittedView>;
  /** Where each outline is: as it was drawn, or where relations put it. */
  readonly shapes: ReadonlyMap<string, Shape>;
  /** What relations make of a view that has any. */
  readonly related: ReadonlyMap<string, RelatedView>;
}

/**
 * A deriver remembers by identity: a view whose document did not change, nor that of the view whose fit it shares, keeps its fit, an outline its shape. The memory is
 * the caller's to keep or to throw away.
 */
export function createDeriver(): (job: Job) => Derived {
  const [fit, relate, draw, make] = [createFitting(), createRelating(), createDrawing(), createMaking()];
  let last: { job: Job; derived: Derived } | undefined;
  return (job) => {
    if (last?.job === job) return last.derived;
    const views = fit(job);
    const related = new Map(
      [...views].flatMap(([id, view]) => {
        const made = relate(view, job.outlines, job.relations);
        return made ? [[id, made] as const] : [];
      }),
    );
    // Sizes that were typed move the fit within its doubt, and all that is traced in the view with it.
    for (const [id, { fitted }] of related) views.set(id, fitted);
    last = { job, derived: { views, shapes: make(job, views, draw(job, views, related)), related } };
    return last.derived;
  };
}

function createFitting(): (job: Pick<Job, 'views' | 'sheets'>) => Map<string, FittedView> {
  const fits = new WeakMap<View, { readonly sheet: Sheet; readonly owner: View; readonly fitted: FittedView }>();
  const fitted = (view: View, sheet: Sheet, owner: View): FittedView => {
    const known = fits.get(view);
    if (known?.sheet === sheet && known.owner === owner) return known.fitted;
    const found = fitOf(view, sheet, owner);
    fits.set(view, { sheet, owner, fitted: found });
    return found;
  };
  return ({ views, sheets }) =>
    new Map(
      views.flatMap((view) => {
        const sheet = sheets.find(({ id }) => id === view.sheet);
        return sheet
          ? [[view.id, fitted(view, sheet, views.find(({ id }) => id === view.shares) ?? view)] as const]
          : [];
      }),
    );
}

/** Where every outline is that stands on places of its own: as it was drawn, or where relations put it. */
function createDrawing(): (
  job: Pick<Job, 'outlines'>,
  views: ReadonlyMap<string, FittedView>,
  related: ReadonlyMap<string, RelatedView>,
) => ReadonlyMap<string, Shape> {
  const shapes = new WeakMap<Outline, { readonly fitted: FittedView; readonly shape: Shape }>();
  const drawn = (outline: DrawnOutline, fitted: FittedView): Shape => {
    const known = shapes.get(outline);
    if (known?.fitted === fitted) return known.shape;
    const shape = shapeOf(outline, fitted.placing);
    shapes.set(outline, { fitted, shape });
    return shape;
  };
  return ({ outlines }, views, related) =>
    new Map(
      outlines.flatMap((outline) => {
        const view = views.get(outline.view);
        if (!view || outline.shape === 'made') return [];
        return [[outline.id, related.get(outline.view)?.shapes.get(outline.id) ?? drawn(outline, view)] as const];
      }),
    );
}
