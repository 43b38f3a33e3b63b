import { add, cross, distance, dot, mix, perpendicular, scale, subtract, type Vec } from '../geometry';
import { colourAt, type ColourPicture } from './colour-picture';
import { firstMet, listEdgels } from './edgels';
import { listLinesAround, type LineAround } from './lines-around';
import { levelFor, type Pyramid } from './pyramid';

/** How badly corners fit what is looked for, 0 being perfectly and 1 the most that is let pass. Sheet px, around. */
export type Misfit = (corners: readonly Vec[]) => number;

/** The picture is looked at with so many pixels along its longer side. */
const COARSE = 1100;
/** Angles at which neighbouring sides may turn, radians. */
const [SHARPEST, BLUNTEST] = [0.35, 2.8];
/** Corners may be round, or covered. */
const CORNER = 0.08;
/** How much of each side, and of all of them, has to be seen. */
const LEAST_SIDE = 0.35;
const LEAST_SEEN = 0.62;
/** A side is at least so many px of the coarse picture long, and a corner at the most so far beyond its rim, as a share of its longer side. */
const SHORTEST = 16;
const BEYOND = 0.01;
/** What a misfit costs against how much is seen, and how many of the best seen are asked how well they fit. */
const MISFIT_PRICE = 0.25;
const ASKED = 1500;
/** What it is worth that colour steps alike along all sides, how alike it has to, and what twice the area is: what is printed lies within. */
const ALIKE_WORTH = 0.5;
const LEAST_ALIKE = 0.7;
const AREA_WORTH = 0.15;

/** Prints and letters between a place and the sides around it. */
const FIRST_MET = 24;

interface Side {
  readonly line: LineAround;
  /** Where it crosses the side before it and after it, along itself. */
  readonly from: number;
  readonly to: number;
}

/** Corners, sheet px, and the level of the pyramid to whose pixels they are good. */
export interface FourSided {
  readonly corners: readonly Vec[];
  readonly level: number;
}

/**
 * Corners of the four-cornered shape around a place that has most edges along its four sides and fits what is looked for: all four of them go around the place, whatever
 * is printed inside or lies over a corner. Sheet px; undefined when none is clear. Good to a pixel of the coarse picture. Weak: a shape that the picture cuts off.
 */
export function findFourSided(pyramid: Pyramid, inside: Vec, misfit: Misfit): FourSided | undefined {
  const { level, pixel } = coarse(pyramid);
  const picture = pyramid.levels[level]!;
  const place: Vec = [inside[0] / pixel, inside[1] / pixel];
  const edgels = firstMet(listEdgels(picture), place, FIRST_MET);
  const lines = listLinesAround(edgels, place, Math.hypot(picture.width, picture.height)).sort((a, b) => wrapped(a.normal) - wrapped(b.normal));
  const margin = BEYOND * Math.max(picture.width, picture.height);
  const isInPicture = ([x, y]: Vec) => x > -margin && y > -margin && x < picture.width + margin && y < picture.height + margin;
  const found: { readonly corners: Vec[]; readonly seen: number }[] = [];
  forEachFour(lines, (four) => {
    const shape = shapeOf(four, place);
    if (shape && shape.corners.every(isInPicture)) found.push(shape);
  });
  const judged = found.sort((a, b) => b.seen - a.seen).slice(0, ASKED).flatMap(({ corners, seen }) => {
    const alike = howAlike(picture, corners);
    const sheet = corners.map(([x, y]): Vec => [x * pixel, y * pixel]);
    const off = alike > LEAST_ALIKE ? misfit(sheet) : Infinity;
    return off <= 1 ? [{ sheet, worth: seen - MISFIT_PRICE * off + ALIKE_WORTH * alike + AREA_WORTH * Math.log2(areaOf(corners)) }] : [];
  });
  const best = judged.reduce<(typeof judged)[number] | undefined>((top, one) => (top && top.worth >= one.worth ? top : one), undefined);
  return best && { corners: best.sheet, level };
}

/** Whether colour steps in the same way along all four sides of a shape, as it does from one thing to its ground. Sheet px. */
export function isOneThing(pyramid: Pyramid, corners: readonly Vec[]): boolean {
  const { level, pixel } = coarse(pyramid);
  return howAlike(pyramid.levels[level]!, corners.map(([x, y]): Vec => [x / pixel, y / pixel])) > LEAST_ALIKE;
}

