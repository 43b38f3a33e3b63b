import type { Vec } from '../geometry';
import type { Knowing, Placing, PointedPlace } from '../outline';
import { add3, normalOf, cross3, scale3, type Pose, type Vec3 } from '../space';

/** Where a plane stands in the object frame, and along which directions it is known where on it something lies: those that it shows, or all three where what is drawn lies on it. */
export interface StandingIn {
  readonly pose: Pose;
  /** Square to each other, of length one. */
  readonly shows: readonly Vec3[];
  /** How the pose moves when one of the plane's freedoms goes by one sigma, in their order; of what is missing it does not. */
  readonly moves: readonly PoseMove[];
}

/** A shift, mm, and a turn about the plane's normal, radians. */
export interface PoseMove {
  readonly shift: Vec3;
  readonly turn: number;
}

/** Where a plane stands after its freedoms went by so many sigmas. */
export function movedPose({ pose, moves }: StandingIn, doubts: readonly number[]): Pose {
  if (moves.length === 0) return pose;
  const turn = moves.reduce((sum, move, i) => sum + move.turn * (doubts[i] ?? 0), 0);
  const normal = normalOf(pose);
  const turned = (axis: Vec3) => add3(scale3(axis, Math.cos(turn)), scale3(cross3(normal, axis), Math.sin(turn)));
  return {
    origin: moves.reduce((at, { shift }, i) => add3(at, scale3(shift, doubts[i] ?? 0)), pose.origin),
    x: turned(pose.x),
    y: turned(pose.y),
  };
}

/** What relations need to know of a plane: where the sheets of its views lie, and how well that is known. As in `Placing`, a place names its view where there are several. */
export interface RelatingPlane {
  readonly scaled: boolean;
  toPlane(sheet: Vec, view?: string): Vec;
  isBlind?: Placing['isBlind'];
  /** How a place of a sheet moves on the plane when one of the fits' own doubts goes by one sigma; together they are the covariance of the maps. */
  readonly freedoms: readonly ((sheet: Vec, view?: string) => Vec)[];
  readonly knowing: Knowing;
  /** Undefined of a plane of which nothing says how it stands: then nothing ties it to others but lengths. */
  readonly standing?: StandingIn | undefined;
  /** Covariance of a place on its sheet, pointed by a hand as steady as assumed: xx, xy, yy. px² */
  covarianceOf(place: PointedPlace): readonly [number, number, number];
}

/** Planes of which something is said together, by their ids. Their freedoms are of one list: as many on each, in one order, and what is pointed on another plane moves by none of them that is not its own as well. */
export type RelatingPlanes = (id: string) => RelatingPlane;

/** The planes with fits that nothing moves. */
export const heldStill =
  (planes: RelatingPlanes): RelatingPlanes =>
  (id) => {
    const plane = planes(id);
    return { ...plane, freedoms: [], standing: plane.standing && { ...plane.standing, moves: [] } };
  };

/** Places that were read off the sheet when something was typed, and stand in for it while there is no scale. px, one sigma. */
export const SEEN_SIGMA = 1;

/**
 * A pointed place on the plane: where it is, how it is known (the lower triangle K of the Cholesky factor of its covariance, so that
 * K⁻¹ of a miss has a sigma of one), and how it moves with the fit.
 */
export interface PlacedObservation {
  readonly at: Vec;
  readonly factor: readonly [number, number, number];
  readonly moves: readonly Vec[];
}

/** Step for slopes of the map, px: far above rounding, far below where maps bend. */
const STEP = 0.5;

export function observationOf(plane: RelatingPlane, place: PointedPlace): PlacedObservation {
  const {
    at: [x, y],
    view,
  } = place;
  const [right, left, below, above] = [
    plane.toPlane([x + STEP, y], view),
    plane.toPlane([x - STEP, y], view),
    plane.toPlane([x, y + STEP], view),
    plane.toPlane([x, y - STEP], view),
  ];
  const [a, b, c, d] = [right[0] - left[0], below[0] - above[0], right[1] - left[1], below[1] - above[1]].map(
    (slope) => slope / (2 * STEP),
  ) as [number, number, number, number];
  const [xx, xy, yy] = plane.covarianceOf(place);
  const own = {
    xx: a * a * xx + 2 * a * b * xy + b * b * yy,
    xy: a * c * xx + (a * d + b * c) * xy + b * d * yy,
    yy: c * c * xx + 2 * c * d * xy + d * d * yy,
  };
  const first = Math.sqrt(own.xx);
  const second = own.xy / first;
  return {
    at: plane.toPlane(place.at, view),
    factor: [first, second, Math.sqrt(Math.max(own.yy - second * second, 1e-12 * own.yy))],
    moves: plane.freedoms.map((move) => move(place.at, view)),
  };
}

/** A miss in units of its sigma. */
export function whitened([first, second, third]: PlacedObservation['factor'], [x, y]: Vec): Vec {
  const u = x / first;
  return [u, (y - second * u) / third];
}
