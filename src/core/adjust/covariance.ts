import { CholeskyDecomposition, EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { Solution } from './solve';
import { normalEquations } from './normal';
import { layOut, type Problem } from './problem';

export type Covariance =
  | { readonly kind: 'ok'; readonly matrix: Matrix; readonly redundancy: number }
  /** The blocks that the observations do not determine, most undetermined first. Never a number in its place. */
  | { readonly kind: 'rank-deficient'; readonly rank: number; readonly undetermined: readonly string[] };

const RANK_TOLERANCE = 1e-11;
/** Pivots of the scaled matrix above this leave no doubt about its rank, and the quick way is taken. */
const SAFE_PIVOT = 1e-8;

/**
 * Inverse of the normal matrix at the solution, in the order of the blocks. The matrix is scaled to a unit diagonal before
 * its rank is judged, so that the verdict does not depend on the units of the unknowns. Judged by Cholesky's pivots where
 * they are clear, else by eigenvalues, which also tell what is undetermined.
 */
export function covarianceOf(problem: Problem, { linearization }: Solution): Covariance {
  const { width } = layOut(problem.blocks);
  const { normal } = normalEquations(linearization);
  const sizes = Array.from({ length: width }, (_, i) => Math.sqrt(normal.get(i, i)) || 1);
  const scaled = new Matrix(width, width);
  for (let i = 0; i < width; i++) for (let k = 0; k < width; k++) scaled.set(i, k, normal.get(i, k) / (sizes[i]! * sizes[k]!));
  const inverse = findQuickInverse(scaled) ?? invertByEigenvalues(problem, scaled);
  if ('kind' in inverse) return inverse;
  const matrix = new Matrix(width, width);
  for (let i = 0; i < width; i++) for (let k = 0; k < width; k++) matrix.set(i, k, inverse.get(i, k) / (sizes[i]! * sizes[k]!));
  return { kind: 'ok', matrix, redundancy: linearization.residuals.length - width };
}

function findQuickInverse(scaled: Matrix): Matrix | undefined {
  const cholesky = new CholeskyDecomposition(scaled);
  const { lowerTriangularMatrix: lower } = cholesky;
  const isClear = cholesky.isPositiveDefinite() && Array.from({ length: scaled.rows }, (_, i) => lower.get(i, i) ** 2).every((pivot) => pivot > SAFE_PIVOT);
  return isClear ? cholesky.solve(Matrix.eye(scaled.rows)) : undefined;
}

function invertByEigenvalues(problem: Problem, scaled: Matrix): Matrix | Extract<Covariance, { kind: 'rank-deficient' }> {
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(scaled, { assumeSymmetric: true });
  const weak = realEigenvalues.flatMap((value, i) => (value <= RANK_TOLERANCE ? [i] : []));
  if (weak.length > 0) return { kind: 'rank-deficient', rank: scaled.rows - weak.length, undetermined: listUndetermined(problem, eigenvectorMatrix, weak) };
  return eigenvectorMatrix.mmul(Matrix.diag(realEigenvalues.map((value) => 1 / value))).mmul(eigenvectorMatrix.transpose());
}

function listUndetermined(problem: Problem, vectors: Matrix, weak: readonly number[]): string[] {
  const { columns } = layOut(problem.blocks);
  const weightOf = (id: string, size: number) => {
    const first = columns.get(id)!;
    return Math.max(...Array.from({ length: size }, (_, k) => Math.max(...weak.map((w) => Math.abs(vectors.get(first + k, w))))));
  };
  return problem.blocks
    .map(({ id, start }) => ({ id, weight: weightOf(id, start.length) }))
    .filter(({ weight }) => weight > 0.1)
    .sort((a, b) => b.weight - a.weight)
    .map(({ id }) => id);
}
