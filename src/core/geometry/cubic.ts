import { add, scale, type Vec } from './vec';
import { pointAt, type Arc, type Cubic, type EllipticArc, type Line, type Piece, velocityAt } from './piece';

/**
 * Any piece as cubics; arcs by at most an eighth of a turn each. With k = 4/3·tan(sweep/4) a quarter's radius is off by less than 2.8e-4
 * of itself; used for drawing on the screen only, never for files (Riškus, Approximation of a cubic Bézier curve by
 * circular arcs and vice versa, 2006).
 */
export function toCubics(piece: Piece): readonly Cubic[] {
  if (piece.kind === 'cubic') return [piece];
  if (piece.kind === 'line') return [lineAsCubic(piece)];
  const count = Math.max(1, Math.ceil(Math.abs(piece.sweep) / (Math.PI / 4) - 1e-9));
  return Array.from({ length: count }, (_, i) => quarterAsCubic(piece, i / count, (i + 1) / count));
}

function lineAsCubic({ a, b }: Line): Cubic {
  const third: Vec = [(b[0] - a[0]) / 3, (b[1] - a[1]) / 3];
  return { kind: 'cubic', a, b: add(a, third), c: add(a, scale(third, 2)), d: b };
}

function quarterAsCubic(arc: Arc | EllipticArc, from: number, to: number): Cubic {
  const sweep = arc.sweep * (to - from);
  const reach = ((4 / 3) * Math.tan(sweep / 4)) / arc.sweep;
  const [a, d] = [pointAt(arc, from), pointAt(arc, to)];
  return {
    kind: 'cubic',
    a,
    b: add(a, scale(velocityAt(arc, from), reach)),
    c: add(d, scale(velocityAt(arc, to), -reach)),
    d,
  };
}

/** Cuts a cubic in two at t (de Casteljau). */
export function splitCubic(cubic: Cubic, t: number): readonly [Cubic, Cubic] {
  const mix = (p: Vec, q: Vec): Vec => [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t];
  const [ab, bc, cd] = [mix(cubic.a, cubic.b), mix(cubic.b, cubic.c), mix(cubic.c, cubic.d)];
  const [abc, bcd] = [mix(ab, bc), mix(bc, cd)];
  const middle = mix(abc, bcd);
  return [
    { kind: 'cubic', a: cubic.a, b: ab, c: abc, d: middle },
    { kind: 'cubic', a: middle, b: bcd, c: cd, d: cubic.d },
  ];
}
