import {
  add,
  cross,
  distance,
  endOf,
  listCrossings,
  nearestOn,
  partOf,
  perpendicular,
  pieceLength,
  pointAt,
  scale,
  subtract,
  tangentAt,
  type Arc,
  type Line,
  type Piece,
  type Vec,
} from '../geometry';

/** How a corner is finished: rounded by an arc of a radius, or cut off so far from the corner along both sides. mm */
export interface Corner {
  readonly kind: 'fillet' | 'chamfer';
  readonly size: number;
}

export type CornerFault = 'corner-too-large' | 'corner-on-a-curve' | 'corner-is-none';

/** What a finished corner is: where it ends the side before (t), where it begins the side after, and what runs between. */
interface Finish {
  readonly until: number;
  readonly from: number;
  readonly piece: Piece;
}

/** A corner flatter than this is none: sine of the turn. */
const FLAT = 1e-9;

const leftOf = (direction: Vec) => perpendicular(direction);

/** A line or an arc moved to its left (seen along it) by a distance; undefined where an arc would turn inside out. */
function movedLeft(piece: Line | Arc, by: number): Line | Arc | undefined {
  if (piece.kind === 'line') {
    const shift = scale(leftOf(tangentAt(piece, 0)), by);
    return { kind: 'line', a: add(piece.a, shift), b: add(piece.b, shift) };
  }
  const radius = piece.radius - Math.sign(piece.sweep) * by;
  return radius > 0 ? { ...piece, radius } : undefined;
}

/** The arc of a radius that touches both sides of a corner: its centre is where the sides, moved towards each other by the radius, cross. */
function findFillet(before: Line | Arc, after: Line | Arc, radius: number): Finish | undefined {
  const side = Math.sign(cross(tangentAt(before, 1), tangentAt(after, 0)));
  const [a, b] = [movedLeft(before, side * radius), movedLeft(after, side * radius)];
  if (!a || !b) return undefined;
  const corner = endOf(before);
  const centres = [...listCrossings(a, b)].sort((p, q) => distance(p.point, corner) - distance(q.point, corner));
  const [nearest] = centres;
  if (!nearest) return undefined;
  const [until, from] = [nearestOn(before, nearest.point).t, nearestOn(after, nearest.point).t];
  return { until, from, piece: arcBetween(nearest.point, radius, pointAt(before, until), pointAt(after, from), side) };
}

function arcBetween(centre: Vec, radius: number, from: Vec, to: Vec, side: number): Arc {
  const [p, q] = [subtract(from, centre), subtract(to, centre)];
  const start = Math.atan2(p[1], p[0]);
  const turn = Math.atan2(cross(p, q), p[0] * q[0] + p[1] * q[1]);
  return { kind: 'arc', centre, radius, start, sweep: side * turn >= 0 ? turn : turn + side * 2 * Math.PI };
}

function findChamfer(before: Line | Arc, after: Line | Arc, setback: number): Finish | undefined {
  const [until, from] = [1 - setback / pieceLength(before), setback / pieceLength(after)];
  return until >= 0 && from <= 1
    ? { until, from, piece: { kind: 'line', a: pointAt(before, until), b: pointAt(after, from) } }
    : undefined;
}

/** What corners are finished on: lines and arcs. */
const isSimple = (piece: Piece): piece is Line | Arc => piece.kind === 'line' || piece.kind === 'arc';

function findFinish(before: Piece, after: Piece, { kind, size }: Corner): Finish | CornerFault {
  if (!isSimple(before) || !isSimple(after)) return 'corner-on-a-curve';
  if (Math.abs(cross(tangentAt(before, 1), tangentAt(after, 0))) < FLAT) return 'corner-is-none';
  return (kind === 'fillet' ? findFillet(before, after, size) : findChamfer(before, after, size)) ?? 'corner-too-large';
}

export interface Finished {
  readonly pieces: readonly Piece[];
  readonly faults: readonly { readonly segment: number; readonly fault: CornerFault }[];
}

/**
 * Sides with their corners finished. `corners[i]` is the corner at which side i begins; the first of an open chain is none. A corner that has no room beside
 * its neighbours, lies on a curve or is no corner stays sharp, with a fault at its side. Lines and arcs; tangent to rounding error.
 */
export function finishCorners(
  sides: readonly Piece[],
  corners: readonly (Corner | undefined)[],
  closed: boolean,
): Finished {
  const count = sides.length;
  const faults: { segment: number; fault: CornerFault }[] = [];
  const [from, until] = [new Array<number>(count).fill(0), new Array<number>(count).fill(1)];
  const between = new Map<number, Piece>();
  corners.slice(0, count).forEach((corner, i) => {
    if (!corner || (i === 0 && !closed) || count < 2) return;
    const before = (i + count - 1) % count;
    const finish = findFinish(sides[before]!, sides[i]!, corner);
    if (typeof finish === 'string') return void faults.push({ segment: i, fault: finish });
    if (finish.until < from[before]! || finish.from > until[i]!)
      return void faults.push({ segment: i, fault: 'corner-too-large' });
    [until[before], from[i]] = [finish.until, finish.from];
    between.set(i, finish.piece);
  });
  return {
    pieces: sides.flatMap((side, i) => [
      ...(between.has(i) ? [between.get(i)!] : []),
      ...(until[i]! > from[i]! ? [partOf(side, from[i]!, until[i]!)] : []),
    ]),
    faults,
  };
}
