import { median } from '../basics';
import { add, cross, crossingOfLines, distance, lineThrough, mix, polar, scale, subtract, type Vec } from '../geometry';
import { LEAST_ASKEW, liesAskew } from './askew';
import { findContour } from './contour';
import { findEdgeAcross, type FoundEdge } from './edge';
import { findFirstAcross, type FirstEdge } from './first-across';
import { isOneThing, listFourSided, type FourSided, type Misfit } from './four-sided';
import { levelFor, type Pyramid } from './pyramid';
import { middlesOf } from './stretches';

/** Places along each of the four sides of a card-like thing, around it, as many on each; side 1 is one of the two longer ones. Sheet px. */
export type Sides = readonly (readonly FoundEdge[])[];

const SCANS = 28;
/** How many places are kept of a side: enough to see a bowed lens bend it. */
const PLACES = 5;
/** The part of a side that is scanned: corners may be round. */
const [FROM, TO] = [0.14, 0.86];
const LEAST_SEEN = 0.5;
const REACH = 4;
const WITHIN = 3;
const ROUGH = 0.08;

/** A side that is softer than the sharpest one of a thing ends in a shade, by its edge or beyond: so much of what it is softer by, one sigma. */
const SOFT = 0.7;

/** What comes out has to fit better than what was looked at coarsely. */
const PRECISE = 0.45;
const ANYTHING: Misfit = () => 0;

/**
 * The four straight sides around a place on a card, a sheet, a plate: the largest four-cornered shape in the contour around it, or else the four lines around it with most edges along them;
 * made precise from coarse to fine by scans across the sides. Undefined when there is none, a side is not
 * straight for most of its length, or what comes out does not fit what is looked for (`misfit`) or is not one thing on one ground. Weak: a card that is cut off by the picture, and prints or grain with more edges than its sides.
 */
export function findSides(pyramid: Pyramid, inside: Vec, misfit?: Misfit): Sides | undefined {
  const contour = sidesInContour(pyramid, inside, misfit ?? ANYTHING);
  if (!misfit) return contour;
  const among = (shapes: readonly FourSided[]) =>
    firstOf(shapes, ({ corners, level }) => sidesAt(pyramid, inside, corners, level, misfit));
  const around =
    among(listFourSided(pyramid, inside, misfit)) ??
    (contour ? undefined : among(listFourSided(pyramid, inside, misfit, { apart: true })));
  // What is printed on a thing has a contour too: the larger one is the thing, but for a thing that was laid on it.
  const largest = contour && around ? [contour, around].sort((a, b) => spanOf(b) - spanOf(a))[0] : (contour ?? around);
  return largest && (laidOn(pyramid, inside, largest, misfit) ?? largest);
}

/** What is four-sided as well, fits as well and lies askew on a thing that was found: a card on what is seen of a sheet of a card's proportion. */
function laidOn(pyramid: Pyramid, inside: Vec, thing: Sides, misfit: Misfit): Sides | undefined {
  const on = cornersOf(thing);
  const shapes = listFourSided(pyramid, inside, misfit, { apart: true, within: on });
  // Of what is printed on a thing most is seen to run along it before anything is made precise.
  const perhaps = shapes.filter(({ corners }) => liesAskew(corners, on, LEAST_ASKEW / 2));
  return firstOf(perhaps, ({ corners, level }) => {
    const sides = sidesAt(pyramid, inside, corners, level, misfit);
    return sides && liesAskew(cornersOf(sides), on) ? sides : undefined;
  });
}

function cornersOf(sides: Sides): Vec[] {
  const lines = sides.map((side) => lineThrough(side.map(({ at }) => at)));
  return lines.map((line, i) => crossingOfLines(lines[(i + 3) % 4]!, line));
}

function firstOf<Item, Found>(items: readonly Item[], find: (item: Item) => Found | undefined): Found | undefined {
  for (const item of items) {
    const found = find(item);
    if (found) return found;
  }
  return undefined;
}

const spanOf = (sides: Sides) =>
  sides.reduce((sum, side, i) => sum + distance(side[0]!.at, sides[(i + 2) % 4]![0]!.at), 0);

