import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { invertByComponents } from './components';
import { invertApart, partitionOf } from './elimination';
import type { Linearization } from './linearize';
import { bordered, symmetric, type NormalEquations } from './normal';
import { listDependent, semiInverse } from './pivoted-cholesky';
import type { Problem } from './problem';
import type { AtRest } from './resumed';
import { slopeBy, transposedTimes } from './sparse';
import type { Solution } from './solve';

export type Covariance =
  | {
      readonly kind: 'ok';
      /** Of the unknowns, in the order of the layout. */
      readonly matrix: Matrix;
      readonly redundancy: number;
      /** Joint covariance of all unknowns and, after them, of the adjusted values of these observed blocks. */
      withObserved(ids: readonly string[]): Matrix;
    }
  /** The blocks that would have to be known for the rest to be determined. Never a number in their place. */
  | { readonly kind: 'rank-deficient'; readonly rank: number; readonly undetermined: readonly string[] };

/** Pivot of the scaled normal matrix below which its rank is looked at by eigenvalues. */
const SAFE_PIVOT = 1e-9;
export const RANK_TOLERANCE = 1e-11;

/**
 * What follows for the unknowns at the solution: the inverse of the reduced normal matrix, bordered by the equations that
 * bind unknowns alone. It is scaled to a unit diagonal before its rank is judged, so that units do not matter. `holdFirst` is
 * the order in which blocks are named when something stays undetermined; without it the last block comes first.
 */
export function covarianceOf(problem: Problem, solution: Solution, holdFirst?: readonly string[]): Covariance {
  const { equations } = solution;
  const unit = toUnitDiagonal(equations);
  const { scale, held } = unit;
  const sure = surelyInverted(problem, solution, unit);
  const weak = sure ? 0 : countWeak(held);
  if (weak > 0) {
    return {
      kind: 'rank-deficient',
      rank: equations.normal.rows - weak,
      undetermined: listUndetermined(solution, held, holdFirst ?? problem.blocks.map(({ id }) => id).reverse()),
    };
  }
  return determined(solution, scaledBy(sure ?? boundInverse(unit), scale, scale));
}

/** The inverse over the unknowns of equations in units in which each is known to one; undefined where what is determined by them has to be looked at more closely. */
export function surelyInverted(
  problem: Problem,
  { equations: { bound }, layout }: Solution,
  unit: UnitDiagonal,
): Matrix | undefined {
  const parts = bound.rows === 0 ? partitionOf(problem, layout) : undefined;
  const apart = parts && invertApart(unit.scaled, parts, SAFE_PIVOT);
  if (apart) return apart;
  if (bound.rows > 0)
    return listDependent(unit.held.to2DArray(), SAFE_PIVOT).length > 0 ? undefined : boundInverse(unit);
  const { inverse, dependent } = semiInverse(unit.held, SAFE_PIVOT);
  return dependent.length > 0 ? undefined : inverse;
}

/** The inverse of normal equations, bordered by those that bind unknowns alone, over the unknowns. */
export function boundInverse({ scaled, boundScaled }: Pick<UnitDiagonal, 'scaled' | 'boundScaled'>): Matrix {
  if (scaled.rows === 0) return Matrix.zeros(0, 0);
  return invertByComponents(bordered(scaled, boundScaled)).subMatrix(0, scaled.rows - 1, 0, scaled.rows - 1);
}

export type UnitDiagonal = ReturnType<typeof toUnitDiagonal>;

/** Normal equations in units in which each unknown by itself is known to one; `held` counts the equations that bind unknowns alone as observations, so that its rank is that of the whole. */
export function toUnitDiagonal({ normal, bound }: NormalEquations) {
  const scale = Array.from({ length: normal.rows }, (_, i) => Math.sqrt(normal.get(i, i)) || 1);
  const ones = Array.from({ length: bound.rows }, () => 1);
  const [scaled, boundScaled] = [scaledBy(normal, scale, scale), scaledBy(bound, ones, scale)];
  const held = bound.rows > 0 ? Matrix.add(scaled, boundTwice(boundScaled)) : scaled;
  return { scale, scaled, boundScaled, held };
}

