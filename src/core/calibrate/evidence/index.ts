export { begunOnOtherSide, hasTwoSizes, inOrder } from './around';
export { conditionsOf } from './conditions';
export { LIFT_BLOCK, pointBlock, type Conditions, type EvidenceContext, type Points } from './context';
export { pointFrame, type PointFrame } from './point-frame';
export {
  heightOf,
  pointsOf,
  type Evidence,
  type EvidenceKind,
  type EvidenceOf,
  type LineEnds,
  type SheetPoint,
} from './evidence';
export { findFault } from './faults';
export { figuresOf, type EvidenceFigure } from './figures';
export { circleThrough, cornersOfSides, directionOf, sizeOfCorners, wrapped } from './plane-figures';
