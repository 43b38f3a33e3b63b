import { Matrix, solve } from 'ml-matrix';
import type { Vec } from '../geometry';
import { brightnessAt, type GrayPicture } from './gray-picture';

/**
 * The saddle of brightness near a place: where two dark and two light squares meet. A quadratic surface is fitted to a round
 * window and its saddle taken, again and again until it stays (Lucchese & Mitra, Using saddle points for subpixel feature
 * detection in camera calibration targets, 2002). Sheet px. Undefined where there is no saddle, or none within the window.
 */
export function findSaddle(picture: GrayPicture, near: Vec, radius: number): Vec | undefined {
  let at: Vec = near;
  for (let i = 0; i < 12; i++) {
    const offset = saddleOffset(picture, at, radius);
    if (!offset || Math.hypot(...offset) > radius) return undefined;
    at = [at[0] + offset[0], at[1] + offset[1]];
    if (Math.hypot(at[0] - near[0], at[1] - near[1]) > radius) return undefined;
    if (Math.hypot(...offset) < 1e-3) break;
  }
  return at;
}

function saddleOffset(picture: GrayPicture, [x, y]: Vec, radius: number): Vec | undefined {
  const normal = Matrix.zeros(6, 6);
  const right = Matrix.zeros(6, 1);
  for (let dy = -radius; dy <= radius; dy++) {
    for (let dx = -radius; dx <= radius; dx++) {
      const weight = Math.exp((-2 * (dx * dx + dy * dy)) / (radius * radius));
      const terms = [dx * dx, dx * dy, dy * dy, dx, dy, 1];
      const value = brightnessAt(picture, [x + dx, y + dy]);
      terms.forEach((term, i) => {
        right.set(i, 0, right.get(i, 0) + weight * term * value);
        terms.forEach((other, k) => normal.set(i, k, normal.get(i, k) + weight * term * other));
      });
    }
  }
  const [a, b, c, d, e] = solve(normal, right).to1DArray() as [number, number, number, number, number];
  const determinant = 4 * a * c - b * b;
  if (determinant >= 0) return undefined;
  return [(b * e - 2 * c * d) / determinant, (b * d - 2 * a * e) / determinant];
}
