export { sigmaOfTolerance, type ShelfEntry, type ShelfFamily, type ShelfShape } from './entry';
export { findOnShelf, SHELF } from './shelf';
