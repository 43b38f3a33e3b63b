import type { Vec } from '../geometry';

/** A 3×3 projective map, row by row. Maps (x, y, 1) and divides by the third coordinate. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

export const IDENTITY: Homography = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** Where a point goes. Weak: a point on the horizon has no finite place; it comes back as ±Infinity or NaN. */
export function applyHomography(h: Homography, [x, y]: Vec): Vec {
  const w = h[6] * x + h[7] * y + h[8];
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
}

/** First b, then a. */
export function compose(a: Homography, b: Homography): Homography {
  const at = (row: number, column: number) =>
    a[3 * row]! * b[column]! + a[3 * row + 1]! * b[3 + column]! + a[3 * row + 2]! * b[6 + column]!;
  return [at(0, 0), at(0, 1), at(0, 2), at(1, 0), at(1, 1), at(1, 2), at(2, 0), at(2, 1), at(2, 2)];
}

/** The map back (adjugate; the scale of a projective map is free). Weak: meaningless for a singular map. */
export function inverse(h: Homography): Homography {
  const [a, b, c, d, e, f, g, i, k] = h;
  return [
    e * k - f * i,
    c * i - b * k,
    b * f - c * e,
    f * g - d * k,
    a * k - c * g,
    c * d - a * f,
    d * i - e * g,
    b * g - a * i,
    a * e - b * d,
  ];
}
