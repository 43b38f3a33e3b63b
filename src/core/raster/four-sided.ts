import { add, cross, distance, dot, mix, perpendicular, scale, subtract, type Vec } from '../geometry';
import { readColour, type ColourPicture } from './colour-picture';
import { edgelsWithin, firstMet, listEdgels } from './edgels';
import { listLinesAround, type LineAround } from './lines-around';
import { levelToOverlook, type Pyramid } from './pyramid';

/** How badly corners fit what is looked for, 0 being perfectly and 1 the most that is let pass. Sheet px, around. */
export type Misfit = (corners: readonly Vec[]) => number;

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
const AREA_WORTH = 0.5;
/** What it costs that along one side neither the thing nor its ground looks as it does along another, and by how many levels of colour it surely does not. */
const STRANGE_PRICE = 0.5;
const STRANGE = 64;

/** Shapes whose corners lie nearer to each other than this, px of the coarse picture, are one; and how many are offered at the most. */
const SAME = 4;
const OFFERED = 12;

/** Prints and letters between a place and the sides around it. */
const FIRST_MET = 24;
/** What lies inside a shape lies so far inside its sides, px of the coarse picture. */
const INSIDE = 4;

/** Among which edges four sides are looked for. */
export interface SidesSought {
  /** Each rim of a thin shadow, a line or a grain is an edge by itself. */
  readonly apart?: boolean | undefined;
  /** Only what lies inside these four corners, in the frame of the place. */
  readonly within?: readonly Vec[] | undefined;
}

interface Side {
  readonly line: LineAround;
  /** Where it crosses the side before it, along itself, how far it goes to the side after it, and the share of that which has edges. */
  readonly from: number;
  readonly length: number;
  readonly share: number;
}

/** Corners, sheet px, and the level of the pyramid to whose pixels they are good. */
export interface FourSided {
  readonly corners: readonly Vec[];
  readonly level: number;
}

/**
 * Corners of the four-cornered shapes around a place that have most edges along their four sides and fit what is looked for, likeliest first: all four sides go around the place, whatever
 * is printed inside or lies over a corner. Sheet px, good to a pixel of the coarse picture; none when nothing is clear. Weak: a shape that the picture cuts off.
 */
export function listFourSided(
  pyramid: Pyramid,
  inside: Vec,
  misfit: Misfit,
  { apart, within }: SidesSought = {},
): FourSided[] {
  const { level, pixel } = levelToOverlook(pyramid);
  const picture = pyramid.levels[level]!;
  const place: Vec = [inside[0] / pixel, inside[1] / pixel];
  const lines = linesAbout(picture, place, { apart, within: within?.map((corner) => scale(corner, 1 / pixel)) });
  const margin = BEYOND * Math.max(picture.width, picture.height);
  const isInPicture = ([x, y]: Vec) =>
    x > -margin && y > -margin && x < picture.width + margin && y < picture.height + margin;
  const found: { readonly corners: Vec[]; readonly seen: number }[] = [];
  forEachFour(lines, (four) => {
    const shape = shapeOf(four, place);
    if (shape && shape.corners.every(isInPicture)) found.push(shape);
  });
  const judged = found
    .sort((a, b) => b.seen - a.seen)
    .slice(0, ASKED)
    .flatMap(({ corners, seen }) => {
      const beside = colourBeside(picture, corners);
      const alike = howAlike(beside);
      const sheet = corners.map(([x, y]): Vec => [x * pixel, y * pixel]);
      const off = alike > LEAST_ALIKE ? misfit(sheet) : Infinity;
      if (off > 1) return [];
      const looks = ALIKE_WORTH * alike - STRANGE_PRICE * strangest(beside);
      return [{ sheet, worth: seen - MISFIT_PRICE * off + looks + AREA_WORTH * Math.log2(areaOf(corners)) }];
    });
  const ranked = judged.sort((a, b) => b.worth - a.worth);
  const isNew = (corners: readonly Vec[], before: readonly FourSided[]) =>
    before.every((other) => corners.some((corner) => other.corners.every((at) => distance(at, corner) > SAME * pixel)));
  return ranked.reduce<FourSided[]>(
    (kept, { sheet }) => (kept.length < OFFERED && isNew(sheet, kept) ? [...kept, { corners: sheet, level }] : kept),
    [],
  );
}

