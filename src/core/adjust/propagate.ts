import { Matrix } from 'ml-matrix';

/** A number with its plus-minus. `sigma` is one sigma, in the value's own unit. */
export interface Measured {
  readonly value: number;
  readonly sigma: number;
}

/**
 * First-order propagation of variances: the covariance of f(x) when x has this covariance. Central differences, each step a
 * tenth of that unknown's own sigma, so that the slope is the one that matters. Weak: where f bends strongly within a sigma.
 */
export function propagateMany(
  f: (x: readonly number[]) => readonly number[],
  x: readonly number[],
  covariance: Matrix,
): Matrix {
  const at = [...x];
  const jacobian = Matrix.zeros(f(x).length, x.length);
  at.forEach((value, i) => {
    const sigma = Math.sqrt(Math.max(0, covariance.get(i, i)));
    if (sigma === 0) return;
    const step = 0.1 * sigma;
    at[i] = value + step;
    const above = f(at);
    at[i] = value - step;
    const below = f(at);
    at[i] = value;
    above.forEach((high, row) => jacobian.set(row, i, (high - below[row]!) / (2 * step)));
  });
  return jacobian.mmul(covariance).mmul(jacobian.transpose());
}

/** As `propagateMany`, for one number. */
export function propagate(f: (x: readonly number[]) => number, x: readonly number[], covariance: Matrix): Measured {
  const variance = propagateMany((at) => [f(at)], x, covariance).get(0, 0);
  return { value: f(x), sigma: Math.sqrt(Math.max(0, variance)) };
}
