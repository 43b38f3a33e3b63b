export { splitCubic, toCubics } from './cubic';
export { findEllipse, onEllipse, outsideEllipse, type Ellipse } from './ellipse';
export { findLineCrossing, listCrossings, type Crossing } from './intersect';
export { enclosedArea, findTurn, findUnion, isOverlapping, nearestOn, pieceBounds, pieceLength, type Bounds, type Nearest } from './measure';
export {
  circle, endOf, findArcParameter, findArcThrough, findCircumcentre, findTangentArc, isFullCircle, pointAt, reversed, startOf,
  tangentAt, velocityAt, type Arc, type Cubic, type Line, type Piece,
} from './piece';
export {
  add, angleOf, cross, distance, dot, findDirection, lineAngle, mix, norm, perpendicular, polar, positiveAngle, scale, signedAngle, subtract,
  type Vec,
} from './vec';
export { awayFrom, crossingOfLines, lineThrough, type FittedLine } from './fitted-line';
export { boxAround, levelled, type Box, type Level } from './level';
export { applied, composed, moved, placed, UNMOVED, type Affine } from './affine';
export { findPiecesOfSpline, findPiecesOfWeighted, quadratic, type Spline } from './spline';
