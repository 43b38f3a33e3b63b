import { shapeOf, type Outline, type Shape } from '../outline';
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
  let fits = new WeakMap<View, { readonly sheet: Sheet; readonly owner: View; readonly fitted: FittedView }>();
  let shapes = new WeakMap<Outline, { readonly fitted: FittedView; readonly shape: Shape }>();
  const relate = createRelating();
  const make = createMaking();
  let last: { job: Job; derived: Derived } | undefined;

  function fitted(job: Job): Map<string, FittedView> {
    const views = new Map<string, FittedView>();
    for (const view of job.views) {
      const sheet = job.sheets.find((other) => other.id === view.sheet);
      if (!sheet) continue;
      const owner = job.views.find(({ id }) => id === view.shares) ?? view;
      const known = fits.get(view);
      const fitted = known?.sheet === sheet && known.owner === owner ? known.fitted : fitOf(view, sheet, owner);
      fits.set(view, { sheet, owner, fitted });
      views.set(view.id, fitted);
    }
    return views;
  }

  /** Where every outline is that stands on places of its own. */
  function drawn(job: Job, views: ReadonlyMap<string, FittedView>, related: ReadonlyMap<string, RelatedView>): ReadonlyMap<string, Shape> {
    const found = new Map<string, Shape>();
    for (const outline of job.outlines) {
      const view = views.get(outline.view);
      if (!view || outline.shape === 'made') continue;
      const known = shapes.get(outline);
      const shape = known?.fitted === view ? known.shape : shapeOf(outline, view.placing);
      shapes.set(outline, { fitted: view, shape });
      found.set(outline.id, related.get(outline.view)?.shapes.get(outline.id) ?? shape);
    }
    return found;
  }

  return (job) => {
    if (last?.job === job) return last.derived;
    const views = fitted(job);
    const related = new Map([...views].flatMap(([id, view]) => {
      const made = relate(view, job.outlines, job.relations);
      return made ? [[id, made] as const] : [];
    }));
    // Sizes that were typed move the fit within its doubt, and all that is traced in the view with it.
    for (const [id, { fitted: moved }] of related) views.set(id, moved);
    last = { job, derived: { views, shapes: make(job, views, drawn(job, views, related)), related } };
    return last.derived;
  };
}
