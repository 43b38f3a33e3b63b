import type { Colour, ColourPicture } from './colour-picture';

/** The colour of the bare paper everywhere on a sheet, and of the ink on it. 0 to 255; places in sheet px. */
export interface PaperField {
  /** Paper along a row of the sheet, from `x` on, three values a pixel. */
  row(x: number, y: number, count: number): Float32Array;
  readonly ink: Colour;
  /** The same sheet after its paper was made even. */
  even(): PaperField;
}

/** Even paper is this bright. */
export const WHITE = 250;

/** Paper is looked for in squares of so many pixels of the small picture. */
const BLOCK = 20;
/** In a square the brightest are paper, unless all of it is covered. */
const BRIGHT = 0.6;
/** A square that is this much darker than those around it shows a thing and no paper. */
const COVERED = 0.75;
/** So small a share of the darkest is ink. */
const DARKEST = 0.004;

const brightness = (data: ArrayLike<number>, at: number) =>
  0.3 * data[at]! + 0.59 * data[at + 1]! + 0.11 * data[at + 2]!;

/**
 * Paper and ink of a sheet from a small picture of it; `scale`: sheet pixels to one of its pixels. Light that falls off and stains that are wide are
 * followed, what is narrower than about a fiftieth of the sheet is not. Weak: on photographs of things it follows the things.
 */
export function paperOf(small: ColourPicture, scale: number): PaperField {
  const [columns, rows] = [Math.max(1, Math.round(small.width / BLOCK)), Math.max(1, Math.round(small.height / BLOCK))];
  const blocks = new Float32Array(3 * columns * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++)
      blocks.set(paperIn(small, c / columns, (c + 1) / columns, r / rows, (r + 1) / rows), 3 * (r * columns + c));
  const grid = smoothed(withoutCovered(blocks, columns, rows), columns, rows);
  const [stepX, stepY] = [(small.width * scale) / columns, (small.height * scale) / rows];
  const ink = inkIn(small);
  return {
    ink,
    even: () => evenField(ink),
    row: (x, y, count) => rowOf({ grid, columns, rows, stepX, stepY }, x, y, count),
  };
}

function evenField([r, g, b]: Colour): PaperField {
  const field: PaperField = {
    ink: [0.95 * r, 0.95 * g, 0.95 * b],
    even: () => field,
    row: (_x, _y, count) => new Float32Array(3 * count).fill(WHITE),
  };
  return field;
}

function paperIn(
  { width, height, data }: ColourPicture,
  left: number,
  right: number,
  top: number,
  bottom: number,
): Colour {
  const places: number[] = [];
  for (let y = Math.floor(top * height); y < Math.max(bottom * height, top * height + 1) && y < height; y++) {
    for (let x = Math.floor(left * width); x < Math.max(right * width, left * width + 1) && x < width; x++)
      places.push(3 * (y * width + x));
  }
  places.sort((a, b) => brightness(data, a) - brightness(data, b));
  const bright = places.slice(Math.floor(places.length * BRIGHT), Math.max(1, Math.ceil(places.length * 0.95)));
  return [0, 1, 2].map(
    (channel) => bright.reduce((sum, at) => sum + data[at + channel]!, 0) / bright.length,
  ) as unknown as Colour;
}

/** Squares that are covered take the paper of the nearest ones that are not. */
function withoutCovered(blocks: Float32Array, columns: number, rows: number): Float32Array {
  const levels = Array.from({ length: columns * rows }, (_, i) => brightness(blocks, 3 * i));
  const usual = [...levels].sort((a, b) => a - b)[Math.floor(0.7 * levels.length)]!;
  const bare = levels.flatMap((level, i) => (level >= COVERED * usual ? [i] : []));
  const out = blocks.slice();
  levels.forEach((level, i) => {
    if (level >= COVERED * usual) return;
    const away = (j: number) =>
      ((i % columns) - (j % columns)) ** 2 + (Math.floor(i / columns) - Math.floor(j / columns)) ** 2;
    const nearest = bare.reduce((best, j) => (away(j) < away(best) ? j : best), bare[0]!);
    out.set(blocks.subarray(3 * nearest, 3 * nearest + 3), 3 * i);
  });
  return out;
}

/** Mean of each square and its neighbours: no step shows where squares meet. */
function smoothed(blocks: Float32Array, columns: number, rows: number): Float32Array {
  const out = new Float32Array(blocks.length);
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      for (let channel = 0; channel < 3; channel++) {
        let [sum, count] = [0, 0];
        for (let k = Math.max(0, r - 1); k <= Math.min(rows - 1, r + 1); k++) {
          for (let i = Math.max(0, c - 1); i <= Math.min(columns - 1, c + 1); i++) {
            sum += blocks[3 * (k * columns + i) + channel]!;
            count++;
          }
        }
        out[3 * (r * columns + c) + channel] = sum / count;
      }
    }
  }
  return out;
}

interface Grid {
  readonly grid: Float32Array;
  readonly columns: number;
  readonly rows: number;
  readonly stepX: number;
  readonly stepY: number;
}

/** Bilinear between the middles of the squares. */
function rowOf({ grid, columns, rows, stepX, stepY }: Grid, x: number, y: number, count: number): Float32Array {
  const out = new Float32Array(3 * count);
  const v = Math.min(Math.max((y + 0.5) / stepY - 0.5, 0), rows - 1);
  const [k, t] = [Math.min(Math.floor(v), Math.max(0, rows - 2)), v - Math.min(Math.floor(v), Math.max(0, rows - 2))];
  const [upper, lower] = [3 * k * columns, 3 * Math.min(rows - 1, k + 1) * columns];
  for (let i = 0; i < count; i++) {
    const u = Math.min(Math.max((x + i + 0.5) / stepX - 0.5, 0), columns - 1);
    const c = Math.min(Math.floor(u), Math.max(0, columns - 2));
    const s = u - c;
    const [a, b] = [3 * c, 3 * Math.min(columns - 1, c + 1)];
    for (let channel = 0; channel < 3; channel++) {
      const top = grid[upper + a + channel]! * (1 - s) + grid[upper + b + channel]! * s;
      out[3 * i + channel] =
        top * (1 - t) + (grid[lower + a + channel]! * (1 - s) + grid[lower + b + channel]! * s) * t;
    }
  }
  return out;
}

/** Mean of the darkest few. */
function inkIn({ width, height, data }: ColourPicture): Colour {
  const count = new Uint32Array(256);
  for (let at = 0; at < data.length; at += 3) count[Math.floor(brightness(data, at))]!++;
  let [limit, seen] = [0, 0];
  while (limit < 255 && seen < DARKEST * width * height) seen += count[limit++]!;
  const sum = [0, 0, 0, 0];
  for (let at = 0; at < data.length; at += 3) {
    if (brightness(data, at) >= limit) continue;
    for (let channel = 0; channel < 3; channel++) sum[channel]! += data[at + channel]!;
    sum[3]!++;
  }
  return [0, 1, 2].map((channel) => (sum[3]! > 0 ? sum[channel]! / sum[3]! : 30)) as unknown as Colour;
}
