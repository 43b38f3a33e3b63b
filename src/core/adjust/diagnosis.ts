import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { Solution } from './solve';
import { weightedRows } from './row-weights';
import type { SparseRow } from './sparse';
import { symmetric } from './normal';
import { chiSquareQuantile99, equivalentNormal } from './quantiles';

/** How one group of conditions sits in the adjustment. Null where nothing else controls it. */
export interface GroupDiagnosis {
  readonly group: string;
  /** How much the others control it: for stated sizes the redundancy number of each, for exact relations their share in the whole. */
  readonly redundancy: number;
  /**
   * The test of the group as if it were left out: its change of chi-square, as the normal deviate that is as unlikely. For one
   * stated size that is its residual over the residual's own sigma (Baarda, A testing procedure for use in geodetic networks, 1968).
   */
  readonly normalized: number | null;
  /** Freedoms of the whole that this group takes up; the sum over all groups is the number of unknowns. */
  readonly leverage: number;
  /** Change of chi-square when the group is left out (first order), and the freedoms that go with it. */
  readonly chiSquare: number;
  readonly freedoms: number;
  /** For each stated row: its residual and the smallest error that the test finds 80 times in 100, in its own sigmas. */
  readonly rows: readonly {
    readonly residual: number;
    readonly redundancy: number;
    readonly detectable: number | null;
  }[];
}

export interface Diagnosis {
  readonly redundancy: number;
  /** chi-square / redundancy; null at redundancy 0. */
  readonly varianceFactor: number | null;
  /** Whether chi-square stays under its 99 % quantile; null at redundancy 0. */
  readonly isConsistent: boolean | null;
  readonly groups: readonly GroupDiagnosis[];
}

/** A row whose redundancy is below this is not controlled: its residual is numerical noise. */
const UNCONTROLLED = 1e-6;
/** Non-centrality for a test at 0.1 % that finds 80 % (Baarda 1968). */
const BAARDA_SHIFT = 4.13;

/** Judges a solution: the whole by chi-square, each group by what its absence would change. `covariance` of the unknowns. */
export function diagnose(solution: Solution, covariance: Matrix, redundancy: number): Diagnosis {
  const { linearization, layout, equations } = solution;
  const weightedFree = weightedRows(equations.weights, linearization.free, layout.unknowns);
  const members = new Map<string, number[]>();
  linearization.rows.forEach(({ condition }, i) =>
    members.set(condition.group, [...(members.get(condition.group) ?? []), i]),
  );
  return {
    redundancy,
    varianceFactor: redundancy > 0 ? solution.chiSquare / redundancy : null,
    isConsistent: redundancy > 0 ? solution.chiSquare <= chiSquareQuantile99(redundancy) : null,
    groups: [...members].map(([group, rows]) => diagnoseGroup(group, rows, solution, weightedFree, covariance)),
  };
}

function diagnoseGroup(
  group: string,
  rows: readonly number[],
  { linearization, equations }: Solution,
  weightedFree: readonly SparseRow[],
  covariance: Matrix,
): GroupDiagnosis {
  const { weights } = equations;
  const remaining = remainingOf(rows, weights, weightedFree, covariance);
  const weighted = weights.timesVector(linearization.misclosures);
  const multipliers = Matrix.columnVector(rows.map((row) => weighted[row]!));
  const { statistic, freedoms } = testOf(
    multipliers,
    remaining,
    rows.map((row) => weights.at(row, row)),
  );
  const free = rows.map((row, i) =>
    rows.reduce((sum, other, k) => sum + remaining.get(i, k) * weights.covarianceAt(other, row), 0),
  );
  const controls = rows.map((row, i) => {
    const share = linearization.rows[row]!.noise === 1 ? remaining.get(i, i) : free[i]!;
    return weights.at(row, row) > 0 && share > UNCONTROLLED ? Math.min(1, share) : 0;
  });
  const sign = Math.sign(multipliers.get(0, 0)) || 1;
  return {
    group,
    freedoms,
    chiSquare: statistic,
    leverage: free.reduce((sum, share) => sum + 1 - share, 0),
    redundancy: controls.reduce((sum, share) => sum + share, 0),
    normalized: freedoms === 0 ? null : (freedoms === 1 ? sign : 1) * equivalentNormal(statistic, freedoms),
    rows: rows.flatMap((row, i) => {
      if (linearization.rows[row]!.noise === 0) return [];
      const redundancy = controls[i]!;
      const detectable = redundancy > UNCONTROLLED ? BAARDA_SHIFT / Math.sqrt(redundancy) : null;
      return [{ residual: linearization.residuals[row]!, redundancy, detectable }];
    }),
  };
}

/** Of the group's weights what the unknowns leave for the others to check. */
function remainingOf(
  rows: readonly number[],
  weights: Solution['equations']['weights'],
  weightedFree: readonly SparseRow[],
  covariance: Matrix,
): Matrix {
  const touched = [...new Set(rows.flatMap((row) => weightedFree[row]!.columns))];
  const remaining = Matrix.zeros(rows.length, rows.length);
  rows.forEach((row, i) => {
    const { columns, slopes } = weightedFree[row]!;
    const along = new Map(
      touched.map((column) => [
        column,
        columns.reduce((sum, own, k) => sum + slopes[k]! * covariance.get(own, column), 0),
      ]),
    );
    rows.forEach((other, k) => {
      const { columns: others, slopes: by } = weightedFree[other]!;
      const explained = others.reduce((sum, column, c) => sum + along.get(column)! * by[c]!, 0);
      remaining.set(i, k, weights.at(row, other) - explained);
    });
  });
  return remaining;
}

/** kᵀ R⁺ k over the directions in which the group is controlled at all. */
function testOf(
  multipliers: Matrix,
  remaining: Matrix,
  weights: readonly number[],
): { statistic: number; freedoms: number } {
  const scale = weights.map((weight) => Math.sqrt(weight) || 1);
  const scaled = remaining.clone();
  scale.forEach((a, i) => scale.forEach((b, k) => scaled.set(i, k, remaining.get(i, k) / (a * b))));
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(symmetric(scaled), {
    assumeSymmetric: true,
  });
  let [statistic, freedoms] = [0, 0];
  realEigenvalues.forEach((value, e) => {
    if (value <= UNCONTROLLED) return;
    const along = scale.reduce((sum, s, i) => sum + (eigenvectorMatrix.get(i, e) * multipliers.get(i, 0)) / s, 0);
    statistic += (along * along) / value;
    freedoms += 1;
  });
  return { statistic, freedoms };
}
