import type { Vec } from '../geometry';
import type { Edgels } from './edgels';

/** A straight line with edges along it: where normal · place = offset, from a place that was given; the normal points away from that. */
export interface LineAround {
  readonly normal: number;
  readonly offset: number;
  /** How much of the line between two places along it (px from the foot of the given place, to the left of the normal) has edges: 0 to 1. */
  seenBetween(from: number, to: number): number;
}

const TURN = 2 * Math.PI;
const ANGLES = 180;
const OFFSET_STEP = 2;
/** Levels of colour at which an edge counts in full: a stronger one is not better. */
const FULL = 40;
/** Votes count by the angle at which they are seen from the place: sides around it fill all that is seen, whatever lines run farther off. Radians. */
const LEAST_SEEN = 0.06;
const NEAREST = 4;
/** Edge pixels that make a line. */
const LEAST_EDGES = 10;
const MOST_LINES = 140;
/** What belongs to a line: within so many px of it, and changing across it, the same way, within this angle (its cosine). */
const NEAR = 2;
const ALIKE = Math.cos(0.2);
/** Directions to each side of a line's among which what belongs to it is looked for: that angle, and as much as a line still turns. */
const AROUND = 9;
const ROUGHLY = 16;
/** Length of a place along a line that has edges or has none, px. */
const STRETCH = 3;

/**
 * The straight lines about a place that have most edges along them: votes of edge pixels by the direction of their change and their distance from the place (Ballard, Generalizing the
 * Hough transform to detect arbitrary shapes, 1981, for lines with directions), the highest of their neighbours each, made precise by least squares. What changes there and back again close by, as squared paper and grain do, comes to nothing; `apart`, each of its two rims is a
 * line, as of the thin shadow beside a light card on light paper.
 */
export function listLinesAround(
  edgels: Edgels,
  [x0, y0]: Vec,
  farthest: number,
  { apart = false }: { readonly apart?: boolean | undefined } = {},
): LineAround[] {
  const offsets = Math.ceil(farthest / OFFSET_STEP);
  const rising = new Float32Array(ANGLES * offsets);
  const falling = apart ? new Float32Array(ANGLES * offsets) : rising;
  const [cos, sin] = [
    Float64Array.from({ length: ANGLES }, (_, a) => Math.cos((a * TURN) / ANGLES)),
    Float64Array.from({ length: ANGLES }, (_, a) => Math.sin((a * TURN) / ANGLES)),
  ];
  for (let e = 0; e < edgels.count; e++) {
    const [dx, dy] = [edgels.x[e]! - x0, edgels.y[e]! - y0];
    const middle = Math.round((edgels.direction[e]! / TURN) * ANGLES);
    for (let spread = -2; spread <= 2; spread++) {
      let a = (((middle + spread) % ANGLES) + ANGLES) % ANGLES;
      let offset = dx * cos[a]! + dy * sin[a]!;
      let sign = 1;
      if (offset < 0) {
        a = (a + ANGLES / 2) % ANGLES;
        offset = -offset;
        sign = -1;
      }
      const bin = Math.floor(offset / OFFSET_STEP);
      if (bin < offsets)
        (sign > 0 ? rising : falling)[a * offsets + bin]! +=
          (sign * Math.min(1, edgels.contrast[e]! / FULL)) / Math.max(NEAREST, Math.hypot(dx, dy));
    }
  }
  const along = byDirection(edgels);
  return (apart ? [rising, falling] : [rising])
    .flatMap((votes) => listPeaks(votes, offsets))
    .sort((p, q) => Math.abs(q.height) - Math.abs(p.height))
    .slice(0, MOST_LINES)
    .map((peak) => lineFrom(edgels, along, [x0, y0], peak))
    .filter((line) => line !== undefined);
}

interface Peak {
  readonly angle: number;
  readonly offset: number;
  /** How much colour changes outwards along it, for or against the direction; lines of squared paper and grain change back again and come to nothing. */
  readonly height: number;
}

function listPeaks(votes: Float32Array, offsets: number): Peak[] {
  const peaks: Peak[] = [];
  for (let a = 0; a < ANGLES; a++) {
    for (let o = 1; o < offsets - 1; o++) {
      const height = votes[a * offsets + o]!;
      if (Math.abs(height) < LEAST_SEEN || !isHighest(votes, offsets, a, o)) continue;
      peaks.push({ angle: (a * TURN) / ANGLES, offset: (o + 0.5) * OFFSET_STEP, height });
    }
  }
  return peaks;
}

