import type { Measured } from '../adjust';
import {
  add,
  angleOf,
  distance,
  dot,
  endOf,
  findGap,
  findLineCrossing,
  lineAngle,
  mix,
  norm,
  pieceLength,
  polar,
  scale,
  startOf,
  subtract,
  type Arc,
  type Line,
  type Vec,
} from '../geometry';
import type { Dimension, DimensionKind } from '../job';
import { findThing, type Outline, type Shape, type Thing } from '../outline';
import type { RelationEnd } from '../relate';
import { measureShapes, type Figured } from './figures';

/** What a dimension is read between, and its figure: mm, radians for an angle. */
export interface DimensionSpan {
  readonly from: Vec;
  readonly to: Vec;
  /** The places themselves, where it is read across or up between two that are not level. */
  readonly feet?: readonly [Vec, Vec] | undefined;
  readonly value: number;
}

type Shapes = ReadonlyMap<string, Shape>;

/** Lines that turn less than this against each other are as good as parallel: radians. */
const PARALLEL = 0.02;

const lineOf = (thing: Thing | undefined): Line | undefined =>
  thing?.kind === 'piece' && thing.piece.kind === 'line' ? thing.piece : undefined;
const roundOf = (thing: Thing | undefined): Arc | undefined =>
  thing?.kind === 'piece' && thing.piece.kind === 'arc' ? thing.piece : undefined;
const placeOf = (thing: Thing | undefined): Vec | undefined =>
  thing?.kind === 'place' ? thing.at : roundOf(thing)?.centre;
const slopeOf = ({ a, b }: Line) => angleOf(subtract(b, a));

/** What can be said of one or two things. */
export function kindsFor(
  on: readonly RelationEnd[],
  outlines: readonly Outline[],
  shapes: Shapes,
): readonly DimensionKind[] {
  const things = on.map((end) => findThing(end, outlines, shapes));
  const [first, second] = things;
  if (!first || things.length > 2 || things.includes(undefined)) return [];
  if (
    on.some(({ outline }) =>
      outlines.some(({ id, shape }) => id === outline && (shape === 'made' || shape === 'ellipse')),
    )
  )
    return on.length === 2 && on[0]!.outline !== on[1]!.outline ? ['gap'] : [];
  if (!second) return kindsOfOne(first);
  const gap = on[0]!.outline === on[1]!.outline ? [] : (['gap'] as const);
  const [a, b] = [lineOf(first), lineOf(second)];
  if (a && b) return [Math.abs(lineAngle(slopeOf(a) - slopeOf(b))) < PARALLEL ? 'distance' : 'angle', ...gap];
  const places = [first, second].filter((thing) => placeOf(thing)).length;
  if (places === 2) return ['distance', 'across', 'up', ...gap];
  return places > 0 || a || b ? ['distance', ...gap] : gap;
}

function kindsOfOne(thing: Thing): readonly DimensionKind[] {
  if (lineOf(thing)) return ['length', 'slope'];
  if (roundOf(thing)) return ['diameter', 'radius', 'length'];
  return thing.kind === 'piece' ? ['length'] : ['across', 'up'];
}

function footOn(line: Line, at: Vec): Vec {
  const along = subtract(line.b, line.a);
  return add(line.a, scale(along, dot(subtract(at, line.a), along) / dot(along, along)));
}

/** The gap between the whole outlines that two ends name. */
function gapBetween(on: readonly RelationEnd[], shapes: Shapes): DimensionSpan | undefined {
  const [a, b] = on.map(({ outline }) => shapes.get(outline));
  return a && b && findGap(a.finished, b.finished, b.closed);
}

/** What dimensions of kind `gap` are between: the outlines of two ends, whole. */
export const wholeEnds = (on: readonly RelationEnd[]): readonly RelationEnd[] => on.map(({ outline }) => ({ outline }));

