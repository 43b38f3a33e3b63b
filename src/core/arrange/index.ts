/** Several views of one thing, fitted together. mm, object frame; one sigma. */
export { LEVEL_BY_DATUM, LEVEL_SIGMA, lyingByDatum, standingByZero, type ByZero } from './by-datum';
export { isUpright, tellsAlong, turnedUpright, type Facing, type Upright } from './facing';
export { fitScene, openParts, refitScene, type SceneFit, type Stand } from './fit-scene';
export { isOpen, type Open } from './measure';
export {
  PROJECTION_METHODS,
  proposeSides,
  type LaidView,
  type ProposedSide,
  type ProjectionMethod,
} from './projection';
export { spaceCurveOf, type SeenCurve, type SpaceCurve } from './space-curve';
export { modelOf, tieOf } from './problem';
export type { SceneVerdict } from './verdict';
export { isDoubted, listTurnedRound, type TurnedRound } from './turned-round';
export { lookAtPlane, lookedAt, standingFolded, uprightFolded, type Extents } from './unfolding';
export {
  directionsBetween,
  directionsOf,
  type Distance,
  type SceneFeature,
  type Scene,
  type SceneEvidence,
  type SceneView,
} from './scene';
