import type { Vec } from '../geometry';

/** Red, green, blue by pixel, row by row, 0 to 255. Sheet frame: the centre of pixel (i, j) lies at (i + 0.5, j + 0.5). */
export interface ColourPicture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

export type Colour = readonly [number, number, number];

/** From red, green, blue and a fourth channel that is ignored. */
export function colourPictureFrom(width: number, height: number, rgba: Uint8Array | Uint8ClampedArray): ColourPicture {
  const data = new Uint8Array(3 * width * height);
  for (let from = 0, to = 0; to < data.length; from += 4, to += 3) {
    data[to] = rgba[from]!;
    data[to + 1] = rgba[from + 1]!;
    data[to + 2] = rgba[from + 2]!;
  }
  return { width, height, data };
}

/** Colour between pixel centres, bilinear; beyond the rim the rim's own. */
export function colourAt(picture: ColourPicture, [x, y]: Vec): Colour {
  const colour: [number, number, number] = [0, 0, 0];
  readColour(picture, x, y, colour);
  return colour;
}

/** The same into three numbers that are there already: scans read a hundred thousand of them. */
export function readColour({ width, height, data }: ColourPicture, x: number, y: number, into: number[]): void {
  const u = Math.min(Math.max(x - 0.5, 0), width - 1.001);
  const v = Math.min(Math.max(y - 0.5, 0), height - 1.001);
  const i = Math.floor(u);
  const j = Math.floor(v);
  const s = u - i;
  const t = v - j;
  const a = 3 * (j * width + i);
  const b = a + 3 * width;
  const w = (1 - s) * (1 - t);
  const x1 = s * (1 - t);
  const y1 = (1 - s) * t;
  const z = s * t;
  for (let c = 0; c < 3; c++)
    into[c] = w * data[a + c]! + x1 * data[a + 3 + c]! + y1 * data[b + c]! + z * data[b + 3 + c]!;
}

export function contrastOf(a: Colour, b: Colour): number {
  const [red, green, blue] = [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
  return Math.sqrt(red * red + green * green + blue * blue);
}
