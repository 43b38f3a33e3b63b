export { checkShapes, type CheckLimits, type Finding } from './check';
export { finishCorners, type Corner, type CornerFault } from './corner';
export { findGuideLine, type Guide } from './guide';
export { mapPlaces, placesOf, type Chain, type CircleBy, type CircleOutline, type Node, type Outline, type Segment, type SegmentKind } from './outline';
export { findPosition, listPointed, mapPointed, movedByHand, type PictureEdge, type Place, type Placing, type PointedPlace } from './place';
export { turnedOutline, type Turn } from './turn';
export { placingOf, shapeOf, type Shape, type ShapeFault } from './shape';
export { listSnaps, type Snap, type SnapKind, type SnapTarget } from './snap';
export {
  copiedOutline, draggedOutline, findClosed, findWithoutNode, joinedChains, reversedChain, shiftedOutline, withHandle, withNodeOn,
  withNodePlace, withSmooth, type Editing,
} from './edit';
