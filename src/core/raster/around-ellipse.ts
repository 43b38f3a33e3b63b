import { median } from '../basics';
import { add, findEllipse, onEllipse, outsideEllipse, polar, type Ellipse, type Vec } from '../geometry';
import { findEdgeAcross, type FoundEdge } from './edge';
import { findFirstAcross } from './first-across';
import type { Pyramid } from './pyramid';

/** Scans across an ellipse, evenly around. */
export const SCANS = 72;
const SECTORS = 12;
const REACH = 4;

interface ScannedEdge extends FoundEdge {
  readonly angle: number;
}

/** The ellipse of most of what scans met, and that of them which lies on it. Sheet px. */
export interface SeenAround {
  readonly ellipse: Ellipse;
  readonly edges: readonly ScannedEdge[];
}

/** Which edge of a scan counts: the nearest, a thin line by its middle where that is asked for, or else the first one on the way in from so many px of the level without. */
export interface EdgeWanted {
  readonly lines?: boolean | undefined;
  readonly before?: number | undefined;
}

/** What scans across an ellipse meet at a level of the pyramid. Undefined where that makes no ellipse. */
export function lookAround(
  pyramid: Pyramid,
  ellipse: Ellipse,
  level: number,
  look: EdgeWanted = {},
): SeenAround | undefined {
  const edges = scanAround(pyramid, ellipse, level, look);
  const found = findRobustly(edges.map(({ at }) => at));
  return found && { ellipse: found.ellipse, edges: edges.filter((_, i) => found.kept[i]) };
}

function scanAround(
  { levels }: Pyramid,
  ellipse: Ellipse,
  level: number,
  { before, lines = false }: EdgeWanted,
): ScannedEdge[] {
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
      before === undefined
        ? findEdgeAcross(levels[level]!, point, outward, { reach: REACH, beside, lines })
        : findFirstAcross(levels[level]!, add(point, polar(before, outward)), outward + Math.PI, {
            reach: before + 1,
            beside,
          });
    return edge
      ? [{ ...edge, angle, at: [edge.at[0] * size, edge.at[1] * size] as Vec, sigma: edge.sigma * size }]
      : [];
  });
}

/** The ellipse of most of some places. */
export const ellipseOfMost = (points: readonly Vec[]) => findRobustly(points)?.ellipse;

/** Parts of the way around that may be wrong as a whole (a shadow across the hole), and how many ways of leaving one out are tried. */
const LEFT_OUT = [0, 1 / 6, 1 / 3];
const TURNS = 12;

/** An ellipse, which of some points lie on it, and how far from it most of them lie. */
interface Robust {
  readonly ellipse: Ellipse;
  readonly kept: readonly boolean[];
  readonly spread: number;
}

/** The ellipse of most of the points: begun with those through all but one arc of them, the one that most points come to be near (as in least median of squares, Rousseeuw 1984). */
function findRobustly(points: readonly Vec[]): Robust | undefined {
  const n = points.length;
  const without = (from: number, share: number) => points.filter((_, i) => (i - from + n) % n >= share * n);
  return LEFT_OUT.flatMap((share) =>
    Array.from({ length: share === 0 ? 1 : TURNS }, (_, turn) =>
      follow(findEllipse(without(Math.round((turn * n) / TURNS), share)), points),
    ),
  )
    .filter((robust) => robust !== undefined)
    .sort((a, b) => a.spread - b.spread)[0];
}

/** Where an ellipse comes to when points that are far off the others are left out, again and again, until they are the same ones. */
function follow(start: Ellipse | undefined, points: readonly Vec[]): Robust | undefined {
  let ellipse = start;
  let [kept, spread]: [readonly boolean[], number] = [[], Infinity];
  for (let round = 0; ellipse; round++) {
    const near = ellipse;
    const away = points.map((point) => Math.abs(outsideEllipse(near, point)));
    spread = 1.4826 * median(away);
    const limit = Math.max(LEAST_OFF, UNLIKE * spread);
    const now = away.map((off) => off <= limit);
    if (round === ROUNDS || now.every((is, i) => is === kept[i])) return { ellipse, kept: now, spread };
    kept = now;
    ellipse = findEllipse(points.filter((_, i) => now[i]));
  }
  return undefined;
}

/** Of points that lie off an ellipse by more than so many px, and so many times what most do, nothing is believed. */
const LEAST_OFF = 0.3;
const UNLIKE = 2.5;
const ROUNDS = 5;

/** How far places that lie so far off their ellipse lie off it for good, px: what its five numbers leave. */
export const unevenness = (off: readonly number[]) =>
  Math.sqrt(off.reduce((sum, one) => sum + one * one, 0) / Math.max(1, off.length - 5));

/** One place for each part of the rim: the middle of what its scans found. How much these differ is in their sigma. */
export function listSectors({ ellipse, edges }: SeenAround): FoundEdge[] {
  const sectors = Array.from({ length: SECTORS }, (_, s) =>
    edges.filter(({ angle }) => Math.floor((angle / (2 * Math.PI)) * SECTORS + 1e-9) === s),
  ).filter((sector) => sector.length >= 2);
  const means = sectors.map(
    (sector) => sector.reduce((sum, { at }) => sum + outsideEllipse(ellipse, at), 0) / sector.length,
  );
  const spread = unevenness(means);
  return sectors.map((sector, i) => {
    const { point, outward } = onEllipse(ellipse, sector.reduce((sum, { angle }) => sum + angle, 0) / sector.length);
    const own = sector.reduce((sum, { sigma }) => sum + sigma, 0) / sector.length;
    return {
      at: add(point, polar(means[i]!, outward)),
      normal: outward,
      sigma: Math.max(own, spread),
      kind: sector[0]!.kind,
    };
  });
}
