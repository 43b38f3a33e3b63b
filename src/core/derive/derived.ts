import type { Result } from '../basics';
import type { Fit } from '../calibrate';
import type { Placing, Shape } from '../outline';
import type { Move, Relation, RelatingPlanes, Solved, Spread } from '../relate';
import type { Pose, Vec3 } from '../space';
import type { Arranged } from './arranged';
import type { FittedView } from './fits';
import type { StandingCurve } from './space-curves';

/** How sheet places come to a plane. */
export type PlanePlacing = Omit<Placing, 'nodeAt'>;

/**
 * A plane as the views see it that show it, in the job's order; where some have a scale only those do. A place that names no view was pointed in the first. Its doubts are those of
 * its fits, one fit after the other: views that share a fit share its doubts.
 */
export interface SeenPlane {
  readonly id: string;
  readonly views: readonly FittedView[];
  /** Theirs: where the fits are the same all that is worked out on the plane is. */
  readonly fits: readonly Fit[];
  readonly placing: PlanePlacing;
}

/** Where a plane stands in the object frame, and along which directions it is known where on it something lies. */
export interface KnownStanding {
  readonly pose: Pose;
  readonly shows: readonly Vec3[];
  /** The view that says so, and what another fit of it makes of the pose; none where nothing else moves it. */
  readonly by?: { readonly view: string; readonly fit: Fit; poseBy(fit: Fit): Pose } | undefined;
}

/** What relations make of the outlines of a plane, or of several that they tie. */
export interface RelatedPlanes {
  /** The planes as the evidence alone puts them. */
  readonly planes: readonly SeenPlane[];
  readonly relating: RelatingPlanes;
  /** Outlines that hang together, solved group by group; those about which sizes are typed together, since they share the scale. */
  readonly groups: readonly SolvedGroup[];
  /** Whether all of them hold. */
  readonly holds: boolean;
  /** The planes as typed sizes move the fits of their views within their doubt; as they were where relations are about no size. */
  readonly moved: readonly SeenPlane[];
  /** Where views stand whose planes typed sizes moved, object frame. */
  readonly poses: ReadonlyMap<string, Pose>;
  /** Shapes of the outlines that relations are about. What does not hold together stays where it was drawn. */
  readonly shapes: ReadonlyMap<string, Shape>;
  /** How far what was drawn had to move for the relations. */
  readonly moves: readonly Move[];
}

export interface SolvedGroup {
  readonly solved: Solved;
  readonly relations: readonly Relation[];
  /** Joint covariance of what was solved; worked out when it is first asked for. */
  spread(): Spread | undefined;
}

/** Everything that is computed from a job: a fit for every view, every plane as views see it, and a shape for every outline. */
export interface Derived {
  readonly views: ReadonlyMap<string, FittedView>;
  /** Views by their own evidence alone, also those that join others. */
  readonly alone: ReadonlyMap<string, FittedView>;
  /** How the views of one thing stand to each other. */
  readonly arranged: Arranged;
  readonly planes: ReadonlyMap<string, SeenPlane>;
  /** Where each outline is: as it was drawn, or where relations put it. */
  readonly shapes: ReadonlyMap<string, Shape>;
  /** A curve in space by its id: made when it is asked for, and refused with its reason where its two outlines make none. */
  spaceCurve(id: string): Result<StandingCurve> | undefined;
  /** What relations make of a plane that has any; planes that they tie have the same. */
  readonly related: ReadonlyMap<string, RelatedPlanes>;
}
