import type { Measured } from '../adjust';
import { add3, directionUnseen, dot3, scale3, vectorAlong, type Direction, type Pose, type Side } from '../space';

/** A plane that stands in the object frame; `side`: which it shows, where it shows one. */
export interface StandingPlane {
  readonly pose: Pose;
  readonly side?: Side | undefined;
}

/** What may say at which shared line or place something lies: a layer, or a view. */
export interface LiesAtLevel {
  readonly liesAt?: string | undefined;
}

/** What is drawn on a layer may rise from there to another, as walls do. */
interface Rises extends LiesAtLevel {
  readonly risesTo?: string | undefined;
}

interface Levels {
  coordinate(feature: string, direction: Direction): Measured | undefined;
}

interface Heights {
  between(from: string, to: string, direction: Direction): Measured | undefined;
}

/** Where something is said to lie along what a side does not show, mm; undefined where it says nothing of that direction, or nothing tells it. */
export function levelOf({ liesAt }: LiesAtLevel, side: Side | undefined, { coordinate }: Levels): Measured | undefined {
  return liesAt === undefined || side === undefined ? undefined : coordinate(liesAt, directionUnseen(side));
}

/** Where what is drawn on a layer stands of a view: at the layer's own level, else with the view. Object frame, mm. */
export function poseOnLayer({ pose, side }: StandingPlane, layer: LiesAtLevel, levels: Levels): Pose {
  const level = levelOf(layer, side, levels);
  if (!level || !side) return pose;
  const axis = vectorAlong(directionUnseen(side));
  return { ...pose, origin: add3(pose.origin, scale3(axis, level.value - dot3(axis, pose.origin))) };
}

/**
 * By how much what is drawn on a layer rises where a side is seen, mm: negative where what it should rise to lies below. Undefined where it is flat, or nothing tells it. How well that is known counts what both
 * hang on once.
 */
export const riseOf = (
  { liesAt, risesTo }: Rises,
  side: Side | undefined,
  { between }: Heights,
): Measured | undefined =>
  liesAt === undefined || risesTo === undefined || side === undefined
    ? undefined
    : between(liesAt, risesTo, directionUnseen(side));

/** The layers at whose levels what is drawn on one begins and ends: itself, and where it rises the one up to which. */
export const endsOfRise = <L extends Rises>(layer: L, side: Side | undefined, levels: Heights): readonly L[] =>
  (riseOf(layer, side, levels)?.value ?? 0) > 0 ? [layer, { ...layer, liesAt: layer.risesTo }] : [layer];
