import { median } from '../basics';
import type { Vec } from '../geometry';
import { readColour, type ColourPicture } from './colour-picture';

/** Colours along a straight scan. */
export interface Profile {
  /** By channel, every `PROFILE_STEP` px from one end to the other, averaged over the rows beside the scan. */
  readonly colours: readonly [Float64Array, Float64Array, Float64Array];
  /** Differences between neighbouring rows, a pixel apart. */
  readonly differences: readonly number[];
}

export const PROFILE_STEP = 0.25;
/** Derivatives are smoothed by a Gaussian of this sigma, px. */
export const SMOOTHING = 0.8;

/** Looked at once for every place of a scan: nothing is made anew in it. */
export function profileAlong(picture: ColourPicture, middle: Vec, across: Vec, reach: number, beside: number): Profile {
  const count = Math.round((2 * reach) / PROFILE_STEP) + 1;
  const colours = [new Float64Array(count), new Float64Array(count), new Float64Array(count)] as const;
  const differences: number[] = [];
  let [colour, before] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  const rows = 2 * beside + 1;
  for (let i = 0; i < count; i++) {
    const t = i * PROFILE_STEP - reach;
    for (let k = -beside; k <= beside; k++) {
      const x = middle[0] + across[0] * t - across[1] * k;
      readColour(picture, x, middle[1] + across[1] * t + across[0] * k, colour);
      for (let c = 0; c < 3; c++) {
        colours[c]![i]! += colour[c]! / rows;
        if (k > -beside && i % 4 === 0) differences.push(Math.abs(colour[c]! - before[c]!));
      }
      [colour, before] = [before, colour];
    }
  }
  return { colours, differences };
}

/** Noise of one pixel, one sigma: from the median difference of neighbours, 0.6745 √2 of it; interpolation has taken a third away. */
export function noiseOf({ differences }: Profile): number {
  return Math.max(0.7, (median(differences) / (0.6745 * Math.SQRT2)) * 1.5);
}

/** Derivative, smoothed by a Gaussian of that sigma (px), levels a pixel. */
export function smoothedSlopes(values: Float64Array, smoothing = SMOOTHING): Float64Array {
  const kernel = kernelOf(smoothing);
  const half = (kernel.length - 1) / 2;
  const last = values.length - 1;
  const slopes = new Float64Array(values.length);
  for (let i = 0; i <= last; i++) {
    let sum = 0;
    for (let k = -half; k <= half; k++) sum += kernel[k + half]! * values[Math.min(last, Math.max(0, i + k))]!;
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
