import { placed, polar, subtract, type Affine, type Vec } from '../geometry';

/** A turn, and where zero comes to after it. mm, radians. */
export interface Put {
  readonly at: Vec;
  readonly turn: number;
}

export const mapOfPut = ({ at, turn }: Put): Affine => placed(at, turn);

/** A place of the plane on which a drawing is put so, in the drawing's own plane. */
export function inOwn({ at, turn }: Put, place: Vec): Vec {
  const [c, s] = polar(1, turn);
  const [x, y] = subtract(place, at);
  return [c * x + s * y, c * y - s * x];
}
