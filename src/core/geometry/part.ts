import { splitCubic } from './cubic';
import { pointAt, type Cubic, type Piece } from './piece';

/**
 * The part of a piece from one of its parameters to another: the same curve, point for point. Parameters outside 0 to 1 carry it on: a line straight on, an arc
 * around, a cubic along its own polynomial.
 */
export function partOf(piece: Piece, from: number, to: number): Piece {
  if (from === 0 && to === 1) return piece;
  switch (piece.kind) {
    case 'line':
      return { kind: 'line', a: from === 0 ? piece.a : pointAt(piece, from), b: to === 1 ? piece.b : pointAt(piece, to) };
    case 'arc': case 'ellipse':
      return { ...piece, start: piece.start + piece.sweep * from, sweep: piece.sweep * (to - from) };
    case 'cubic':
      return cubicBetween(piece, from, to);
  }
}

function cubicBetween(cubic: Cubic, from: number, to: number): Cubic {
  const rest = from === 0 ? cubic : splitCubic(cubic, from)[1];
  return to === 1 ? rest : splitCubic(rest, (to - from) / (1 - from))[0];
}
