export { begunOnOtherSide, hasTwoSizes, inOrder } from './around';
export { conditionsOf } from './conditions';
export { LIFT_BLOCK, onPlane, pointBlock, type Conditions, type EvidenceContext, type Points } from './context';
export { pointFrame, type PointFrame } from './point-frame';
export {
  heightOf,
  pointsOf,
  type Observation,
  type ObservationKind,
  type ObservationOf,
  type LineEnds,
  type SheetPoint,
} from './evidence';
export { findFault } from './faults';
export { listFigures, type EvidenceFigure } from './figures';
export { circleThrough, cornersOfSides, directionOf, sizeOfCorners, wrapped } from './plane-figures';
