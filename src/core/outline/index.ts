export { checkShapes, type CheckLimits, type Finding } from './check';
export { finishCorners, type Corner, type CornerFault } from './corner';
export { CENTRE, findThing, type OutlineEnd, type Thing } from './end';
export { findGuideLine, type Guide } from './guide';
export {
  endsOfSegment,
  openingsOf,
  isMovable,
  mapPlaces,
  placesOf,
  type Chain,
  type CircleBy,
  type CircleOutline,
  type DrawnOutline,
  type EllipseOutline,
  type MadeOutline,
  type Node,
  type Outline,
  type Segment,
  type SegmentKind,
} from './outline';
export {
  FITTING_SETS,
  type Fill,
  type FittingSet,
  type Hanging,
  type Justified,
  type Opening,
  type Recipe,
  type RecipeKind,
} from './recipe';
export { clearWidth, fittingsOf } from './fitting';
export { countedFromOther, endsAcross, isInOpening, middleOf, segmentOf, type OpeningSpan } from './opening';
export { reflection } from './mirror';
export { listOpeningSpans, findTimes, makeShape, type Copies, type Making } from './making';
export { asPointed, bySteadyHand, type Knowing } from './contact';
export {
  findPosition,
  listPointed,
  mapPointed,
  movedByHand,
  type PictureEdge,
  type Place,
  type Placing,
  type PointedPlace,
} from './place';
export { HOLD_KINDS, measureHold, type Hold, type HoldKind } from './hold';
export { inOwn, mapOfPut, type Put } from './put';
export { siteBy, type Sited, type Siting } from './siting';
export { turnedGuide, turnedOutline, turnedSiting, angleOfTurn, type Turn } from './turn';
export { isSign, placingOf, shapeOf, type Shape, type ShapeFault } from './shape';
export { createSnapSearch, type SnapSearch } from './snap-index';
export { listSnaps, SNAP_KINDS, type Snap, type SnapKind, type SnapTarget } from './snap';
export {
  copiedOutline,
  draggedOutline,
  findClosed,
  findWithoutNode,
  joinedChains,
  reversedChain,
  shiftedOutline,
  withHandle,
  withNodePlace,
  withSmooth,
} from './edit';
export { type Editing } from './segment';
export { cutAway, listCutsOn, loosened, splitAt, withNodeOn, type Along } from './cut';
export { asCircle, carriedOn } from './carry';
export { mapOf, movedOutline, type Moving } from './move';
export { standingAlone } from './stand';
export { stretchedOutline } from './stretch';
export { ALIGNMENTS, listAlignment, listSpacing, type Alignment } from './align';
