import type { OutlineEnd } from '../outline';
import { DIRECTIONS, type Direction } from '../space';

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
  'one-across',
  'one-deep',
  'one-up',
  'length',
  'radius',
  'angle',
  'direction',
  'distance',
  'across',
  'up',
] as const;

export type RelationKind = (typeof RELATION_KINDS)[number];

/** Along which direction of the object frame things are said to lie equally far: only where their planes stand in it. */
export const directionOfOne = (kind: RelationKind): Direction | undefined =>
  DIRECTIONS.find((direction) => kind === `one-${direction}`);

/** Something that holds exactly between outlines, on one plane or on several, wherever they were pointed. */
export interface Relation {
  readonly id: string;
  /** The plane in which it was said: one of those on which its outlines lie. */
  readonly plane: string;
  readonly kind: RelationKind;
  readonly on: readonly RelationEnd[];
  readonly value?: number | undefined;
}
