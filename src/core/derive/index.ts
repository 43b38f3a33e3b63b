export { pointsOfView, sigmaOfSaid, steadinessOfView, toPiece } from './evidence';
export { createDeriver, type Derived } from './derive';
export { drawingOf, LAYER_INK, type DrawingChoice } from './drawing';
export { figuresOf, measureOutline, type OutlineFigures } from './figures';
export { findFittedView, fitOf, pictureOf, type FittedView } from './fits';
export { planeAsView } from './ground';
export { relatingPlane, type RelatedView } from './related';
export { placedView, type MapPlace } from './placed-sheet';
