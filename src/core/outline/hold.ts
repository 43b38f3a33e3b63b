import {
  angleOf,
  applied,
  cross,
  distance,
  dot,
  mix,
  norm,
  scale,
  subtract,
  type Affine,
  type Line,
  type Vec,
} from '../geometry';
import type { OutlineEnd, Thing } from './end';
import { mapOfPut, type Put } from './put';

/** What can be said of how a drawing stands on another plane. */
export const HOLD_KINDS = ['parallel', 'off', 'along', 'apart'] as const;
export type HoldKind = (typeof HOLD_KINDS)[number];

/**
 * Something that is said of how a drawing stands on another plane, between an end of its own and one there. `parallel`: its edge runs turned by `value` from the other (radians);
 * `off`: a place of the one lies so far to the left of the edge of the other (mm; of two edges the middle of the own one counts); `along`: its place lies so far along the other edge,
 * from where that begins, or, `fromEnd`, back from where it ends; `apart`: two places are so far from each other.
 */
export interface Hold {
  readonly id: string;
  readonly kind: HoldKind;
  readonly own: OutlineEnd;
  readonly to: OutlineEnd;
  readonly value: number;
  readonly fromEnd?: boolean | undefined;
  /** Two sigma as typed, in the value's unit; absent: exact. */
  readonly plusMinus?: number | undefined;
}

/** What is said without a plus-minus is as good as this. mm, one sigma. */
const EXACT = 0.01;

/** One thing that is said, and how well. mm */
export interface Said extends Omit<Measure, 'perUnit'> {
  readonly hold: Hold;
  readonly sigma: number;
}

/** A thing that is a place, or the centre of what is round. */
function placeOf(thing: Thing): Vec | undefined {
  if (thing.kind === 'place') return thing.at;
  return thing.piece.kind === 'arc' ? thing.piece.centre : undefined;
}
const lineOf = (thing: Thing): Line | undefined =>
  thing.kind === 'piece' && thing.piece.kind === 'line' ? thing.piece : undefined;

const directionOf = ({ a, b }: Line): Vec => scale(subtract(b, a), 1 / distance(a, b));
const carried = (map: Affine, { a, b }: Line): Line => ({ kind: 'line', a: applied(map, a), b: applied(map, b) });
const leftOf = (line: Line, at: Vec): number => cross(directionOf(line), subtract(at, line.a));

/** What a hold says, as what it leaves over; undefined where its ends are gone, or are not of the kind that it is about. */
export function saidBy(hold: Hold, own: Thing | undefined, to: Thing | undefined): Said | undefined {
  const measure = own && to && measureOf(hold, own, to);
  if (!measure) return undefined;
  const sigma = hold.plusMinus === undefined ? EXACT : Math.max(EXACT, (measure.perUnit * hold.plusMinus) / 2);
  return { ...measure, hold, sigma };
}

interface Measure {
  /** As it stands, minus as it is said. mm */
  left(map: Affine): number;
  /** Across and up, of two places that are said to be one: their distance alone has no slope there. */
  readonly apart?: ((map: Affine) => Vec) | undefined;
  readonly own: readonly Vec[];
  /** mm in a unit of its value. */
  readonly perUnit: number;
}

function measureOf({ kind, value, fromEnd = false }: Hold, own: Thing, to: Thing): Measure | undefined {
  const [edge, place] = [lineOf(own), placeOf(own)];
  const [line, corner] = [lineOf(to), placeOf(to)];
  if (kind === 'parallel') {
    if (!edge || !line) return undefined;
    const perUnit = distance(edge.a, edge.b);
    const turned = (map: Affine) => angleOf(directionOf(carried(map, edge))) - angleOf(directionOf(line)) - value;
    return { own: [edge.a, edge.b], perUnit, left: (map) => perUnit * nearZero(turned(map)) };
  }
  if (kind === 'apart') {
    if (!place || !corner) return undefined;
    const apart = (map: Affine) => subtract(applied(map, place), corner);
    return {
      own: [place],
      perUnit: 1,
      left: (map) => norm(apart(map)) - value,
      ...(value === 0 ? { apart } : {}),
    };
  }
  if (kind === 'off' && line) {
    const at = place ?? (edge && mix(edge.a, edge.b, 0.5));
    return (
      at && { own: edge ? [edge.a, edge.b] : [at], perUnit: 1, left: (map) => leftOf(line, applied(map, at)) - value }
    );
  }
  if (kind === 'off')
    return edge && corner
      ? { own: [edge.a, edge.b], perUnit: 1, left: (map) => leftOf(carried(map, edge), corner) - value }
      : undefined;
  if (!place || !line) return undefined;
  const [from, way] = fromEnd ? [line.b, scale(directionOf(line), -1)] : [line.a, directionOf(line)];
  return { own: [place], perUnit: 1, left: (map) => dot(way, subtract(applied(map, place), from)) - value };
}

/** What a hold would say as a drawing stands now, in its unit; undefined where its ends are not of the kind that it is about. */
export function measureHold(hold: Omit<Hold, 'id' | 'value'>, own: Thing, to: Thing, put: Put): number | undefined {
  const measure = measureOf({ ...hold, id: '', value: 0 }, own, to);
  return measure && measure.left(mapOfPut(put)) / measure.perUnit;
}

/** An angle as the same turn between minus and plus half a turn. */
const nearZero = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
