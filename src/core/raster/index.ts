export { brightnessAt, grayFrom, type GrayPicture } from './gray-picture';
export { findSaddle } from './saddle';
