import type { Vec } from '../geometry';
import { findEdgeAcross, type FoundEdge } from './edge';
import { colourAt, type ColourPicture } from './colour-picture';

/** Gradients this alike in direction are one edge: the smaller eigenvalue of their tensor over the larger. */
const ONE_EDGE = 0.35;
const BESIDE = 2;
const ON_LINE = 6;

/**
 * The picture's edge that passes a place within `reach` px (`hand`: one sigma of the hand that pointed there, px): where it is, squarely across from the place. Undefined where nothing
 * stands out, or where edges cross (a corner is no edge).
 */
export function findEdgeNear(picture: ColourPicture, near: Vec, reach: number, hand?: number): FoundEdge | undefined {
  // On a line, its flanks have to be seen to know which way it runs.
  const seen = Math.max(reach, ON_LINE);
  const first = directionNear(picture, near, seen, seen);
  if (first === undefined) return undefined;
  const rough = findEdgeAcross(picture, near, first, { reach, beside: BESIDE, lines: true, hand });
  if (!rough) return undefined;
  const direction = directionNear(picture, rough.at, Math.max(4, reach / 2), 3);
  if (direction === undefined) return undefined;
  const edge = findEdgeAcross(picture, near, direction, { reach: reach + 1, beside: BESIDE, lines: true, hand });
  return edge && Math.hypot(edge.at[0] - rough.at[0], edge.at[1] - rough.at[1]) < Math.max(2, reach / 2)
    ? edge
    : undefined;
}

/**
 * Direction across what is seen around a place: the main axis of the tensor of colour gradients, near ones
 * counting more (Di Zenzo, A note on the gradient of a multi-image, 1986).
 */
function directionNear(picture: ColourPicture, [x, y]: Vec, radius: number, weighted: number): number | undefined {
  let [xx, xy, yy] = [0, 0, 0];
  const reach = Math.ceil(radius);
  for (let dy = -reach; dy <= reach; dy++) {
    for (let dx = -reach; dx <= reach; dx++) {
      const at = (u: number, v: number) => colourAt(picture, [x + dx + u, y + dy + v]);
      const [right, left, below, above] = [at(1, 0), at(-1, 0), at(0, 1), at(0, -1)];
      const weight = Math.exp(-(dx * dx + dy * dy) / (weighted * weighted));
      for (let c = 0; c < 3; c++) {
        const [gx, gy] = [right[c]! - left[c]!, below[c]! - above[c]!];
        xx += weight * gx * gx;
        xy += weight * gx * gy;
        yy += weight * gy * gy;
      }
    }
  }
  const spread = Math.hypot((xx - yy) / 2, xy);
  const mean = (xx + yy) / 2;
  if (mean === 0 || mean - spread > ONE_EDGE * (mean + spread)) return undefined;
  return Math.atan2(2 * xy, xx - yy) / 2;
}