function sidesInContour(pyramid: Pyramid, inside: Vec, misfit: Misfit): Sides | undefined {
  const contour = findContour(pyramid, inside, { which: 'outer' });
  if (!contour) return undefined;
  const corners = onContour(contour.points, largestQuadrilateral(contour.points));
  return sidesAt(
    pyramid,
    inside,
    corners,
    levelFor(pyramid, ROUGH * Math.max(...corners.map((corner) => distance(corner, inside)))),
    misfit,
  );
}

/** Sides made precise from a level of the pyramid downwards. */
function sidesAt(
  pyramid: Pyramid,
  inside: Vec,
  rough: readonly Vec[],
  coarsest: number,
  misfit: Misfit,
): Sides | undefined {
  let corners = rough;
  let found: ScannedSide[] = [];
  for (const pass of passesFrom(coarsest)) {
    const sides = corners.map((corner, i) => scanSide(pyramid, corner, corners[(i + 1) % 4]!, pass, inside));
    if (!sides.every((side) => side !== undefined)) return undefined;
    found = sides;
    corners = found.map((side, i) => crossing(found[(i + 3) % 4]!, side));
    if (!corners.every((corner) => corner.every(Number.isFinite)) || misfit(corners) > 1) return undefined;
  }
  if (
    found.some(({ edges }) => edges.length < LEAST_SEEN * SCANS) ||
    !isAround(corners, inside) ||
    misfit(corners) > PRECISE ||
    (misfit !== ANYTHING && !isOneThing(pyramid, corners))
  )
    return undefined;
  const lengths = corners.map((corner, i) => distance(corner, corners[(i + 1) % 4]!));
  const first = lengths[0]! + lengths[2]! >= lengths[1]! + lengths[3]! ? 0 : 1;
  const sides = listPlaces(found);
  return [...sides.slice(first), ...sides.slice(0, first)];
}

/** The places that are kept of each side, less sure of a side the softer it is beside the sharpest. */
function listPlaces(found: readonly ScannedSide[]): Sides {
  const softness = found.map(({ edges }) => median(edges.map(({ blur }) => blur)));
  const sharpest = Math.min(...softness);
  return found.map(({ edges }, i) => {
    const soft = SOFT * Math.sqrt(softness[i]! ** 2 - sharpest ** 2);
    return middlesOf(
      edges.map((edge) => ({ ...edge, sigma: Math.hypot(edge.sigma, soft) })),
      PLACES,
    );
  });
}

/** One look along all four sides: at a level of the pyramid, how far to both sides of what was found so far, or of a place so far within it. Pixels of the level. */
interface Pass {
  readonly level: number;
  readonly reach: number;
  readonly within: number;
}

/** From coarse to fine; in full from a little within, since shadows lie outside a thing: the first edge that is met is its own. */
function passesFrom(coarsest: number): readonly Pass[] {
  const coarse = Array.from({ length: coarsest }, (_, i): Pass => ({ level: coarsest - i, reach: REACH, within: 0 }));
  return [
    ...coarse,
    { level: 0, reach: 2 * REACH, within: 0 },
    { level: 0, reach: REACH, within: WITHIN },
    { level: 0, reach: REACH, within: WITHIN },
  ];
}

/** Whether a place lies within corners that run around it. */
function isAround(corners: readonly Vec[], inside: Vec): boolean {
  const hands = corners.map((corner, i) =>
    Math.sign(cross(subtract(corners[(i + 1) % 4]!, corner), subtract(inside, corner))),
  );
  return hands.every((hand) => hand === hands[0]);
}

/** Corners where lines through the contour between them cross: no corner of the contour itself has to be right. */
function onContour(points: readonly Vec[], corners: readonly Vec[]): Vec[] {
  const sides = corners.map((from, i) => {
    const to = corners[(i + 1) % 4]!;
    const along = subtract(to, from);
    const length = Math.hypot(...along);
    const near = points.flatMap((at) => {
      const away = subtract(at, from);
      const share = (away[0] * along[0] + away[1] * along[1]) / (length * length);
      return share > FROM && share < TO && Math.abs(cross(along, away)) / length < ROUGH * length
        ? [{ at, share, normal: 0, sigma: 1, blur: 0, kind: 'step' as const }]
        : [];
    });
    return near.length < 3 ? { from, to, edges: [] } : straightest(near, from, to);
  });
  return sides.map((side, i) => crossing(sides[(i + 3) % 4]!, side));
}

