import type { Vec } from '../geometry';
import { applyHomography, compose, inverse, type Homography } from './homography';
import { bowed, straightened, type Lens } from './lens';
import type { PictureGeometry } from './picture';

/** From sheet pixels to a plane: the lens about the picture's middle, then a projective map, and both back. */
export interface SheetMap {
  readonly middle: Vec;
  /** Half the diagonal, px: one unit of the lens. */
  readonly unit: number;
  readonly lens: Lens;
  /** From straightened units about the middle (y up) to the plane, and back. */
  readonly forward: Homography;
  readonly backward: Homography;
}

type Size = Pick<PictureGeometry, 'width' | 'height'>;

export const createSheetMap = (picture: Size, lens: Lens, forward: Homography): SheetMap => ({
  ...unitsOf(picture),
  lens,
  forward,
  backward: inverse(forward),
});

/** What places of a picture are counted from and by. px */
export const unitsOf = ({ width, height }: Size): Pick<SheetMap, 'middle' | 'unit'> => ({
  middle: [width / 2, height / 2],
  unit: Math.hypot(width, height) / 2,
});

/** Units about the picture's middle, y up, before the lens is taken out. */
export function toUnits({ middle, unit }: Pick<SheetMap, 'middle' | 'unit'>, [x, y]: Vec): Vec {
  return [(x - middle[0]) / unit, (middle[1] - y) / unit];
}

/** Weak: on or beyond the horizon there is no place on the plane; see `isInFront`. */
export function toPlane(map: SheetMap, sheet: Vec): Vec {
  return applyHomography(map.forward, straightened(map.lens, toUnits(map, sheet)));
}

export function toSheet({ middle, unit, lens, backward }: SheetMap, plane: Vec): Vec {
  const [u, v] = bowed(lens, applyHomography(backward, plane));
  return [middle[0] + u * unit, middle[1] - v * unit];
}

/** Whether a sheet point lies on the side of the horizon on which the plane is seen. */
export function isInFront(map: SheetMap, sheet: Vec): boolean {
  const [u, v] = straightened(map.lens, toUnits(map, sheet));
  const h = map.forward;
  return (h[6] * u + h[7] * v + h[8]) * h[8] > 0;
}

/** The same map, then another one on the plane. */
export function thenOnPlane(map: SheetMap, then: Homography): SheetMap {
  const forward = compose(then, map.forward);
  return { ...map, forward, backward: inverse(forward) };
}

/** Turn (radians, counter-clockwise), then shift. */
export function turnAndShift(turn: number, [x, y]: Vec): Homography {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [c, -s, x, s, c, y, 0, 0, 1];
}
