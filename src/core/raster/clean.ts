import type { Vec } from '../geometry';
import type { Colour } from './colour-picture';
import { WHITE, type PaperField } from './paper-field';
import { darknessOf, listSpecks, type Speck, type Strip } from './specks';

/** What is done to a picture before it is shown, step by step. Sheet px. */
export type Cleaning =
  | { readonly kind: 'even' }
  | { readonly kind: 'specks'; readonly size: number }
  | { readonly kind: 'rub' | 'fill'; readonly strokes: readonly Stroke[] };

export interface Stroke {
  readonly radius: number;
  readonly path: readonly Vec[];
}

/** How many rows beside those that are wanted have to be there, so that every strip comes out like the whole would. */
export function marginOf(steps: readonly Cleaning[]): number {
  return steps.reduce((sum, step) => sum + (step.kind === 'specks' ? Math.ceil(step.size) + 10 : 0), 0);
}

/**
 * Cleans a strip in place, and says how many specks of each step begin in its rows `from` to `to`: those that stand for themselves, without the margin.
 * What comes after `even` sees even paper.
 */
export function cleanStrip(
  strip: Strip,
  steps: readonly Cleaning[],
  paper: PaperField,
  from: number,
  to: number,
): number[] {
  let field = paper;
  return steps.map((step) => {
    if (step.kind === 'specks') return takeSpecks(strip, step.size, field, from, to);
    if (step.kind === 'even') {
      if (field === paper) makeEven(strip, paper);
      field = paper.even();
    } else for (const stroke of step.strokes) paint(strip, stroke, step.kind === 'rub' ? field : undefined, field.ink);
    return 0;
  });
}

function makeEven({ width, height, top, data }: Strip, paper: PaperField): void {
  for (let y = 0; y < height; y++) {
    const bare = paper.row(0, top + y, width);
    for (let x = 0, at = 4 * y * width; x < width; x++, at += 4) {
      for (let channel = 0; channel < 3; channel++)
        data[at + channel] = (data[at + channel]! * WHITE) / Math.max(1, bare[3 * x + channel]!);
    }
  }
}

function takeSpecks(strip: Strip, size: number, paper: PaperField, from: number, to: number): number {
  const dark = darknessOf(strip, (y) => paper.row(0, y, strip.width));
  let count = 0;
  for (const speck of listSpecks(dark, strip.width, strip.height, size)) {
    // Pieces of larger things that the strip cuts off may go too: they lie in its margin, which nobody keeps.
    cover(strip, speck, dark);
    if (speck.top + strip.top >= from && speck.top + strip.top < to) count++;
  }
  return count;
}

/** A speck takes the colour of what lies around it. */
function cover({ width, height, data }: Strip, { left, right, top, bottom, pixels }: Speck, dark: Float32Array): void {
  const sum = [0, 0, 0];
  let count = 0;
  const own = new Set(pixels);
  const [x0, x1, y0, y1] = [
    Math.max(0, left - 3),
    Math.min(width - 1, right + 3),
    Math.max(0, top - 3),
    Math.min(height - 1, bottom + 3),
  ];
  for (let y = y0; y <= y1; y++) {
    for (let x = x0; x <= x1; x++) {
      if (own.has(y * width + x) || dark[y * width + x]! > 0.05) continue;
      for (let channel = 0; channel < 3; channel++) sum[channel]! += data[4 * (y * width + x) + channel]!;
      count++;
    }
  }
  if (count === 0) return;
  const bare = sum.map((value) => value / count);
  for (let y = Math.max(0, top - 1); y <= Math.min(height - 1, bottom + 1); y++) {
    for (let x = Math.max(0, left - 1); x <= Math.min(width - 1, right + 1); x++) {
      const at = y * width + x;
      // Its soft rim goes with it, nothing of what stands beside it.
      if (own.has(at) || (touches(own, at, width) && dark[at]! > 0.02))
        for (let channel = 0; channel < 3; channel++) data[4 * at + channel] = bare[channel]!;
    }
  }
}

function touches(own: ReadonlySet<number>, at: number, width: number): boolean {
  return own.has(at - 1) || own.has(at + 1) || own.has(at - width) || own.has(at + width);
}

/** Box of a stroke on the sheet, px. */
export function strokeBounds({ radius, path }: Stroke): { readonly min: Vec; readonly max: Vec } {
  const [xs, ys] = [path.map((p) => p[0]), path.map((p) => p[1])];
  return {
    min: [Math.min(...xs) - radius - 1, Math.min(...ys) - radius - 1],
    max: [Math.max(...xs) + radius + 1, Math.max(...ys) + radius + 1],
  };
}

/** Paints along a stroke with a rim that is a pixel soft: the paper of each row, or ink. */
function paint(strip: Strip, stroke: Stroke, paper: PaperField | undefined, ink: Colour): void {
  const { width, height, top, data } = strip;
  const { min, max } = strokeBounds(stroke);
  const [x0, x1] = [Math.max(0, Math.floor(min[0])), Math.min(width - 1, Math.ceil(max[0]))];
  const [y0, y1] = [Math.max(0, Math.floor(min[1]) - top), Math.min(height - 1, Math.ceil(max[1]) - top)];
  for (let y = y0; y <= y1; y++) {
    const bare = paper?.row(0, top + y, width);
    for (let x = x0; x <= x1; x++) {
      const share = Math.max(
        0,
        Math.min(1, stroke.radius + 0.5 - distanceToPath([x + 0.5, top + y + 0.5], stroke.path)),
      );
      if (share === 0) continue;
      const at = 4 * (y * width + x);
      for (let channel = 0; channel < 3; channel++) {
        const colour = bare ? bare[3 * x + channel]! : ink[channel]!;
        data[at + channel] = data[at + channel]! * (1 - share) + colour * share;
      }
    }
  }
}

function distanceToPath([x, y]: Vec, path: readonly Vec[]): number {
  let least = Infinity;
  for (let i = 0; i < path.length; i++) {
    const [[ax, ay], [bx, by]] = [path[i]!, path[i + 1] ?? path[i]!];
    const length = (bx - ax) ** 2 + (by - ay) ** 2;
    const t = length === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length));
    least = Math.min(least, Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)));
  }
  return least;
}
