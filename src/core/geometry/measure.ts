import { cross, distance, dot, findDirection, norm, subtract, type Vec } from './vec';
import {
  accelerationAt,
  axesOf,
  findArcParameter,
  endOf,
  pointAt,
  startOf,
  velocityAt,
  type Arc,
  type Cubic,
  type EllipticArc,
  type Piece,
} from './piece';

/** Abscissae and weights of Gauss-Legendre quadrature with 8 points on [-1, 1] (Abramowitz & Stegun, table 25.4). */
const GAUSS: readonly (readonly [number, number])[] = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
];

function lengthBetween(piece: Piece, from: number, to: number): number {
  const [half, middle] = [(to - from) / 2, (from + to) / 2];
  let sum = 0;
  for (const [x, weight] of GAUSS) {
    sum += weight * (norm(velocityAt(piece, middle - half * x)) + norm(velocityAt(piece, middle + half * x)));
  }
  return sum * half;
}

/** Length along a piece. Exact for lines and arcs; others are halved until two quadratures agree within `tolerance`. */
export function pieceLength(piece: Piece, tolerance = 1e-9): number {
  if (piece.kind === 'line') return distance(piece.a, piece.b);
  if (piece.kind === 'arc') return piece.radius * Math.abs(piece.sweep);
  const measure = (from: number, to: number, whole: number, depth: number): number => {
    const middle = (from + to) / 2;
    const [first, second] = [lengthBetween(piece, from, middle), lengthBetween(piece, middle, to)];
    if (depth === 0 || Math.abs(first + second - whole) <= tolerance * Math.max(1, whole)) return first + second;
    return measure(from, middle, first, depth - 1) + measure(middle, to, second, depth - 1);
  };
  return measure(0, 1, lengthBetween(piece, 0, 1), 12);
}

/** Twice the signed area swept from the origin by a piece (Green's theorem), exact for every kind. */
function sweptArea(piece: Piece): number {
  const [a, b] = [startOf(piece), endOf(piece)];
  if (piece.kind === 'line') return cross(a, b);
  if (piece.kind === 'arc') {
    const { centre, radius, sweep } = piece;
    return radius * radius * sweep + cross(centre, subtract(b, a));
  }
  if (piece.kind === 'ellipse') return cross(...axesOf(piece)) * piece.sweep + cross(piece.centre, subtract(b, a));
  const { b: p, c: q } = piece;
  return (6 * cross(a, p) + 3 * cross(a, q) + cross(a, b) + 3 * cross(p, q) + 3 * cross(p, b) + 6 * cross(q, b)) / 10;
}

/** Signed area inside a closed chain of pieces; counter-clockwise is positive. The chain is closed by a line if it is not. */
export function enclosedArea(pieces: readonly Piece[]): number {
  const [first, last] = [pieces[0], pieces.at(-1)];
  if (!first || !last) return 0;
  const sum = pieces.reduce((total, piece) => total + sweptArea(piece), 0);
  return (sum + cross(endOf(last), startOf(first))) / 2;
}

export interface Bounds {
  readonly min: Vec;
  readonly max: Vec;
}

/** The box around places that are taken in one after the other. */
function createBounds() {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
  return {
    take([x, y]: Vec): void {
      left = Math.min(left, x);
      low = Math.min(low, y);
      right = Math.max(right, x);
      high = Math.max(high, y);
    },
    around: (): Bounds => ({ min: [left, low], max: [right, high] }),
  };
}

function boundsOf(points: readonly Vec[]): Bounds {
  const bounds = createBounds();
  points.forEach(bounds.take);
  return bounds.around();
}

/** Parameters at which one coordinate of a cubic stands still; not all of them are finite, or on it. */
function turningParameters(cubic: Cubic, axis: 0 | 1): readonly number[] {
  const [p, q, r] = [cubic.b[axis] - cubic.a[axis], cubic.c[axis] - cubic.b[axis], cubic.d[axis] - cubic.c[axis]];
  if ((p > 0 && q > 0 && r > 0) || (p < 0 && q < 0 && r < 0)) return [];
  return quadraticRoots(p - 2 * q + r, 2 * (q - p), p);
}

