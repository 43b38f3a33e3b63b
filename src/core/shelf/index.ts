export { limitsOfSigma, sigmaOfTolerance, type ShelfEntry, type ShelfFamily, type ShelfShape } from './entry';
export { readOwnThing, type OwnThing } from './own';
export { findOnShelf, SHELF } from './shelf';