function boundTwice(bound: Matrix): Matrix {
  const rows = bound.to2DArray();
  return transposedTimes(rows, rows, bound.columns, bound.columns);
}

function determined(solution: Solution, matrix: Matrix): Covariance {
  const { equations, layout, linearization } = solution;
  return {
    kind: 'ok',
    matrix,
    redundancy: linearization.rows.length - countRepeated(equations) - layout.unknowns,
    withObserved: (ids) => jointCovariance(solution, matrix, ids),
  };
}

/** Rows that only repeat others say nothing of their own. */
export function countRepeated({ weights, bound }: NormalEquations): number {
  return weights.bound.length - bound.rows;
}

export function scaledBy(matrix: Matrix, rows: readonly number[], columns: readonly number[]): Matrix {
  const scaled = Matrix.zeros(matrix.rows, matrix.columns);
  for (let i = 0; i < matrix.rows; i++)
    for (let k = 0; k < matrix.columns; k++) scaled.set(i, k, matrix.get(i, k) / (rows[i]! * columns[k]!));
  return scaled;
}

/**
 * With rows A·x + B·l, weights W, P = W − W A C Aᵀ W: the adjusted observations have Q − Q Bᵀ P B Q, and − C Aᵀ W B Q with
 * the unknowns (Mikhail & Ackermann, section 8.5, written for rows that may have a noise of their own).
 */
export function jointCovariance(
  { layout, linearization, equations, values }: AtRest,
  matrix: Matrix,
  ids: readonly string[],
): Matrix {
  const columns = ids.flatMap((id) => values.get(id)!.map((_, k) => layout.observed.get(id)! + k));
  const count = layout.unknowns;
  if (columns.length === 0) return matrix;
  const joint = Matrix.zeros(count + columns.length, count + columns.length);
  joint.setSubMatrix(matrix, 0, 0);
  const spread = Matrix.zeros(linearization.rows.length, columns.length);
  linearization.rows.forEach((row, i) =>
    columns.forEach((column, k) => spread.set(i, k, slopeBy(row.observed, column) * layout.variances[column]!)),
  );
  const weighted = equations.weights.times(spread);
  const between = freeTimes(linearization, weighted, count);
  const cross = matrix.mmul(between);
  const taken = spread.transpose().mmul(weighted).sub(between.transpose().mmul(cross));
  const own = Matrix.sub(Matrix.diag(columns.map((column) => layout.variances[column]!)), taken);
  joint.setSubMatrix(own, count, count);
  joint.setSubMatrix(Matrix.mul(cross, -1), 0, count);
  joint.setSubMatrix(Matrix.mul(cross, -1).transpose(), count, 0);
  return joint;
}

/** The slopes by the unknowns, transposed, times something with a row for each of theirs. */
function freeTimes({ free }: Linearization, rows: Matrix, unknowns: number): Matrix {
  const product = Matrix.zeros(unknowns, rows.columns);
  free.forEach(({ columns, slopes }, r) =>
    columns.forEach((column, i) => {
      for (let k = 0; k < rows.columns; k++)
        product.set(column, k, product.get(column, k) + slopes[i]! * rows.get(r, k));
    }),
  );
  return product;
}

function countWeak(scaled: Matrix): number {
  if (scaled.rows === 0) return 0;
  const { realEigenvalues } = new EigenvalueDecomposition(symmetric(scaled), { assumeSymmetric: true });
  return realEigenvalues.filter((value) => value <= RANK_TOLERANCE).length;
}

/** Holds one block after the other, where that helps, until the rest is determined. */
function listUndetermined({ layout, values }: Solution, scaled: Matrix, holdFirst: readonly string[]): string[] {
  let free = Array.from({ length: scaled.rows }, (_, i) => i);
  let open = countWeak(scaled);
  const undetermined: string[] = [];
  for (const id of holdFirst) {
    const first = layout.unknown.get(id);
    if (open === 0 || first === undefined) continue;
    const size = values.get(id)!.length;
    const rest = free.filter((column) => column < first || column >= first + size);
    const left = rest.length > 0 ? countWeak(scaled.selection(rest, rest)) : 0;
    if (left >= open) continue;
    undetermined.push(id);
    [free, open] = [rest, left];
  }
  return undetermined;
}
