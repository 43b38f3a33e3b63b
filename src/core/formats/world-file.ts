import type { Vec } from '../geometry';

/**
 * The six lines of a world file, which say where a picture lies: size of a pixel across, two turns, size down (negative, since rows
 * run down), and the place of the middle of the upper left pixel. In the unit of `corner`, the outer corner of that pixel.
 * Common practice; there is no standard.
 */
export function writeWorldFile(corner: Vec, perUnit: number): string {
  const pixel = 1 / perUnit;
  return `${[pixel, 0, 0, -pixel, corner[0] + pixel / 2, corner[1] - pixel / 2].map((value) => value.toFixed(10)).join('\n')}\n`;
}
