export { checkLength, evidenceLength, fitSigma, measuredLength, measureFrom, positionSigma, type CheckOutcome } from './accuracy';
export type { LengthEvidence, SheetPoint } from './evidence';
export { fitView, unscaledFit, type Fit, type FitInput } from './fit';
export { applyHomography, compose, IDENTITY, inverse, type Homography } from './homography';
export { ASSUMED_LIFT, ASSUMED_TILT, focalInPixels, modelFor, type Datum, type Lift, type PictureGeometry, type PictureKind } from './map-model';
