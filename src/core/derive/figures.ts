import { propagate, type Measured } from '../adjust';
import { measureThrough, toPlane, type SheetPoint } from '../calibrate';
import { enclosedArea, pieceLength, type Vec } from '../geometry';
import { listPointed, mapPlaces, mapPointed, placesOf, placingOf, shapeOf, type Outline, type Place, type PointedPlace, type Shape } from '../outline';
import { outlineAt } from '../relate';
import type { FittedView } from './fits';
import type { RelatedView } from './related';

/**
 * Any figure of an outline (a length, a radius, an area) with its plus-minus: from the fit and from every place that was
 * pointed, by a hand as steady as the view shows it. Typed displacements carry no doubt of their own. Where relations hold, what they say takes part. One sigma, in the figure's unit.
 */
export function measureOutline(outline: Outline, { fit, steadiness }: FittedView, figure: (shape: Shape) => number, related?: RelatedView): Measured {
  const group = related?.shapes.has(outline.id) ? related.groups.find(({ solved: { known } }) => known.has(outline.id)) : undefined;
  const [spread, solved] = [group?.spread(), group?.solved.known.get(outline.id)];
  if (spread && solved) return propagate((x) => figure(shapeOf(outlineAt(solved, spread.valuesFrom(x)), ON_PLANE)), spread.x, spread.matrix);
  const pointed = listPointedOf(outline);
  const points: SheetPoint[] = pointed.map(({ at, sigma, edge }) => ({ at, sigma: sigma * steadiness.factor, edge }));
  return measureThrough(fit, points, (map, sheet) => {
    const moved = new Map(pointed.map((place, i) => [place, sheet[i]!]));
    const varied = mapPlaces(outline, (place) => mapPointed(place, (p) => ({ ...p, at: moved.get(p) ?? p.at })));
    return figure(shapeOf(varied, { scaled: fit.scaled, toPlane: (at: Vec) => toPlane(map, at) }));
  });
}

/** Solved places are on the plane already. */
const ON_PLANE = { scaled: true, toPlane: (at: Vec) => at };

/** Every pointed place of an outline once, by identity: a place that two nodes lean on varies as one. */
function listPointedOf(outline: Outline): readonly PointedPlace[] {
  const findNode = outline.shape === 'chain' ? placingOf(outline, { scaled: true, toPlane: (p) => p }).findNode : (): Place | undefined => undefined;
  return [...new Set(placesOf(outline).flatMap((place) => listPointed(place, findNode)))];
}

export interface OutlineFigures {
  readonly length: Measured;
  readonly area: Measured | undefined;
  readonly radius: Measured | undefined;
}

/** Length along an outline, area when it is closed, radius when it is a circle. */
export function figuresOf(outline: Outline, fitted: FittedView, shape: Shape, related?: RelatedView): OutlineFigures {
  const along = (s: Shape) => s.finished.reduce((sum, piece) => sum + pieceLength(piece), 0);
  const first = shape.pieces[0];
  return {
    length: measureOutline(outline, fitted, along, related),
    area: shape.closed ? measureOutline(outline, fitted, (s) => Math.abs(enclosedArea(s.finished)), related) : undefined,
    radius: outline.shape === 'circle' && first?.kind === 'arc'
      ? measureOutline(outline, fitted, (s) => (s.pieces[0]?.kind === 'arc' ? s.pieces[0].radius : 0), related) : undefined,
  };
}
