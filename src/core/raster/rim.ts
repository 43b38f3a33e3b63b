import { add, distance, onEllipse, outsideEllipse, polar, type Ellipse, type Vec } from '../geometry';
import {
  ellipseOfMost,
  listSectors,
  lookAround,
  SCANS,
  unevenness,
  type EdgeWanted,
  type SeenAround,
} from './around-ellipse';
import { findContour } from './contour';
import { LINE_WIDTH, type FoundEdge } from './edge';
import { faceOf, listFacesAround, isOfAnother } from './face';
import { averageAt, levelFor, type Pyramid } from './pyramid';

/** The rim of a round thing as it is seen, and places on it, evenly around. Sheet px. */
export interface Rim {
  readonly ellipse: Ellipse;
  readonly edges: readonly FoundEdge[];
}

/** How much of the rim has to be found on the ellipse. */
const LEAST_SEEN = 0.6;
/** A hand's breadth of the first contour, over its size. */
const ROUGH = 0.06;
/** One that keeps to sharp edges is nearer, and a wide look would find the rim of a shadow again. */
const ROUGH_SHARP = 0.02;

/** From so far without the face's end is looked for, px of a level. */
const BEFORE = 3;
/** How far out, over the size of the innermost line, the rim of a hole may lie whose wall is seen. */
const WALL = 1.7;

/**
 * The rim around a place inside a hole or a disc, or a drawn circle by the middle of its line: a contour around it, made precise from coarse to fine by scans across the
 * ellipse that fits them, leaving out what does not (shadows, burrs, the far wall of a hole seen aslant). Of several, the largest,
 * which is the nearest to the camera. Where none is, as in a hole whose shade is partly as dark as the face, the place where the face about it ends. Undefined when there is none, or it is no ellipse. Weak: a bowed
 * lens bends the ellipse of a circle that fills the picture; a hole seen more than 64° aslant is not found; where the wall that is seen is less than 2 px wide, or as bright as the face, its foot may be taken for the rim.
 */
export function findRim(pyramid: Pyramid, inside: Vec): Rim | undefined {
  const first = rimSeenFrom(pyramid, inside);
  if (!first || distance(first.ellipse.centre, inside) < AMID * first.ellipse.axes[1]) return first;
  const again = rimSeenFrom(pyramid, first.ellipse.centre);
  return again && outsideEllipse(again.ellipse, inside) < -1 ? again : first;
}

/** So near to its middle, over its size, a rim is seen as from there: all of it as far away, and what is seen of the wall behind it the same from wherever it was tapped. */
const AMID = 0.25;

const rimSeenFrom = (pyramid: Pyramid, inside: Vec) =>
  wholeOf(pyramid, rimOfContour(pyramid, inside)) ?? wholeOf(pyramid, rimOfFace(pyramid, inside));

function wholeOf(pyramid: Pyramid, found: Rim | undefined): Rim | undefined {
  const rim = found && asDrawn(pyramid, outermost(pyramid, found));
  return rim && isEven(rim) ? rim : undefined;
}

/** How much of the way around has to be a line, for a circle to be one that was drawn. */
const DRAWN = 0.8;

/** Of a circle that was drawn in ink what was found is one side of its line: the circle is the line's middle. A small disc is as narrow as a line is. */
function asDrawn(pyramid: Pyramid, rim: Rim): Rim {
  if (rim.ellipse.axes[1] < LINE_WIDTH) return rim;
  const seen = lookAround(pyramid, rim.ellipse, 0, { lines: true });
  const lines = seen?.edges.filter(({ kind }) => kind === 'line') ?? [];
  return seen && lines.length > DRAWN * SCANS
    ? { ellipse: seen.ellipse, edges: listSectors({ ...seen, edges: lines }) }
    : rim;
}

/** How far without a rim another is looked for, px, or over its size; and how far what was seen of that may lie off its ellipse, px. */
const FARTHER = 4;
const FARTHER_SHARE = 0.15;
const EVEN = 0.2;

/**
 * What is met first on the way in from the face, where that is an ellipse as well and a larger one: the near rim of a hole that is seen aslant and the foot of its wall opposite are nearly one. A bevel's outer side
 * is none, lit as it is on one side only.
 */
