import { median } from '../basics';
import { add, polar, type Vec } from '../geometry';
import { contrastOf, type Colour } from './colour-picture';
import { averageAt, type Pyramid } from './pyramid';

/** Colours are of one thing that differ from most by less than so many times what those differ by themselves, within bounds: levels. */
const UNLIKE = 3;
const [LEAST_UNLIKE, MOST_UNLIKE] = [22, 45];

/** What most of some colours are, and by how much another has to differ from it to be another thing's. */
export interface Face {
  readonly colour: Colour;
  readonly limit: number;
}

export function faceOf(seen: readonly Colour[]): Face {
  const colour = [0, 1, 2].map((c) => median(seen.map((one) => one[c]!))) as unknown as Colour;
  const apart = median(seen.map((one) => contrastOf(one, colour)));
  return { colour, limit: Math.max(LEAST_UNLIKE, Math.min(MOST_UNLIKE, UNLIKE * apart)) };
}

export const isOfAnother = ({ colour, limit }: Face, seen: Colour): boolean => contrastOf(seen, colour) > limit;

const RAYS = 90;
const NEAREST = 2.5;
/** Each ring over the one before. */
const RATIO = 1.035;
/** How much of a ring around may be another thing's, and how many rings one behind the other have to be of one. */
const OF_OTHERS = 0.1;
const RINGS = 3;
/** How much of the way around the face has to end. */
const LEAST_SEEN = 0.7;

/**
 * Where the face about a hole ends, going inwards: places all around, good to a few hundredths of their distance. A face is where rings around the place are one thing again, after what is seen in the
 * hole: its wall, its ground, the shade on both, each as dark as it may be. The first such ring may lie on a lit ground within the hole: those up to `beyond` times as far out are offered as well, the nearest first.
 * Sheet px. Weak: a hole that lies nearer to the side of the thing than it is wide, a shade in it that is alike all around.
 */
export function listFacesAround(pyramid: Pyramid, inside: Vec, beyond: number): readonly (readonly Vec[])[] {
  const { width, height } = pyramid.levels[0]!;
  const [rings, faces]: [Ring[], (readonly Vec[])[]] = [[], []];
  let [even, farthest] = [0, Math.hypot(width, height) / 4];
  for (let radius = NEAREST; radius < farthest; radius *= RATIO) {
    const ring = { radius, seen: ringAt(pyramid, inside, radius) };
    rings.push(ring);
    even = isOfOneThing(ring) ? even + 1 : 0;
    const ends = even === RINGS ? listEnds(rings, inside) : [];
    if (ends.length < LEAST_SEEN * RAYS) continue;
    faces.push(ends);
    farthest = Math.min(farthest, beyond * radius);
  }
  return faces;
}

/** Where the face that the last rings show ends on the way in, ray by ray; of a ray that shows it all the way, nowhere. */
function listEnds(rings: readonly Ring[], inside: Vec): Vec[] {
  const face = faceOf(rings.at(-1)!.seen.filter((colour) => colour !== undefined));
  return Array.from({ length: RAYS }, (_, ray) => {
    const last = rings.findLast(({ seen }) => seen[ray] && isOfAnother(face, seen[ray]));
    return last ? [add(inside, polar(last.radius * Math.sqrt(RATIO), (2 * Math.PI * ray) / RAYS))] : [];
  }).flat();
}

/** Colours around a place at a distance, ray by ray; undefined outside the picture. */
interface Ring {
  readonly radius: number;
  readonly seen: readonly (Colour | undefined)[];
}

const ringAt = (pyramid: Pyramid, middle: Vec, radius: number) =>
  Array.from({ length: RAYS }, (_, a) =>
    averageAt(pyramid, add(middle, polar(radius, (2 * Math.PI * a) / RAYS)), radius * (RATIO - 1)),
  );

function isOfOneThing(ring: Ring): boolean {
  const seen = ring.seen.filter((colour) => colour !== undefined);
  const face = faceOf(seen);
  return seen.filter((colour) => isOfAnother(face, colour)).length <= OF_OTHERS * RAYS;
}
