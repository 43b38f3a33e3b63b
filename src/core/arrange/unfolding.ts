import type { Affine, Vec } from '../geometry';
import {
  add3,
  dot3,
  normalOf,
  poseFacing,
  scale3,
  subtract3,
  toSpace,
  type Direction,
  type Pose,
  type Side,
  type Vec3,
} from '../space';
import type { ProjectionMethod } from './projection';

/** What all views together take up of the object frame along each direction, mm. */
export type Extents = Readonly<Record<Direction, readonly [least: number, most: number]>>;

const ACROSS: Vec3 = [1, 0, 0];
const DEEP: Vec3 = [0, 1, 0];
const UP: Vec3 = [0, 0, 1];

/** On which edge of the front a side hangs, in third angle: the lesser or the greater along a direction. */
const EDGES: Readonly<Partial<Record<Side, readonly [along: 'across' | 'up', end: 0 | 1]>>> = {
  left: ['across', 0],
  right: ['across', 1],
  bottom: ['up', 0],
  top: ['up', 1],
};

/**
 * Where the picture of each side stands while a sheet of views is folded up around the thing. At 0 all lie in the plane of the front, in projection with each other, as a draughtsman lays them out; at 1 they stand around the thing as walls of a box, each in the plane
 * that it shows; between, they turn about the edges that they share. In third angle the walls stand before the thing, in first beyond it (ISO 128-3, ISO 5456-2; from memory of the standards). A pose in the object frame: a place of it has the coordinates that its side
 * shows.
 */
export function standingFolded(side: Side, extents: Extents, projection: ProjectionMethod, fold: number): Pose {
  const { wall, sense, towards } = frontOf(extents, projection);
  const edge = EDGES[side];
  if (!edge) return side === 'front' ? poseFacing('front', [0, wall, 0]) : backOf(extents, projection, fold);
  const [along, third] = edge;
  const end = projection === 'third' ? third : ((1 - third) as 0 | 1);
  const out = scale3(along === 'across' ? ACROSS : UP, end === 1 ? 1 : -1);
  const runs = towards(out, fold);
  const hinge = add3(scale3(along === 'across' ? ACROSS : UP, extents[along][end]), [0, wall, 0]);
  // Deep runs away from the hinge, or towards it; in views from the left and from below it runs backwards besides.
  const deep = scale3(runs, sense * (side === 'left' || side === 'bottom' ? -1 : 1));
  const origin = add3(hinge, scale3(runs, -sense * wall));
  return along === 'across' ? { origin, x: deep, y: UP } : { origin, x: ACROSS, y: deep };
}

/** The plane of the front, which way what hangs on it folds (1: behind it, −1: before it), and how what runs out of its edge runs then. */
function frontOf({ deep }: Extents, projection: ProjectionMethod) {
  const sense = projection === 'third' ? 1 : -1;
  return {
    wall: deep[projection === 'third' ? 0 : 1],
    sense,
    towards(out: Vec3, fold: number): Vec3 {
      const angle = (fold * Math.PI) / 2;
      return add3(scale3(out, Math.cos(angle)), scale3(DEEP, sense * Math.sin(angle)));
    },
  };
}

/** The back hangs on the far edge of the wall that stands right of the front. */
function backOf(extents: Extents, projection: ProjectionMethod, fold: number): Pose {
  const { wall, towards } = frontOf(extents, projection);
  const { across, deep } = extents;
  const hinge: Vec3 = add3([across[1], wall, 0], scale3(towards(ACROSS, fold), deep[1] - deep[0]));
  const runs = towards(ACROSS, 2 * fold);
  return { origin: add3(hinge, scale3(runs, across[1])), x: runs, y: UP };
}

/**
 * Where the picture of a wall stands that belongs upright on an edge of the plan, at `wall`. It hangs on the sheet of the plan, over its edge: laid out it lies outside of that with its top to it in third angle, beyond the whole plan with its foot to it in first; folded up it stands on its edge, in first angle
 * beyond the thing.
 */
export function uprightFolded(wall: Pose, extents: Extents, projection: ProjectionMethod, fold: number): Pose {
  const plan = standingFolded('top', extents, projection, fold);
  const [out, isThird] = [normalOf(wall), projection === 'third'];
  const inward = scale3(add3(scale3(plan.x, out[0]), scale3(plan.y, out[1])), -1);
  const angle = (fold * Math.PI) / 2;
  const upwards = add3(scale3(normalOf(plan), Math.sin(angle)), scale3(inward, Math.cos(angle)));
  const hinge = extents.up[isThird ? 1 : 0];
  const shift = isThird
    ? 0
    : Math.max(...cornersOf(extents).map((corner) => -dot3(subtract3(corner, wall.origin), out)));
  const carried = (vector: Vec3): Vec3 =>
    add3(add3(scale3(plan.x, vector[0]), scale3(plan.y, vector[1])), scale3(upwards, vector[2]));
  const [x, y, z] = wall.origin;
  const origin = add3(add3(plan.origin, carried([x, y, z - hinge])), scale3(inward, shift));
  return { origin, x: carried(wall.x), y: carried(wall.y) };
}

const cornersOf = ({ across, deep }: Extents): readonly Vec3[] =>
  across.flatMap((x) => deep.map((y): Vec3 => [x, y, 0]));

/** A place in space as one looks at it from afar, mm: to the right, upwards, and how near it is. `turn` goes round the thing, anticlockwise seen from above; `tip` looks down on it. Radians; from the front at 0. */
export function lookedAt([x, y, z]: Vec3, turn: number, tip: number): Vec3 {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [right, away] = [c * x + s * y, -s * x + c * y];
  const [ct, st] = [Math.cos(tip), Math.sin(tip)];
  return [right, ct * z + st * away, st * z - ct * away];
}

/** A plane that stands in space as one looks at it from afar: from the plane to what is looked at, mm, and how near a place of it is. */
export function lookAtPlane(
  pose: Pose,
  turn: number,
  tip: number,
): { readonly look: Affine; depth(place: Vec): number } {
  const [o, x, y] = [pose.origin, toSpace(pose, [1, 0]), toSpace(pose, [0, 1])].map((at) =>
    lookedAt(at, turn, tip),
  ) as [Vec3, Vec3, Vec3];
  return {
    look: [x[0] - o[0], x[1] - o[1], y[0] - o[0], y[1] - o[1], o[0], o[1]],
    depth: ([u, v]) => o[2] + u * (x[2] - o[2]) + v * (y[2] - o[2]),
  };
}