/** The level that is looked at, and how many sheet px its pixels have. */
function coarse(pyramid: Pyramid): { readonly level: number; readonly pixel: number } {
  const full = pyramid.levels[0]!;
  const level = levelFor(pyramid, Math.max(full.width, full.height) / COARSE + 0.5);
  return { level, pixel: 2 ** level };
}

/** Places along a side at which colours to both sides of it are compared, how far from it (px of the coarse picture), and the least step between them. */
const SAMPLES = 12;
const ASIDE = 3.5;
const LEAST_STEP = 10;
/** A side whose step is so many times another's is the border of a print, and no side. */
const UNLIKE_STEPS = 4;

/**
 * Whether colour steps from a thing to its ground in the same way along all four sides: the cosine between the step of that side which differs most and their mean. −1 where some side has no step: lines of
 * squared paper have the same to both sides, and a print steps from its own colour on one side and from the card's on another.
 */
function howAlike(picture: ColourPicture, corners: readonly Vec[]): number {
  const middle = scale(corners.reduce(add), 0.25);
  const steps = corners.map((from, i) => {
    const to = corners[(i + 1) % 4]!;
    const across = scale(perpendicular(subtract(to, from)), ASIDE / distance(from, to));
    const outward = dot(across, subtract(from, middle)) < 0 ? scale(across, -1) : across;
    const sums = [0, 0, 0];
    for (let k = 0; k < SAMPLES; k++) {
      const at = mix(from, to, CORNER + ((1 - 2 * CORNER) * k) / (SAMPLES - 1));
      const [inner, outer] = [colourAt(picture, subtract(at, outward)), colourAt(picture, add(at, outward))];
      sums.forEach((_, c) => (sums[c]! += (outer[c]! - inner[c]!) / SAMPLES));
    }
    return sums;
  });
  const sizes = steps.map((step) => Math.hypot(...step));
  if (Math.max(...sizes) > UNLIKE_STEPS * Math.min(...sizes)) return -1;
  const mean = [0, 1, 2].map((c) => steps.reduce((sum, step) => sum + step[c]!, 0));
  const alike = steps.map((step) => (Math.hypot(...step) < LEAST_STEP ? -1 : step.reduce((sum, value, c) => sum + value * mean[c]!, 0) / (Math.hypot(...step) * Math.hypot(...mean))));
  return Math.min(...alike);
}

function areaOf([a, b, c, d]: readonly Vec[]): number {
  return Math.abs(cross(subtract(c!, a!), subtract(d!, b!))) / 2;
}

const wrapped = (angle: number) => ((angle % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);

/** All fours of lines, in turn around, whose neighbours turn as corners do. */
function forEachFour(lines: readonly LineAround[], visit: (four: readonly LineAround[]) => void): void {
  const turns = (a: LineAround, b: LineAround) => {
    const turn = wrapped(b.normal - a.normal);
    return turn > SHARPEST && turn < BLUNTEST;
  };
  lines.forEach((a, i) => lines.forEach((b, j) => {
    if (j <= i || !turns(a, b)) return;
    lines.forEach((c, k) => {
      if (k <= j || !turns(b, c)) return;
      lines.forEach((d, l) => {
        if (l > k && turns(c, d) && turns(d, a)) visit([a, b, c, d]);
      });
    });
  }));
}

function shapeOf(four: readonly LineAround[], place: Vec): { readonly corners: Vec[]; readonly seen: number } | undefined {
  const sides = four.map((line, i): Side => ({ line, from: alongAt(line, four[(i + 3) % 4]!), to: alongAt(line, four[(i + 1) % 4]!) }));
  let whole = 0;
  let seen = 0;
  for (const { line, from, to } of sides) {
    const length = to - from;
    if (!(length > SHORTEST)) return undefined;
    const share = line.seenBetween(from + CORNER * length, to - CORNER * length);
    if (share < LEAST_SIDE) return undefined;
    whole += length;
    seen += share * length;
  }
  if (seen < LEAST_SEEN * whole) return undefined;
  const corners = sides.map(({ line: { normal, offset }, from }): Vec => [place[0] + offset * Math.cos(normal) - from * Math.sin(normal), place[1] + offset * Math.sin(normal) + from * Math.cos(normal)]);
  return corners.some((corner, i) => distance(corner, corners[(i + 1) % 4]!) < SHORTEST) ? undefined : { corners, seen: seen / whole };
}

/** Where another line crosses a line, along it. */
function alongAt(line: LineAround, other: LineAround): number {
  const turn = other.normal - line.normal;
  return (other.offset - line.offset * Math.cos(turn)) / Math.sin(turn);
}
