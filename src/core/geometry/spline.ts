import { pointAt, velocityAt, type Cubic, type Piece } from './piece';
import { add, mix, scale, subtract, type Vec } from './vec';

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
  if (![1, 2, 3].includes(degree) || points.length < degree + 1 || knots.length !== points.length + degree + 1)
    return undefined;
  if (knots.some((knot, i) => !Number.isFinite(knot) || knot < (knots[i - 1] ?? -Infinity))) return undefined;
  // A span depends on no more than its own points and the knots about it: each is taken out by itself.
  return points.flatMap((_, i) => {
    const [from, to] = [knots[i]!, knots[i + 1]!];
    if (i < degree || !(to > from)) return [];
    let span: Spline = {
      degree,
      knots: knots.slice(i - degree, i + degree + 2),
      points: points.slice(i - degree, i + 1),
    };
    for (const knot of [from, to])
      for (let times = span.knots.filter((value) => value === knot).length; times < degree; times++)
        span = withKnot(span, knot);
    return piecesBetween(span, from, to);
  });
}

/** Cubics that stand for one piece of a weighted spline: a quarter of a circle is then off by about 1e-7 of its radius. */
const CUBICS_A_PIECE = 24;

/**
 * A spline whose points have weights, as cubics that touch it and run with it at both ends. The weighted points and the weights are
 * splines of their own; the curve is the one over the other (Piegl and Tiller, The NURBS Book, section 4.1). Weak where weights change
 * a thousandfold from point to point. Undefined as above, and for weights that are not positive.
 */
export function findPiecesOfWeighted(
  { degree, knots, points }: Spline,
  weights: readonly number[],
): readonly Cubic[] | undefined {
  if (weights.length !== points.length || !weights.every((weight) => weight > 0)) return undefined;
  const over = findPiecesOfSpline({ degree, knots, points: points.map((point, i) => scale(point, weights[i]!)) });
  const under = findPiecesOfSpline({ degree, knots, points: weights.map((weight): Vec => [weight, 0]) });
  if (!over || !under) return undefined;
  const at = (i: number, t: number) => {
    const [top, bottom] = [over[i]!, under[i]!];
    const [[weight], [change]] = [pointAt(bottom, t), velocityAt(bottom, t)];
    const place = scale(pointAt(top, t), 1 / weight);
    return { place, velocity: scale(subtract(velocityAt(top, t), scale(place, change)), 1 / weight) };
  };
  return over.flatMap((_, i) =>
    Array.from({ length: CUBICS_A_PIECE }, (__, part): Cubic => {
      const [from, to] = [at(i, part / CUBICS_A_PIECE), at(i, (part + 1) / CUBICS_A_PIECE)];
      const reach = 1 / (3 * CUBICS_A_PIECE);
      return {
        kind: 'cubic',
        a: from.place,
        b: add(from.place, scale(from.velocity, reach)),
        c: subtract(to.place, scale(to.velocity, reach)),
        d: to.place,
      };
    }),
  );
}

function withKnot({ degree, knots, points }: Spline, knot: number): Spline {
  const last = points.length - 1;
  // The span that holds it; at the very end the last one that has a length.
  let span = degree;
  while (span < last && knots[span + 1]! <= knot) span++;
  const next = points.slice(0, span - degree + 1);
  for (let i = span - degree + 1; i <= span; i++) {
    const length = knots[i + degree]! - knots[i]!;
    next.push(
      length > 0 ? mix(points[i - 1]!, points[i] ?? points[last]!, (knot - knots[i]!) / length) : points[i - 1]!,
    );
  }
  return {
    degree,
    knots: [...knots.slice(0, span + 1), knot, ...knots.slice(span + 1)],
    points: [...next, ...points.slice(span)],
  };
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
