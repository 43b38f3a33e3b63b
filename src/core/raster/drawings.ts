import type { Vec } from '../geometry';
import type { GrayPicture } from './gray-picture';
import { darkestOf, inkOf, inkThreshold } from './paper';
import { turnedLevel } from './turned';

/** A box around a drawing on a sheet. Px of the picture that was looked at. */
export interface DrawingBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** White space that parts two drawings, and the smallest drawing, as shares of the longer side. */
const GAP = 0.03;
const LEAST = 0.06;
/** A single line, thinner than this, is no drawing. */
const THIN = 0.015;
/** Space left around a drawing. */
const MARGIN = 0.012;
/** A thin line around nearly everything is the sheet's border: so much of both sides, and at the most so much of its box inked. */
const BORDER_SPAN = 0.8;
const BORDER_INK = 0.06;
/** Dust is smaller than this share of the longer side. */
const SPECK = 0.004;
/** The shade of a fold is fainter than this share of the darkest ink, and its pieces run over so much of the sheet. */
const STRONG = 0.45;
const FOLD_SPAN = 0.12;

/**
 * The drawings on a sheet, told apart by the white space between them, in the order in which one reads. Ink that is nearer than
 * three hundredths of the longer side belongs together; a border around the sheet, dust and the shade of a fold are left away. One box
 * or none when there is nothing to part. Weak: drawings that overlap in white space, large titles, which count as drawings.
 */
export function listDrawings(picture: GrayPicture): readonly DrawingBox[] {
  const { width, height } = picture;
  const ink = inkOf(picture);
  const threshold = inkThreshold(ink);
  const all = parted(ink, threshold, width, height);
  if (all.length > 1) return all;
  // A fold or a stain may hang everything together: then only what is as dark as lines are counts.
  const strong = parted(withoutFaint(ink, threshold, STRONG * darkestOf(ink), width, height), threshold, width, height);
  return strong.length > 1 ? strong : all;
}

/** The boxes of what is darker than a threshold, in the order in which one reads. */
function parted(ink: Float32Array, threshold: number, width: number, height: number): readonly DrawingBox[] {
  const longer = Math.max(width, height);
  const inked = Uint8Array.from(ink, (value) => (value > threshold ? 1 : 0));
  clearMarks(
    inked,
    width,
    height,
    (w, h, members) => isBorder(w / width, h / height, members.length / (w * h)) || Math.max(w, h) < SPECK * longer,
  );
  const cell = Math.max(1, Math.round((GAP * longer) / 2));
  const margin = MARGIN * longer;
  return merged(listGroups(inked, width, height, cell), cell)
    .filter(
      ({ left, top, right, bottom }) =>
        Math.max(right - left, bottom - top) > LEAST * longer && Math.min(right - left, bottom - top) > THIN * longer,
    )
    .map((box) => ({
      left: Math.max(0, box.left - margin),
      top: Math.max(0, box.top - margin),
      right: Math.min(width, box.right + margin),
      bottom: Math.min(height, box.bottom + margin),
    }))
    .sort((a, b) => (a.top < b.bottom && b.top < a.bottom ? a.left - b.left : a.top - b.top));
}

/** Ink without what is faint and long, and without what hangs together and is faint all over. */
function withoutFaint(
  ink: Float32Array,
  threshold: number,
  strong: number,
  width: number,
  height: number,
): Float32Array {
  const faint = Uint8Array.from(ink, (value) => (value > threshold && value < strong ? 1 : 0));
  clearMarks(faint, width, height, (w, h) => Math.max(w / width, h / height) < FOLD_SPAN);
  const left = ink.map((value, at) => (faint[at] ? 0 : value));
  const inked = Uint8Array.from(left, (value) => (value > threshold ? 1 : 0));
  clearMarks(inked, width, height, (_, __, members) => !members.some((at) => ink[at]! > strong));
  return left.map((value, at) => (inked[at] ? value : 0));
}

