import { add, cross, distance, dot, mix, norm, scale, subtract, type Vec } from './vec';
import { axesOf, findArcParameter, pointAt, velocityAt, type Arc, type Line, type Piece } from './piece';
import { isOverlapping, pieceBounds, type Bounds } from './measure';

/** A place that two pieces share, with its parameter on each. */
export interface Crossing {
  readonly point: Vec;
  readonly ta: number;
  readonly tb: number;
}

const END_SLACK = 1e-9;
const within = (t: number) => t >= -END_SLACK && t <= 1 + END_SLACK;

/**
 * All places where two pieces cross or touch. Pieces that lie on each other along a stretch give none: that is `overlaps`.
 * `tolerance` in the pieces' own unit decides when two found places are one. Weak: cubics that touch without crossing are
 * found to about the square root of machine precision.
 */
export function listCrossings(a: Piece, b: Piece, tolerance = 1e-7): readonly Crossing[] {
  const [boxA, boxB] = [pieceBounds(a), pieceBounds(b)];
  if (!isOverlapping(boxA, boxB, tolerance) || isPoint(boxA, tolerance) || isPoint(boxB, tolerance)) return [];
  if (a.kind === 'line' && b.kind === 'line') return crossLines(a, b);
  if (a.kind === 'line' && b.kind === 'arc') return crossLineArc(a, b, tolerance);
  if (a.kind === 'arc' && b.kind === 'line') return crossLineArc(b, a, tolerance).map(swapped);
  if (a.kind === 'arc' && b.kind === 'arc') return crossArcs(a, b, tolerance);
  return distinct(crossCurves(a, b, tolerance), tolerance);
}

/** A piece without extent crosses nothing: it is reported as too short instead. */
function isPoint({ min, max }: Bounds, tolerance: number): boolean {
  return max[0] - min[0] <= tolerance && max[1] - min[1] <= tolerance;
}

const swapped = (crossing: Crossing): Crossing => ({ point: crossing.point, ta: crossing.tb, tb: crossing.ta });

/** Where two endless lines cross, as parameters of both; undefined when they are parallel. */
export function findLineCrossing(a: Line, b: Line): Crossing | undefined {
  const [u, v] = [subtract(a.b, a.a), subtract(b.b, b.a)];
  const area = cross(u, v);
  if (Math.abs(area) <= 1e-12 * norm(u) * norm(v)) return undefined;
  const offset = subtract(b.a, a.a);
  const ta = cross(offset, v) / area;
  return { point: mix(a.a, a.b, ta), ta, tb: cross(offset, u) / area };
}

function crossLines(a: Line, b: Line): readonly Crossing[] {
  const crossing = findLineCrossing(a, b);
  return crossing && within(crossing.ta) && within(crossing.tb) ? [crossing] : [];
}

function crossLineArc(line: Line, arc: Arc, tolerance: number): readonly Crossing[] {
  const along = subtract(line.b, line.a);
  const length = norm(along);
  if (length === 0) return [];
  const offset = subtract(arc.centre, line.a);
  const foot = dot(offset, along) / length;
  const away = Math.abs(cross(along, offset)) / length;
  if (away > arc.radius + tolerance) return [];
  const half = Math.sqrt(Math.max(0, arc.radius ** 2 - away ** 2));
  const places = half <= tolerance ? [foot] : [foot - half, foot + half];
  return places.flatMap((place) => {
    const point = mix(line.a, line.b, place / length);
    const tb = arcParameterOf(arc, point, tolerance);
    return within(place / length) && tb !== undefined ? [{ point, ta: place / length, tb }] : [];
  });
}

function arcParameterOf(arc: Arc, point: Vec, tolerance: number): number | undefined {
  const direction = subtract(point, arc.centre);
  return findArcParameter(arc, Math.atan2(direction[1], direction[0]), tolerance / Math.max(arc.radius, tolerance));
}

