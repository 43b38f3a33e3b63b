import { angleOf, moved, norm, pieceBounds, placed, type Vec } from '../geometry';
import { poseFacing, type Pose, type SpacePiece, type Vec3 } from '../space';
import type { Drawing, DrawnPath } from './drawing';

/** What a drawing takes up in space along each axis: its least coordinates, and how far it reaches from there. mm. What stands nowhere lies flat. */
export function spaceBoundsOf({ layers }: Drawing): { readonly corner: Vec3; readonly size: Vec3 } | undefined {
  const paths = layers.flatMap((layer) => layer.paths).filter(({ pieces }) => pieces.length > 0);
  const curves = layers.flatMap(({ inSpace = [] }) => inSpace.flatMap(({ pieces }) => pieces));
  if (paths.length + curves.length === 0) return undefined;
  const along = ([0, 1, 2] as const).map((axis) => {
    const reach = [...paths.map((path) => reachAlong(path, axis)), ...curves.map((piece) => spaceReach(piece, axis))];
    return [Math.min(...reach.map(([least]) => least)), Math.max(...reach.map(([, most]) => most))] as const;
  });
  return {
    corner: along.map(([least]) => least) as unknown as Vec3,
    size: along.map(([least, most]) => most - least) as unknown as Vec3,
  };
}

const FLAT: Pose = poseFacing('top');

function spaceReach(piece: SpacePiece, axis: 0 | 1 | 2): readonly [number, number] {
  const on = (place: Vec3): Vec => [place[axis], 0];
  const { a, b } = piece;
  const { min, max } = pieceBounds(
    piece.kind === 'line'
      ? { kind: 'line', a: on(a), b: on(b) }
      : { kind: 'cubic', a: on(a), b: on(b), c: on(piece.c), d: on(piece.d) },
  );
  return [min[0], max[0]];
}

/** On the plane an axis of space is a direction of its own: turned onto x, bounds are read off there. */
function reachAlong({ pieces, stands = FLAT }: DrawnPath, axis: 0 | 1 | 2): readonly [number, number] {
  const slope: Vec = [stands.x[axis], stands.y[axis]];
  const level = placed([0, 0], -angleOf(slope));
  const bounds = pieces.map((piece) => pieceBounds(moved(piece, level)));
  const [least, most] = [Math.min(...bounds.map(({ min }) => min[0])), Math.max(...bounds.map(({ max }) => max[0]))];
  const from = stands.origin[axis];
  return [from + norm(slope) * least, from + norm(slope) * most];
}
