export { allowanceOf, spend, type Allowance } from './stories';
export type { Judgement } from './verdict';
export {
  checkEvidence,
  errorEllipse,
  fitSigma,
  measuredLength,
  measuredPlace,
  measureFrom,
  pointingCovariance,
  positionSigma,
  readEvidence,
  type CheckOutcome,
  type ErrorEllipse,
  type MeasuredPoint,
  type ReadFigure,
} from './accuracy';
export { listAdvice, type Advice, type AdviceWish } from './advice';
export {
  circleThrough,
  listFigures,
  findFault,
  heightOf,
  inOrder,
  LIFT_BLOCK,
  onPlane,
  pointBlock,
  pointFrame,
  pointsOf,
  type EvidenceContext,
  type Observation,
  type EvidenceFigure,
  type ObservationKind,
  type ObservationOf,
  type LineEnds,
  type Points,
  type SheetPoint,
} from './evidence';
export { PART_ORDER } from './adjust-view';
export { CRITICAL } from './stories';
export { problemOf, type Besides, type Pointed } from './view-problem';
export { listDoubts, type Doubt } from './doubts';
export { listMapDoubts, listReaches, movedFit } from './freedoms';
export { influenceOf } from './influence';
export {
  adjustEvidence,
  baselineOf,
  centreOf,
  inSheetFrame,
  listWarnings,
  unscaledAdjustment,
  type Adjustment,
  type Known,
} from './adjustment';
export { fromOtherSide } from './other-side';
export { fitView, seenIn, unscaledFit, type Fit, type FitInput } from './fit';
export type { Axes, Sight } from './sight';
export { applyHomography, compose, IDENTITY, inverse, type Homography } from './homography';
export { bowed, isMonotone, NO_LENS, straightened, type Lens } from './lens';
export {
  ASSUMED,
  assumptionOf,
  lensSigma,
  chooseModel,
  firstNumberOf,
  type LensName,
  type LensWish,
  type MapModel,
  type MapPart,
  type ModelName,
  type ModelWish,
} from './models';
export { listFoundParts, type FoundPart } from './parts';
export { focalOf, type Datum, type Lift, type PictureGeometry, type PictureKind } from './picture';
export { canSquareUp, scaleInMiddle, squaredFrame, type SquaredFrame } from './squared';
export { type Measured } from '../adjust';
export { averagedPoint, steadinessOf, type Pointing, type Steadiness } from './repeated';
export { atHeight, OWN_PLANE } from './projection';
export { misfitOfRectangle } from './slants';
export { ratiosIn } from './start';
export { sigmaOfReading } from './readings';
export { createSheetMap, isInFront, toPlane, toSheet, type SheetMap } from './sheet-map';
export { EDGE_SIGMA, sigmaOfPointing, type Hand, type Pointer } from './pointing';
export { chooseCandidate, isUnsure } from './unsure-reading';