/** Between what a dimension is read; undefined when something of it is gone or has another kind now. `across` and `up` of one place count from zero. */
export function findSpan(
  { kind, on }: Pick<Dimension, 'kind' | 'on'>,
  outlines: readonly Outline[],
  shapes: Shapes,
): DimensionSpan | undefined {
  if (kind === 'gap') return gapBetween(on, shapes);
  const [first, second] = on.map((end) => findThing(end, outlines, shapes));
  const between = (from: Vec, to: Vec): DimensionSpan => ({ from, to, value: distance(from, to) });
  const round = roundOf(first);
  if (kind === 'length')
    return first?.kind === 'piece'
      ? { from: startOf(first.piece), to: endOf(first.piece), value: pieceLength(first.piece) }
      : undefined;
  if (kind === 'diameter')
    return (
      round &&
      between(
        add(round.centre, polar(round.radius, Math.PI * 0.75)),
        add(round.centre, polar(round.radius, -Math.PI * 0.25)),
      )
    );
  if (kind === 'radius')
    return round && between(round.centre, add(round.centre, polar(round.radius, round.start + round.sweep / 2)));
  const [a, b] = [lineOf(first), lineOf(second)];
  if (kind === 'slope') return a && { from: a.a, to: a.b, value: Math.abs(lineAngle(slopeOf(a))) };
  if (kind === 'angle') return a && b && angleBetween(a, b);
  const [p, q] = [
    placeOf(first) ?? (a && mix(a.a, a.b, 0.5)),
    on.length === 1 ? ([0, 0] as const) : (placeOf(second) ?? (b && mix(b.a, b.b, 0.5))),
  ];
  if (!p || !q) return undefined;
  if (kind === 'across') return { from: p, to: [q[0], p[1]], feet: [p, q], value: Math.abs(q[0] - p[0]) };
  if (kind === 'up') return { from: p, to: [p[0], q[1]], feet: [p, q], value: Math.abs(q[1] - p[1]) };
  if (a) return between(q, footOn(a, q));
  return b ? between(p, footOn(b, p)) : between(p, q);
}

function angleBetween(a: Line, b: Line): DimensionSpan | undefined {
  const crossing = findLineCrossing(a, b)?.point;
  if (!crossing) return undefined;
  const away = ({ a: p, b: q }: Line) => (distance(p, crossing) > distance(q, crossing) ? p : q);
  const [u, v] = [subtract(away(a), crossing), subtract(away(b), crossing)];
  const reach = Math.min(norm(u), norm(v)) / 2;
  return {
    from: add(crossing, scale(u, reach / norm(u))),
    to: add(crossing, scale(v, reach / norm(v))),
    value: Math.acos(Math.max(-1, Math.min(1, dot(u, v) / (norm(u) * norm(v))))),
  };
}

/** The figure of a dimension with its plus-minus; undefined when it cannot be read any more. */
export function measureDimension(
  dimension: Pick<Dimension, 'kind' | 'on'>,
  figured: Figured,
  shapes: Shapes,
): Measured | undefined {
  const { job } = figured;
  if (!findSpan(dimension, job.outlines, shapes)) return undefined;
  const outlines = job.outlines.filter(({ id }) => dimension.on.some(({ outline }) => outline === id));
  return measureShapes(outlines, figured, (varied) => findSpan(dimension, job.outlines, varied)?.value ?? NaN);
}

/** What a solved size may be off by for want of digits. mm, radians */
const EXACT = 1e-6;

/** How a measured size stands against what it should be: one sigma of the difference is the measured one's. */
export interface Compared {
  readonly difference: number;
  readonly isWithin: boolean;
}

/** `least`: more than it should be is as good. */
export function compare({ value, sigma }: Measured, should: number, least = false): Compared {
  const difference = value - should;
  return { difference, isWithin: (least ? -difference : Math.abs(difference)) <= Math.max(2 * sigma, EXACT) };
}

/** Places in a row, along an axis (0 across, 1 up) in the order in which they lie there: each from the one before it, or all from the first. The ends of one dimension each. */
export function listRow(
  on: readonly RelationEnd[],
  outlines: readonly Outline[],
  shapes: Shapes,
  axis: 0 | 1,
  from: 'before' | 'first',
): readonly (readonly [RelationEnd, RelationEnd])[] {
  const places = on.flatMap((end) => {
    const at = placeOf(findThing(end, outlines, shapes));
    return at ? [{ end, at: at[axis] }] : [];
  });
  if (places.length < 2) return [];
  const sorted =
    from === 'before'
      ? [...places].sort((a, b) => a.at - b.at)
      : [
          places[0]!,
          ...places.slice(1).sort((a, b) => Math.abs(a.at - places[0]!.at) - Math.abs(b.at - places[0]!.at)),
        ];
  return sorted.slice(1).map(({ end }, i) => [from === 'before' ? sorted[i]!.end : sorted[0]!.end, end] as const);
}
