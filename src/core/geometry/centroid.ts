import { partOf } from './part';
import { pointAt, startOf, velocityAt, type Piece } from './piece';
import { enclosedArea } from './measure';
import { subtract, type Vec } from './vec';

/** Abscissae and weights of Gauss-Legendre quadrature with 8 points on [0, 1] (Abramowitz & Stegun, table 25.4, halved). */
const GAUSS: readonly (readonly [number, number])[] = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
].flatMap(
  ([x, weight]) =>
    [
      [(1 - x!) / 2, weight! / 2],
      [(1 + x!) / 2, weight! / 2],
    ] as const,
);

/** So far an arc is integrated at a time, radians: to the last digits. */
const STEP = Math.PI / 4;

/**
 * The centre of the area inside closed chains of pieces; loops around holes run the other way. Undefined where they enclose nothing. By Green's theorem, exact for
 * lines and cubics, to rounding for arcs.
 */
export function findCentroid(loops: readonly (readonly Piece[])[]): Vec | undefined {
  const first = loops[0]?.[0];
  const area = loops.reduce((sum, pieces) => sum + enclosedArea(pieces), 0);
  if (!first || area === 0) return undefined;
  // About a place of their own: far from zero digits would be lost.
  const about = startOf(first);
  let [x, y] = [0, 0];
  for (const piece of loops.flat().flatMap(inSteps)) {
    for (const [t, weight] of GAUSS) {
      const [[u, v], [du, dv]] = [subtract(pointAt(piece, t), about), velocityAt(piece, t)];
      x += (weight * u * u * dv) / 2;
      y -= (weight * v * v * du) / 2;
    }
  }
  return [about[0] + x / area, about[1] + y / area];
}

function inSteps(piece: Piece): readonly Piece[] {
  if (piece.kind !== 'arc' && piece.kind !== 'ellipse') return [piece];
  const count = Math.max(1, Math.ceil(Math.abs(piece.sweep) / STEP));
  return Array.from({ length: count }, (_, i) => partOf(piece, i / count, (i + 1) / count));
}