/** From the middle of the smaller circle: the other one may be so large that all of the smaller one is rounding beside its radius. */
function crossArcs(a: Arc, b: Arc, tolerance: number): readonly Crossing[] {
  if (a.radius > b.radius) return crossArcs(b, a, tolerance).map(swapped);
  const between = subtract(b.centre, a.centre);
  const apart = norm(between);
  const concentric = apart <= tolerance * 1e-3;
  if (concentric || apart > a.radius + b.radius + tolerance || apart < Math.abs(a.radius - b.radius) - tolerance)
    return [];
  const along = (a.radius ** 2 + (apart - b.radius) * (apart + b.radius)) / (2 * apart);
  const half = Math.sqrt(Math.max(0, a.radius ** 2 - along ** 2));
  const foot = add(a.centre, scale(between, along / apart));
  const aside = scale([-between[1], between[0]], half / apart);
  const places = half <= Math.sqrt(tolerance * a.radius) * 1e-3 ? [foot] : [add(foot, aside), subtract(foot, aside)];
  return places.flatMap((point) => {
    const [ta, tb] = [arcParameterOf(a, point, tolerance), arcParameterOf(b, point, tolerance)];
    return ta !== undefined && tb !== undefined ? [{ point, ta, tb }] : [];
  });
}

interface Stretch {
  readonly piece: Piece;
  readonly from: number;
  readonly to: number;
  readonly chord: Line;
  readonly bounds: Bounds;
}

function stretch(piece: Piece, from: number, to: number): Stretch {
  const chord: Line = { kind: 'line', a: pointAt(piece, from), b: pointAt(piece, to) };
  return { piece, from, to, chord, bounds: stretchBounds(piece, from, to, chord) };
}

/** Part of a piece as a box of its control points: wide, but never too small. */
function stretchBounds(piece: Piece, from: number, to: number, { a: p, b: q }: Line): Bounds {
  const third = (to - from) / 3;
  const points: Vec[] = [p, q];
  if (piece.kind === 'cubic')
    points.push(add(p, scale(velocityAt(piece, from), third)), subtract(q, scale(velocityAt(piece, to), third)));
  if (piece.kind === 'ellipse' && Math.abs(to - from) * Math.abs(piece.sweep) > Math.PI) {
    const [u, v] = axesOf(piece);
    const reach: Vec = [Math.hypot(u[0], v[0]), Math.hypot(u[1], v[1])];
    points.push(subtract(piece.centre, reach), add(piece.centre, reach));
  } else if (piece.kind === 'ellipse') {
    // What is not more than half an ellipse lies between its chord and the chord moved out to its middle.
    const out = subtract(pointAt(piece, (from + to) / 2), mix(p, q, 0.5));
    points.push(add(p, out), add(q, out));
  }
  if (piece.kind === 'arc') {
    const middle = pointAt(piece, (from + to) / 2);
    const sagitta = distance(middle, mix(p, q, 0.5));
    points.push([middle[0] - sagitta, middle[1] - sagitta], [middle[0] + sagitta, middle[1] + sagitta]);
  }
  const xs = points.map((v) => v[0]);
  const ys = points.map((v) => v[1]);
  return { min: [Math.min(...xs), Math.min(...ys)] as const, max: [Math.max(...xs), Math.max(...ys)] as const };
}

const MAX_DEPTH = 40;
/** Below this ratio of its speeds Newton's method gets there from the middle of a stretch. */
const EVEN = 2;
/** What turns less than this is as good as straight: radians. */
const STRAIGHT = 1e-6;
/** More pairs of stretches than this meet only where pieces lie on each other. */
const MOST_PAIRS = 300;

/** How far the directions of a stretch lie from the one at its middle, radians; not small enough to say so: infinite. */
function turnOf({ piece, from, to }: Stretch): number {
  if (piece.kind === 'line') return 0;
  const [first, middle, last] = [from, (from + to) / 2, to].map((t) => velocityAt(piece, t)) as [Vec, Vec, Vec];
  // What turns all the way around ends in the direction in which it began: its middle tells.
  return isEven(first, middle) && isEven(middle, last) && isEven(first, last)
    ? 1.5 * Math.max(angleBetween(first, middle), angleBetween(middle, last))
    : Infinity;
}

