/** Points, directions and poses in the object frame. mm. */
export { fromSpace, normalOf, poseFacing, raised, toSpace, type Pose } from './pose';
export { fittedCubics, type SmoothCurve } from './fitted-cubics';
export { holdsDirection, sharedDirections } from './shared-directions';
export { endInSpace, pointInSpace, velocityInSpace, type SpaceCubic, type SpacePiece } from './piece';
export {
  axesSeenFrom,
  directionUnseen,
  DIRECTIONS,
  oppositeOf,
  showsAlong,
  vectorAlong,
  vectorOf,
  SIDES,
  type Direction,
  type SeenAxis,
  type Side,
} from './side';
export { add3, cross3, distance3, dot3, scale3, subtract3, type Vec3 } from './vec3';
