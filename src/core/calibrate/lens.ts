import { subtract, type Vec } from '../geometry';

/**
 * A bowed lens: radial distortion about the picture's middle (Brown, Decentering distortion of lenses, 1966; the radial part).
 * `u` is the sheet position about the middle divided by half the diagonal, so that a corner has radius 1 and k1 alone is the
 * share by which a corner is drawn outwards.
 */
export interface Lens {
  readonly k1: number;
  readonly k2: number;
  /** Where the lens has its middle, in the same units about the picture's middle. */
  readonly centre: Vec;
}

export const NO_LENS: Lens = { k1: 0, k2: 0, centre: [0, 0] };

/** From where the lens put a point to where a straight picture has it. */
export function straightened({ k1, k2, centre }: Lens, at: Vec): Vec {
  const [x, y] = subtract(at, centre);
  const square = x * x + y * y;
  const factor = 1 + square * (k1 + square * k2);
  return [centre[0] + x * factor, centre[1] + y * factor];
}

/**
 * The other way, by Newton steps along the radius. Weak: beyond the radius where the lens folds over there is no answer; the
 * nearest radius it reached comes back.
 */
export function bowed({ k1, k2, centre }: Lens, at: Vec): Vec {
  const [x, y] = subtract(at, centre);
  const wanted = Math.hypot(x, y);
  if (wanted === 0 || (k1 === 0 && k2 === 0)) return at;
  let r = wanted;
  for (let i = 0; i < 20; i++) {
    const square = r * r;
    const slope = 1 + square * (3 * k1 + 5 * square * k2);
    const step = (r * (1 + square * (k1 + square * k2)) - wanted) / Math.max(slope, 0.1);
    r -= step;
    if (Math.abs(step) < 1e-14) break;
  }
  return [centre[0] + (x * r) / wanted, centre[1] + (y * r) / wanted];
}

/** Whether the lens keeps the order along every radius up to the corner (and a little beyond): it can be undone there. */
export function isMonotone({ k1, k2 }: Pick<Lens, 'k1' | 'k2'>): boolean {
  for (let i = 0; i <= 24; i++) {
    const square = (1.05 * i * i) / 576;
    if (1 + square * (3 * k1 + 5 * square * k2) <= 0) return false;
  }
  return true;
}
