import { Matrix } from 'ml-matrix';
import { CoreError } from '../basics';
import { filled, type SparseRow } from './sparse';
import type { Condition, Layout, LinearCondition, Problem, Values } from './problem';

/** One equation at given values. */
export interface Row {
  readonly condition: Condition;
  /** Variance of the row's own noise: 1, or 0 when it is exact. */
  readonly noise: 0 | 1;
  /** Slopes by column of what was observed. */
  readonly slopes: ReadonlyMap<number, number>;
}

export interface Linearization {
  readonly rows: readonly Row[];
  /** Slopes by the unknowns, row by row. */
  readonly free: readonly SparseRow[];
  /** What each row misses by when the unknowns stay and the observed numbers are as they were observed (first order). */
  readonly misclosures: readonly number[];
  /** What each row misses by at the values themselves. */
  readonly residuals: readonly number[];
}

function valuesOf(values: Values, condition: Condition): (readonly number[])[] {
  return condition.blocks.map((id) => {
    const value = values.get(id);
    if (!value) throw new CoreError('unknown-block', { id, group: condition.group });
    return value;
  });
}

/** Rows and slopes at given values. */
export function linearize(problem: Problem, layout: Layout, values: Values): Linearization {
  const rows: Row[] = [];
  const [residuals, misclosures]: [number[], number[]] = [[], []];
  const free: SparseRow[] = [];
  for (const condition of problem.conditions) {
    const at = valuesOf(values, condition);
    const linear = condition.linearize?.(at) ?? linearizedByDifferences(condition, at);
    linear.residuals.forEach((residual, i) => {
      const row = placeRow(condition, at, linear.slopes[i]!, layout);
      rows.push({ condition, noise: condition.exact ? 0 : 1, slopes: row.observed });
      free.push(row.free);
      residuals.push(residual);
      misclosures.push(residual + row.pull);
    });
  }
  return { rows, residuals, misclosures, free };
}

/** Puts the slopes of one row where they belong; `pull` is what going back to the observed numbers would change. */
function placeRow(
  condition: Condition,
  at: readonly (readonly number[])[],
  slopes: readonly number[],
  layout: Layout,
): { free: SparseRow; observed: Map<number, number>; pull: number } {
  const free: { columns: number[]; slopes: number[] } = { columns: [], slopes: [] };
  const observed = new Map<number, number>();
  let [pull, next] = [0, 0];
  condition.blocks.forEach((id, b) => {
    const [unknown, first] = [layout.unknown.get(id), layout.observed.get(id)];
    at[b]!.forEach((value, k) => {
      const slope = slopes[next++]!;
      if (slope === 0) return;
      if (unknown !== undefined) {
        free.columns.push(unknown + k);
        free.slopes.push(slope);
      } else {
        observed.set(first! + k, (observed.get(first! + k) ?? 0) + slope);
        pull += slope * (layout.observations[first! + k]! - value);
      }
    });
  });
  return { free, observed, pull };
}

/** The slopes by the unknowns as a matrix. */
export function freeMatrix({ free }: Linearization, layout: Layout): Matrix {
  return free.length > 0 && layout.unknowns > 0
    ? new Matrix(free.map((row) => filled(row, layout.unknowns)))
    : Matrix.zeros(free.length, layout.unknowns);
}

function linearizedByDifferences(condition: Condition, at: readonly (readonly number[])[]): LinearCondition {
  return {
    residuals: condition.residuals(at),
    slopes: slopesByDifferences(
      condition,
      at.map((values) => [...values]),
    ),
  };
}

/** Central differences: within about 1e-9 for residuals as smooth as these. Also what closed forms are checked against. */
export function slopesByDifferences(condition: Pick<Condition, 'residuals'>, at: number[][]): number[][] {
  const slopes: number[][] = [];
  for (const values of at)
    for (let k = 0; k < values.length; k++) {
      const value = values[k]!;
      const step = 1e-6 * Math.max(1, Math.abs(value));
      values[k] = value + step;
      const above = condition.residuals(at);
      values[k] = value - step;
      const below = condition.residuals(at);
      values[k] = value;
      for (let i = 0; i < above.length; i++) (slopes[i] ??= []).push((above[i]! - below[i]!) / (2 * step));
    }
  return slopes;
}
