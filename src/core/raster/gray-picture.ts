import type { Vec } from '../geometry';

/** Brightness by pixel, row by row, 0 to 255. Sheet frame: the centre of pixel (i, j) lies at (i + 0.5, j + 0.5). */
export interface GrayPicture {
  readonly width: number;
  readonly height: number;
  readonly data: Float32Array | Uint8Array | Uint8ClampedArray;
}

/** Luma of ITU-R BT.601 from red, green, blue and an ignored fourth channel. */
export function grayFrom(width: number, height: number, rgba: Uint8Array | Uint8ClampedArray): GrayPicture {
  const data = new Float32Array(width * height);
  for (let i = 0; i < data.length; i++)
    data[i] = 0.299 * rgba[4 * i]! + 0.587 * rgba[4 * i + 1]! + 0.114 * rgba[4 * i + 2]!;
  return { width, height, data };
}

/** Brightness between pixel centres, bilinear; beyond the rim the rim's own. */
export function brightnessAt({ width, height, data }: GrayPicture, [x, y]: Vec): number {
  const u = Math.min(Math.max(x - 0.5, 0), width - 1.001);
  const v = Math.min(Math.max(y - 0.5, 0), height - 1.001);
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const [s, t] = [u - i, v - j];
  const first = j * width + i;
  const top = data[first]! * (1 - s) + data[first + 1]! * s;
  return top * (1 - t) + (data[first + width]! * (1 - s) + data[first + width + 1]! * s) * t;
}
