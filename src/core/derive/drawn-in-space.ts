import { lookAtPlane } from '../arrange';
import type { Affine } from '../geometry';
import type { Job } from '../job';
import type { Shape } from '../outline';
import type { Derived } from './derived';
import type { FittedView } from './fits';
import type { Folding } from './folded';
import { endsOfRise, levelOf, poseOnLayer } from './levels';
import { isDrawnTwice, listStanding } from './on-sites';

interface DrawnIn {
  readonly job: Pick<Job, 'layers' | 'outlines' | 'views' | 'sitings'>;
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
  readonly layer: string;
  /** From the view's plane to what is looked at: mm, x right, y up. */
  readonly look: Affine;
  readonly shapes: readonly Shape[];
}

/** What is drawn of which it is said where it lies, by its view or by its layer, or in views that stand on edges: there it stands inside the folded sheet, as in the file. */
export function drawnLookedAt(drawn: DrawnIn, { turn, tip }: Folding): readonly DrawnLookedAt[] {
  const { job, derived } = drawn;
  const standing = listStanding(job, derived);
  const planes = new Set(standing.flatMap(({ view }) => derived.views.get(view)?.view.plane ?? []));
  const isTwice = isDrawnTwice(job, planes);
  const outlines = job.outlines.filter((outline) => !isTwice(outline));
  return standing.flatMap((placed) => {
    const fitted = derived.views.get(placed.view);
    if (!fitted || fitted.source.hidden) return [];
    const isSaid = !placed.side || !derived.arranged.stands.has(placed.view) || fitted.source.liesAt !== undefined;
    return job.layers
      .filter((layer) => isSaid || levelOf(layer, placed.side, derived.arranged))
      .flatMap((layer) => endsOfRise(layer, placed.side, derived.arranged))
      .map((layer) => ({
        view: fitted.source.name,
        layer: layer.name,
        look: lookAtPlane(poseOnLayer(placed, layer, derived.arranged), turn, tip).look,
        shapes: shapesDrawnIn(fitted, { job: { ...job, outlines, layers: [layer] }, derived }),
      }))
      .filter(({ shapes }) => shapes.length > 0);
  });
}
