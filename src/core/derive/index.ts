export { type Apart, type Arranged, type Grown, type SpanRead, type StandsApart } from './arranged';
export { canShow, directionOfSpan, facingOf, isSide } from './scene';
export { toldOfScene, type ToldScene } from './fitted-together';
export { deriveAsTold, tellJob, type ToldJob } from './told-job';
export { judgeSaid, planesOfEnds, proposeOn, takeTogether, type Proposed } from './saying';
export { coordinateOfLine, hasOthers, sentGuide, sentNode, type Sent } from './sent';
export { endsOfEdge } from './edge-ends';
export { listProposedLines, type End, type ProposedLine } from './proposed-lines';
export { foldedViews, type FoldedView, type Folding } from './folded';
export { sharedIn, type SharedMark } from './shared-lines';
export type { SeenLeft, Standing } from './standing';
export { drawnLookedAt, shapesDrawnIn, type DrawnLookedAt } from './drawn-in-space';
export { listStanding } from './on-sites';
export { lengthOfEdge, listOnEdges, onEdge, type OffEdge, type OnEdge, type Placed } from './on-edges';
export { curvesLookedAt, curvesSeenIn, type CurveSeen } from './curves-seen';
export { curveSideOf, type StandingCurve } from './space-curves';
export { riseOf } from './levels';
export { sizeInSpace } from './size-in-space';
export { doubtOfCurve, type CurveDoubt } from './space-curve-doubt';
export { pointsOfView, sigmaOfSaid, toPiece } from './evidence';
export { createDeriver, NOTHING_TOLD, toldIn, type ToldOfJob } from './derive';
export type { Derived, RelatedPlanes, SeenPlane } from './derived';
export { countMeantEnds, drawingInSpace, drawingOf, outlinesLeaving, type DrawingChoice } from './drawing';
export { datumTurned, findAskew, measureExtent, type Extent } from './extent';
export {
  figuresOf,
  measureOutline,
  measureShapes,
  sharesOf,
  type Figured,
  type OutlineFigures,
  type Shares,
} from './figures';
export { fitOf, toldOf, type FittedView, type Question, type Told } from './fits';
export { clearanceOf, edgeKept, innerSideOf, outlinesSited, type Clearance } from './clearances';
export { isSitedBy, outlinesToSite, sitedIn, sitedOutlines } from './sited';
export { guideReach } from './made';
export {
  findNameOf,
  findRegionAt,
  measureRegion,
  listRims,
  namesIn,
  SAME_PLACE,
  shapesCutIn,
  shapesShownIn,
  withOutlines,
  type ViewRegion,
} from './regions';
export {
  compare,
  findSpan,
  kindsFor,
  listRow,
  measureDimension,
  wholeEnds,
  type Compared,
  type DimensionSpan,
} from './dimensions';
export { measureSaid } from './said';
export { listByEye, type SeenByEye } from './by-eye';
export {
  compareVariants,
  listVariants,
  ontoVariant,
  type VariantsCompared,
  type VariantSize,
  type VariantsOfSide,
} from './variants';
export { planeAsView } from './ground';
export { sayingOn, type Saying } from './tied';
export { placedView, type MapPlace } from './placed-sheet';
export {
  handOf,
  kindOfOpening,
  lineOfOpening,
  listOpenings,
  spansIn,
  type OpeningKind,
  type OpeningRow,
} from './openings';
export { countPart, lineOfPart, listParts, type Count, type PartRow } from './parts';
export { commandForMove, editingIn, placingFor, type Editor } from './editing';
export { duplicate, findClosing, findNodeDeleted, nodeAdded, smoothSet } from './edits';
export { asRead, offFromRead, readOpening, sizesRead, type OpeningRead } from './read-opening';
export { drawnAtOf, ratioFor, type DrawnAt } from './drawn-at';
export { findMending, mendAll, type Check, type Mender } from './mending';
