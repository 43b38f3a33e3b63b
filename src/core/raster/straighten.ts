import type { Vec } from '../geometry';

/** Red, green, blue, opacity by pixel, row by row. */
export interface RgbaPicture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** Rows and columns between the places that are mapped exactly; between them the map is taken as bilinear, off by under 0.01 px for what can be squared up. */
const CELL = 16;

/**
 * Rows `top` to `top + rows` of a picture of `width` that shows, at its pixel centres (i + 0.5, j + 0.5), what `toSource` says of
 * the source (px), bilinear. Where the source has nothing the result is clear. Weak: things drawn smaller than half are not averaged.
 */
export function straightenRows(
  source: RgbaPicture,
  width: number,
  top: number,
  rows: number,
  toSource: (at: Vec) => Vec,
): Uint8ClampedArray<ArrayBuffer> {
  const result = new Uint8ClampedArray(4 * width * rows);
  const columns = Math.ceil(width / CELL) + 1;
  const placesOn = (row: number) => Array.from({ length: columns }, (_, c) => toSource([c * CELL + 0.5, row + 0.5]));
  let upper = placesOn(top);
  for (let y = 0; y < rows; y += CELL) {
    const lower = placesOn(top + y + CELL);
    for (let c = 0; c + 1 < columns; c++)
      fillCell(source, result, width, rows, c * CELL, y, [upper[c]!, upper[c + 1]!, lower[c]!, lower[c + 1]!]);
    upper = lower;
  }
  return result;
}

function fillCell(
  source: RgbaPicture,
  result: Uint8ClampedArray,
  width: number,
  rows: number,
  left: number,
  top: number,
  [a, b, c, d]: readonly [Vec, Vec, Vec, Vec],
): void {
  if (!Number.isFinite(a[0] + b[0] + c[0] + d[0] + a[1] + b[1] + c[1] + d[1])) return;
  const right = Math.min(left + CELL, width);
  const bottom = Math.min(top + CELL, rows);
  for (let y = top; y < bottom; y++) {
    const t = (y - top) / CELL;
    const startX = a[0] + (c[0] - a[0]) * t;
    const startY = a[1] + (c[1] - a[1]) * t;
    const stepX = (b[0] + (d[0] - b[0]) * t - startX) / CELL;
    const stepY = (b[1] + (d[1] - b[1]) * t - startY) / CELL;
    fillRow(source, result, 4 * (y * width + left), right - left, startX - 0.5, startY - 0.5, stepX, stepY);
  }
}

/** `count` pixels from byte `to` on, taken from the source along a straight line; `u`, `v` count from the middle of its first pixel. */
function fillRow(
  { width, height, data }: RgbaPicture,
  result: Uint8ClampedArray,
  to: number,
  count: number,
  u: number,
  v: number,
  stepX: number,
  stepY: number,
): void {
  const down = 4 * width;
  for (let n = 0; n < count; n++, to += 4, u += stepX, v += stepY) {
    if (u < -0.5 || v < -0.5 || u > width - 0.5 || v > height - 0.5) continue;
    const x = u < 0 ? 0 : u > width - 1.001 ? width - 1.001 : u;
    const y = v < 0 ? 0 : v > height - 1.001 ? height - 1.001 : v;
    const i = x | 0;
    const k = y | 0;
    // Weights in 128ths: their products with a level stay whole numbers, which is several times quicker.
    const s = ((x - i) * 128) | 0;
    const r = ((y - k) * 128) | 0;
    const from = (k * width + i) << 2;
    const below = from + down;
    const northWest = (128 - s) * (128 - r);
    const northEast = s * (128 - r);
    const southWest = (128 - s) * r;
    const southEast = s * r;
    result[to] =
      (data[from]! * northWest +
        data[from + 4]! * northEast +
        data[below]! * southWest +
        data[below + 4]! * southEast +
        8192) >>
      14;
    result[to + 1] =
      (data[from + 1]! * northWest +
        data[from + 5]! * northEast +
        data[below + 1]! * southWest +
        data[below + 5]! * southEast +
        8192) >>
      14;
    result[to + 2] =
      (data[from + 2]! * northWest +
        data[from + 6]! * northEast +
        data[below + 2]! * southWest +
        data[below + 6]! * southEast +
        8192) >>
      14;
    result[to + 3] = 255;
  }
}
