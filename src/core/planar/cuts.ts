import Flatbush from 'flatbush';
import { findMeetings } from './meeting';
import {
  cross,
  distance,
  endOf,
  findFoot,
  isRound,
  listCrossings,
  pieceBounds,
  pointAt,
  startOf,
  subtract,
  scale,
  add,
  type Bounds,
  type Cubic,
  type Piece,
  type Vec,
} from '../geometry';

/**
 * Where pieces have to be cut so that afterwards they meet at ends only: parameters of each, unsorted. At crossings, where an end lies on another piece (which also
 * finds the ends of stretches that lie on each other), where a cubic crosses itself, and half-way around what closes on itself. `tolerance` in the pieces' own unit.
 */
export function listCuts(pieces: readonly Piece[], tolerance: number): readonly (readonly number[])[] {
  const cuts = pieces.map((piece) => [
    ...(isRound(piece) || isLoop(piece, tolerance) ? [0.5] : []),
    ...ownCrossings(piece),
  ]);
  const boxes = pieces.map(pieceBounds);
  for (const [i, j] of listNeighbours(boxes, tolerance)) {
    const [a, b] = [pieces[i]!, pieces[j]!];
    const meetings = findMeetings(a, b, tolerance);
    meetings?.forEach(([ta, tb]) => {
      cuts[i]!.push(ta);
      cuts[j]!.push(tb);
    });
    if (meetings) continue;
    const [onA, onB] = [endsOn(b, a, boxes[i]!, tolerance), endsOn(a, b, boxes[j]!, tolerance)];
    cuts[i]!.push(...onA);
    cuts[j]!.push(...onB);
    if (isBent(a, b) && liesAlong(a, onA, b, tolerance)) continue;
    for (const { ta, tb } of listCrossings(a, b, tolerance)) {
      cuts[i]!.push(ta);
      cuts[j]!.push(tb);
    }
  }
  return cuts;
}

/** At least one box. */
export function boxIndexOf(boxes: readonly Bounds[]): Flatbush {
  const index = new Flatbush(boxes.length);
  for (const { min, max } of boxes) index.add(min[0], min[1], max[0], max[1]);
  index.finish();
  return index;
}

/** Pairs of boxes that touch, each once. */
export function listNeighbours(boxes: readonly Bounds[], slack: number): readonly (readonly [number, number])[] {
  if (boxes.length === 0) return [];
  const index = boxIndexOf(boxes);
  return boxes.flatMap(({ min, max }, i) =>
    index
      .search(min[0] - slack, min[1] - slack, max[0] + slack, max[1] + slack, (j) => j > i)
      .map((j) => [i, j] as const),
  );
}

const isLoop = (piece: Piece, tolerance: number) =>
  piece.kind === 'cubic' && Math.hypot(...subtract(piece.a, piece.d)) <= tolerance;

/** Where the ends of a piece lie on another one, whose box is given. Where ends meet nothing has to be looked for. */
function endsOn(piece: Piece, other: Piece, { min, max }: Bounds, tolerance: number): number[] {
  const [first, last] = [startOf(other), endOf(other)];
  return [startOf(piece), isRound(piece) ? pointAt(piece, 0.5) : endOf(piece)].flatMap((end: Vec) => {
    const isNear =
      end[0] >= min[0] - tolerance &&
      end[0] <= max[0] + tolerance &&
      end[1] >= min[1] - tolerance &&
      end[1] <= max[1] + tolerance;
    if (!isNear) return [];
    if (distance(end, first) <= tolerance) return [0];
    if (distance(end, last) <= tolerance) return [1];
    const foot = findFoot(other, end, tolerance);
    return foot === undefined ? [] : [foot];
  });
}

/** Curves that lie on each other cross nowhere, yet seem to everywhere, and circles that all but do at places that mean nothing; lines tell by themselves. */
const isBent = (...pieces: readonly Piece[]) => pieces.every(({ kind }) => kind !== 'line');

/** Whether a lies on another piece between two neighbouring places at which one of them ends. */
function liesAlong(a: Piece, shared: readonly number[], b: Piece, tolerance: number): boolean {
  const stops = [0, ...shared, 1].sort((p, q) => p - q);
  return stops.slice(1).some((to, i) => {
    const from = stops[i]!;
    const places = [0, 0.3, 0.5, 0.7, 1].map((share) => pointAt(a, from + share * (to - from)));
    return (
      distance(places[0]!, places[2]!) > 100 * tolerance &&
      places.every((place) => findFoot(b, place, tolerance) !== undefined)
    );
  });
}

/** With P = a t³ + b t² + c t, equal places at t and u mean a(t² + tu + u²) + b(t + u) + c = 0: linear in t + u and in the first bracket. */
function ownCrossings(piece: Piece): number[] {
  if (piece.kind !== 'cubic') return [];
  const [a, b, c] = coefficientsOf(piece);
  const determinant = cross(a, b);
  if (determinant === 0) return [];
  const bracket = cross(b, c) / determinant;
  const sum = cross(c, a) / determinant;
  const root = Math.sqrt(sum * sum - 4 * (sum * sum - bracket));
  const [t, u] = [(sum - root) / 2, (sum + root) / 2];
  return t > 0 && u < 1 && t < u ? [t, u] : [];
}

function coefficientsOf({ a, b, c, d }: Cubic): readonly [Vec, Vec, Vec] {
  const cubed = add(subtract(d, a), scale(subtract(b, c), 3));
  return [cubed, scale(add(subtract(a, scale(b, 2)), c), 3), scale(subtract(b, a), 3)];
}
