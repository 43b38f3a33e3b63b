import {
  awayFrom,
  crossingOfLines,
  distance,
  findCircumcentre,
  lineThrough,
  signedAngle,
  type FittedLine,
  type Vec,
} from '../geometry';
import { colourAt, type ColourPicture } from './colour-picture';
import { findEdgeAcross, type FoundEdge } from './edge';

/** A place where two edges of the picture meet. Sheet px; one sigma of each coordinate. */
export interface FoundCorner {
  readonly at: Vec;
  readonly sigma: number;
}

/** The ring around a corner in which its two edges are looked for, and where they are scanned: nearer to it blur and wear round it off. px */
const [NEAREST, FARTHEST] = [3, 10];
const SCANNED = [4, 5.5, 7, 8.5, 10];
const LEAST_SEEN = 4;
/** How far it is looked across a leg: both flanks of a stroke are to be seen from either. px */
const ACROSS = 7;
/** Scans may lie off the leg's own line by this much, root mean square; curves and texture do worse. px */
const MOST_ASTRAY = 0.35;
/** Legs closer in direction than this are one edge, and so are legs that carry each other on. Radians. */
const LEAST_APART = 0.5;
/** Scans move the place that the gradients gave by less than this, px. */
const MOST_MOVED = 2.5;
/** Blur alone rounds a corner off by less than this, px. */
const MOST_CUT = 1.5;
/** Gradients below this are surface, not edge: levels of colour a pixel. */
const LEAST_SLOPE = 8;
const ROUNDS = 8;

/**
 * The corner nearest to a place within `reach` px: where two straight edges meet when they are carried on, each found by scans
 * across it; of thin strokes their middles count. Where to scan comes from the place that is nearest to all lines along which colour does not change (Förstner &
 * Gülch, A fast operator for detection and precise location of distinct points, corners and centres of circular features, 1987).
 * Undefined where there is one edge or none, and where the edge is as well one that bends: a rim, a rounded corner. Weak: edges that bend within ten pixels.
 */
export function findCorner(picture: ColourPicture, near: Vec, reach: number): FoundCorner | undefined {
  let at: Vec | undefined = near;
  for (let round = 0, step = Infinity; round < ROUNDS && step > 0.1; round++) {
    const next: Vec | undefined = meetingOf(picture, at);
    if (!next || Math.hypot(next[0] - near[0], next[1] - near[1]) > reach + 1) return undefined;
    step = Math.hypot(next[0] - at[0], next[1] - at[1]);
    at = next;
  }
  const directions = listLegs(picture, at);
  const [first, second] = directions.map((direction) => scanLeg(picture, at, direction));
  if (!first || !second) return undefined;
  const tip = crossingOfLines(first.line, second.line);
  if (
    !(distance(tip, near) <= reach) ||
    distance(tip, at) > MOST_MOVED ||
    isBend(picture, tip, directions, [first, second])
  )
    return undefined;
  return {
    at: tip,
    sigma: Math.hypot(first.sigma, second.sigma) / Math.abs(Math.sin(first.line.normal - second.line.normal)),
  };
}

/** Every pixel in the ring about a place whose colour changes, with the change squared. */
function forEachSlope(picture: ColourPicture, [x, y]: Vec, from: number, take: (away: Vec, slope: Vec) => void): void {
  for (let dy = -FARTHEST; dy <= FARTHEST; dy++) {
    for (let dx = -FARTHEST; dx <= FARTHEST; dx++) {
      const distance = Math.hypot(dx, dy);
      if (distance > FARTHEST || distance < from) continue;
      const slope = gradientAt(picture, [x + dx, y + dy]);
      if (Math.hypot(...slope) >= LEAST_SLOPE) take([dx, dy], slope);
    }
  }
}

/** The change of colour at a place, along x and y: of the channel that changes most there. Levels a pixel. */
function gradientAt(picture: ColourPicture, [x, y]: Vec): Vec {
  const [right, left, below, above] = [
    colourAt(picture, [x + 1, y]),
    colourAt(picture, [x - 1, y]),
    colourAt(picture, [x, y + 1]),
    colourAt(picture, [x, y - 1]),
  ];
  let best: Vec = [0, 0];
  for (let c = 0; c < 3; c++) {
    const slope: Vec = [(right[c]! - left[c]!) / 2, (below[c]! - above[c]!) / 2];
    if (Math.hypot(...slope) > Math.hypot(...best)) best = slope;
  }
  return best;
}

/** Where the edges about a place meet, roughly; undefined where they all run one way. */
function meetingOf(picture: ColourPicture, at: Vec): Vec | undefined {
  let [xx, xy, yy, x0, y0] = [0, 0, 0, 0, 0];
  forEachSlope(picture, at, 0, ([dx, dy], [gx, gy]) => {
    const along = gx * dx + gy * dy;
    xx += gx * gx;
    xy += gx * gy;
    yy += gy * gy;
    x0 += gx * along;
    y0 += gy * along;
  });
  const determinant = xx * yy - xy * xy;
  if (determinant < 0.02 * (xx + yy) ** 2 || determinant === 0) return undefined;
  return [at[0] + (yy * x0 - xy * y0) / determinant, at[1] + (xx * y0 - xy * x0) / determinant];
}

