import { lookAtPlane } from '../arrange';
import type { Affine } from '../geometry';
import type { Job } from '../job';
import type { Shape } from '../outline';
import type { Derived } from './derive';
import type { FittedView } from './fits';
import type { Folding } from './folded';
import { listOnEdges } from './on-edges';

interface DrawnIn {
  readonly job: Pick<Job, 'layers' | 'outlines' | 'views'>;
  readonly derived: Pick<Derived, 'shapes' | 'views' | 'arranged'>;
}

/** What is drawn on the plane of a view: shown layers, and no aids. */
export function shapesDrawnIn({ view: { plane: shown } }: FittedView, { job, derived }: DrawnIn): readonly Shape[] {
  const layers = new Set(job.layers.filter(({ show }) => show).map(({ id }) => id));
  return job.outlines
    .filter(({ plane, layer, aid }) => plane === shown && layers.has(layer) && !aid)
    .flatMap(({ id }) => derived.shapes.get(id) ?? []);
}

/** What is drawn in a view, where it stands among all, as one looks at it. */
export interface DrawnLookedAt {
  readonly view: string;
  /** From the view's plane to what is looked at: mm, x right, y up. */
  readonly look: Affine;
  readonly shapes: readonly Shape[];
}

/** What is drawn in the views of which it is said where that lies, and in those that stand on edges: there it stands inside the folded sheet, as in the file. */
export function drawnLookedAt(drawn: DrawnIn, { turn, tip }: Folding): readonly DrawnLookedAt[] {
  const placed = [...drawn.derived.arranged.stands.values()].filter(
    ({ view }) => drawn.derived.views.get(view)?.source.liesAt !== undefined,
  );
  return [...placed, ...listOnEdges(drawn.job, drawn.derived)].flatMap(({ view, pose }) => {
    const fitted = drawn.derived.views.get(view);
    if (!fitted) return [];
    const shapes = shapesDrawnIn(fitted, drawn);
    return shapes.length > 0 ? [{ view: fitted.source.name, look: lookAtPlane(pose, turn, tip).look, shapes }] : [];
  });
}
