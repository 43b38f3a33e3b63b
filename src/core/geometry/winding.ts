import { partOf } from './part';
import { endOf, startOf, type Piece } from './piece';
import { pieceBounds } from './measure';
import { cross, dot, subtract, type Vec } from './vec';

/** A stretch this often halved is nearer to the place than numbers can tell. */
const DEEPEST = 40;

/**
 * The angle by which a piece is seen to run around a place, radians, counter-clockwise positive. A stretch whose box does not hold the place is seen under the same
 * angle as its chord; what does is halved. Of a place on the piece itself the answer is one of the two sides.
 */
export function subtendedAngle(piece: Piece, place: Vec, depth = 0): number {
  const { min, max } = pieceBounds(piece);
  const isInside = place[0] > min[0] && place[0] < max[0] && place[1] > min[1] && place[1] < max[1];
  if (piece.kind === 'line' || !isInside || depth === DEEPEST) {
    const [a, b] = [subtract(startOf(piece), place), subtract(endOf(piece), place)];
    return Math.atan2(cross(a, b), dot(a, b));
  }
  return (
    subtendedAngle(partOf(piece, 0, 0.5), place, depth + 1) + subtendedAngle(partOf(piece, 0.5, 1), place, depth + 1)
  );
}

/** How often a closed chain of pieces runs around a place, counter-clockwise positive. */
export function windingNumber(pieces: readonly Piece[], place: Vec): number {
  return Math.round(pieces.reduce((sum, piece) => sum + subtendedAngle(piece, place), 0) / (2 * Math.PI));
}