function isHighest(votes: Float32Array, offsets: number, a: number, o: number): boolean {
  const here = Math.abs(votes[a * offsets + o]!);
  for (let da = -2; da <= 2; da++) {
    for (let d = -2; d <= 2; d++) {
      const other = o + d;
      if ((da === 0 && d === 0) || other < 0 || other >= offsets) continue;
      const there = Math.abs(votes[((a + da + ANGLES) % ANGLES) * offsets + other]!);
      if (there > here || (there === here && (da < 0 || (da === 0 && d < 0)))) return false;
    }
  }
  return true;
}

/** Edge pixels by the direction in which they change. */
function byDirection({ count, direction }: Edgels): number[][] {
  const changing = Array.from({ length: ANGLES }, (): number[] => []);
  for (let e = 0; e < count; e++) changing[(Math.round((direction[e]! / TURN) * ANGLES) + ANGLES) % ANGLES]!.push(e);
  return changing;
}

/** The line through the edges near a rough one; undefined where too few are left. */
function lineFrom(
  edgels: Edgels,
  changing: readonly (readonly number[])[],
  [x0, y0]: Vec,
  peak: Peak,
): LineAround | undefined {
  let [normal, offset] = [peak.angle, peak.offset];
  const sign = Math.sign(peak.height);
  const likely = listLikely(edgels, changing, [x0, y0], peak);
  let along: number[] = [];
  for (const near of [2 * NEAR, NEAR, NEAR]) {
    const [c, s] = [Math.cos(normal), Math.sin(normal)];
    along = [];
    let [n, st, sd, stt, std] = [0, 0, 0, 0, 0];
    for (const e of likely) {
      const [dx, dy] = [edgels.x[e]! - x0, edgels.y[e]! - y0];
      const away = dx * c + dy * s - offset;
      if (Math.abs(away) > near || sign * Math.cos(edgels.direction[e]! - normal) < ALIKE) continue;
      const t = dy * c - dx * s;
      along.push(t);
      n++;
      st += t;
      sd += away;
      stt += t * t;
      std += t * away;
    }
    const spread = n * stt - st * st;
    if (n < LEAST_EDGES || spread <= 0) return undefined;
    const slope = (n * std - st * sd) / spread;
    // The foot of the place stays where it is as the line turns about it.
    [normal, offset] = [normal - Math.atan(slope), (offset + (sd - slope * st) / n) * Math.cos(Math.atan(slope))];
  }
  return offset > 0 ? { normal, offset, seenBetween: coverage(along) } : undefined;
}

/** Edge pixels that may belong to a rough line: near it, and changing about as it does. */
function listLikely(
  { x, y }: Edgels,
  changing: readonly (readonly number[])[],
  [x0, y0]: Vec,
  { angle, offset, height }: Peak,
): number[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const middle = Math.round((angle / TURN + (height < 0 ? 0.5 : 0)) * ANGLES);
  const likely: number[] = [];
  for (let turn = -AROUND; turn <= AROUND; turn++) {
    for (const e of changing[(middle + turn + 2 * ANGLES) % ANGLES]!)
      if (Math.abs((x[e]! - x0) * c + (y[e]! - y0) * s - offset) < ROUGHLY) likely.push(e);
  }
  return likely;
}

function coverage(along: readonly number[]): LineAround['seenBetween'] {
  const first = Math.min(...along);
  const count = Math.ceil((Math.max(...along) - first) / STRETCH) + 1;
  const has = new Uint8Array(count);
  for (const t of along) has[Math.floor((t - first) / STRETCH)] = 1;
  const sums = new Float64Array(count + 1);
  for (let i = 0; i < count; i++) sums[i + 1] = sums[i]! + has[i]!;
  const upTo = (t: number) => sums[Math.max(0, Math.min(count, Math.round((t - first) / STRETCH)))]!;
  return (from, to) => {
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    return Math.min(1, (upTo(high) - upTo(low)) / Math.max(1, (high - low) / STRETCH));
  };
}
