import type { Vec } from '../geometry';
import { brightnessAt, type GrayPicture } from './gray-picture';

/** A picture turned level, and the way back. */
export interface TurnedPicture {
  readonly picture: GrayPicture;
  /** From a place of the turned picture to the picture it was made of. px */
  toSource(place: Vec): Vec;
}

/** A picture turned so that `direction` (radians, clockwise) is level, bilinear; beyond its rim the rim's own brightness goes on. */
export function turnedLevel(source: GrayPicture, direction: number): TurnedPicture {
  const [c, s] = [Math.cos(direction), Math.sin(direction)];
  const seen = [[0, 0], [source.width, 0], [0, source.height], [source.width, source.height]].map(([x, y]) => [c * x! + s * y!, c * y! - s * x!] as const);
  const [left, top] = [Math.min(...seen.map(([x]) => x)), Math.min(...seen.map(([, y]) => y))];
  const [width, height] = [Math.ceil(Math.max(...seen.map(([x]) => x)) - left), Math.ceil(Math.max(...seen.map(([, y]) => y)) - top)];
  const toSource = ([x, y]: Vec): Vec => [c * (x + left) - s * (y + top), s * (x + left) + c * (y + top)];
  const data = new Float32Array(width * height);
  for (let j = 0; j < height; j++) for (let i = 0; i < width; i++) data[j * width + i] = brightnessAt(source, toSource([i + 0.5, j + 0.5]));
  return { picture: { width, height, data }, toSource };
}