/**
 * Where a·t² + b·t + c is nothing, by the pair of formulas of which neither takes like numbers from each other (Higham, Accuracy and Stability of Numerical Algorithms, 2002, section 1.8): a may be nothing, or as good as
 * that, as it is in a quadratic that is written as a cubic; then one of the roots is beyond all bounds, and the other one as exact as ever.
 */
function quadraticRoots(a: number, b: number, c: number): readonly number[] {
  const sum = -(b + Math.sign(b || 1) * Math.sqrt(b * b - 4 * a * c)) / 2;
  return [sum / a, c / sum];
}

/** Parameters in 0 to 1 at which a round piece passes an angle about its centre. */
const parametersAt = (piece: Arc | EllipticArc, angles: readonly number[]) =>
  angles.flatMap((angle) => findArcParameter(piece, angle) ?? []);

/** Parameters in 0 to 1 at which one coordinate of a piece stands still and turns back, in no order; of a round piece its ends may be among them. */
export function turningsAlong(piece: Piece, axis: 0 | 1): readonly number[] {
  if (piece.kind === 'line') return [];
  if (piece.kind === 'cubic') return turningParameters(piece, axis).filter((t) => t > 0 && t < 1);
  const [major, minor] = piece.kind === 'arc' ? [[1, 0] as const, [0, 1] as const] : axesOf(piece);
  return parametersAt(
    piece,
    [0, Math.PI].map((half) => Math.atan2(minor[axis], major[axis]) + half),
  );
}

/** Where a piece lies farthest left, right, up or down of what is around it on the piece: it runs level or upright there. Its ends are none of them. */
export const outermostOf = (piece: Piece): readonly Vec[] =>
  ([0, 1] as const).flatMap((axis) => turningsAlong(piece, axis).map((t) => pointAt(piece, t)));

/** The tight box around a piece. */
export const pieceBounds = (piece: Piece): Bounds =>
  boundsOf([startOf(piece), endOf(piece), ...(piece.kind === 'line' ? [] : outermostOf(piece))]);

/** The box around boxes; undefined around nothing. */
export function findUnion(boxes: readonly Bounds[]): Bounds | undefined {
  if (boxes.length === 0) return undefined;
  const bounds = createBounds();
  for (const { min, max } of boxes) {
    bounds.take(min);
    bounds.take(max);
  }
  return bounds.around();
}

export function isOverlapping(a: Bounds, b: Bounds, slack = 0): boolean {
  return (
    a.min[0] <= b.max[0] + slack &&
    b.min[0] <= a.max[0] + slack &&
    a.min[1] <= b.max[1] + slack &&
    b.min[1] <= a.max[1] + slack
  );
}

export interface Nearest {
  readonly point: Vec;
  readonly t: number;
  readonly distance: number;
}

/** The place on a piece that is nearest to a point. Weak: on a curve that bends back on itself within a 32nd of its run, the wrong one of two near places. */
export function nearestOn(piece: Piece, point: Vec): Nearest {
  const at = (t: number): Nearest => {
    const place = pointAt(piece, t);
    return { point: place, t, distance: distance(place, point) };
  };
  const nearer = (a: Nearest, b: Nearest) => (b.distance < a.distance ? b : a);
  if (piece.kind === 'line') {
    const along = subtract(piece.b, piece.a);
    const square = along[0] ** 2 + along[1] ** 2;
    const offset = subtract(point, piece.a);
    return at(square === 0 ? 0 : Math.min(1, Math.max(0, (offset[0] * along[0] + offset[1] * along[1]) / square)));
  }
  if (piece.kind === 'arc') {
    const direction = subtract(point, piece.centre);
    const t = findArcParameter(piece, Math.atan2(direction[1], direction[0]));
    return t !== undefined ? at(t) : nearer(at(0), at(1));
  }
  const valleys = valleysOf(Float64Array.from(SHARES, (t) => distance(pointAt(piece, t), point)));
  const feet = valleys.map((i) =>
    footBetween(piece, point, SHARES[Math.max(0, i - 1)]!, SHARES[Math.min(SAMPLES, i + 1)]!),
  );
  return [...valleys.map((i) => SHARES[i]!), ...feet].map(at).reduce(nearer);
}

