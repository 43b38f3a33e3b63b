/** Part of a picture: four values a pixel, whole rows, the first of them row `top` of the sheet. */
export interface Strip {
  readonly width: number;
  readonly height: number;
  readonly top: number;
  readonly data: Uint8ClampedArray;
}

/** A dark spot that stands alone: the box around it, strip px, and its pixels. */
export interface Speck {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly pixels: readonly number[];
}

/** Darker than paper by this share a pixel belongs to something; something is there where it is darker by the second. */
const FAINT = 0.07;
const THERE = 0.16;

/** Darkness against the paper, 0 to 1, by pixel. */
export function darknessOf({ width, height, top, data }: Strip, paperRow: (y: number) => Float32Array): Float32Array {
  const dark = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const paper = paperRow(top + y);
    for (let x = 0; x < width; x++) {
      const [at, p] = [4 * (y * width + x), 3 * x];
      const own = 0.3 * data[at]! + 0.59 * data[at + 1]! + 0.11 * data[at + 2]!;
      const bare = 0.3 * paper[p]! + 0.59 * paper[p + 1]! + 0.11 * paper[p + 2]!;
      dark[y * width + x] = bare > 0 ? Math.max(0, 1 - own / bare) : 0;
    }
  }
  return dark;
}

/**
 * Dark spots no larger than `size` px either way, measured where they are at least half as dark as at their darkest. What hangs together with anything
 * larger, however faintly, is no speck, so that the ends of strokes stay. Spots that leave the strip are not told. Weak: dots and short dashes of
 * a drawing are specks too.
 */
export function listSpecks(dark: Float32Array, width: number, height: number, size: number): Speck[] {
  const seen = new Uint8Array(width * height);
  const specks: Speck[] = [];
  // Soft rims make a spot wider than it looks.
  const most = size + 6;
  for (let start = 0; start < dark.length; start++) {
    if (seen[start] || dark[start]! < FAINT) continue;
    const spot = spotFrom(start, { dark, seen, width, height, most });
    if (spot && isSpeck(spot, dark, width, size)) specks.push(spot);
  }
  return specks;
}

interface Field {
  readonly dark: Float32Array;
  readonly seen: Uint8Array;
  readonly width: number;
  readonly height: number;
  readonly most: number;
}

/** All that hangs together with a pixel; undefined when that is too wide. Marks all of it as seen either way. */
function spotFrom(start: number, { dark, seen, width, height, most }: Field): Speck | undefined {
  const stack = [start];
  const pixels: number[] = [];
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  seen[start] = 1;
  while (stack.length > 0) {
    const at = stack.pop()!;
    const [x, y] = [at % width, (at - (at % width)) / width];
    left = x < left ? x : left;
    right = x > right ? x : right;
    top = y < top ? y : top;
    bottom = y > bottom ? y : bottom;
    if (right - left < most && bottom - top < most) pixels.push(at);
    for (let k = Math.max(0, y - 1); k <= Math.min(height - 1, y + 1); k++) {
      for (let i = Math.max(0, x - 1); i <= Math.min(width - 1, x + 1); i++) {
        const next = k * width + i;
        if (seen[next] || dark[next]! < FAINT) continue;
        seen[next] = 1;
        stack.push(next);
      }
    }
  }
  return right - left < most && bottom - top < most ? { left, right, top, bottom, pixels } : undefined;
}

function isSpeck({ pixels }: Speck, dark: Float32Array, width: number, size: number): boolean {
  const darkest = pixels.reduce((most, at) => Math.max(most, dark[at]!), 0);
  if (darkest < THERE) return false;
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const at of pixels) {
    if (dark[at]! < darkest / 2) continue;
    const [x, y] = [at % width, Math.floor(at / width)];
    [left, right, top, bottom] = [Math.min(left, x), Math.max(right, x), Math.min(top, y), Math.max(bottom, y)];
  }
  return right - left < size && bottom - top < size;
}
