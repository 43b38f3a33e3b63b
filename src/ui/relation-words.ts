import type { Relation, RelationKind } from '@/core/relate';
import { formatAngle, formatLength, type Units } from '@/core/units';

/** What is said to be true, as a sentence about several things, and as the mark beside one of them. */
const WORDS: Readonly<Record<RelationKind, { readonly says: string; readonly mark: string }>> = {
  level: { says: 'level', mark: 'level' },
  upright: { says: 'upright', mark: 'upright' },
  parallel: { says: 'parallel', mark: 'parallel' },
  square: { says: 'square', mark: 'square' },
  collinear: { says: 'in one line', mark: 'in line' },
  tangent: { says: 'tangent', mark: 'tangent' },
  concentric: { says: 'about one centre', mark: 'one centre' },
  coincident: { says: 'in one place', mark: 'one place' },
  on: { says: 'on it', mark: 'on it' },
  middle: { says: 'in its middle', mark: 'middle' },
  'equal-length': { says: 'equally long', mark: 'as long' },
  'equal-radius': { says: 'equally large', mark: 'as large' },
  'equal-spacing': { says: 'evenly spaced', mark: 'even' },
  symmetric: { says: 'mirrored', mark: 'mirrored' },
  'one-across': { says: 'equally far across', mark: 'as far across' },
  'one-deep': { says: 'equally deep', mark: 'as deep' },
  'one-up': { says: 'at one height', mark: 'one height' },
  length: { says: 'as long as typed', mark: '' },
  radius: { says: 'as large as typed', mark: '' },
  angle: { says: 'at a typed angle', mark: '' },
  direction: { says: 'in a typed direction', mark: '' },
  distance: { says: 'at a typed distance', mark: '' },
  across: { says: 'so far across from zero', mark: '' },
  up: { says: 'so far up from zero', mark: '' },
};

export const wordsForKind = (kind: RelationKind): string => WORDS[kind].says;

/** The value of a relation as people read it: circles by their diameter. */
export function valueInWords({ kind, value = 0 }: Pick<Relation, 'kind' | 'value'>, units: Units): string {
  if (kind === 'angle' || kind === 'direction') return formatAngle(value);
  return kind === 'radius' ? `⌀ ${formatLength(2 * value, units)}` : formatLength(value, units);
}

export function markForRelation(relation: Relation, units: Units): string {
  const { mark } = WORDS[relation.kind];
  if (mark) return mark;
  const where = relation.kind === 'across' ? 'across ' : relation.kind === 'up' ? 'up ' : '';
  return `${where}${valueInWords(relation, units)}`;
}
