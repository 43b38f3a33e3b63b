import { sigmaOfPointing, type Fit, type Hand, type Pointer } from '@/core/calibrate';
import { distance, type Vec } from '@/core/geometry';
import { listSnaps, type PictureEdge, type Snap, type SnapKind, type SnapSearch } from '@/core/outline';
import type { FoundCorner, FoundEdge } from '@/core/raster';

/** What the aim can be caught by: the drawing, a corner or an edge of the picture, the middle of a thin line in it. */
export type AimSnap = SnapKind | 'picture-corner' | 'picture-edge' | 'picture-line';

/** Where the aim is: on the sheet (px), on the view plane (mm, or px without scale), and what it caught. */
export interface Aim {
  readonly sheet: Vec;
  readonly plane: Vec;
  /** One sigma of each sheet coordinate, px; along the edge when it was caught by one of the picture's. */
  readonly sigma: number;
  readonly edge?: PictureEdge | undefined;
  readonly snap: AimSnap | undefined;
  /** Where the hand pointed before the aim was caught. Sheet px. */
  readonly free: Vec;
}

/** How large the magnified patch shows things, against the bench. */
export const AIM_MAGNIFICATION = 5;
/** Radius of the patch, CSS px. */
export const AIM_RADIUS = 66;
/** How far the aim stands from the fingertip, so that the finger does not hide it. CSS px. */
export const AIM_OFFSET: Vec = [0, -96];

const SNAP_REACH = { touch: 14, mouse: 9, keyboard: 9 } as const;
/** Edges are everywhere in a picture: they catch from less far away than what was drawn. */
const PICTURE_REACH = 0.6;

/** The zoom that the pointing is done at: the patch's for a finger, the bench's for a mouse. */
export function pointingZoom(pointer: Pointer, zoom: number): number {
  return pointer === 'touch' ? aimZoom(zoom) : zoom;
}

/** Sheet pixels are never shown larger than 24 CSS px in the patch: there is nothing more to see. */
export function aimZoom(zoom: number): number {
  return Math.max(zoom, Math.min(zoom * AIM_MAGNIFICATION, 24));
}

/** One sigma of each coordinate of a place that is pointed at with nothing to catch the aim. Sheet px. */
export function pointingSigma(hand: Hand, zoom: number): number {
  return sigmaOfPointing(hand, { aimed: pointingZoom(hand.pointer, zoom), landed: zoom });
}

/** How far off the aim is caught, sheet px: by a finger that has not aimed in the patch yet from as far as by a mouse. */
function snapReach({ pointer, unaided = 0 }: Hand, zoom: number): number {
  return Math.max(SNAP_REACH[pointer] / pointingZoom(pointer, zoom), (unaided * SNAP_REACH.mouse) / zoom);
}

export interface AimOptions extends Hand {
  readonly fit: Fit;
  readonly zoom: number;
  readonly snapping: boolean;
  /** What is drawn near a place of the plane. */
  readonly search: SnapSearch;
  /** Where a line that is being drawn comes from. View plane. */
  readonly from?: Vec | undefined;
  /** Steps of the grid, mm. */
  readonly grid?: number | undefined;
  /** What the aim is caught by, all of it where that is not said; the picture counts as one kind. */
  readonly kinds?: readonly (SnapKind | 'picture')[] | undefined;
  /** Which of what lies within reach: the best first, then the others, the place itself last, and round again. */
  readonly turn?: number | undefined;
  /** The picture's edge that a hand of this sigma means at a sheet place, within a reach, px. */
  findEdge?(sheet: Vec, reach: number, hand: number): FoundEdge | undefined;
  /** As that, where two edges meet. */
  findCorner?(sheet: Vec, reach: number, hand: number): FoundCorner | undefined;
}

/** The picture goes before these where it is nearer. */
const WEAK: readonly (AimSnap | undefined)[] = ['nearest', 'would-cross', 'straight-on', 'grid'];
/** Aims nearer to each other are one. Sheet px. */
const SAME_PLACE = 0.01;
/** From how far off lines are followed straight on, in reaches. */
const FOLLOWED = 30;