/** The lines about a place, in turn around it; all in pixels of the picture. */
function linesAbout(picture: ColourPicture, place: Vec, { apart, within }: SidesSought): LineAround[] {
  const all = listEdgels(picture);
  const edgels = firstMet(within ? edgelsWithin(all, within, INSIDE) : all, place, FIRST_MET);
  return listLinesAround(edgels, place, Math.hypot(picture.width, picture.height), { apart }).sort(
    (a, b) => wrapped(a.normal) - wrapped(b.normal),
  );
}

/** Whether colour steps in the same way along all four sides of a shape, as it does from one thing to its ground. Sheet px. */
export function isOneThing(pyramid: Pyramid, corners: readonly Vec[]): boolean {
  const { level, pixel } = levelToOverlook(pyramid);
  return (
    howAlike(
      colourBeside(
        pyramid.levels[level]!,
        corners.map(([x, y]): Vec => [x / pixel, y / pixel]),
      ),
    ) > LEAST_ALIKE
  );
}

/** Places along a side at which colours to both sides of it are compared, how far from it (px of the coarse picture), and the least step between them. */
const SAMPLES = 12;
const ASIDE = 3.5;
/** A shadow beside a thing reaches about so many times as far: its ground is the brightest of what lies there. */
const OUT_OF_SHADOW = [1, 2, 3.5];
const LEAST_STEP = 10;
/** A side whose step is so many times another's is the border of a print, and no side. */
const UNLIKE_STEPS = 4;

/** The colours to both sides of a side: of the thing, and of its ground beyond a shadow. */
interface Beside {
  readonly inner: readonly number[];
  readonly outer: readonly number[];
}

function colourBeside(picture: ColourPicture, corners: readonly Vec[]): Beside[] {
  const middle = scale(corners.reduce(add), 0.25);
  return corners.map((from, i) => {
    const to = corners[(i + 1) % 4]!;
    const across = scale(perpendicular(subtract(to, from)), ASIDE / distance(from, to));
    const outward = dot(across, subtract(from, middle)) < 0 ? scale(across, -1) : across;
    const grounds = OUT_OF_SHADOW.map((times) => averageAlong(picture, from, to, scale(outward, times)));
    return {
      inner: averageAlong(picture, from, to, scale(outward, -1)),
      outer: grounds.reduce((best, ground) => (brightnessOf(ground) > brightnessOf(best) ? ground : best)),
    };
  });
}

/**
 * Whether colour steps from a thing to its ground in the same way along all four sides: the cosine between the step of that side which differs most and their mean. −1 where some side has no step: lines of
 * squared paper have the same to both sides, and a print steps from its own colour on one side and from the card's on another.
 */
function howAlike(beside: readonly Beside[]): number {
  const steps = beside.map(({ inner, outer }) => outer.map((value, c) => value - inner[c]!));
  const sizes = steps.map((step) => Math.hypot(...step));
  if (Math.max(...sizes) > UNLIKE_STEPS * Math.min(...sizes)) return -1;
  const mean = [0, 1, 2].map((c) => steps.reduce((sum, step) => sum + step[c]!, 0));
  const alike = steps.map((step) =>
    Math.hypot(...step) < LEAST_STEP
      ? -1
      : step.reduce((sum, value, c) => sum + value * mean[c]!, 0) / (Math.hypot(...step) * Math.hypot(...mean)),
  );
  return Math.min(...alike);
}

