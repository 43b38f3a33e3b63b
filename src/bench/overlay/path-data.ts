import { endOf, startOf, toCubics, type Piece, type Vec } from '@/core/geometry';
import type { Shape } from '@/core/outline';

/** From the view plane to where it lies on the bench. */
type FromPlane = (plane: Vec) => Vec;

const pair = ([x, y]: Vec) => `${x.toFixed(3)} ${y.toFixed(3)}`;

/** An outline's pieces as SVG path data in bench pixels. Arcs become cubics on the way: a projective map keeps no circles. */
export function pathData(pieces: readonly Piece[], closed: boolean, fromPlane: FromPlane): string {
  const first = pieces[0];
  if (!first) return '';
  const at = (p: Vec) => pair(fromPlane(p));
  let data = `M${at(startOf(first))}`;
  for (const piece of pieces) {
    if (piece.kind === 'line') data += `L${at(endOf(piece))}`;
    else for (const cubic of toCubics(piece)) data += `C${at(cubic.b)} ${at(cubic.c)} ${at(cubic.d)}`;
  }
  return closed ? `${data}Z` : data;
}

export function shapesPath(shapes: readonly Shape[], fromPlane: FromPlane): string {
  return shapes.map((shape) => pathData(shape.pieces, shape.closed, fromPlane)).join('');
}
