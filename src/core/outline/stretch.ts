import { add, scale, type Vec } from '../geometry';
import { flattened, shiftedPlace } from './edit';
import type { Outline, Segment } from './outline';
import { mapPlaces, placesOf } from './outline';
import { findPosition, type Place, type Placing } from './place';

/**
 * Moves those places of an outline that lie in a part of the plane by `by` (mm), and lets the others stay: what joins the two is stretched, an arc's middle half as
 * far. Circles and ellipses go as a whole when all of them lies there, else stay. `seen` says where on the sheet a place of the plane is. The outline itself where
 * nothing of it moves; what is made of others follows them and is never stretched by itself.
 */
export function stretchedOutline<O extends Outline>(
  outline: O,
  isIn: (place: Vec) => boolean,
  by: Vec,
  placing: Placing,
  seen: (plane: Vec) => Vec,
): O {
  if (outline.shape === 'made') return outline;
  const moved = (place: Place, share: number): Place => {
    const at = findPosition(place, placing);
    if (!at || share === 0) return place;
    const step = scale(by, share);
    return shiftedPlace(place, step, seen(add(at, step)));
  };
  const isMoving = (place: Place) => {
    const at = findPosition(place, placing);
    return at !== undefined && isIn(at);
  };
  if (outline.shape !== 'chain')
    return placesOf(outline).every(isMoving) ? mapPlaces(outline, (place) => moved(place, 1)) : outline;
  const flat = flattened(outline);
  const shares = flat.nodes.map(({ place }) => (isMoving(place) ? 1 : 0));
  if (shares.every((share) => share === 0)) return outline;
  const half = (i: number) => (shares[i]! + shares[(i + 1) % shares.length]!) / 2;
  const segments = flat.segments.map((segment, i): Segment => {
    if (segment.kind === 'arc') return { ...segment, through: moved(segment.through, half(i)) };
    return segment.kind === 'ellipse' ? { ...segment, apex: moved(segment.apex, half(i)) } : segment;
  });
  return {
    ...outline,
    nodes: flat.nodes.map((node, i) => ({ ...node, place: moved(node.place, shares[i]!) })),
    segments,
  };
}
