import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import {
  boundInverse,
  countRepeated,
  jointCovariance,
  RANK_TOLERANCE,
  scaledBy,
  surelyInverted,
  toUnitDiagonal,
  type UnitDiagonal,
} from './covariance';
import { symmetric } from './normal';
import type { Problem } from './problem';
import type { AtRest } from './resumed';
import type { Solution } from './solve';

/** What follows for unknowns of which some directions may stay open, in numbers alone. */
export interface OpenNumbers {
  /** Of the unknowns, in the order of the layout; along open directions there is none, and it is zero. */
  readonly matrix: Matrix;
  /** Open directions as columns, each of length one in units of `reach`: combinations of unknowns that nothing says anything of. */
  readonly open: Matrix;
  /** How far each unknown can go by itself, were all others known (one sigma): a step for slopes that suits it. */
  readonly reach: readonly number[];
  readonly redundancy: number;
}

export interface OpenCovariance extends OpenNumbers {
  /** Joint covariance of all unknowns and, after them, of the adjusted values of these observed blocks. */
  withObserved(ids: readonly string[]): Matrix;
}

/**
 * As `covarianceOf`, where not everything has to be determined (a free network: nothing ties it to a frame, and sizes within it are certain all the same): the inverse on what is determined, and what is
 * not (Koch, Parameter Estimation and Hypothesis Testing in Linear Models, 1999, section 3.3). A figure that changes along no open direction has the variance that the matrix gives it, whatever frame it is
 * seen in. Dense: for a few hundred unknowns.
 */
export function openCovarianceOf(problem: Problem, solution: Solution): OpenCovariance {
  const { equations, layout, linearization } = solution;
  const unit = toUnitDiagonal(equations);
  const { scale } = unit;
  const sure = surelyInverted(problem, solution, unit);
  const { closed, open } = sure ? { closed: sure, open: Matrix.zeros(sure.rows, 0) } : closedAndOpen(unit);
  return openAt(solution, {
    matrix: scaledBy(symmetric(closed), scale, scale),
    open,
    reach: scale.map((value) => 1 / value),
    redundancy: linearization.rows.length - countRepeated(equations) - layout.unknowns + open.columns,
  });
}

/** The same of a problem at rest of which the numbers are known already. */
export const openAt = (at: AtRest, numbers: OpenNumbers): OpenCovariance => ({
  ...numbers,
  withObserved: (ids) => jointCovariance(at, numbers.matrix, ids),
});

/** The inverse on what is determined, and what is open. */
function closedAndOpen({ scaled, boundScaled, held }: UnitDiagonal): {
  readonly closed: Matrix;
  readonly open: Matrix;
} {
  const open = openDirections(held);
  if (open.columns === 0) return { closed: boundInverse({ scaled, boundScaled }), open };
  // Along what is open it is made one, and taken away again afterwards.
  const along = open.mmul(open.transpose());
  return { closed: boundInverse({ scaled: Matrix.add(scaled, along), boundScaled }).sub(along), open };
}

/** Directions in which a scaled matrix has no size, as columns. */
function openDirections(scaled: Matrix): Matrix {
  if (scaled.rows === 0) return Matrix.zeros(0, 0);
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(symmetric(scaled), {
    assumeSymmetric: true,
  });
  const weak = realEigenvalues.flatMap((value, i) => (value <= RANK_TOLERANCE ? [i] : []));
  return weak.length > 0
    ? eigenvectorMatrix.selection(
        Array.from({ length: scaled.rows }, (_, i) => i),
        weak,
      )
    : Matrix.zeros(scaled.rows, 0);
}
