export { drawnByEye, THINGS_BY_EYE, type DrawnByEye, type LookedFrom, type ThingByEye } from './by-eye';
export {
  heightAbovePlane,
  limitsOfSigma,
  sigmaOfTolerance,
  type ShelfEntry,
  type ShelfFamily,
  type ShelfShape,
} from './entry';
export { HOLES, SHEETS, type MadeSize } from './made';
export { readOwnThing, type OwnThing } from './own';
export { againstUsual, listUsual, type Usual } from './usual';
export { findOnShelf, SHELF } from './shelf';
