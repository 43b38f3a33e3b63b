import type { OutlineEnd } from '../outline';

/** What a relation is about. */
export type RelationEnd = OutlineEnd;

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
