import { median } from '../basics';
import { add, distance, findEllipse, onEllipse, outsideEllipse, polar, type Ellipse, type Vec } from '../geometry';
import { findContour } from './contour';
import { findEdgeAcross, type FoundEdge } from './edge';
import { faceOf, listFacesAround, isOfAnother } from './face';
import { findFirstAcross } from './first-across';
import { averageAt, levelFor, type Pyramid } from './pyramid';

/** The rim of a round thing as it is seen, and places on it, evenly around. Sheet px. */
export interface Rim {
  readonly ellipse: Ellipse;
  readonly edges: readonly FoundEdge[];
}

const SCANS = 72;
const SECTORS = 12;
/** How much of the rim has to be found on the ellipse. */
const LEAST_SEEN = 0.6;
const REACH = 4;
/** A hand's breadth of the first contour, over its size. */
const ROUGH = 0.06;
/** One that keeps to sharp edges is nearer, and a wide look would find the rim of a shadow again. */
const ROUGH_SHARP = 0.02;

/** How far out, over the size of the innermost line, the rim of a hole may lie whose wall is seen. */
const WALL = 1.7;

/**
 * The rim around a place inside a hole or a disc: a contour around it, made precise from coarse to fine by scans across the
 * ellipse that fits them, leaving out what does not (shadows, burrs, the far wall of a hole seen aslant). Of several, the largest,
 * which is the nearest to the camera. Where none is, as in a hole whose shade is partly as dark as the face, the place where the face about it ends. Undefined when there is none, or it is no ellipse. Weak: a bowed
 * lens bends the ellipse of a circle that fills the picture; the foot of a thick thing's wall, or the rim of a shade on the ground of a wide hole, may be taken for the rim.
 */
export function findRim(pyramid: Pyramid, inside: Vec): Rim | undefined {
  return rimOfContour(pyramid, inside) ?? rimOfFace(pyramid, inside);
}

/** Twice, the second time from the middle of what was found: from there all of the rim is as far away, and what is seen of the wall behind it the same from wherever it was tapped. */
function rimOfFace(pyramid: Pyramid, inside: Vec): Rim | undefined {
  const from = (middle: Vec) =>
    largestOf(
      listFacesAround(pyramid, middle, WALL).map((ends) => refined(pyramid, ends, middle, ROUGH_SHARP, 'inwards')),
    );
  const first = from(inside);
  const rim = first && (from(first.ellipse.centre) ?? first);
  return rim && outsideEllipse(rim.ellipse, inside) < -1 && isEven(rim) ? rim : undefined;
}

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
  met: Met = 'nearest',
): Rim | undefined {
  let ellipse = findRobustly(contour)?.ellipse;
  if (!ellipse) return undefined;
  let edges: readonly ScannedEdge[] = [];
  for (let level = levelFor(pyramid, (ellipse.axes[0] * rough) / 2); level >= 0; level--) {
    edges = scanAround(pyramid, ellipse, level, met);
    const better = findRobustly(edges.map(({ at }) => at));
    if (!better) return undefined;
    ellipse = better.ellipse;
    edges = edges.filter((_, i) => better.kept[i]);
  }
  if (edges.length < LEAST_SEEN * SCANS || outsideEllipse(ellipse, inside) > -1) return undefined;
  return isOfOneThing(pyramid, ellipse) ? { ellipse, edges: listSectors(ellipse, edges) } : undefined;
}

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

/** Which edge of a scan counts: the one nearest to where the rim is thought to be, or the first that is met from so far without. Pixels of the level. */
type Met = 'nearest' | 'inwards';
const BEFORE = 3;

interface ScannedEdge extends FoundEdge {
  readonly angle: number;
}

function scanAround({ levels }: Pyramid, ellipse: Ellipse, level: number, met: Met): ScannedEdge[] {
  const size = 2 ** level;
  const small = {
    ...ellipse,
    centre: [ellipse.centre[0] / size, ellipse.centre[1] / size] as Vec,
    axes: [ellipse.axes[0] / size, ellipse.axes[1] / size] as const,
  };
  // Rows beside a scan must not leave a small circle.
  const beside = Math.max(0, Math.min(2, Math.floor(small.axes[1] / 6)));
  return Array.from({ length: SCANS }, (_, i) => (2 * Math.PI * i) / SCANS).flatMap((angle) => {
    const { point, outward } = onEllipse(small, angle);
    const edge =
      met === 'nearest'
        ? findEdgeAcross(levels[level]!, point, outward, { reach: REACH, beside })
        : findFirstAcross(levels[level]!, add(point, polar(BEFORE, outward)), outward + Math.PI, {
            reach: REACH,
            beside,
          });
    return edge
      ? [{ ...edge, angle, at: [edge.at[0] * size, edge.at[1] * size] as Vec, sigma: edge.sigma * size }]
      : [];
  });
}

/** Parts of the way around that may be wrong as a whole (a shadow across the hole), and how many ways of leaving one out are tried. */
const LEFT_OUT = [0, 1 / 6, 1 / 3];
const TURNS = 12;

/**
 * The ellipse of most of the points: of those through all but one arc of them, the one that most points are near (as in least
 * median of squares, Rousseeuw 1984); then those far off the others are left out, again and again.
 */
function findRobustly(
  points: readonly Vec[],
): { readonly ellipse: Ellipse; readonly kept: readonly boolean[] } | undefined {
  const n = points.length;
  const without = (from: number, share: number) => points.filter((_, i) => (i - from + n) % n >= share * n);
  const starts = LEFT_OUT.flatMap((share) =>
    Array.from({ length: share === 0 ? 1 : TURNS }, (_, turn) =>
      findEllipse(without(Math.round((turn * n) / TURNS), share)),
    ),
  );
  const spreadOf = (ellipse: Ellipse) =>
    1.4826 * median(points.map((point) => Math.abs(outsideEllipse(ellipse, point))));
  let ellipse = starts.filter((start) => start !== undefined).sort((a, b) => spreadOf(a) - spreadOf(b))[0];
  let kept: readonly boolean[] = [];
  for (let round = 0; round < 5 && ellipse; round++) {
    const limit = Math.max(0.3, 2.5 * spreadOf(ellipse));
    const near = ellipse;
    kept = points.map((point) => Math.abs(outsideEllipse(near, point)) <= limit);
    ellipse = findEllipse(points.filter((_, i) => kept[i]));
  }
  return ellipse && { ellipse, kept };
}

/** One place for each part of the rim: the middle of what its scans found. How much these differ is in their sigma. */
function listSectors(ellipse: Ellipse, edges: readonly ScannedEdge[]): FoundEdge[] {
  const sectors = Array.from({ length: SECTORS }, (_, s) =>
    edges.filter(({ angle }) => Math.floor((angle / (2 * Math.PI)) * SECTORS + 1e-9) === s),
  ).filter((sector) => sector.length >= 2);
  const means = sectors.map(
    (sector) => sector.reduce((sum, { at }) => sum + outsideEllipse(ellipse, at), 0) / sector.length,
  );
  const spread = Math.sqrt(means.reduce((sum, mean) => sum + mean * mean, 0) / Math.max(1, means.length - 5));
  return sectors.map((sector, i) => {
    const { point, outward } = onEllipse(ellipse, sector.reduce((sum, { angle }) => sum + angle, 0) / sector.length);
    const own = sector.reduce((sum, { sigma }) => sum + sigma, 0) / sector.length;
    return {
      at: add(point, polar(means[i]!, outward)),
      normal: outward,
      sigma: Math.max(own, spread),
      kind: 'step' as const,
    };
  });
}
