import type { Element } from './element';
import { directionOfOne, type Relation, type RelationKind } from './relation';

type Part = 'point' | 'line' | 'round' | 'place';

/** What each relation is said of: `place` is a point or a centre, `round` an arc or a circle. */
const WANTED: Readonly<Record<RelationKind, readonly (readonly Part[])[]>> = {
  level: [['line']],
  upright: [['line']],
  parallel: [['line', 'line']],
  square: [['line', 'line']],
  collinear: [['line', 'line']],
  tangent: [
    ['line', 'round'],
    ['round', 'line'],
    ['round', 'round'],
    ['line', 'round', 'point'],
  ],
  concentric: [['round', 'round']],
  coincident: [['point', 'point']],
  on: [
    ['point', 'line'],
    ['point', 'round'],
  ],
  middle: [['point', 'line']],
  'equal-length': [['line', 'line']],
  'equal-radius': [['round', 'round']],
  'equal-spacing': [],
  symmetric: [['place', 'place', 'line']],
  'one-across': [],
  'one-deep': [],
  'one-up': [],
  length: [['line']],
  radius: [['round']],
  angle: [['line', 'line']],
  direction: [['line']],
  distance: [
    ['line', 'line'],
    ['point', 'place'],
    ['place', 'point'],
    ['line', 'place'],
    ['round', 'place'],
  ],
  across: [['place']],
  up: [['place']],
};

const SIZES: readonly RelationKind[] = ['length', 'radius', 'distance', 'across', 'up'];
const HAS_VALUE: readonly RelationKind[] = [...SIZES, 'angle', 'direction'];

/** Whether some of the relations say a size: they tell something of the scale. */
export const hasSize = (relations: readonly Relation[]): boolean => relations.some(({ kind }) => SIZES.includes(kind));

export const hasValue = (kind: RelationKind): boolean => HAS_VALUE.includes(kind);

function isPart(part: Part, { kind }: Element): boolean {
  if (part === 'place') return kind !== 'line';
  return part === 'round'
    ? kind === 'arc' || kind === 'circle'
    : part === kind || (part === 'point' && kind === 'circle');
}

/** Whether a relation can be said of these elements, in this order, as far as their kinds go. */
export function canRelate(kind: RelationKind, on: readonly Element[]): boolean {
  if (directionOfOne(kind)) return on.length >= 2;
  if (kind === 'equal-spacing') return on.length >= 3 && on.every((element) => isPart('place', element));
  return WANTED[kind].some((parts) => parts.length === on.length && parts.every((part, i) => isPart(part, on[i]!)));
}
