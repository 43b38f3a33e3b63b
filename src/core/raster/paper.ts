import type { GrayPicture } from './gray-picture';

/** Side of the squares in which paper is told from ink, as a share of the longer side. */
const SQUARE_SHARE = 1 / 24;
/** The paper's own brightness within a square: brighter than all but this share of it. */
const PAPER_RANK = 0.8;

/**
 * How dark each pixel is against the paper around it, 0 to 255: uneven light and yellowed paper fall away. The paper's brightness is a high
 * rank within squares, bilinear between their middles. Weak: pictures without paper, and filled shapes larger than a square.
 */
export function inkOf(picture: GrayPicture): Float32Array {
  const { width, height, data } = picture;
  const size = Math.max(8, Math.round(Math.max(width, height) * SQUARE_SHARE));
  const [columns, rows] = [Math.ceil(width / size), Math.ceil(height / size)];
  const paper = Float32Array.from({ length: columns * rows }, (_, i) =>
    paperIn(picture, (i % columns) * size, Math.floor(i / columns) * size, size),
  );
  const ink = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const v = Math.min(rows - 1, Math.max(0, (y + 0.5) / size - 0.5));
    const [top, t] = [Math.min(rows - 1, Math.floor(v)), v - Math.floor(v)];
    const below = Math.min(rows - 1, top + 1) * columns;
    for (let x = 0; x < width; x++) {
      const u = Math.min(columns - 1, Math.max(0, (x + 0.5) / size - 0.5));
      const [left, s] = [Math.min(columns - 1, Math.floor(u)), u - Math.floor(u)];
      const right = Math.min(columns - 1, left + 1);
      const light =
        (1 - t) * ((1 - s) * paper[top * columns + left]! + s * paper[top * columns + right]!) +
        t * ((1 - s) * paper[below + left]! + s * paper[below + right]!);
      ink[y * width + x] = Math.max(0, light - data[y * width + x]!);
    }
  }
  return ink;
}

function paperIn({ width, height, data }: GrayPicture, left: number, top: number, size: number): number {
  const counts = new Uint32Array(256);
  let count = 0;
  for (let y = top; y < Math.min(height, top + size); y += 2) {
    for (let x = left; x < Math.min(width, left + size); x += 2, count++)
      counts[Math.min(255, Math.max(0, Math.round(data[y * width + x]!)))]!++;
  }
  let seen = 0;
  for (let value = 0; value < 256; value++) if ((seen += counts[value]!) >= PAPER_RANK * count) return value;
  return 255;
}

/** Pixels here and there, in the order of their darkness. */
function sampled(ink: Float32Array): Float32Array {
  const count = Math.min(20_000, ink.length);
  return Float32Array.from({ length: count }, (_, i) => ink[Math.floor((i * ink.length) / count)]!).sort();
}

/** The darkest ink that there is more than a speck of. */
export function darkestOf(ink: Float32Array): number {
  const some = sampled(ink);
  return some[Math.floor(0.999 * some.length)]!;
}

/** Darkness that counts as ink: against the scatter of the paper itself, and the darkest there is. */
export function inkThreshold(ink: Float32Array): number {
  const some = sampled(ink);
  return Math.max(18, 3 * some[Math.floor(0.75 * some.length)]!, 0.25 * darkestOf(ink));
}
