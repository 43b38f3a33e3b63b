import { angleOf, distance, pieceLength, pointAt, positiveAngle, reversed, startOf, subtract, type Piece } from '../geometry';

/**
 * Pieces that leave one place, in counter-clockwise order: their indices. Two are told apart by their directions at a quarter of the shorter one, since directions at
 * the place itself tell nothing of pieces that touch, and little of curves that begin in a cusp.
 */
export function aroundPlace(leaving: readonly Piece[]): readonly number[] {
  const all = leaving.map((_, i) => i);
  if (leaving.length < 3) return all;
  const lengths = leaving.map((piece) => pieceLength(piece, 1e-3));
  const near = Math.min(...lengths) / 4;
  const cut = afterWidestGap(leaving.map((piece) => directionAt(piece, near)));
  const turned = (i: number, reach: number) => positiveAngle(directionAt(leaving[i]!, reach) - cut);
  return all.sort((i, j) => {
    const reach = Math.min(lengths[i]!, lengths[j]!) / 4;
    return turned(i, reach) - turned(j, reach);
  });
}

/** The middle of the widest gap between directions: there the circle is cut open. */
function afterWidestGap(angles: readonly number[]): number {
  const sorted = angles.map(positiveAngle).sort((a, b) => a - b);
  const gaps = sorted.map((angle, i) => positiveAngle(angle - sorted[(i + sorted.length - 1) % sorted.length]!));
  const widest = Math.max(...gaps);
  return sorted[gaps.indexOf(widest)]! - widest / 2;
}

/** The direction from where a piece starts to where it has got so far away. */
function directionAt(piece: Piece, reach: number): number {
  return angleOf(subtract(pointAt(piece, parameterAt(piece, reach)), startOf(piece)));
}

function parameterAt(piece: Piece, reach: number): number {
  if (piece.kind === 'line') return reach / distance(piece.a, piece.b);
  if (piece.kind === 'arc') return (2 * Math.asin(Math.min(1, reach / (2 * piece.radius)))) / Math.abs(piece.sweep);
  let [low, high] = [0, 1];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (distance(pointAt(piece, middle), startOf(piece)) < reach) low = middle;
    else high = middle;
  }
  return high;
}

export const leaving = (piece: Piece, forward: boolean): Piece => (forward ? piece : reversed(piece));