interface ScannedSide {
  readonly from: Vec;
  readonly to: Vec;
  /** Along the side by share of its length, those off the line left out. */
  readonly edges: readonly (FirstEdge & { readonly share: number })[];
}

function scanSide(
  { levels }: Pyramid,
  from: Vec,
  to: Vec,
  { level, reach, within }: Pass,
  inside: Vec,
): ScannedSide | undefined {
  const size = 2 ** level;
  const along = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const outward = cross(subtract(to, from), subtract(inside, from)) > 0 ? along - Math.PI / 2 : along + Math.PI / 2;
  const edges = Array.from({ length: SCANS }, (_, i) => FROM + ((TO - FROM) * i) / (SCANS - 1)).flatMap((share) => {
    const middle = add(scale(mix(from, to, share), 1 / size), polar(-within, outward));
    const scan = { reach, beside: 2 };
    const edge =
      within > 0
        ? findFirstAcross(levels[level]!, middle, outward, scan)
        : findEdgeAcross(levels[level]!, middle, outward, scan);
    return edge ? [{ blur: 0, ...edge, share, at: scale(edge.at, size), sigma: edge.sigma * size }] : [];
  });
  return edges.length < SCANS / 3 ? undefined : straightest(edges, from, to);
}

/** The line of most of the edges: how far it lies off the old one at its two ends. */
function straightest(edges: ScannedSide['edges'], from: Vec, to: Vec): ScannedSide {
  const unit = distance(from, to);
  const normal: Vec = [-(to[1] - from[1]) / unit, (to[0] - from[0]) / unit];
  const offsets = edges.map(({ at }) => normal[0] * (at[0] - from[0]) + normal[1] * (at[1] - from[1]));
  let kept = edges.map(() => true);
  let [a, b] = [0, 0];
  for (let round = 0; round < 6; round++) {
    [a, b] = lineFit(
      edges.filter((_, i) => kept[i]).map(({ share }) => share),
      offsets.filter((_, i) => kept[i]),
    );
    const away = offsets.map((offset, i) => Math.abs(offset - a - b * edges[i]!.share));
    const limit = Math.max(0.5, 2.5 * 1.4826 * median(away));
    kept = away.map((distance) => distance <= limit);
  }
  const shifted = (end: Vec, by: number): Vec => [end[0] + normal[0] * by, end[1] + normal[1] * by];
  return { from: shifted(from, a), to: shifted(to, a + b), edges: edges.filter((_, i) => kept[i]) };
}

function lineFit(x: readonly number[], y: readonly number[]): [number, number] {
  const n = x.length;
  const [mx, my] = [x.reduce((s, v) => s + v, 0) / n, y.reduce((s, v) => s + v, 0) / n];
  const slope = x.reduce((s, v, i) => s + (v - mx) * (y[i]! - my), 0) / (x.reduce((s, v) => s + (v - mx) ** 2, 0) || 1);
  return [my - slope * mx, slope];
}

function crossing(a: ScannedSide, b: ScannedSide): Vec {
  const [u, v] = [subtract(a.to, a.from), subtract(b.to, b.from)];
  const t = cross(subtract(b.from, a.from), v) / cross(u, v);
  return [a.from[0] + t * u[0], a.from[1] + t * u[1]];
}

/** Four of a contour's points, in turn, that enclose most. */
function largestQuadrilateral(points: readonly Vec[]): Vec[] {
  const some = points.filter((_, i) => i % 2 === 0);
  const n = some.length;
  const area = (i: number, k: number, m: number) =>
    Math.abs(cross(subtract(some[k]!, some[i]!), subtract(some[m]!, some[i]!)));
  let [best, corners] = [-1, [0, 0, 0, 0]];
  // For each diagonal, the farthest point on either side of it.
  for (let i = 0; i < n; i++) {
    for (let k = i + 2; k < n; k++) {
      const farthest = (from: number, to: number) => {
        let top = from;
        for (let m = from + 1; m < to; m++) if (area(i, k, m % n) > area(i, k, top % n)) top = m;
        return top % n;
      };
      if (k + 1 >= n + i) continue;
      const [one, other] = [farthest(i + 1, k), farthest(k + 1, n + i)];
      const sum = area(i, k, one) + area(i, k, other);
      if (sum > best) [best, corners] = [sum, [i, one, k, other]];
    }
  }
  return corners.map((i) => some[i]!);
}
