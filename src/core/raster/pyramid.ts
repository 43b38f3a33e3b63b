import type { Vec } from '../geometry';
import { colourAt, type Colour, type ColourPicture } from './colour-picture';

/** A picture and its halves, quarters and so on: level n has pixels of 2ⁿ sheet pixels. */
export interface Pyramid {
  readonly levels: readonly ColourPicture[];
}

/** Halves by the mean of four pixels; an odd last row or column is dropped. Ends when a side would fall below 16. */
export function createPyramid(picture: ColourPicture): Pyramid {
  const levels = [picture];
  while (Math.min(levels.at(-1)!.width, levels.at(-1)!.height) >= 32) levels.push(halved(levels.at(-1)!));
  return { levels };
}

function halved({ width, height, data }: ColourPicture): ColourPicture {
  const [w, h, row] = [width >> 1, height >> 1, 3 * width];
  const half = new Uint8Array(3 * w * h);
  for (let y = 0, to = 0; y < h; y++) {
    for (let x = 0, from = 2 * y * row; x < w; x++, from += 6) {
      for (let c = 0; c < 3; c++, to++)
        half[to] = (data[from + c]! + data[from + 3 + c]! + data[from + row + c]! + data[from + row + 3 + c]! + 2) >> 2;
    }
  }
  return { width: w, height: h, data: half };
}

export function levelFor({ levels }: Pyramid, pixels: number): number {
  return Math.max(0, Math.min(levels.length - 1, Math.floor(Math.log2(Math.max(1, pixels)))));
}

/** Where a whole picture is looked over, it is so with about so many pixels along its longer side. */
const OVERLOOKED = 1100;

/** The level at which a whole picture is looked over, and how many sheet px its pixels have. */
export function levelToOverlook(pyramid: Pyramid): { readonly level: number; readonly pixel: number } {
  const { width, height } = pyramid.levels[0]!;
  const level = levelFor(pyramid, Math.max(width, height) / OVERLOOKED + 0.5);
  return { level, pixel: 2 ** level };
}

/** Colour averaged over about `pixels` sheet pixels. Undefined outside the picture. */
export function averageAt(pyramid: Pyramid, [x, y]: Vec, pixels: number): Colour | undefined {
  const full = pyramid.levels[0]!;
  if (x < 0 || y < 0 || x > full.width || y > full.height) return undefined;
  const level = levelFor(pyramid, pixels);
  return colourAt(pyramid.levels[level]!, [x / 2 ** level, y / 2 ** level]);
}
