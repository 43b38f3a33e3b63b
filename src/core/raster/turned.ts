import { add, boxAround, levelled, type Vec } from '../geometry';
import { brightnessAt, type GrayPicture } from './gray-picture';

/** A picture turned level, and the way back. */
export interface TurnedPicture {
  readonly picture: GrayPicture;
  /** From a place of the turned picture to the picture it was made of. px */
  toSource(place: Vec): Vec;
}

/** A picture turned so that `direction` (radians, clockwise) is level, bilinear; beyond its rim the rim's own brightness goes on. */
export function turnedLevel(source: GrayPicture, direction: number): TurnedPicture {
  const level = levelled(direction);
  const { min, max } = boxAround(
    (
      [
        [0, 0],
        [source.width, 0],
        [0, source.height],
        [source.width, source.height],
      ] as const
    ).map(level.toSeen),
  );
  const [width, height] = [Math.ceil(max[0] - min[0]), Math.ceil(max[1] - min[1])];
  const toSource = (place: Vec) => level.toSheet(add(place, min));
  const data = new Float32Array(width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) data[j * width + i] = brightnessAt(source, toSource([i + 0.5, j + 0.5]));
  return { picture: { width, height, data }, toSource };
}