function outermost(pyramid: Pyramid, rim: Rim): Rim {
  const before = Math.max(FARTHER, FARTHER_SHARE * rim.ellipse.axes[0]);
  const seen = lookAround(pyramid, rim.ellipse, 0, { before });
  const larger = seen && rimOf(pyramid, seen);
  return larger &&
    areaOf(larger.ellipse) > areaOf(rim.ellipse) &&
    unevennessOf(larger) <= Math.max(EVEN, unevennessOf(rim))
    ? larger
    : rim;
}

const unevennessOf = ({ ellipse, edges }: Rim) => unevenness(edges.map(({ at }) => outsideEllipse(ellipse, at)));

const rimOfFace = (pyramid: Pyramid, inside: Vec) =>
  largestOf(
    listFacesAround(pyramid, inside, WALL).map((ends) =>
      refined(pyramid, ends, inside, ROUGH_SHARP, { before: BEFORE }),
    ),
  );

/** A rim that was made by a tool is an ellipse to so many px, or to this share of its size; a dark streak between lighter ones is not. */
const UNEVEN = 0.4;
const UNEVEN_SHARE = 0.008;
const FLATTEST = 0.43;

function isEven({ ellipse: { axes }, edges }: Rim): boolean {
  const sigma = edges.reduce((sum, edge) => sum + edge.sigma, 0) / edges.length;
  return axes[1] > FLATTEST * axes[0] && sigma < Math.max(UNEVEN, UNEVEN_SHARE * axes[0]);
}

function rimOfContour(pyramid: Pyramid, inside: Vec): Rim | undefined {
  const inner = findContour(pyramid, inside, { which: 'inner' });
  if (!inner) return undefined;
  const size = Math.max(...inner.points.map((point) => distance(point, inside)));
  const outer = findContour(pyramid, inside, { which: 'outer', within: WALL * size, sharp: true });
  return largestOf([
    refined(pyramid, inner.points, inside, ROUGH),
    outer && refined(pyramid, outer.points, inside, ROUGH_SHARP),
  ]);
}

const largestOf = (rims: readonly (Rim | undefined)[]) =>
  rims.filter((rim) => rim !== undefined).sort((a, b) => areaOf(b.ellipse) - areaOf(a.ellipse))[0];

/** Where a wall is seen aslant its foot and the near rim make a narrower ellipse that may be as long as the rim. */
const areaOf = ({ axes: [long, short] }: Ellipse) => long * short;

function refined(
  pyramid: Pyramid,
  contour: readonly Vec[],
  inside: Vec,
  rough: number,
  look: EdgeWanted = {},
): Rim | undefined {
  let ellipse = ellipseOfMost(contour);
  let seen: SeenAround | undefined;
  for (let level = ellipse ? levelFor(pyramid, (ellipse.axes[0] * rough) / 2) : -1; level >= 0 && ellipse; level--) {
    seen = lookAround(pyramid, ellipse, level, look);
    ellipse = seen?.ellipse;
  }
  return seen && ellipse && outsideEllipse(ellipse, inside) < -1 ? rimOf(pyramid, seen) : undefined;
}

/** Undefined where too little of the way around is seen, or it is of several things. */
const rimOf = (pyramid: Pyramid, seen: SeenAround): Rim | undefined =>
  seen.edges.length >= LEAST_SEEN * SCANS && isOfOneThing(pyramid, seen.ellipse)
    ? { ellipse: seen.ellipse, edges: listSectors(seen) }
    : undefined;

/** So much of the way around may be of others; seen so far beside the rim, px, or by this share of its size. */
const OF_OTHERS = 0.2;
const BESIDE = 4;
const BESIDE_SHARE = 0.06;

/** Whether what lies around the rim, or what lies within it, is one thing: the face about a hole, the face of a disc. The foot of a wall with the rim opposite, or with the rim of a shadow, has neither. */
function isOfOneThing(pyramid: Pyramid, ellipse: Ellipse): boolean {
  const beside = Math.max(BESIDE, BESIDE_SHARE * ellipse.axes[1]);
  return [beside, -beside].some((away) => {
    const seen = Array.from({ length: SCANS }, (_, i) => {
      const { point, outward } = onEllipse(ellipse, (2 * Math.PI * i) / SCANS);
      return averageAt(pyramid, add(point, polar(away, outward)), beside / 2);
    }).filter((colour) => colour !== undefined);
    const face = faceOf(seen);
    return seen.filter((colour) => isOfAnother(face, colour)).length <= OF_OTHERS * seen.length;
  });
}
