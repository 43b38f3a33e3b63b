import type { Matrix } from 'ml-matrix';
import { touchedBy } from './normal';
import type { Solution } from './solve';

/** How one group of observations sits in the adjustment. Null where redundancy is 0: there is nothing to judge by. */
export interface GroupDiagnosis {
  readonly group: string;
  /** Sum of the redundancy numbers of its rows: 0 is not controlled by the others, the row count wholly controlled. */
  readonly redundancy: number;
  /** Baarda's w of its worst row: the residual over its own sigma. */
  readonly normalized: number | null;
}

export interface Diagnosis {
  readonly redundancy: number;
  /** chi-square / redundancy; null at redundancy 0. */
  readonly varianceFactor: number | null;
  /** Whether chi-square stays under the 99 % quantile; null at redundancy 0. */
  readonly isConsistent: boolean | null;
  readonly groups: readonly GroupDiagnosis[];
}

/** Below this a row is taken as not controlled: its residual is numerical noise (1e-6 of its observation's variance). */
const UNCONTROLLED = 1e-6;

/**
 * Redundancy numbers and normalised residuals (Baarda, A testing procedure for use in geodetic networks, 1968). Weak: a
 * group's `normalized` is its worst row, not a joint test of the rows.
 */
export function diagnose(solution: Solution, covariance: Matrix, redundancy: number): Diagnosis {
  const { jacobian, residuals, rows } = solution.linearization;
  const groups = new Map<string, { redundancy: number; normalized: number | null }>();
  for (const { observation, first, count } of rows) {
    const group = groups.get(observation.group) ?? { redundancy: 0, normalized: null };
    for (let i = first; i < first + count; i++) {
      const free = Math.max(0, 1 - leverageOf(jacobian, covariance, i));
      group.redundancy += free;
      if (free > UNCONTROLLED) group.normalized = larger(group.normalized, residuals[i]! / Math.sqrt(free));
    }
    groups.set(observation.group, group);
  }
  const varianceFactor = redundancy > 0 ? solution.chiSquare / redundancy : null;
  return {
    redundancy,
    varianceFactor,
    isConsistent: redundancy > 0 ? solution.chiSquare <= chiSquareQuantile99(redundancy) : null,
    groups: [...groups].map(([group, found]) => ({ group, ...found })),
  };
}

/** Diagonal of the hat matrix: how much a row decides about its own prediction. */
function leverageOf(jacobian: Matrix, covariance: Matrix, row: number): number {
  const touched = touchedBy(jacobian, row);
  return touched.reduce((sum, i) => sum + touched.reduce((inner, k) => inner + jacobian.get(row, i) * covariance.get(i, k) * jacobian.get(row, k), 0), 0);
}

function larger(known: number | null, next: number): number {
  return known === null || Math.abs(next) > Math.abs(known) ? next : known;
}

/** 99 % quantile of chi-square, within 1 % (Wilson & Hilferty, The distribution of chi-square, 1931). */
export function chiSquareQuantile99(freedoms: number): number {
  const share = 2 / (9 * freedoms);
  return freedoms * (1 - share + 2.3263478740408408 * Math.sqrt(share)) ** 3;
}
