import { add, awayFrom, lineThrough, scale, type FittedLine, type Vec } from '../geometry';
import type { ColourPicture } from './colour-picture';

/** Pixels at which colour changes most steeply across them, as arrays: place, direction of the change, and how much. Pixels of their picture. */
export interface Edgels {
  readonly count: number;
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** Direction of the change, radians; which of its two ways is not told. */
  readonly direction: Float32Array;
  /** Levels of colour between the two neighbours. */
  readonly contrast: Float32Array;
}

/** A change by less than this is grain. */
const LEAST = 10;
const TANGENT = Math.tan(Math.PI / 8);

/** Looked for once in each picture: one is tapped on again and again. */
const known = new WeakMap<ColourPicture, Edgels>();
export function listEdgels(picture: ColourPicture): Edgels {
  const edgels = known.get(picture) ?? findEdgels(picture);
  known.set(picture, edgels);
  return edgels;
}

/**
 * Edge pixels of a whole picture: colour gradients in the channel that changes most, kept where they are steepest along their own direction
 * (Canny, A computational approach to edge detection, 1986, without his tracking). By channels, since oiled wood and steel can be equally bright.
 */
function findEdgels({ width, height, data }: ColourPicture): Edgels {
  // The square of how much, which needs no root where it is only compared.
  const [gx, gy, size] = [
    new Float32Array(width * height),
    new Float32Array(width * height),
    new Float32Array(width * height),
  ];
  for (let j = 1; j < height - 1; j++) {
    for (let i = 1; i < width - 1; i++) {
      const at = 3 * (j * width + i);
      for (let c = 0; c < 3; c++) {
        const [dx, dy] = [data[at + 3 + c]! - data[at - 3 + c]!, data[at + 3 * width + c]! - data[at - 3 * width + c]!];
        const change = dx * dx + dy * dy;
        const pixel = j * width + i;
        if (change > size[pixel]!) [gx[pixel], gy[pixel], size[pixel]] = [dx, dy, change];
      }
    }
  }
  const kept: number[] = [];
  for (let j = 2; j < height - 2; j++)
    for (let i = 2; i < width - 2; i++) if (isSteepest(j * width + i, width, gx, gy, size)) kept.push(j * width + i);
  return {
    count: kept.length,
    x: Float32Array.from(kept, (pixel) => (pixel % width) + 0.5),
    y: Float32Array.from(kept, (pixel) => Math.floor(pixel / width) + 0.5),
    direction: Float32Array.from(kept, (pixel) => Math.atan2(gy[pixel]!, gx[pixel]!)),
    contrast: Float32Array.from(kept, (pixel) => Math.sqrt(size[pixel]!)),
  };
}

/** To the one of the eight pixels around that a slope points at most nearly, or away from. */
function stepAlong(dx: number, dy: number, width: number): number {
  const [ax, ay] = [Math.abs(dx), Math.abs(dy)];
  if (ay < TANGENT * ax) return 1;
  if (ax < TANGENT * ay) return width;
  return dx * dy > 0 ? width + 1 : width - 1;
}

function isSteepest(pixel: number, width: number, gx: Float32Array, gy: Float32Array, size: Float32Array): boolean {
  const here = size[pixel]!;
  if (here < LEAST * LEAST) return false;
  const [dx, dy] = [gx[pixel]!, gy[pixel]!];
  const step = stepAlong(dx, dy, width);
  return here >= size[pixel - step]! && here > size[pixel + step]!;
}

const RAYS = 720;
/** Hits on a ray nearer to each other than this are one, px. */
const ONE_HIT = 2.5;

/** The edges that are met first as one goes out from a place: so many on each ray. What lies beyond them, squared paper or the grain of a table, is another thing's. */
export function firstMet(edgels: Edgels, [x0, y0]: Vec, hits: number): Edgels {
  const rays = Array.from({ length: RAYS }, (): number[] => []);
  const far = Float64Array.from({ length: edgels.count }, (_, e) => Math.hypot(edgels.x[e]! - x0, edgels.y[e]! - y0));
  for (let e = 0; e < edgels.count; e++)
    rays[Math.floor(((Math.atan2(edgels.y[e]! - y0, edgels.x[e]! - x0) / (2 * Math.PI) + 0.5) * RAYS) % RAYS)]!.push(e);
  const kept = rays.flatMap((ray) => {
    let [met, last] = [0, -Infinity];
    return ray
      .sort((a, b) => far[a]! - far[b]!)
      .filter((e) => {
        if (far[e]! > last + ONE_HIT) met++;
        last = far[e]!;
        return met <= hits;
      });
  });
  return only(edgels, kept);
}

/** The edges that lie inside a shape with such corners, by at least so many px. */
export function edgelsWithin(edgels: Edgels, corners: readonly Vec[], margin: number): Edgels {
  const middle = scale(corners.reduce(add), 1 / corners.length);
  const sides = corners.map((from, i): FittedLine => {
    const line = lineThrough([from, corners[(i + 1) % corners.length]!]);
    return awayFrom(line, middle) > 0 ? line : { normal: line.normal + Math.PI, offset: -line.offset };
  });
  const kept: number[] = [];
  for (let e = 0; e < edgels.count; e++)
    if (sides.every((side) => awayFrom(side, [edgels.x[e]!, edgels.y[e]!]) > margin)) kept.push(e);
  return only(edgels, kept);
}

function only({ x, y, direction, contrast }: Edgels, kept: readonly number[]): Edgels {
  const pick = (values: Float32Array) => {
    const picked = new Float32Array(kept.length);
    for (let i = 0; i < kept.length; i++) picked[i] = values[kept[i]!]!;
    return picked;
  };
  return { count: kept.length, x: pick(x), y: pick(y), direction: pick(direction), contrast: pick(contrast) };
}
