import { angleOf, moved, norm, pieceBounds, placed, type Vec } from '../geometry';
import { poseFacing, type Pose, type Vec3 } from '../space';
import type { Drawing, DrawnPath } from './drawing';

/** What a drawing takes up in space along each axis: its least coordinates, and how far it reaches from there. mm. What stands nowhere lies flat. */
export function spaceBoundsOf({ layers }: Drawing): { readonly corner: Vec3; readonly size: Vec3 } | undefined {
  const paths = layers.flatMap((layer) => layer.paths).filter(({ pieces }) => pieces.length > 0);
  if (paths.length === 0) return undefined;
  const along = ([0, 1, 2] as const).map((axis) => {
    const reach = paths.map((path) => reachAlong(path, axis));
    return [Math.min(...reach.map(([least]) => least)), Math.max(...reach.map(([, most]) => most))] as const;
  });
  return {
    corner: along.map(([least]) => least) as unknown as Vec3,
    size: along.map(([least, most]) => most - least) as unknown as Vec3,
  };
}

const FLAT: Pose = poseFacing('top');

/** On the plane an axis of space is a direction of its own: turned onto x, bounds are read off there. */
function reachAlong({ pieces, stands = FLAT }: DrawnPath, axis: 0 | 1 | 2): readonly [number, number] {
  const slope: Vec = [stands.x[axis], stands.y[axis]];
  const level = placed([0, 0], -angleOf(slope));
  const bounds = pieces.map((piece) => pieceBounds(moved(piece, level)));
  const [least, most] = [Math.min(...bounds.map(({ min }) => min[0])), Math.max(...bounds.map(({ max }) => max[0]))];
  const from = stands.origin[axis];
  return [from + norm(slope) * least, from + norm(slope) * most];
}
