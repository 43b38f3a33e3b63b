import type { Fit } from '@/core/calibrate';
import type { Vec } from '@/core/geometry';
import { listSnaps, type SnapKind, type SnapTarget } from '@/core/outline';

/** How a place is pointed at. */
export type Pointer = 'touch' | 'mouse' | 'keyboard';

/** Where the aim is: on the sheet (px), on the view plane (mm, or px without scale), and what it caught. */
export interface Aim {
  readonly sheet: Vec;
  readonly plane: Vec;
  /** One sigma of each sheet coordinate, px. */
  readonly sigma: number;
  readonly snap: SnapKind | undefined;
  /** Where the hand pointed before the aim was caught. Sheet px. */
  readonly free: Vec;
}

/** How large the magnified patch shows things, against the bench. */
export const AIM_MAGNIFICATION = 5;
/** Radius of the patch, CSS px. */
export const AIM_RADIUS = 66;
/** How far the aim stands from the fingertip, so that the finger does not hide it. CSS px. */
export const AIM_OFFSET: Vec = [0, -96];

/** Repeatability of pointing, CSS px of the picture that is looked at, one sigma. Assumed: see docs/accuracy.md. */
const POINTING = { touch: 1.6, mouse: 0.8, keyboard: 0.8 } as const;
/** A photographed edge is spread over about a pixel; nobody points better than half of that. */
const EDGE_SIGMA = 0.5;
const SNAP_REACH = { touch: 14, mouse: 9, keyboard: 9 } as const;

/** The zoom that the pointing is done at: the patch's for a finger, the bench's for a mouse. */
export function pointingZoom(pointer: Pointer, zoom: number): number {
  return pointer === 'touch' ? aimZoom(zoom) : zoom;
}

/** Sheet pixels are never shown larger than 24 CSS px in the patch: there is nothing more to see. */
export function aimZoom(zoom: number): number {
  return Math.max(zoom, Math.min(zoom * AIM_MAGNIFICATION, 24));
}

export function pointingSigma(pointer: Pointer, zoom: number): number {
  return Math.hypot(POINTING[pointer] / pointingZoom(pointer, zoom), EDGE_SIGMA);
}

export interface AimOptions {
  readonly fit: Fit;
  readonly zoom: number;
  readonly pointer: Pointer;
  readonly snapping: boolean;
  readonly targets: readonly SnapTarget[];
}

/** The aim at a place of the sheet: caught by what lies within reach, else just there. */
export function aimAt(sheet: Vec, { fit, zoom, pointer, snapping, targets }: AimOptions): Aim {
  const sigma = pointingSigma(pointer, zoom);
  const plane = fit.toPlane(sheet);
  const free: Aim = { sheet, plane, sigma, snap: undefined, free: sheet };
  if (!snapping || targets.length === 0) return free;
  const aside = fit.toPlane([sheet[0] + 1, sheet[1]]);
  const planePerPixel = Math.hypot(aside[0] - plane[0], aside[1] - plane[1]);
  const reach = (SNAP_REACH[pointer] / pointingZoom(pointer, zoom)) * planePerPixel;
  const best = listSnaps(plane, targets, reach)[0];
  return best ? { sheet: fit.toSheet(best.point), plane: best.point, sigma, snap: best.kind, free: sheet } : free;
}
