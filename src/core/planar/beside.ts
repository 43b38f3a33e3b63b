import {
  accelerationAt,
  add,
  cross,
  curvatureAt,
  endOf,
  findDirection,
  norm,
  partOf,
  perpendicular,
  pieceLength,
  pointAt,
  scale,
  startOf,
  subtract,
  tangentAt,
  velocityAt,
  type Piece,
  type Vec,
} from '../geometry';
import { cubicsBeside } from './offset-curve';

/**
 * A stretch of what lies beside a piece. One that bends more tightly than it is offset begins and ends on the piece itself and goes around what it sweeps, of an arc
 * up to its centre: beyond that something else is nearer.
 */
export interface Beside {
  readonly pieces: readonly Piece[];
  readonly onPath: boolean;
  /** Of the piece: where the stretch ends, and its directions at both ends. */
  readonly to: Vec;
  readonly leave: Vec;
  readonly arrive: Vec;
}

/** What lies `by` to the right of a piece, seen along it; to the left where that is below nothing. */
export function listBeside(piece: Piece, by: number, tolerance: number): readonly Beside[] {
  const whole = { onPath: false, to: endOf(piece), leave: tangentAt(piece, 0), arrive: tangentAt(piece, 1) };
  if (by === 0) return [{ ...whole, pieces: [piece] }];
  switch (piece.kind) {
    case 'line': {
      const aside = scale(perpendicular(whole.leave), -by);
      return [{ ...whole, pieces: [{ kind: 'line', a: add(piece.a, aside), b: add(piece.b, aside) }] }];
    }
    case 'arc': {
      const radius = piece.radius + Math.sign(piece.sweep) * by;
      return [
        radius > tolerance
          ? { ...whole, pieces: [{ ...piece, radius }] }
          : { ...whole, onPath: true, pieces: polyline([startOf(piece), piece.centre, whole.to]) },
      ];
    }
    default:
      return listRuns(piece, by).map(({ from, to, folded }) => ({
        onPath: folded,
        to: pointAt(piece, to),
        leave: tangentAt(piece, from),
        arrive: tangentAt(piece, to),
        pieces: folded ? sweepOf(piece, by, from, to, tolerance) : cubicsBeside(piece, by, from, to, tolerance),
      }));
  }
}

const SCANNED = 64;

/** Where a curve is folded and where not, by turns. */
function listRuns(
  piece: Piece,
  by: number,
): readonly { readonly from: number; readonly to: number; readonly folded: boolean }[] {
  /** Where the centre of curvature is no farther than the offset, on its side. */
  const isFolded = (t: number) => {
    const velocity = velocityAt(piece, t);
    const turn = cross(velocity, accelerationAt(piece, t)) * by;
    if (!(turn < 0)) return false;
    const speed = norm(velocity);
    return speed > 0 && -turn >= speed * speed * speed;
  };
  const stops = [0];
  let [from, before] = [1e-3 / SCANNED, isFolded(1e-3 / SCANNED)];
  for (let i = 1; i <= SCANNED; i++) {
    const to = (i + (i === SCANNED ? -1e-3 : 1e-3)) / SCANNED;
    const folded = isFolded(to);
    if (folded !== before) stops.push(turningPoint(isFolded, from, to));
    [from, before] = [to, folded];
  }
  stops.push(1);
  return stops.slice(1).map((to, i) => ({ from: stops[i]!, to, folded: isFolded((stops[i]! + to) / 2) }));
}

function turningPoint(isFolded: (t: number) => boolean, from: number, to: number): number {
  let [low, high] = [from, to];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (isFolded(middle) === isFolded(from)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

const MOST_CHORDS = 32;

/**
 * What a tightly bent stretch sweeps, chord by chord: out beside each as far as its centres of curvature, since what lies beyond has something else nearer, and back
 * to the piece. Of these only what shuts others out counts: chords have to be good where the bend is as wide as the offset.
 */
function sweepOf(piece: Piece, by: number, from: number, to: number, precision: number): readonly Piece[] {
  const stretch = partOf(piece, from, to);
  const count = Math.min(
    MOST_CHORDS,
    Math.max(2, Math.ceil(pieceLength(stretch, 1e-3) / Math.sqrt(2 * precision * Math.abs(by)))),
  );
  return Array.from({ length: count }, (_, i) => i / count).flatMap((t): Piece[] => {
    const [a, b] = [pointAt(stretch, t), pointAt(stretch, t + 1 / count)];
    const direction = findDirection(subtract(b, a));
    if (!direction) return [];
    const widest = Math.max(...[0.01, 0.5, 0.99].map((share) => 1 / Math.abs(curvatureAt(stretch, t + share / count))));
    const aside = scale(perpendicular(direction), -Math.sign(by) * Math.min(Math.abs(by), BEYOND * widest));
    return polyline([a, add(a, aside), add(b, aside), b]);
  });
}

/** A little farther than the centres that were looked at. */
const BEYOND = 1.1;

export const polyline = (places: readonly Vec[]): Piece[] =>
  places.slice(1).map((b, i) => ({ kind: 'line', a: places[i]!, b }));
