import { splitCubic } from './cubic';
import { pieceLength } from './measure';
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

const HALVINGS = 50;

/** The parameter of a piece at a length from its start; 0 and 1 beyond its ends. */
export function parameterAt(piece: Piece, length: number): number {
  const share = Math.min(1, Math.max(0, length / pieceLength(piece)));
  if (piece.kind === 'line' || piece.kind === 'arc' || share === 0 || share === 1) return share;
  let [low, high] = [0, 1];
  for (let i = 0; i < HALVINGS; i++) {
    const t = (low + high) / 2;
    if (pieceLength(partOf(piece, 0, t)) < length) low = t;
    else high = t;
  }
  return (low + high) / 2;
}

function cubicBetween(cubic: Cubic, from: number, to: number): Cubic {
  const rest = from === 0 ? cubic : splitCubic(cubic, from)[1];
  return to === 1 ? rest : splitCubic(rest, (to - from) / (1 - from))[0];
}