/** Frames around the drawings of a sheet that is level along `direction` (radians, clockwise): corners in turn, px of the picture. */
export function listFrames(picture: GrayPicture, direction: number): readonly (readonly Vec[])[] {
  const turned = turnedLevel(picture, direction);
  return listDrawings(turned.picture).map(({ left, top, right, bottom }) =>
    (
      [
        [left, top],
        [right, top],
        [right, bottom],
        [left, bottom],
      ] as const
    ).map(turned.toSource),
  );
}

function isBorder(across: number, down: number, filled: number): boolean {
  return across > BORDER_SPAN && down > BORDER_SPAN && filled < BORDER_INK;
}

/** Takes away ink that hangs together, by the size of its box and its pixels. */
function clearMarks(
  inked: Uint8Array,
  width: number,
  height: number,
  isCleared: (width: number, height: number, members: readonly number[]) => boolean,
): void {
  for (const members of components(inked, width, height)) {
    const box = boxOf(members, width);
    if (isCleared(box.right - box.left, box.bottom - box.top, members)) members.forEach((at) => void (inked[at] = 0));
  }
}

/** Boxes of ink that hangs together on a coarse grid. */
function listGroups(inked: Uint8Array, width: number, height: number, cell: number): DrawingBox[] {
  const [columns, rows] = [Math.ceil(width / cell), Math.ceil(height / cell)];
  const filled = new Uint8Array(columns * rows);
  const tight = new Map<number, DrawingBox>();
  const counts = new Uint32Array(columns * rows);
  inked.forEach((is, at) => {
    if (is === 0) return;
    const [x, y] = [at % width, Math.floor(at / width)];
    const home = Math.floor(y / cell) * columns + Math.floor(x / cell);
    counts[home]!++;
    tight.set(home, joined(tight.get(home), { left: x, top: y, right: x + 1, bottom: y + 1 }));
  });
  // A single speck makes no drawing.
  counts.forEach((count, home) => void (filled[home] = count > 2 ? 1 : 0));
  return components(filled, columns, rows).map((cells) =>
    cells.map((home) => tight.get(home)!).reduce((all, box) => joined(all, box)),
  );
}

/** Pixels that touch, side or corner, group by group. */
function components(filled: Uint8Array, width: number, height: number): number[][] {
  const seen = new Uint8Array(filled.length);
  const groups: number[][] = [];
  for (let first = 0; first < filled.length; first++) {
    if (!filled[first] || seen[first]) continue;
    const group = [first];
    seen[first] = 1;
    for (let next = 0; next < group.length; next++) {
      const [x, y] = [group[next]! % width, Math.floor(group[next]! / width)];
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) {
          const at = (y + dy) * width + x + dx;
          if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height || !filled[at] || seen[at]) continue;
          seen[at] = 1;
          group.push(at);
        }
      }
    }
    groups.push(group);
  }
  return groups;
}

function boxOf(members: readonly number[], width: number): DrawingBox {
  return members.reduce<DrawingBox | undefined>(
    (box, at) =>
      joined(box, {
        left: at % width,
        top: Math.floor(at / width),
        right: (at % width) + 1,
        bottom: Math.floor(at / width) + 1,
      }),
    undefined,
  )!;
}

function joined(a: DrawingBox | undefined, b: DrawingBox): DrawingBox {
  return a
    ? {
        left: Math.min(a.left, b.left),
        top: Math.min(a.top, b.top),
        right: Math.max(a.right, b.right),
        bottom: Math.max(a.bottom, b.bottom),
      }
    : b;
}

/** Boxes that come nearer than a gap become one. */
function merged(boxes: readonly DrawingBox[], gap: number): DrawingBox[] {
  const left = [...boxes];
  for (let i = 0; i < left.length; i++) {
    const near = left.findIndex(
      (other, k) =>
        k > i &&
        other.left - gap < left[i]!.right &&
        left[i]!.left - gap < other.right &&
        other.top - gap < left[i]!.bottom &&
        left[i]!.top - gap < other.bottom,
    );
    if (near < 0) continue;
    left[i] = joined(left[i], left.splice(near, 1)[0]!);
    i = -1;
  }
  return left;
}
