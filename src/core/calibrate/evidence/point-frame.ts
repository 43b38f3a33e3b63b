import type { Vec } from '../../geometry';
import type { SheetPoint } from './evidence';

/**
 * The frame in which a pointed place is observed: the sheet's own, or along and across the picture's edge on which it lies, since
 * an edge is known better across than along. Observed numbers are independent in it.
 */
export interface PointFrame {
  /** What was observed, and one sigma of each. px. */
  readonly numbers: Vec;
  readonly sigmas: Vec;
  /** Sheet directions of the two numbers. */
  readonly axes: readonly [Vec, Vec];
  toSheet(numbers: readonly number[]): Vec;
}

const SHEET_AXES: PointFrame['axes'] = [
  [1, 0],
  [0, 1],
];

export function pointFrame({ at, sigma, edge }: SheetPoint): PointFrame {
  if (!edge)
    return { numbers: at, sigmas: [sigma, sigma], axes: SHEET_AXES, toSheet: (numbers) => numbers as unknown as Vec };
  const [c, s] = [Math.cos(edge.normal), Math.sin(edge.normal)];
  return {
    numbers: [-s * at[0] + c * at[1], c * at[0] + s * at[1]],
    sigmas: [sigma, edge.sigma],
    axes: [
      [-s, c],
      [c, s],
    ],
    toSheet: ([along = 0, across = 0]) => [-s * along + c * across, c * along + s * across],
  };
}
