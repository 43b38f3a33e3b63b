import {
  add,
  distance,
  dot,
  norm,
  partOf,
  pointAt,
  accelerationAt,
  scale,
  subtract,
  tangentAt,
  velocityAt,
  type Cubic,
  type Piece,
  type Vec,
} from '../geometry';

/** The place beside a piece: `by` to its right, seen along it. */
export function besideAt(piece: Piece, t: number, by: number): Vec {
  const [[x, y], [along, up]] = [pointAt(piece, t), tangentAt(piece, t)];
  return [x + up * by, y - along * by];
}

/**
 * The curve beside a stretch of a piece as cubics that keep to the distance within `tolerance`: one, or two of which each is half of it, else as few as a search finds. The pace has to be above nothing between
 * its ends. Each cubic leaves and arrives in the piece's direction, its handles by least squares.
 */
export function cubicsBeside(piece: Piece, by: number, from: number, to: number, tolerance: number): readonly Cubic[] {
  const findBetween = (start: number, end: number): Cubic | undefined => {
    const cubic = fitted(piece, by, start, end);
    return end - start <= FINEST || isBeside(cubic, piece, by, start, end, tolerance) ? cubic : undefined;
  };
  const cubics: Cubic[] = [];
  for (let at = from; at < to;) {
    const whole = findBetween(at, to);
    if (whole) return [...cubics, whole];
    const middle = (at + to) / 2;
    const half = findBetween(at, middle);
    const other = half && findBetween(middle, to);
    if (half && other) return [...cubics, half, other];
    const longest = half ? longestBetween(findBetween, at, [middle, half], to) : firstWithin(findBetween, at, middle);
    at = longest[0];
    cubics.push(longest[1]);
  }
  return cubics;
}

/** A stretch is not cut finer than this share of its piece. */
const FINEST = 1 / 4096;
/** Halvings in which the longest cubic is sought. */
const HALVINGS = 5;

/** Where a cubic ends, and the cubic. */
type Until = readonly [number, Cubic];
type FindBetween = (start: number, end: number) => Cubic | undefined;

/** The longest that keeps to the distance, from one that does towards an end that is too far. */
function longestBetween(findBetween: FindBetween, from: number, known: Until, tooFar: number): Until {
  let [best, high] = [known, tooFar];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (best[0] + high) / 2;
    const cubic = findBetween(from, middle);
    if (cubic) best = [middle, cubic];
    else high = middle;
  }
  return best;
}

/** The same where none is known yet: nearer and nearer, until one does. */
function firstWithin(findBetween: FindBetween, from: number, tooFar: number): Until {
  const middle = (from + tooFar) / 2;
  const cubic = findBetween(from, middle);
  return cubic ? longestBetween(findBetween, from, [middle, cubic], tooFar) : firstWithin(findBetween, from, middle);
}

const SAMPLES = 7;
const ROUNDS = 3;

/** Handles so long that the cubic passes the offset's places as near as it can; where along it each is nearest is worked out anew in every round (Schneider 1990). */
function fitted(piece: Piece, by: number, from: number, to: number): Cubic {
  const [a, d] = [besideAt(piece, from, by), besideAt(piece, to, by)];
  const [leave, arrive] = [tangentAt(piece, from), tangentAt(piece, to)];
  const targets = Array.from({ length: SAMPLES }, (_, i) =>
    besideAt(piece, from + ((i + 1) / (SAMPLES + 1)) * (to - from), by),
  );
  let places = targets.map((_, i) => (i + 1) / (SAMPLES + 1));
  let cubic = withHandles(a, d, leave, arrive, distance(a, d) / 3, distance(a, d) / 3);
  for (let round = 0; round < ROUNDS; round++) {
    const [out, back] = handleLengths(a, d, leave, arrive, targets, places) ?? [distance(a, d) / 3, distance(a, d) / 3];
    cubic = withHandles(a, d, leave, arrive, out, back);
    if (round < ROUNDS - 1) places = places.map((u, i) => nearer(cubic, targets[i]!, u));
  }
  return cubic;
}

const withHandles = (a: Vec, d: Vec, leave: Vec, arrive: Vec, out: number, back: number): Cubic => ({
  kind: 'cubic',
  a,
  b: add(a, scale(leave, out)),
  c: subtract(d, scale(arrive, back)),
  d,
});

const AXES = [0, 1] as const;

function handleLengths(
  a: Vec,
  d: Vec,
  leave: Vec,
  arrive: Vec,
  targets: readonly Vec[],
  places: readonly number[],
): readonly [number, number] | undefined {
  let [pp, pq, qq, p, q] = [0, 0, 0, 0, 0];
  places.forEach((u, i) => {
    const v = 1 - u;
    const [b1, b2] = [3 * v * v * u, 3 * v * u * u];
    const [ofStart, ofEnd] = [v * v * v + b1, u * u * u + b2];
    for (const axis of AXES) {
      const [out, back] = [b1 * leave[axis], -b2 * arrive[axis]];
      const rest = targets[i]![axis] - (ofStart * a[axis] + ofEnd * d[axis]);
      pp += out * out;
      pq += out * back;
      qq += back * back;
      p += out * rest;
      q += back * rest;
    }
  });
  const determinant = pp * qq - pq * pq;
  if (!(Math.abs(determinant) > 1e-12 * pp * qq)) return undefined;
  const [out, back] = [(p * qq - q * pq) / determinant, (q * pp - p * pq) / determinant];
  return out > 0 && back > 0 ? [out, back] : undefined;
}

/** One step of Newton's method towards the foot of a place. */
function nearer(piece: Piece, place: Vec, t: number): number {
  const [away, velocity] = [subtract(pointAt(piece, t), place), velocityAt(piece, t)];
  const bend = dot(velocity, velocity) + dot(away, accelerationAt(piece, t));
  return bend > 0 ? Math.min(1, Math.max(0, t - dot(away, velocity) / bend)) : t;
}

/** The foot of a place by Newton's method, from near it. */
function footFrom(piece: Piece, place: Vec, near: number): number {
  let t = near;
  for (let round = 0; round < MOST_STEPS; round++) {
    const before = t;
    t = nearer(piece, place, before);
    if (Math.abs(t - before) < AS_GOOD_AS_THERE) break;
  }
  return t;
}

const MOST_STEPS = 4;
/** The step after so short a one is shorter than what can be told. */
const AS_GOOD_AS_THERE = 1e-7;

const CHECKED = 15;
const MIDDLE = (CHECKED + 1) / 2;

/** Whether a cubic lies as far from a stretch of the piece as it should. */
function isBeside(cubic: Cubic, piece: Piece, by: number, from: number, to: number, tolerance: number): boolean {
  const stretch = partOf(piece, from, to);
  for (let i = 1; i <= CHECKED; i++) {
    // From the middle outwards: there it strays first.
    const share = (i % 2 === 0 ? MIDDLE - i / 2 : MIDDLE + (i - 1) / 2) / (CHECKED + 1);
    const place = pointAt(cubic, share);
    const t = footFrom(stretch, place, share);
    if (!(Math.abs(norm(subtract(place, pointAt(stretch, t))) - Math.abs(by)) <= tolerance)) return false;
  }
  return true;
}
