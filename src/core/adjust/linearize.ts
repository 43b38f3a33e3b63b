import { Matrix } from 'ml-matrix';
import { CoreError } from '../basics';
import { filled, type SparseRow } from './sparse';
import type { Condition, Layout, LinearCondition, Problem, Values } from './problem';

/** One equation at given values. */
export interface Row {
  readonly condition: Condition;
  /** Variance of the row's own noise: 1, or 0 when it is exact. */
  readonly noise: 0 | 1;
  /** Slopes by what was observed. */
  readonly observed: SparseRow;
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
      rows.push({ condition, noise: condition.exact ? 0 : 1, observed: row.observed });
      free.push(row.free);
      residuals.push(residual);
      misclosures.push(residual + row.pull);
    });
  }
  return { rows, residuals, misclosures, free };
}

/** Puts the slopes of one row where they belong; `pull` is what going back to the observed numbers would change. */
function placeRow(
  { blocks }: Condition,
  at: readonly (readonly number[])[],
  slopes: readonly number[],
  layout: Layout,
): { free: SparseRow; observed: SparseRow; pull: number } {
  const [free, observed] = [emptyRow(), emptyRow()];
  let [pull, next] = [0, 0];
  for (let b = 0; b < blocks.length; b++) {
    const unknown = layout.unknown.get(blocks[b]!);
    const first = unknown ?? layout.observed.get(blocks[b]!)!;
    const [row, numbers] = [unknown === undefined ? observed : free, at[b]!];
    for (let k = 0; k < numbers.length; k++) {
      const slope = slopes[next++]!;
      if (slope === 0) continue;
      row.columns.push(first + k);
      row.slopes.push(slope);
      if (unknown === undefined) pull += slope * (layout.observations[first + k]! - numbers[k]!);
    }
  }
  return { free, observed, pull };
}

const emptyRow = (): { columns: number[]; slopes: number[] } => ({ columns: [], slopes: [] });

/** The slopes by the unknowns as a matrix. */
export function freeMatrix({ free }: Linearization, layout: Layout): Matrix {
  return free.length > 0 && layout.unknowns > 0
    ? new Matrix(free.map((row) => filled(row, layout.unknowns)))
    : Matrix.zeros(free.length, layout.unknowns);
}

function linearizedByDifferences(condition: Condition, at: readonly (readonly number[])[]): LinearCondition {
  const slopes =
    straight.get(condition) ??
    slopesByDifferences(
      condition,
      at.map((values) => [...values]),
    );
  if (condition.isStraight) straight.set(condition, slopes);
  return { residuals: condition.residuals(at), slopes };
}

/** Slopes of straight conditions, which are the same at every step. */
const straight = new WeakMap<Condition, readonly (readonly number[])[]>();

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