/** The aim at a place of the sheet: caught by what lies within reach, the drawing before the picture, else just there. */
export function aimAt(sheet: Vec, options: AimOptions): Aim {
  const { turn = 0 } = options;
  const all = aimsAt(sheet, options, turn === 0);
  return all[turn % all.length]!;
}

/**
 * The turn of what comes after an aim in what lies within reach of where somebody pointed now. It goes on from where the aim is, not from its number: a part of the picture may have come in
 * between, and with it one more that could be meant.
 */
export function turnAfter(aim: Aim, pointed: Vec, options: AimOptions): number {
  const all = aimsAt(pointed, options);
  const here = all.findIndex(({ sheet, snap }) => snap === aim.snap && distance(sheet, aim.sheet) < SAME_PLACE);
  return ((here < 0 ? (options.turn ?? 0) : here) + 1) % all.length;
}

/** All that could be meant at a place, the best first, the place itself last; of the best alone, that comes first, and the rest need not be there. */
function aimsAt(sheet: Vec, options: AimOptions, bestAlone = false): readonly Aim[] {
  const { fit, zoom, snapping } = options;
  const sigma = pointingSigma(options, zoom);
  const free: Aim = { sheet, plane: fit.toPlane(sheet), sigma, snap: undefined, free: sheet };
  if (!snapping) return [free];
  const reach = snapReach(options, zoom);
  const drawn = caughtByDrawing(free, reach, options);
  if (bestAlone && drawn[0] && !WEAK.includes(drawn[0].snap)) return drawn;
  const seen = options.kinds && !options.kinds.includes('picture') ? undefined : caughtByPicture(free, reach, options);
  const best = bestOf(drawn[0], seen) ?? free;
  return [best, ...[...drawn, ...(seen ? [seen] : []), free].filter((other) => other !== best)];
}

/** What is drawn goes before the picture, but for what is weak and farther off. */
function bestOf(drawn: Aim | undefined, seen: Aim | undefined): Aim | undefined {
  if (!drawn || !seen || !WEAK.includes(drawn.snap)) return drawn ?? seen;
  return distance(seen.sheet, seen.free) > distance(drawn.sheet, drawn.free) ? drawn : seen;
}

/** All that is drawn within reach, the best first. */
function caughtByDrawing(free: Aim, reach: number, { fit, search, from, kinds, grid }: AimOptions): readonly Aim[] {
  const aside = fit.toPlane([free.sheet[0] + 1, free.sheet[1]]);
  const planePerPixel = distance(aside, free.plane);
  const wide = reach * planePerPixel;
  const follows = !kinds || kinds.includes('would-cross') || kinds.includes('straight-on');
  const all = listSnaps(free.plane, search(free.plane, wide), wide, {
    from,
    grid: fit.scaled ? grid : undefined,
    beyond: follows ? search(free.plane, FOLLOWED * wide) : [],
  });
  const snaps = distinct(kinds ? all.filter(({ kind }) => kinds.includes(kind)) : all, planePerPixel);
  return snaps.map(({ point, kind }) => ({ ...free, sheet: fit.toSheet(point), plane: point, snap: kind }));
}

/** What lies in one place is one catch, by its best name. */
function distinct(snaps: readonly Snap[], pixel: number): readonly Snap[] {
  return snaps.filter(({ point }, i) => !snaps.slice(0, i).some((better) => distance(better.point, point) < pixel / 2));
}

function caughtByPicture(free: Aim, reach: number, { fit, findEdge, findCorner }: AimOptions): Aim | undefined {
  const corner = findCorner?.(free.sheet, reach * PICTURE_REACH, free.sigma);
  if (corner)
    return { ...free, sheet: corner.at, plane: fit.toPlane(corner.at), sigma: corner.sigma, snap: 'picture-corner' };
  const edge = findEdge?.(free.sheet, reach * PICTURE_REACH, free.sigma);
  if (!edge) return undefined;
  const { at, normal, sigma, kind } = edge;
  return {
    ...free,
    sheet: at,
    plane: fit.toPlane(at),
    edge: { normal, sigma },
    snap: kind === 'line' ? 'picture-line' : 'picture-edge',
  };
}