/** How little the side that is most by itself looks like any other, on the thing and on its ground: 0 to 1. A streak of the table's steps as a card does, and is wood on both sides. */
function strangest(beside: readonly Beside[]): number {
  const apart = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((value, c) => value - b[c]!));
  const toNext = (i: number, of: keyof Beside) =>
    Math.min(...beside.map((side, j) => (i === j ? Infinity : apart(side[of], beside[i]![of]))));
  const strangeness = beside.map((_, i) => Math.min(toNext(i, 'inner'), toNext(i, 'outer')) / STRANGE);
  return Math.min(1, Math.max(...strangeness));
}

/** The colour beside a side, its corners left out. */
function averageAlong(picture: ColourPicture, from: Vec, to: Vec, beside: Vec): readonly number[] {
  const [sums, colour] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (let k = 0; k < SAMPLES; k++) {
    const at = mix(from, to, CORNER + ((1 - 2 * CORNER) * k) / (SAMPLES - 1));
    readColour(picture, at[0] + beside[0], at[1] + beside[1], colour);
    for (let c = 0; c < 3; c++) sums[c]! += colour[c]! / SAMPLES;
  }
  return sums;
}

const brightnessOf = (colour: readonly number[]) => colour.reduce((sum, value) => sum + value, 0);

function areaOf([a, b, c, d]: readonly Vec[]): number {
  return Math.abs(cross(subtract(c!, a!), subtract(d!, b!))) / 2;
}

const wrapped = (angle: number) => ((angle % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);

/** All fours of lines, in turn around, whose neighbours turn as corners do and of which each is seen between its neighbours. */
function forEachFour(lines: readonly LineAround[], visit: (four: readonly [Side, Side, Side, Side]) => void): void {
  const turns = lines.map((a) =>
    lines.map((b) => {
      const turn = wrapped(b.normal - a.normal);
      return turn > SHARPEST && turn < BLUNTEST;
    }),
  );
  const crossings = lines.map((a) => lines.map((b) => alongAt(a, b)));
  const between = (before: number, i: number, after: number) =>
    sideOf(lines[i]!, crossings[i]![before]!, crossings[i]![after]!);
  for (let j = 1; j < lines.length; j++) {
    for (let k = j + 1; k < lines.length; k++) {
      if (!turns[j]![k]) continue;
      // What lies between three lines is looked at once, and not for every fourth one.
      const before = lines.slice(0, j).flatMap((_, i) => {
        const second = turns[i]![j] ? between(i, j, k) : undefined;
        return second ? [{ i, second }] : [];
      });
      for (let l = k + 1; l < lines.length && before.length > 0; l++) {
        const third = turns[k]![l] ? between(j, k, l) : undefined;
        if (!third) continue;
        for (const { i, second } of before) {
          const fourth = turns[l]![i] ? between(k, l, i) : undefined;
          const first = fourth && between(l, i, j);
          if (first) visit([first, second, third, fourth]);
        }
      }
    }
  }
}

/** A line between its neighbours, where it is long enough and seen; undefined where it is not. */
function sideOf(line: LineAround, from: number, to: number): Side | undefined {
  const length = to - from;
  if (!(length > SHORTEST)) return undefined;
  const share = line.seenBetween(from + CORNER * length, to - CORNER * length);
  return share < LEAST_SIDE ? undefined : { line, from, length, share };
}

function shapeOf(sides: readonly Side[], place: Vec): { readonly corners: Vec[]; readonly seen: number } | undefined {
  const whole = sides.reduce((sum, { length }) => sum + length, 0);
  const seen = sides.reduce((sum, { share, length }) => sum + share * length, 0);
  if (seen < LEAST_SEEN * whole) return undefined;
  return {
    corners: sides.map(({ line: { normal, offset }, from }): Vec => [
      place[0] + offset * Math.cos(normal) - from * Math.sin(normal),
      place[1] + offset * Math.sin(normal) + from * Math.cos(normal),
    ]),
    seen: seen / whole,
  };
}

/** Where another line crosses a line, along it. */
function alongAt(line: LineAround, other: LineAround): number {
  const turn = other.normal - line.normal;
  return (other.offset - line.offset * Math.cos(turn)) / Math.sin(turn);
}