/** Where a piece is nearest to a point that lies on it, or no farther from it than a reach; undefined where the point lies farther. */
export function findFoot(piece: Piece, point: Vec, reach: number): number | undefined {
  if (isBeyondReach(piece, point, reach)) return undefined;
  const foot = nearestOn(piece, point);
  return foot.distance <= reach ? foot.t : undefined;
}

/**
 * Whether a piece surely keeps farther than a reach from a point, told from few of its places: between them it cannot run faster than its longest leg allows. False where that does not tell.
 */
function isBeyondReach(piece: Piece, point: Vec, reach: number): boolean {
  const fastest = mostLengthOf(piece);
  const isBeyond = (from: number, to: number, depth: number): boolean => {
    const middle = (from + to) / 2;
    if (distance(pointAt(piece, middle), point) > reach + (fastest * (to - from)) / 2) return true;
    return depth > 0 && isBeyond(from, middle, depth - 1) && isBeyond(middle, to, depth - 1);
  };
  return isBeyond(0, 1, MOST_HALVINGS);
}

const MOST_HALVINGS = 5;

/** A piece is not longer than this, and runs nowhere faster: at once, in its unit. Exact for lines and arcs; of others it may be three times as long as they are. */
export function mostLengthOf(piece: Piece): number {
  switch (piece.kind) {
    case 'line':
      return distance(piece.a, piece.b);
    case 'cubic':
      return 3 * Math.max(distance(piece.a, piece.b), distance(piece.b, piece.c), distance(piece.c, piece.d));
    case 'arc':
      return piece.radius * Math.abs(piece.sweep);
    case 'ellipse':
      return norm(piece.major) * Math.max(1, piece.ratio) * Math.abs(piece.sweep);
  }
}

const SAMPLES = 32;
const SHARES = Array.from({ length: SAMPLES + 1 }, (_, i) => i / SAMPLES);

/** Where numbers are no larger than those beside them. */
function valleysOf(values: Float64Array): readonly number[] {
  const valleys: number[] = [];
  values.forEach((value, i) => {
    if (value <= (values[i - 1] ?? Infinity) && value <= (values[i + 1] ?? Infinity)) valleys.push(i);
  });
  return valleys;
}

/** Where the way to a point is square to a curve: Newton's method, halving wherever a step would leave the stretch. */
function footBetween(piece: Piece, point: Vec, from: number, to: number): number {
  let [low, high, t] = [from, to, (from + to) / 2];
  for (let i = 0; i < 60 && high - low > 1e-15; i++) {
    const [away, velocity] = [subtract(pointAt(piece, t), point), velocityAt(piece, t)];
    const slope = dot(away, velocity);
    if (slope > 0) high = t;
    else low = t;
    const bend = dot(velocity, velocity) + dot(away, accelerationAt(piece, t));
    const next = bend > 0 ? t - slope / bend : NaN;
    const inside = next > low && next < high;
    if (inside && Math.abs(next - t) < 1e-15) return next;
    t = inside ? next : (low + high) / 2;
  }
  return t;
}

/** The turn from one direction to another, radians in (−π, π]; undefined when one has no length. */
export function findTurn(from: Vec, to: Vec): number | undefined {
  const [a, b] = [findDirection(from), findDirection(to)];
  return a && b ? Math.atan2(cross(a, b), a[0] * b[0] + a[1] * b[1]) : undefined;
}
