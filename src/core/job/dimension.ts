/** What a dimension says: between two things in a straight line, across or up, along a line, an arc or a curve, across a circle, the turn between two lines, or of one against level; the gap between two whole outlines. */
export const DIMENSION_KINDS = [
  'distance',
  'across',
  'up',
  'length',
  'diameter',
  'radius',
  'angle',
  'slope',
  'gap',
] as const;

export type DimensionKind = (typeof DIMENSION_KINDS)[number];
