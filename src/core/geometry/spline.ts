import type { Cubic, Piece } from './piece';
import { mix, type Vec } from './vec';

/** A B-spline without weights: `knots` has as many values as there are control points, plus the degree, plus one. */
export interface Spline {
  readonly degree: number;
  readonly knots: readonly number[];
  readonly points: readonly Vec[];
}

/**
 * A spline of degree 1, 2 or 3 as lines and cubics, exactly: knots are put in until every one is as often there as the degree (Boehm,
 * Inserting new knots into B-spline curves, 1980). Undefined for higher degrees, and where knots and points do not belong together.
 */
export function findPiecesOfSpline({ degree, knots, points }: Spline): readonly Piece[] | undefined {
  if (![1, 2, 3].includes(degree) || points.length < degree + 1 || knots.length !== points.length + degree + 1) return undefined;
  if (knots.some((knot, i) => !Number.isFinite(knot) || knot < (knots[i - 1] ?? -Infinity))) return undefined;
  const [first, last] = [knots[degree]!, knots[points.length]!];
  let spline: Spline = { degree, knots, points };
  for (const knot of [...new Set(knots.filter((value) => value >= first && value <= last))]) {
    for (let times = spline.knots.filter((value) => value === knot).length; times < degree; times++) spline = withKnot(spline, knot);
  }
  return piecesBetween(spline, first, last);
}

function withKnot({ degree, knots, points }: Spline, knot: number): Spline {
  const last = points.length - 1;
  // The span that holds it; at the very end the last one that has a length.
  let span = degree;
  while (span < last && knots[span + 1]! <= knot) span++;
  const next = points.slice(0, span - degree + 1);
  for (let i = span - degree + 1; i <= span; i++) {
    const length = knots[i + degree]! - knots[i]!;
    next.push(length > 0 ? mix(points[i - 1]!, points[i] ?? points[last]!, (knot - knots[i]!) / length) : points[i - 1]!);
  }
  return { degree, knots: [...knots.slice(0, span + 1), knot, ...knots.slice(span + 1)], points: [...next, ...points.slice(span)] };
}

function piecesBetween({ degree, knots, points }: Spline, first: number, last: number): Piece[] {
  const pieces: Piece[] = [];
  for (let i = degree; i + 1 < knots.length; i++) {
    const [from, to] = [knots[i]!, knots[i + 1]!];
    if (to > from && from >= first && to <= last) pieces.push(asPiece(points.slice(i - degree, i + 1)));
  }
  return pieces;
}

/** A Bézier curve of degree 1, 2 or 3. */
function asPiece(points: readonly Vec[]): Piece {
  const [a, b, c, d] = points as readonly [Vec, Vec, Vec, Vec];
  if (points.length === 2) return { kind: 'line', a, b };
  return points.length === 3 ? quadratic(a, b, c) : { kind: 'cubic', a, b, c, d };
}

/** A quadratic Bézier curve, as the cubic that it is. */
export function quadratic(a: Vec, b: Vec, c: Vec): Cubic {
  return { kind: 'cubic', a, b: mix(a, b, 2 / 3), c: mix(c, b, 2 / 3), d: c };
}
