import { pieceLength } from './measure';
import { pointAt, type Cubic, type Piece } from './piece';
import { mix, type Vec } from './vec';

/**
 * The part of a piece from one of its parameters to another: the same curve, point for point. Parameters outside 0 to 1 carry it on: a line straight on, an arc
 * around, a cubic along its own polynomial.
 */
export function partOf(piece: Piece, from: number, to: number): Piece {
  if (from === 0 && to === 1) return piece;
  switch (piece.kind) {
    case 'line':
      return {
        kind: 'line',
        a: from === 0 ? piece.a : pointAt(piece, from),
        b: to === 1 ? piece.b : pointAt(piece, to),
      };
    case 'arc':
    case 'ellipse':
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

/** Its control points are the values of its polar form (blossom) at the two parameters (Farin, Curves and Surfaces for CAGD, 2002, section 4.4): inside and outside 0 to 1 alike. */
function cubicBetween({ a, b, c, d }: Cubic, from: number, to: number): Cubic {
  const polarForm = (r: number, s: number, t: number): Vec => {
    const [ab, bc, cd] = [mix(a, b, r), mix(b, c, r), mix(c, d, r)];
    return mix(mix(ab, bc, s), mix(bc, cd, s), t);
  };
  return {
    kind: 'cubic',
    a: from === 0 ? a : polarForm(from, from, from),
    b: polarForm(from, from, to),
    c: polarForm(from, to, to),
    d: to === 1 ? d : polarForm(to, to, to),
  };
}
