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
export function straightenRows(source: RgbaPicture, width: number, top: number, rows: number, toSource: (at: Vec) => Vec): Uint8ClampedArray<ArrayBuffer> {
  const result = new Uint8ClampedArray(4 * width * rows);
  const columns = Math.ceil(width / CELL) + 1;
  const placesOn = (row: number) => Array.from({ length: columns }, (_, c) => toSource([c * CELL + 0.5, row + 0.5]));
  let upper = placesOn(top);
  for (let y = 0; y < rows; y += CELL) {
    const lower = placesOn(top + y + CELL);
    for (let c = 0; c + 1 < columns; c++) fillCell(source, result, width, rows, c * CELL, y, [upper[c]!, upper[c + 1]!, lower[c]!, lower[c + 1]!]);
    upper = lower;
  }
  return result;
}

function fillCell(source: RgbaPicture, result: Uint8ClampedArray, width: number, rows: number, left: number, top: number, [a, b, c, d]: readonly [Vec, Vec, Vec, Vec]): void {
  if (!Number.isFinite(a[0] + b[0] + c[0] + d[0] + a[1] + b[1] + c[1] + d[1])) return;
  const { width: w, height: h, data } = source;
  for (let y = top; y < Math.min(top + CELL, rows); y++) {
    const t = (y - top) / CELL;
    const [startX, startY] = [a[0] + (c[0] - a[0]) * t, a[1] + (c[1] - a[1]) * t];
    const [stepX, stepY] = [(b[0] + (d[0] - b[0]) * t - startX) / CELL, (b[1] + (d[1] - b[1]) * t - startY) / CELL];
    for (let x = left, u = startX - 0.5, v = startY - 0.5; x < Math.min(left + CELL, width); x++, u += stepX, v += stepY) {
      if (u < -0.5 || v < -0.5 || u > w - 0.5 || v > h - 0.5) continue;
      const [i, k] = [Math.min(w - 2, Math.max(0, Math.floor(u))), Math.min(h - 2, Math.max(0, Math.floor(v)))];
      const [s, r] = [Math.min(1, Math.max(0, u - i)), Math.min(1, Math.max(0, v - k))];
      const from = 4 * (k * w + i);
      const below = from + 4 * w;
      const to = 4 * (y * width + x);
      for (let channel = 0; channel < 3; channel++) {
        const upper = data[from + channel]! + (data[from + 4 + channel]! - data[from + channel]!) * s;
        const lower = data[below + channel]! + (data[below + 4 + channel]! - data[below + channel]!) * s;
        result[to + channel] = upper + (lower - upper) * r;
      }
      result[to + 3] = 255;
    }
  }
}
