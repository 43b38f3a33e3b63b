import { median } from '../basics';
import type { Vec } from '../geometry';
import type { Colour } from './colour-picture';

/** Colours along a straight scan. */
export interface Profile {
  /** By channel, every `PROFILE_STEP` px from one end to the other, averaged over the rows beside the scan. */
  readonly colours: readonly [number[], number[], number[]];
  /** Differences between neighbouring rows, a pixel apart. */
  readonly differences: readonly number[];
}

export const PROFILE_STEP = 0.25;
/** Derivatives are smoothed by a Gaussian of this sigma, px. */
export const SMOOTHING = 0.8;

export function profileAlong(
  colourAt: (at: Vec) => Colour,
  middle: Vec,
  across: Vec,
  reach: number,
  beside: number,
): Profile {
  const count = Math.round((2 * reach) / PROFILE_STEP) + 1;
  const colours: [number[], number[], number[]] = [
    new Array<number>(count).fill(0),
    new Array<number>(count).fill(0),
    new Array<number>(count).fill(0),
  ];
  const differences: number[] = [];
  const rows = 2 * beside + 1;
  for (let i = 0; i < count; i++) {
    const t = i * PROFILE_STEP - reach;
    let before: Colour | undefined;
    for (let k = -beside; k <= beside; k++) {
      const colour = colourAt([middle[0] + across[0] * t - across[1] * k, middle[1] + across[1] * t + across[0] * k]);
      for (let c = 0; c < 3; c++) {
        colours[c]![i]! += colour[c]! / rows;
        if (before && i % 4 === 0) differences.push(Math.abs(colour[c]! - before[c]!));
      }
      before = colour;
    }
  }
  return { colours, differences };
}

/** Noise of one pixel, one sigma: from the median difference of neighbours, 0.6745 √2 of it; interpolation has taken a third away. */
export function noiseOf({ differences }: Profile): number {
  return Math.max(0.7, (median(differences) / (0.6745 * Math.SQRT2)) * 1.5);
}

/** Derivative, smoothed by a Gaussian of that sigma (px), levels a pixel. */
export function smoothedSlopes(values: readonly number[], smoothing = SMOOTHING): number[] {
  const kernel = kernelOf(smoothing);
  const half = (kernel.length - 1) / 2;
  const last = values.length - 1;
  const slopes = new Array<number>(values.length).fill(0);
  for (let i = 0; i <= last; i++) {
    let sum = 0;
    for (let k = 0; k <= 2 * half; k++) sum += kernel[k]! * values[Math.min(last, Math.max(0, i + k - half))]!;
    slopes[i] = sum;
  }
  return slopes;
}

const kernels = new Map<number, readonly number[]>();
function kernelOf(smoothing: number): readonly number[] {
  const half = Math.ceil((3 * smoothing) / PROFILE_STEP);
  const kernel =
    kernels.get(smoothing) ??
    Array.from({ length: 2 * half + 1 }, (_, i) => {
      const t = (i - half) * PROFILE_STEP;
      return (
        ((t / smoothing ** 2) * Math.exp(-(t * t) / (2 * smoothing ** 2)) * PROFILE_STEP) /
        (smoothing * Math.sqrt(2 * Math.PI))
      );
    });
  kernels.set(smoothing, kernel);
  return kernel;
}
