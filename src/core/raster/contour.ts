import { polar, add, type Vec } from '../geometry';
import { contrastOf } from './colour-picture';
import { averageAt, type Pyramid } from './pyramid';

/** A closed line around a place, one point for each ray from it. Sheet px; good to a few hundredths of its distance. */
export interface Contour {
  readonly points: readonly Vec[];
}

const RAYS = 180;
const NEAREST = 2.5;
/** Each radius over the one before. A step along a ray then equals a step from ray to ray. */
const RATIO = 1 + (2 * Math.PI) / RAYS;
const STEEPEST = 6;
const BEND_PRICE = 0.03;
/** Levels of colour at which a step counts in full: a stronger one is not better. A sharp one of fewer is one too, as between a face and the ground in its shade. */
const FULL = 40;
const FULL_SHARP = 25;
/** How much of the way around has to be seen. */
const LEAST_SEEN = 0.5;
/** What a place farther out is worth where several are seen, from the nearest to the farthest. */
const OUTER = 0.12;
const OUTER_SHARP = 0.5;

export interface ContourOptions {
  /** Which of several lines around the place is meant: the one closest around it, or the farthest that is as clear. */
  readonly which: 'inner' | 'outer';
  /** Looks no farther than this from the place, px. */
  readonly within?: number | undefined;
  /** Whether what changes slowly, as the rim of a shadow, counts for less. */
  readonly sharp?: boolean;
}

/**
 * The line around a place at which colour steps, all around: the rim of a hole, the sides of a card. Found as
 * the best closed path over rays and distances (dynamic programming; Amini, Weymouth & Jain, Using dynamic programming for
 * solving variational problems in vision, 1990), on distances that grow by a fixed
 * share so that every size is met alike. Undefined where none is clear. Weak: only shapes all of whose rim is seen from the place.
 */
export function findContour(
  pyramid: Pyramid,
  inside: Vec,
  { which, within = Infinity, sharp = false }: ContourOptions,
): Contour | undefined {
  const { width, height } = pyramid.levels[0]!;
  const radii: number[] = [];
  for (let r = NEAREST; r < Math.min(within, Math.hypot(width, height) / 2); r *= RATIO) radii.push(r);
  if (radii.length < 3) return undefined;
  const outer = sharp ? OUTER_SHARP : OUTER;
  const { path, seen } = bestPath(
    clearnessAround(pyramid, inside, radii, sharp),
    radii.length,
    which === 'outer' ? outer : -outer,
  );
  return seen > LEAST_SEEN
    ? { points: path.map((j, a) => add(inside, polar(radii[j]!, (2 * Math.PI * a) / RAYS))) }
    : undefined;
}

/** How clearly colour changes along each ray at each radius, from 0 to 1; 0 where the picture ends. */
function clearnessAround(pyramid: Pyramid, inside: Vec, radii: readonly number[], sharp: boolean): Float32Array[] {
  return Array.from({ length: RAYS }, (_, a) => {
    const ray = polar(1, (2 * Math.PI * a) / RAYS);
    const at = (r: number): Vec => [inside[0] + r * ray[0], inside[1] + r * ray[1]];
    const seen = radii.map((r) => averageAt(pyramid, at(r), r * (RATIO - 1)));
    return Float32Array.from(radii, (r, j) => {
      const [before, after] = [seen[j - 1], seen[j + 1]];
      if (!before || !after) return 0;
      const change = contrastOf(before, after);
      return sharp && change > 0
        ? Math.min(1, change / FULL_SHARP) * sharpness(pyramid, at, [r / RATIO, r * RATIO], change)
        : Math.min(1, change / FULL);
    });
  });
}

/** An edge of a thing changes colour within so many px, or for this share; what takes longer is a shadow's rim. */
const EDGE = 4;
const SHARE = 0.7;

/** One where all the change between two radii is at one place, less the more slowly it goes. */
function sharpness(
  pyramid: Pyramid,
  at: (radius: number) => Vec,
  [from, to]: readonly [number, number],
  change: number,
): number {
  const steps = Math.round((2 * (to - from)) / EDGE);
  if (steps <= 2) return 1;
  const seen = Array.from({ length: steps + 1 }, (_, i) =>
    averageAt(pyramid, at(from + (i * (to - from)) / steps), EDGE / 2),
  );
  const steepest = seen.reduce((most, colour, i) => {
    const before = seen[i - 2];
    return colour && before ? Math.max(most, contrastOf(before, colour)) : most;
  }, 0);
  return Math.min(1, steepest / (SHARE * change)) ** 2;
}

/** The best path twice around: the second time it has forgotten where it began, and closes. */
function bestPath(
  clearness: readonly Float32Array[],
  limit: number,
  outward: number,
): { path: readonly number[]; seen: number } {
  const clear = (a: number, j: number) => clearness[a % RAYS]![j]!;
  const value = (a: number, j: number) => clear(a, j) * (1 + (outward * j) / limit);
  let sums = Float64Array.from({ length: limit }, (_, j) => value(0, j));
  const from: Int16Array[] = [];
  for (let a = 1; a < 2 * RAYS; a++) {
    const next = new Float64Array(limit);
    const back = new Int16Array(limit);
    for (let j = 0; j < limit; j++) {
      const last = Math.min(limit - 1, j + STEEPEST);
      let best = -Infinity;
      let at = j;
      for (let k = Math.max(0, j - STEEPEST); k <= last; k++) {
        const sum = sums[k]! - BEND_PRICE * Math.abs(k - j);
        if (sum <= best) continue;
        best = sum;
        at = k;
      }
      next[j] = best + value(a, j);
      back[j] = at;
    }
    sums = next;
    from.push(back);
  }
  let j = sums.indexOf(Math.max(...sums));
  const path = new Array<number>(RAYS).fill(0);
  for (let a = 2 * RAYS - 1; a >= RAYS; a--) {
    path[a - RAYS] = j;
    j = from[a - 1]![j]!;
  }
  return { path, seen: path.reduce((sum, radius, a) => sum + clear(a, radius), 0) / RAYS };
}
