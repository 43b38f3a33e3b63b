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
const LEAST_SEEN = 0.12;
const NEAREST = 4;
/** Edge pixels that make a line. */
const LEAST_EDGES = 10;
const MOST_LINES = 44;
/** What belongs to a line: within so many px of it, and changing across it within this angle. */
const NEAR = 2;
const ALIKE = 0.2;
/** Length of a place along a line that has edges or has none, px. */
const STRETCH = 3;

/**
 * The straight lines about a place that have most edges along them: votes of edge pixels by the direction of their change and their distance from the place (Ballard, Generalizing the
 * Hough transform to detect arbitrary shapes, 1981, for lines with directions), the highest of their neighbours each, made precise by least squares.
 */
export function listLinesAround(edgels: Edgels, [x0, y0]: Vec, farthest: number): LineAround[] {
  const offsets = Math.ceil(farthest / OFFSET_STEP);
  const votes = new Float32Array(ANGLES * offsets);
  const [cos, sin] = [Float64Array.from({ length: ANGLES }, (_, a) => Math.cos((a * TURN) / ANGLES)), Float64Array.from({ length: ANGLES }, (_, a) => Math.sin((a * TURN) / ANGLES))];
  for (let e = 0; e < edgels.count; e++) {
    const [dx, dy] = [edgels.x[e]! - x0, edgels.y[e]! - y0];
    const middle = Math.round((edgels.direction[e]! / TURN) * ANGLES);
    for (let spread = -2; spread <= 2; spread++) {
      let a = (((middle + spread) % ANGLES) + ANGLES) % ANGLES;
      let offset = dx * cos[a]! + dy * sin[a]!;
      if (offset < 0) {
        a = (a + ANGLES / 2) % ANGLES;
        offset = -offset;
      }
      const bin = Math.floor(offset / OFFSET_STEP);
      if (bin < offsets) votes[a * offsets + bin]! += Math.min(1, edgels.contrast[e]! / FULL) / Math.max(NEAREST, Math.hypot(dx, dy));
    }
  }
  return listPeaks(votes, offsets).map(({ angle, offset }) => lineFrom(edgels, [x0, y0], angle, offset)).filter((line) => line !== undefined);
}

function listPeaks(votes: Float32Array, offsets: number): { readonly angle: number; readonly offset: number }[] {
  const peaks: { readonly angle: number; readonly offset: number; readonly height: number }[] = [];
  for (let a = 0; a < ANGLES; a++) {
    for (let o = 1; o < offsets - 1; o++) {
      const height = votes[a * offsets + o]!;
      if (height < LEAST_SEEN || !isHighest(votes, offsets, a, o)) continue;
      peaks.push({ angle: (a * TURN) / ANGLES, offset: (o + 0.5) * OFFSET_STEP, height });
    }
  }
  return peaks.sort((p, q) => q.height - p.height).slice(0, MOST_LINES);
}

function isHighest(votes: Float32Array, offsets: number, a: number, o: number): boolean {
  const here = votes[a * offsets + o]!;
  for (let da = -2; da <= 2; da++) {
    for (let d = -2; d <= 2; d++) {
      const other = o + d;
      if ((da === 0 && d === 0) || other < 0 || other >= offsets) continue;
      const there = votes[((a + da + ANGLES) % ANGLES) * offsets + other]!;
      if (there > here || (there === here && (da < 0 || (da === 0 && d < 0)))) return false;
    }
  }
  return true;
}

/** The line through the edges near a rough one; undefined where too few are left. */
function lineFrom(edgels: Edgels, [x0, y0]: Vec, rough: number, roughOffset: number): LineAround | undefined {
  let [normal, offset] = [rough, roughOffset];
  let along: number[] = [];
  for (const near of [2 * NEAR, NEAR, NEAR]) {
    const [c, s] = [Math.cos(normal), Math.sin(normal)];
    along = [];
    let [n, st, sd, stt, std] = [0, 0, 0, 0, 0];
    for (let e = 0; e < edgels.count; e++) {
      const [dx, dy] = [edgels.x[e]! - x0, edgels.y[e]! - y0];
      const away = dx * c + dy * s - offset;
      if (Math.abs(away) > near || Math.abs(Math.sin(edgels.direction[e]! - normal)) > ALIKE) continue;
      const t = dy * c - dx * s;
      along.push(t);
      n++; st += t; sd += away; stt += t * t; std += t * away;
    }
    const spread = n * stt - st * st;
    if (n < LEAST_EDGES || spread <= 0) return undefined;
    const slope = (n * std - st * sd) / spread;
    // The foot of the place stays where it is as the line turns about it.
    [normal, offset] = [normal - Math.atan(slope), (offset + (sd - slope * st) / n) * Math.cos(Math.atan(slope))];
  }
  return offset > 0 ? { normal, offset, seenBetween: coverage(along) } : undefined;
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
