import {
  cross,
  distance,
  endOf,
  mix,
  splitCubic,
  startOf,
  subtract,
  toCubics,
  type Cubic,
  type Piece,
  type Vec,
} from '@/core/geometry';
import type { Shape } from '@/core/outline';

/** From the view plane to where it lies on the bench. */
type FromPlane = (plane: Vec) => Vec;

const pair = ([x, y]: Vec) => `${x.toFixed(3)} ${y.toFixed(3)}`;

/** How far what is drawn may lie beside where it belongs, bench px: less than shows in the magnified patch. */
const TOLERANCE = 0.03;
const DEEPEST = 6;

/**
 * An outline's pieces as SVG path data in bench pixels. Arcs become cubics on the way: a projective map keeps no circles. Where the
 * lens bows a line or the map a curve, they are split until what is drawn lies where it belongs.
 */
export function pathData(pieces: readonly Piece[], closed: boolean, fromPlane: FromPlane): string {
  const first = pieces[0];
  if (!first) return '';
  let data = `M${pair(fromPlane(startOf(first)))}`;
  for (const piece of pieces) {
    if (piece.kind === 'line') data += lineData(startOf(piece), endOf(piece), fromPlane);
    else for (const cubic of toCubics(piece)) data += cubicData(cubic, fromPlane);
  }
  return closed ? `${data}Z` : data;
}

function lineData(a: Vec, b: Vec, fromPlane: FromPlane, depth = 0): string {
  const middle = mix(a, b, 0.5);
  const [from, through, to] = [fromPlane(a), fromPlane(middle), fromPlane(b)];
  const length = distance(from, to);
  const astray = length > 0 ? Math.abs(cross(subtract(to, from), subtract(through, from))) / length : 0;
  if (!(astray > TOLERANCE) || depth === DEEPEST) return `L${pair(to)}`;
  return lineData(a, middle, fromPlane, depth + 1) + lineData(middle, b, fromPlane, depth + 1);
}

function cubicData(cubic: Cubic, fromPlane: FromPlane, depth = 0): string {
  const [a, b, c, d] = [cubic.a, cubic.b, cubic.c, cubic.d].map(fromPlane) as [Vec, Vec, Vec, Vec];
  const [first, second] = splitCubic(cubic, 0.5);
  const through = fromPlane(first.d);
  const drawn: Vec = [(a[0] + 3 * b[0] + 3 * c[0] + d[0]) / 8, (a[1] + 3 * b[1] + 3 * c[1] + d[1]) / 8];
  if (!(distance(through, drawn) > TOLERANCE) || depth === DEEPEST) return `C${pair(b)} ${pair(c)} ${pair(d)}`;
  return cubicData(first, fromPlane, depth + 1) + cubicData(second, fromPlane, depth + 1);
}

export function shapesPath(shapes: readonly Shape[], fromPlane: FromPlane): string {
  return shapes.flatMap(({ paths }) => paths.map(({ pieces, closed }) => pathData(pieces, closed, fromPlane))).join('');
}
