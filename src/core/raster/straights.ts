import { add, distance, dot, mix, polar, scale, subtract, type Vec } from '../geometry';
import { changeAcross, findStraight } from './along';
import type { ColourPicture } from './colour-picture';
import type { FoundEdge } from './edge';
import { listEdgels } from './edgels';
import { listLinesAround } from './lines-around';
import { levelToOverlook, type Pyramid } from './pyramid';

/** Lines are looked at in stretches of this share of the diagonal, which have edges along at least so much of them. */
const STRETCH = 0.13;
const LEAST_SEEN = 0.85;
/** Edges that are followed in full at the most, and edges whose middles lie nearer to each other than this, px, are one. */
const FOLLOWED = 40;
const SAME = 12;

/** Grounds beside an edge are looked at so far from it, px, and differ along all of it by at least so many levels of colour: veins of wood and lines on paper have the same to both sides. */
const BESIDE = [5, 8, 11, 14, 17];
const LEAST_STEP = 40;
const SAMPLES = 5;

/**
 * Straight edges of things in a picture, those first that tell most of its lens: long ones far from its middle, where a lens bows most. Places along each, sheet px. Weak: a long slight curve is
 * taken for straight, so somebody has to look at them; a thing of nearly its ground's colour is not found.
 */
export function listStraights(pyramid: Pyramid, most: number): (readonly FoundEdge[])[] {
  const full = pyramid.levels[0];
  if (!full) return [];
  const middle: Vec = [full.width / 2, full.height / 2];
  const worth = (edges: readonly FoundEdge[]) =>
    distance(edges[0]!.at, edges.at(-1)!.at) * awayFromStretch(middle, edges[0]!.at, edges.at(-1)!.at);
  const seeds = [...listSeeds(pyramid)].sort((a, b) => distance(b, middle) - distance(a, middle));
  return followAll(pyramid, seeds)
    .sort((a, b) => worth(b) - worth(a))
    .slice(0, most);
}

/** Places at which an edge begins that is worth following, sheet px: middles of stretches of lines that have edges along them, and grounds that differ. */
function listSeeds(pyramid: Pyramid): Vec[] {
  const { level, pixel } = levelToOverlook(pyramid);
  const picture = pyramid.levels[level]!;
  const middle: Vec = [picture.width / 2, picture.height / 2];
  const diagonal = 2 * Math.hypot(...middle);
  const length = STRETCH * diagonal;
  return listLinesAround(listEdgels(picture), middle, diagonal / 2).flatMap(({ normal, offset, seenBetween }) => {
    const placeAt = (along: number): Vec => add(middle, add(polar(offset, normal), polar(along, normal + Math.PI / 2)));
    const starts = Array.from({ length: Math.ceil((2 * diagonal) / length) }, (_, i) => (i * length - diagonal) / 2);
    const standsOut = (from: number) =>
      seenBetween(from, from + length) > LEAST_SEEN &&
      isStep(
        picture,
        Array.from({ length: SAMPLES }, (_, i) => ({ at: placeAt(from + (length * (i + 0.5)) / SAMPLES), normal })),
        pixel,
      );
    return starts.filter(standsOut).map((from) => scale(placeAt(from + length / 2), pixel));
  });
}

function followAll(pyramid: Pyramid, seeds: readonly Vec[]): (readonly FoundEdge[])[] {
  const found: (readonly FoundEdge[])[] = [];
  let followed = 0;
  for (const seed of seeds) {
    if (followed >= FOLLOWED) break;
    if (found.some((edges) => isOnEdge(seed, edges))) continue;
    followed++;
    const edges = findStraight(pyramid, seed);
    if (
      edges &&
      isStep(pyramid.levels[0]!, edges, 1) &&
      !found.some((other) => isOnEdge(edges[edges.length >> 1]!.at, other))
    )
      found.push(edges);
  }
  return found;
}

/** Whether the grounds to both sides differ at all of some places, which are px of a picture whose pixels are `pixel` of the sheet's. */
function isStep(picture: ColourPicture, places: readonly Pick<FoundEdge, 'at' | 'normal'>[], pixel: number): boolean {
  return places.every(
    (place) =>
      Math.hypot(
        ...changeAcross(
          picture,
          place,
          BESIDE.map((away) => away / pixel),
        ),
      ) > LEAST_STEP,
  );
}

/** Whether a place lies on an edge that is known by places along it. Sheet px. */
export function isOnEdge(place: Vec, along: readonly { readonly at: Vec }[]): boolean {
  return along.slice(1).some(({ at }, i) => awayFromStretch(place, along[i]!.at, at) < SAME);
}

function awayFromStretch(place: Vec, from: Vec, to: Vec): number {
  const along = subtract(to, from);
  const share = Math.max(0, Math.min(1, dot(subtract(place, from), along) / dot(along, along)));
  return distance(place, mix(from, to, share));
}
