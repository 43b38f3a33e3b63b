import { distance, type Vec } from '../geometry';
import type { Knowing, PointedPlace } from '../outline';
import type { FittedView } from './fits';

/** Edges of things are broken, filed, rolled: by a tenth of a millimetre or so, and the light decides which of the two rims stands out. mm, one sigma about the edge of the drawing. Assumed. */
const BROKEN = 0.04;
/** A broader band shows as one, with two edges of which the hand chooses. Sheet px, one sigma. */
const UNSEEN = 0.7;

/** How well places are known that are pointed in views. */
export function knowingIn(sightIn: (view?: string) => FittedView): Knowing {
  return {
    steadinessIn: (view) => sightIn(view).steadiness.factor,
    edgesKnownTo: (place) => edgeOfThing(place, sightIn(place.view)),
  };
}

/** What a broken edge leaves open of a place on a photograph with a scale; of what is drawn on paper nothing. Sheet px, one sigma. */
function edgeOfThing({ at, edge }: PointedPlace, { sheet, fit }: FittedView): number {
  if (sheet.kind !== 'photo' || !fit.scaled) return 0;
  const across: Vec = edge ? [Math.cos(edge.normal), Math.sin(edge.normal)] : [Math.SQRT1_2, Math.SQRT1_2];
  const mmPerPixel = distance(fit.toPlane(at), fit.toPlane([at[0] + across[0], at[1] + across[1]]));
  return 1 / Math.hypot(mmPerPixel / BROKEN, 1 / UNSEEN);
}
