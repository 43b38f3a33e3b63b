export { splitCubic, toCubics } from './cubic';
export { findCentroid } from './centroid';
export { parameterAt, partOf } from './part';
export { findEnds, movedPath, reversedPath, type Path } from './path';
export { windingNumber } from './winding';
export { findEllipse, onEllipse, outsideEllipse, type Ellipse } from './ellipse';
export { findLineCrossing, listCrossings, type Crossing } from './intersect';
export {
  enclosedArea,
  findFoot,
  findTurn,
  findUnion,
  isOverlapping,
  mostLengthOf,
  nearestOn,
  outermostOf,
  pieceBounds,
  pieceLength,
  turningsAlong,
  type Bounds,
  type Nearest,
} from './measure';
export {
  accelerationAt,
  axesOf,
  circle,
  curvatureAt,
  endOf,
  findArcParameter,
  findArcThrough,
  findCircumcentre,
  findTangentArc,
  isFullCircle,
  isRound,
  pointAt,
  reversed,
  startOf,
  tangentAt,
  velocityAt,
  withoutFalseBow,
  type Arc,
  type Cubic,
  type EllipticArc,
  type Line,
  type Piece,
} from './piece';
export {
  add,
  angleOf,
  cross,
  distance,
  dot,
  findDirection,
  lineAngle,
  mix,
  norm,
  perpendicular,
  polar,
  positiveAngle,
  scale,
  signedAngle,
  subtract,
  type Vec,
} from './vec';
export { awayFrom, crossingOfLines, lineThrough, type FittedLine } from './fitted-line';
export { boxAround, levelled, type Box, type Level } from './level';
export { applied, composed, ellipseFrom, moved, placed, UNMOVED, type Affine } from './affine';
export { findClearance } from './clearance';
export { findGap, findNearest, type Gap } from './gap';
export { durationOf, evenHandles, type CurveEnds } from './even-curve';
export { findPiecesOfSpline, findPiecesOfWeighted, quadratic, type Spline } from './spline';