function isEven(u: Vec, v: Vec): boolean {
  const [p, q] = [norm(u), norm(v)];
  return dot(u, v) > 0 && p <= EVEN * q && q <= EVEN * p;
}

const angleBetween = (u: Vec, v: Vec) => Math.atan2(Math.abs(cross(u, v)), Math.abs(dot(u, v)));
const middleVelocity = ({ piece, from, to }: Stretch) => velocityAt(piece, (from + to) / 2);

/**
 * Halves what bends more while boxes meet, until no direction of the one is a direction of the other: then they cross once at the most, and Newton's method
 * sharpens that, from as near as it needs.
 */
function crossCurves(a: Piece, b: Piece, tolerance: number): Crossing[] {
  const found: Crossing[] = [];
  let pairs: (readonly [Stretch, Stretch])[] = [[stretch(a, 0, 1), stretch(b, 0, 1)]];
  for (let depth = 0; pairs.length > 0 && pairs.length <= MOST_PAIRS; depth++) {
    const next: (readonly [Stretch, Stretch])[] = [];
    for (const [p, q] of pairs) {
      if (!isOverlapping(p.bounds, q.bounds, tolerance)) continue;
      const [turnP, turnQ] = [turnOf(p), turnOf(q)];
      const isOnce =
        turnP + turnQ < Infinity &&
        (turnP + turnQ < angleBetween(middleVelocity(p), middleVelocity(q)) || turnP + turnQ < STRAIGHT);
      const sharpened = isOnce || depth === MAX_DEPTH ? sharpen(p, q, tolerance) : undefined;
      if (sharpened) {
        if (within(sharpened.ta) && within(sharpened.tb)) found.push(sharpened);
      } else if (depth === MAX_DEPTH) continue;
      else if (turnP >= turnQ) next.push(...halves(p).map((half) => [half, q] as const));
      else next.push(...halves(q).map((half) => [p, half] as const));
    }
    pairs = next;
  }
  return found;
}

function halves({ piece, from, to }: Stretch): Stretch[] {
  const middle = (from + to) / 2;
  return [stretch(piece, from, middle), stretch(piece, middle, to)];
}

/** A share of a stretch as a parameter of its piece; its middle where there is none. */
const along = ({ from, to }: Stretch, share = 0.5): number => from + (to - from) * Math.min(1, Math.max(0, share));

/** Where two stretches cross, from where their chords do; undefined when Newton's method leaves them, which says nothing of what they do: what they are parts of may cross elsewhere, too. */
function sharpen(p: Stretch, q: Stretch, tolerance: number): Crossing | undefined {
  const met = findLineCrossing(p.chord, q.chord);
  let [ta, tb] = [along(p, met?.ta), along(q, met?.tb)];
  for (let i = 0; i < 20; i++) {
    const gap = subtract(pointAt(q.piece, tb), pointAt(p.piece, ta));
    if (gap[0] === 0 && gap[1] === 0) break;
    const [u, v] = [velocityAt(p.piece, ta), velocityAt(q.piece, tb)];
    const area = cross(u, v);
    if (Math.abs(area) < 1e-14 * norm(u) * norm(v)) break;
    ta += cross(gap, v) / area;
    tb += cross(gap, u) / area;
    if (Math.abs(ta) > 2 || Math.abs(tb) > 2) return undefined;
  }
  if (!isOn(p, ta) || !isOn(q, tb)) return undefined;
  const point = pointAt(p.piece, ta);
  return distance(point, pointAt(q.piece, tb)) <= tolerance ? { point, ta, tb } : undefined;
}

/** Where pieces touch, a place along them is known to the root of what a number can tell, and lies now in one half and now in the other. */
const BESIDE = 1e-6;
const isOn = ({ from, to }: Stretch, t: number) => t >= from - BESIDE && t <= to + BESIDE;

function distinct(crossings: readonly Crossing[], tolerance: number): Crossing[] {
  const kept: Crossing[] = [];
  for (const crossing of crossings) {
    const known = kept.some((other) => distance(other.point, crossing.point) <= 100 * tolerance);
    if (!known) kept.push(crossing);
  }
  return kept;
}
