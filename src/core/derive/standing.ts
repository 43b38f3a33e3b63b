import type { Measured } from '../adjust';
import { toPlane, type Adjustment, type Fit } from '../calibrate';
import { add, cross, dot, polar, scale, subtract, type Affine, type Vec } from '../geometry';
import type { Feature, View } from '../job';
import {
  add3,
  axesSeenFrom,
  directionUnseen,
  dot3,
  poseFacing,
  scale3,
  subtract3,
  toSpace,
  vectorAlong,
  vectorOf,
  type Direction,
  type Pose,
  type Side,
  type Vec3,
} from '../space';
import type { FittedView } from './fits';
import { levelOf } from './levels';

/** How a view stands among the others. */
export interface Standing {
  readonly view: string;
  readonly side: Side;
  /** Where the plane of its drawing stands in the object frame; along what it does not show, where it is said to lie, else at zero. */
  readonly pose: Pose;
  /** Whether its fit is the one of all. */
  readonly joins: boolean;
  /** Directions along which nothing says where it stands: there its own zero is taken. */
  readonly byZero: readonly Direction[];
  readonly seen: readonly SeenLeft[];
  /** How its datum runs to what is level for all, radians, and whether that is more than laying it level explains. */
  readonly askew: number;
  readonly isAskew: boolean;
}

/** What a place of a view leaves over to what it shows. */
export interface SeenLeft {
  readonly feature: string;
  readonly seen: string;
  /** Place minus coordinate, mm, along the directions that the view shows. */
  readonly off: readonly { readonly direction: Direction; readonly mm: number }[];
  /** In sigmas, all places of the view on that feature together. */
  readonly normalized: number | undefined;
  readonly suspect: boolean;
}

interface Left {
  readonly normalized: number | undefined;
  readonly suspect: boolean;
}

interface Among {
  readonly joins: boolean;
  readonly byZero: readonly Direction[];
  readonly features: readonly Feature[];
  coordinate(feature: string, direction: Direction): Measured | undefined;
  leftOf(feature: string): Left;
  readonly lies: Left;
}

/** How a view stands when among the others it came to `among`: as its own fit has it, where that comes closest. */
export function standingOf(fitted: FittedView, among: Adjustment, how: Among): Standing {
  const { source, fit } = fitted;
  const side = source.side as Side;
  const map = among.mapAt(among.values);
  const seen = how.features.flatMap((feature) =>
    feature.seen.filter(({ view }) => view === source.id).map((place) => ({ feature, place })),
  );
  const around = seen.flatMap(({ place: { at } }) => [at, add(at, polar(map.unit / 20, source.datum.direction))]);
  const motion = closestMotion(around.map((at) => [fit.toPlane(at), toPlane(map, at)]));
  return {
    view: source.id,
    side,
    pose: poseAfter(side, motion, unseenCoordinate(source, how)),
    joins: how.joins,
    byZero: how.byZero,
    askew: motion.turn,
    isAskew: how.lies.suspect,
    seen: seen.map(({ feature, place }) => ({
      feature: feature.id,
      seen: place.id,
      off: offOf(side, feature, motion.apply(fit.toPlane(place.at)), how),
      ...how.leftOf(feature.id),
    })),
  };
}

/** Place minus coordinate, along each direction that both have. */
function offOf(side: Side, { id, along }: Feature, at: Vec, { coordinate }: Among): SeenLeft['off'] {
  return axesSeenFrom(side).flatMap(({ direction, sign }, axis) => {
    const known = along === undefined || along === direction ? coordinate(id, direction) : undefined;
    return known ? [{ direction, mm: sign * at[axis]! - known.value }] : [];
  });
}

/** From a view's plane to the coordinates that its side shows. */
export function inSideOf({ side, pose }: Pick<Standing, 'side' | 'pose'>): Affine {
  const axes = axesSeenFrom(side).map(vectorOf);
  const seen = (vector: Vec3): Vec => [dot3(axes[0]!, vector), dot3(axes[1]!, vector)];
  return [...seen(pose.x), ...seen(pose.y), ...seen(pose.origin)];
}

/** A turn, and a shift after it. */
interface Motion {
  readonly turn: number;
  apply(place: Vec): Vec;
}

/** How far along what its side does not show what is drawn in a view is said to lie. mm */
function unseenCoordinate(view: View, among: Among): Vec3 {
  const side = view.side as Side;
  return scale3(vectorAlong(directionUnseen(side)), levelOf(view, side, among)?.value ?? 0);
}

function poseAfter(side: Side, { turn, apply }: Motion, at: Vec3): Pose {
  const plane = poseFacing(side);
  const along = (angle: number) => subtract3(toSpace(plane, polar(1, angle)), plane.origin);
  return { origin: add3(at, toSpace(plane, apply([0, 0]))), x: along(turn), y: along(turn + Math.PI / 2) };
}

/** Where the plane of a view that joins the others stands as a fit of it has it, also one that doubts moved: its map says where zero and level lie among all. */
export function poseAmong({ side, pose }: Pick<Standing, 'side' | 'pose'>, fit: Fit): Pose {
  const map = fit.mapAt(fit.values);
  const around = [map.middle, add(map.middle, [map.unit, 0])];
  const unseen = vectorAlong(directionUnseen(side));
  return poseAfter(
    side,
    closestMotion(around.map((at) => [fit.toPlane(at), toPlane(map, at)])),
    scale3(unseen, dot3(unseen, pose.origin)),
  );
}

/** The rigid motion that carries places closest to others (least squares: Umeyama, Least-squares estimation of transformation parameters between two point patterns, 1991, without its scale). */
function closestMotion(pairs: readonly (readonly [Vec, Vec])[]): Motion {
  const [from, to] = [0, 1].map((which) =>
    scale(
      pairs.reduce<Vec>((sum, pair) => add(sum, pair[which]!), [0, 0]),
      1 / pairs.length,
    ),
  ) as [Vec, Vec];
  const [along, aside] = pairs.reduce<Vec>(
    ([c, s], [p, q]) => {
      const [a, b] = [subtract(p, from), subtract(q, to)];
      return [c + dot(a, b), s + cross(a, b)];
    },
    [0, 0],
  );
  const turn = Math.atan2(aside, along);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return {
    turn,
    apply(place) {
      const [x, y] = subtract(place, from);
      return add(to, [c * x - s * y, s * x + c * y]);
    },
  };
}
