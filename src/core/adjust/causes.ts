import type { Matrix } from 'ml-matrix';
import type { Measured } from './propagate';

/** One independent cause of doubt: how things are when it goes by so many of its sigmas. */
export interface Cause<State> {
  (sigmas: number): State;
  /** How many sigmas off things are otherwise, where it is one or the other: they are asked there, since no slope leads so far. */
  readonly reach?: number | undefined;
}

/** Share of a sigma by which a cause is varied for a slope: the slope is the one that matters. */
const STEP = 0.1;

/**
 * Figures with their plus-minus: what independent causes swing them by, each by one sigma, added up as squares; every state is made once for all of them. First order, central differences. One sigma, in each figure's unit.
 * Weak: where a figure bends strongly within a sigma.
 */
export function measureEachBy<State, Figures extends readonly number[]>(
  figures: (state: State) => Figures,
  rest: State,
  causes: readonly Cause<State>[],
): { readonly [I in keyof Figures]: Measured } {
  const here = figures(rest);
  const swings = causes.map((cause) => {
    const { reach } = cause;
    const far = reach === undefined ? undefined : figures(cause(reach)).map((value, i) => (value - here[i]!) / reach);
    if (far?.every(Number.isFinite)) return far;
    const [ahead, behind] = [figures(cause(STEP)), figures(cause(-STEP))];
    return ahead.map((value, i) => (value - behind[i]!) / (2 * STEP));
  });
  const measured = here.map((value, i) => ({ value, sigma: Math.hypot(...swings.map((swing) => swing[i]!)) }));
  return measured as unknown as { readonly [I in keyof Figures]: Measured };
}

/** A pivot below this share of its own variance is what rounding left. */
const DEPENDENT = 1e-12;

/**
 * Independent directions of sigma one that make up a covariance: the columns of a root of it, by Cholesky with complete pivoting on unit variances (Golub & Van Loan, Matrix
 * Computations, 4th edition, section 4.2.8). As many as its rank.
 */
export function rootOf(covariance: Matrix): readonly (readonly number[])[] {
  const n = covariance.rows;
  const sigmas = Array.from({ length: n }, (_, i) => Math.sqrt(Math.max(0, covariance.get(i, i))));
  const left: number[] = sigmas.map((sigma) => (sigma > 0 ? 1 : 0));
  const columns: number[][] = [];
  for (let step = 0; step < n; step++) {
    const pivot = left.indexOf(Math.max(...left));
    if (!(left[pivot]! > DEPENDENT)) break;
    const root = Math.sqrt(left[pivot]!);
    const column = sigmas.map((sigma, i) => {
      if (left[i]! === 0) return 0;
      const shared = columns.reduce((sum, other) => sum + other[i]! * other[pivot]!, 0);
      return (covariance.get(i, pivot) / (sigma * sigmas[pivot]!) - shared) / root;
    });
    column.forEach((value, i) => (left[i] = i === pivot ? 0 : Math.max(0, left[i]! - value * value)));
    columns.push(column);
  }
  return columns.map((column) => column.map((value, i) => value * sigmas[i]!));
}
