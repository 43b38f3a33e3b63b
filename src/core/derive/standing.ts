import type { Measured } from '../adjust';
import { isUpright, type Facing, type Upright } from '../arrange';
import { toPlane, type Adjustment, type Fit } from '../calibrate';
import { add, cross, dot, polar, scale, subtract, type Affine, type Vec } from '../geometry';
import type { Feature, View } from '../job';
import {
  axesSeenFrom,
  directionUnseen,
  dot3,
  poseFacing,
  scale3,
  subtract3,
  toSpace,
  vectorAlong,
  type Direction,
  type Pose,
  type Side,
  type Vec3,
} from '../space';
import type { FittedView } from './fits';
import { levelOf, type StandingPlane } from './levels';
import { facingOf } from './scene';

/** How a view from a side stands among the others. */
export interface StandingBySide extends Standing {
  readonly side: Side;
}

export const standsBySide = (standing: Standing | undefined): standing is StandingBySide =>
  standing?.side !== undefined;

/** How a view stands among the others. */
export interface Standing extends StandingPlane {
  readonly view: string;
  /** Undefined for one that stands on an edge. */
  readonly side: Side | undefined;
  /** The frame in which the others have what it shows: its place in the plane that faces its side, or along its edge and up. */
  readonly frame: Pose;
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
  /** Place minus coordinate, mm, along the directions that the view shows, or along its edge. */
  readonly off: readonly { readonly direction: Direction | 'edge'; readonly mm: number }[];
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

/** How a view stands when among the others it came to `among`: as its own fit has it, where that comes closest. Undefined on an edge of which nothing tells where it is. */
export function standingOf(fitted: FittedView, among: Adjustment, how: Among): Standing | undefined {
  const { source, fit } = fitted;
  const facing = facingOf(source, how.features)!;
  const frame = isUpright(facing) ? frameOnEdge(facing, how) : frameFacing(facing, source, how);
  if (!frame) return undefined;
  const map = among.mapAt(among.values);
  const seen = how.features.flatMap((feature) =>
    feature.seen.filter(({ view }) => view === source.id).map((place) => ({ feature, place })),
  );
  const around = seen.flatMap(({ place: { at } }) => [at, add(at, polar(map.unit / 20, source.datum.direction))]);
  const motion = closestMotion(around.map((at) => [fit.toPlane(at), toPlane(map, at)]));
  return {
    view: source.id,
    side: isUpright(facing) ? undefined : facing,
    frame,
    pose: poseAfter(frame, motion),
    joins: how.joins,
    byZero: how.byZero,
    askew: motion.turn,
    isAskew: how.lies.suspect,
    seen: seen.map(({ feature, place }) => ({
      feature: feature.id,
      seen: place.id,
      off: offOf({ facing, frame }, feature, motion.apply(fit.toPlane(place.at)), how),
      ...how.leftOf(feature.id),
    })),
  };
}

/** The plane that faces a side, as far along what that does not show as what is drawn in a view is said to lie. */
function frameFacing(side: Side, view: View, among: Among): Pose {
  const unseen = vectorAlong(directionUnseen(side));
  return poseFacing(side, scale3(unseen, levelOf(view, side, among)?.value ?? 0));
}

/** Upright on an edge, zero where that begins. */
function frameOnEdge({ from, to }: Upright, { coordinate }: Among): Pose | undefined {
  const [x0, y0, x1, y1] = [from, to].flatMap((end) =>
    (['across', 'deep'] as const).map((direction) => coordinate(end, direction)?.value ?? NaN),
  ) as [number, number, number, number];
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (!(length > 0)) return undefined;
  return { origin: [x0, y0, 0], x: [(x1 - x0) / length, (y1 - y0) / length, 0], y: vectorAlong('up') };
}

/** Place minus coordinate, along each direction that both have, or along the edge. */
function offOf(
  { facing, frame }: { readonly facing: Facing; readonly frame: Pose },
  { id, along }: Feature,
  at: Vec,
  { coordinate }: Among,
): SeenLeft['off'] {
  const axes = isUpright(facing) ? ([undefined, { direction: 'up', sign: 1 }] as const) : axesSeenFrom(facing);
  return axes.flatMap((shown, axis): SeenLeft['off'] => {
    if (!shown) return along === undefined ? offAlongEdge(id, frame, at, coordinate) : [];
    const { direction, sign } = shown;
    const known = along === undefined || along === direction ? coordinate(id, direction) : undefined;
    return known ? [{ direction, mm: sign * at[axis]! - known.value }] : [];
  });
}

function offAlongEdge(id: string, { origin, x }: Pose, at: Vec, coordinate: Among['coordinate']): SeenLeft['off'] {
  const [across, deep] = [coordinate(id, 'across'), coordinate(id, 'deep')];
  if (!across || !deep) return [];
  return [{ direction: 'edge', mm: at[0] - dot3(subtract3([across.value, deep.value, 0], origin), x) }];
}

/** From a view's plane to what it shows of the thing, in its frame. */
export function inFrameOf({ frame, pose }: Pick<Standing, 'frame' | 'pose'>): Affine {
  const seen = (vector: Vec3): Vec => [dot3(frame.x, vector), dot3(frame.y, vector)];
  return [...seen(pose.x), ...seen(pose.y), ...seen(subtract3(pose.origin, frame.origin))];
}

/** A turn, and a shift after it. */
interface Motion {
  readonly turn: number;
  apply(place: Vec): Vec;
}

/** Where a plane stands that lies in a frame as a motion carried it there. */
function poseAfter(frame: Pose, { turn, apply }: Motion): Pose {
  const along = (angle: number) => subtract3(toSpace(frame, polar(1, angle)), frame.origin);
  return { origin: toSpace(frame, apply([0, 0])), x: along(turn), y: along(turn + Math.PI / 2) };
}

/** Where the plane of a view that joins the others stands as a fit of it has it, also one that doubts moved: its map says where zero and level lie among all. */
export function poseAmong({ frame }: Pick<Standing, 'frame'>, fit: Fit): Pose {
  const map = fit.mapAt(fit.values);
  const around = [map.middle, add(map.middle, [map.unit, 0])];
  return poseAfter(frame, closestMotion(around.map((at) => [fit.toPlane(at), toPlane(map, at)])));
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