const BINS = 48;

/** Directions from a corner along its two strongest edges; fewer when there are fewer. Radians. */
function listLegs(picture: ColourPicture, at: Vec): number[] {
  const strength = new Float64Array(BINS);
  forEachSlope(picture, at, NEAREST, ([dx, dy], [gx, gy]) => {
    const across = Math.abs(gx * dy - gy * dx) / Math.hypot(dx, dy);
    // Only what runs towards the corner: colour changes across the way there.
    if (across < 0.85 * Math.hypot(gx, gy)) return;
    const share = ((Math.atan2(dy, dx) + 2 * Math.PI) % (2 * Math.PI)) / (2 * Math.PI);
    strength[Math.floor(share * BINS) % BINS]! += across * across;
  });
  const smooth = Array.from(
    strength,
    (value, i) => value + (strength[(i + 1) % BINS]! + strength[(i + BINS - 1) % BINS]!) / 2,
  );
  const peaks = smooth
    .map((value, i) => ({ value, angle: (2 * Math.PI * (i + 0.5)) / BINS }))
    .filter(({ value }, i) => value > 0 && value >= smooth[(i + 1) % BINS]! && value > smooth[(i + BINS - 1) % BINS]!);
  const [first, ...others] = peaks.sort((a, b) => b.value - a.value);
  // The two flanks of a stroke are near each other: what runs squarely to the first one counts more.
  const apart = ({ angle }: { readonly angle: number }) => Math.abs(Math.sin(angle - first!.angle));
  const [second] = others
    .filter((other) => apart(other) > Math.sin(LEAST_APART))
    .sort((a, b) => b.value * apart(b) - a.value * apart(a));
  return [first, second].filter((peak) => peak !== undefined).map(({ angle }) => signedAngle(angle));
}

/** Whether the edge passes the crossing of its legs by, or lies on a circle through both rather than on two lines: then it bends there. */
function isBend(
  picture: ColourPicture,
  tip: Vec,
  [one = 0, other = 0]: readonly number[],
  [first, second]: readonly [Leg, Leg],
): boolean {
  const isStroke = first.isStroke || second.isStroke;
  const inwards = Math.atan2(Math.sin(one) + Math.sin(other), Math.cos(one) + Math.cos(other));
  const between = findEdgeAcross(picture, tip, inwards, { reach: 4, beside: 0, lines: isStroke });
  if (!between) return !isStroke;
  const cut = distance(between.at, tip);
  if (cut > MOST_CUT && !isStroke) return true;
  const [a, b] = [first.seen.at(-1)!, second.seen.at(-1)!];
  const centre = findCircumcentre(a, between.at, b);
  if (!centre) return false;
  const radius = distance(centre, a);
  const offCircle = [...first.seen, ...second.seen].map((at) => distance(at, centre) - radius);
  const offLines = [first, second].flatMap(({ line, seen }) => seen.map((at) => awayFrom(line, at)));
  return sumOfSquares(offCircle) < sumOfSquares([...offLines, cut]);
}

const sumOfSquares = (values: readonly number[]) => values.reduce((sum, value) => sum + value * value, 0);

interface Leg {
  readonly line: FittedLine;
  /** Where it was scanned, from the corner outwards. */
  readonly seen: readonly Vec[];
  readonly sigma: number;
  readonly isStroke: boolean;
}

/** The line of an edge or stroke that leaves a corner, and its sigma at the corner. */
function scanLeg(picture: ColourPicture, [x, y]: Vec, direction: number): Leg | undefined {
  const edges = SCANNED.map((far) =>
    findEdgeAcross(picture, [x + far * Math.cos(direction), y + far * Math.sin(direction)], direction + Math.PI / 2, {
      reach: ACROSS,
      beside: 1,
      lines: true,
    }),
  ).filter((edge): edge is FoundEdge => edge !== undefined);
  const isStroke = edges.filter(({ kind }) => kind === 'line').length > edges.length / 2;
  // Beside the other leg a stroke may show one flank only: that is not its middle.
  const used = edges.filter(({ kind }) => (kind === 'line') === isStroke);
  if (used.length < (isStroke ? LEAST_SEEN - 1 : LEAST_SEEN)) return undefined;
  const seen = used.map(({ at }) => at);
  const line = lineThrough(seen);
  const astray = Math.sqrt(sumOfSquares(seen.map((at) => awayFrom(line, at))) / used.length);
  // Carried on from the scans to the corner, a line is twice as uncertain as among them.
  return astray < MOST_ASTRAY
    ? { line, seen, isStroke, sigma: 2 * Math.max(astray / Math.sqrt(used.length), used[0]!.sigma / Math.SQRT2) }
    : undefined;
}
