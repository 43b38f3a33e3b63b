import { shapeOf, type Outline, type Shape } from '../outline';
import type { Job } from '../job';
import { fitOf, type FittedView } from './fits';

/** Everything that is computed from a job: a fit for every view and a shape for every outline. */
export interface Derived {
  readonly views: ReadonlyMap<string, FittedView>;
  readonly shapes: ReadonlyMap<string, Shape>;
}

/**
 * A deriver remembers by identity: a view whose document did not change keeps its fit, an outline its shape. The memory is
 * the caller's to keep or to throw away.
 */
export function createDeriver(): (job: Job) => Derived {
  let fits = new WeakMap<object, WeakMap<object, FittedView>>();
  let shapes = new WeakMap<Outline, { readonly fitted: FittedView; readonly shape: Shape }>();
  let last: { job: Job; derived: Derived } | undefined;

  function fitted(job: Job): Map<string, FittedView> {
    const views = new Map<string, FittedView>();
    for (const view of job.views) {
      const sheet = job.sheets.find((other) => other.id === view.sheet);
      if (!sheet) continue;
      const known = fits.get(view)?.get(sheet) ?? fitOf(view, sheet);
      fits.set(view, (fits.get(view) ?? new WeakMap()).set(sheet, known));
      views.set(view.id, known);
    }
    return views;
  }

  return (job) => {
    if (last?.job === job) return last.derived;
    const views = fitted(job);
    const found = new Map<string, Shape>();
    for (const outline of job.outlines) {
      const view = views.get(outline.view);
      if (!view) continue;
      const known = shapes.get(outline);
      const shape = known?.fitted === view ? known.shape : shapeOf(outline, view.placing);
      shapes.set(outline, { fitted: view, shape });
      found.set(outline.id, shape);
    }
    last = { job, derived: { views, shapes: found } };
    return last.derived;
  };
}
