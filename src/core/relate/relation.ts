/** What a relation is about: a whole circle, a node of a chain, the centre of a circle (`node: 'centre'`), or the segment that begins at a node. */
export interface RelationEnd {
  readonly outline: string;
  readonly node?: string | undefined;
  readonly segment?: string | undefined;
}

/** What can be said to be true. Where a value belongs to it: mm, or radians. */
export const RELATION_KINDS = [
  'level',
  'upright',
  'parallel',
  'square',
  'collinear',
  'tangent',
  'concentric',
  'coincident',
  'on',
  'middle',
  'equal-length',
  'equal-radius',
  'equal-spacing',
  'symmetric',
  'length',
  'radius',
  'angle',
  'direction',
  'distance',
  'across',
  'up',
] as const;

export type RelationKind = (typeof RELATION_KINDS)[number];

/** Something that holds exactly between outlines of one view, wherever they were pointed. */
export interface Relation {
  readonly id: string;
  readonly plane: string;
  readonly kind: RelationKind;
  readonly on: readonly RelationEnd[];
  readonly value?: number | undefined;
}

export const CENTRE = 'centre';
