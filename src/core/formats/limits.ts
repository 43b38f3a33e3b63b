/** Lines, arcs and curves of reference geometry at the most: about 70 MB of numbers. */
export const MAX_PIECES = 1_000_000;
/** The largest file of reference geometry that is read, bytes. */
export const MAX_REFERENCE_BYTES = 200_000_000;
