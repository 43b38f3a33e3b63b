import { toCubics } from './cubic';
import { startOf, type Arc, type Piece } from './piece';
import { angleOf, subtract, type Vec } from './vec';

/** x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const UNMOVED: Affine = [1, 0, 0, 1, 0, 0];

export const applied = ([a, b, c, d, e, f]: Affine, [x, y]: Vec): Vec => [a * x + c * y + e, b * x + d * y + f];

/** First `inner`, then `outer`. */
export function composed(outer: Affine, [a, b, c, d, e, f]: Affine): Affine {
  const [p, q, r, s] = outer;
  return [p * a + r * b, q * a + s * b, p * c + r * d, q * c + s * d, ...applied(outer, [e, f])];
}

/** Turned by an angle (radians, counter-clockwise where y is up), stretched before that, moved after. */
export function placed(at: Vec, angle = 0, across = 1, up = across): Affine {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [across * cos, across * sin, -up * sin, up * cos, at[0], at[1]];
}

/** Off by less than this share, a map counts as one that keeps circles round. */
const ROUND = 1e-9;

function keepsCircles([a, b, c, d]: Affine): boolean {
  const [across, up] = [a * a + b * b, c * c + d * d];
  return Math.abs(across - up) <= ROUND * (across + up) && Math.abs(a * c + b * d) <= ROUND * (across + up);
}

/**
 * A piece under an affine map. A circle that is squeezed becomes cubics, off by less than 5 millionths of its size; everything else
 * stays what it is and exact.
 */
export function moved(piece: Piece, map: Affine): readonly Piece[] {
  switch (piece.kind) {
    case 'line':
      return [{ kind: 'line', a: applied(map, piece.a), b: applied(map, piece.b) }];
    case 'cubic':
      return [{ kind: 'cubic', a: applied(map, piece.a), b: applied(map, piece.b), c: applied(map, piece.c), d: applied(map, piece.d) }];
    case 'arc':
      return keepsCircles(map) ? [movedArc(piece, map)] : toCubics(piece).flatMap((cubic) => moved(cubic, map));
  }
}

function movedArc(arc: Arc, map: Affine): Arc {
  const centre = applied(map, arc.centre);
  const hand = Math.sign(map[0] * map[3] - map[1] * map[2]);
  return { kind: 'arc', centre, radius: arc.radius * Math.hypot(map[0], map[1]), start: angleOf(subtract(applied(map, startOf(arc)), centre)), sweep: hand * arc.sweep };
}
