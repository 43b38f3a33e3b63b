import { canSquareUp, scaleInMiddle, type Fit } from '@/core/calibrate';
import type { Vec } from '@/core/geometry';

/**
 * How a picture lies on the bench: as it was taken, or squared up by its fit, lens and all. Bench frame: pixels of the picture as
 * it lies, x right, y down; squared up, the middle of the picture keeps its place and its scale.
 */
export interface Laying {
  readonly straight: boolean;
  toBench(sheet: Vec): Vec;
  toSheet(bench: Vec): Vec;
  /** From the view plane, without the way round by the sheet. */
  fromPlane(plane: Vec): Vec;
  /** Whether a sheet place can be laid at all: what lies near the horizon cannot. */
  canLay(sheet: Vec): boolean;
}

export function asTaken(fit: Pick<Fit, 'toSheet'>): Laying {
  const same = (place: Vec) => place;
  return { straight: false, toBench: same, toSheet: same, fromPlane: fit.toSheet, canLay: () => true };
}

export function squaredUp(fit: Fit): Laying {
  const { width, height } = fit.picture;
  const middle: Vec = [width / 2, height / 2];
  const [x0, y0] = fit.toPlane(middle);
  const perMm = scaleInMiddle(fit);
  const fromPlane = ([x, y]: Vec): Vec => [middle[0] + (x - x0) * perMm, middle[1] - (y - y0) * perMm];
  return {
    straight: true, fromPlane,
    toBench: (sheet) => fromPlane(fit.toPlane(sheet)),
    toSheet: ([x, y]) => fit.toSheet([x0 + (x - middle[0]) / perMm, y0 - (y - middle[1]) / perMm]),
    canLay: (sheet) => canSquareUp(fit.map, perMm, sheet),
  };
}

/** How the picture lies under a viewport. */
export function layingOf(viewport: { readonly laying?: Laying | undefined }, fit: Pick<Fit, 'toSheet'>): Laying {
  return viewport.laying ?? asTaken(fit);
}

/** The box of a picture as it lies, bench frame; of what can be laid of it. */
export function boundsOf(laying: Laying, width: number, height: number): { readonly min: Vec; readonly max: Vec } {
  const grid = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1];
  const places = grid.flatMap((u) => grid.map((v): Vec => [u * width, v * height])).filter(laying.canLay).map(laying.toBench);
  const [xs, ys] = [places.map((p) => p[0]), places.map((p) => p[1])];
  return { min: [Math.min(...xs), Math.min(...ys)], max: [Math.max(...xs), Math.max(...ys)] };
}
