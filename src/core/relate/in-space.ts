import type { Vec } from '../geometry';
import {
  dot3,
  holdsDirection,
  sharedDirections,
  subtract3,
  toSpace,
  vectorAlong,
  type Pose,
  type Vec3,
} from '../space';
import type { ElementAt } from './element';
import { EQUATIONS, type SpatialKind } from './equations';
import type { StandingIn } from './plane';
import { directionOfOne, type RelationKind } from './relation';

/** What can be said as in one plane of things on planes that show the same two directions, as a front and a back do: what asks for no axes. */
const AS_IN_ONE_PLANE: readonly RelationKind[] = [
  'parallel',
  'square',
  'collinear',
  'tangent',
  'concentric',
  'coincident',
  'on',
  'middle',
  'equal-spacing',
  'symmetric',
  'distance',
];

/** What needs no place in common: lengths are lengths on whichever planes. */
const ANYWHERE: readonly RelationKind[] = ['equal-length', 'equal-radius'];

type PlanarKind = Exclude<RelationKind, SpatialKind>;

/** As equations on one plane, of things on planes that stand so, one for each. */
export type SpaceEquations = (on: readonly ElementAt[], value: number, poses: readonly Pose[]) => readonly number[];

/** Equations of a relation between planes; straight ones have one slope by each coordinate of its places, wherever these lie, as long as the planes stand still. */
interface Between {
  readonly equations: SpaceEquations;
  readonly isStraight: boolean;
}
const bent = (equations: SpaceEquations): Between => ({ equations, isStraight: false });
const straight = (equations: SpaceEquations): Between => ({ equations, isStraight: true });

/**
 * What a relation between planes misses by, one number an equation: mm, by what all of the planes show of its things. Undefined where it cannot be said of them: they do not stand, or show
 * nothing in common. Along a direction that a plane does not show, its things lie nowhere.
 */
export function findSpaceEquations(
  kind: RelationKind,
  standing: readonly (StandingIn | undefined)[],
): Between | undefined {
  if (ANYWHERE.includes(kind)) return bent(EQUATIONS[kind as PlanarKind]);
  const planes = standing.filter((each) => each !== undefined);
  if (planes.length < standing.length) return undefined;
  const direction = directionOfOne(kind);
  if (direction) {
    const along = vectorAlong(direction);
    return planes.every(({ shows }) => holdsDirection(shows, along)) ? straight(equallyFar([along])) : undefined;
  }
  const shared = sharedDirections(planes.map(({ shows }) => shows));
  if (shared.length === 2 && AS_IN_ONE_PLANE.includes(kind))
    return bent((on, value, poses) =>
      EQUATIONS[kind as PlanarKind](
        on.map((thing, i) => inFrame(thing, poses[i]!, shared)),
        value,
      ),
    );
  if (shared.length === 0) return undefined;
  if (kind === 'coincident') return straight(equallyFar(shared));
  return kind === 'symmetric' && shared.length === 1 ? straight(mirrored(shared[0]!)) : undefined;
}

/** Where the places of a thing lie in the object frame: a point, both ends of a line, a centre. */
function placesOf(thing: ElementAt, pose: Pose): readonly Vec3[] {
  const places = thing.kind === 'line' ? [thing.a, thing.b] : [thing.kind === 'point' ? thing.at : thing.centre];
  return places.map((place) => toSpace(pose, place));
}

/** All places of all things lie equally far along some directions. */
const equallyFar =
  (directions: readonly Vec3[]): SpaceEquations =>
  (on, _, poses) => {
    const [first, ...others] = on.flatMap((thing, i) => placesOf(thing, poses[i]!)) as [Vec3, ...Vec3[]];
    return others.flatMap((place) => directions.map((direction) => dot3(direction, subtract3(place, first))));
  };

/** Two places lie equally far along a direction from a line on either side, which runs square to it: a plane seen edge-on. */
const mirrored =
  (direction: Vec3): SpaceEquations =>
  (on, _, poses) => {
    const [[p], [q], [a, b]] = on.map((thing, i) =>
      placesOf(thing, poses[i]!).map((place) => dot3(direction, place)),
    ) as [[number], [number], [number, number]];
    return [(p + q - a - b) / 2, b - a];
  };

/** A thing in the axes of a plane that all of them show. */
function inFrame(thing: ElementAt, pose: Pose, axes: readonly Vec3[]): ElementAt {
  const at = (place: Vec): Vec => axes.map((axis) => dot3(axis, toSpace(pose, place))) as unknown as Vec;
  switch (thing.kind) {
    case 'point':
      return { kind: 'point', at: at(thing.at) };
    case 'line':
      return { kind: 'line', a: at(thing.a), b: at(thing.b) };
    case 'round':
      return { ...thing, centre: at(thing.centre), ends: thing.ends.map(at) };
  }
}
