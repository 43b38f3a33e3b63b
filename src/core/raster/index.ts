export { colourPictureFrom, type ColourPicture } from './colour-picture';
export { findContour, type Contour } from './contour';
export { findEdgeAcross, type Edge, type ScanOptions } from './edge';
export { findEdgeNear } from './edge-near';
export { brightnessAt, grayFrom, type GrayPicture } from './gray-picture';
export { averageAt, createPyramid, type Pyramid } from './pyramid';
export { findRim, type Rim } from './rim';
export { findSaddle } from './saddle';
export { findSides, type Sides } from './sides';
