import { Matrix } from 'ml-matrix';
import { CoreError } from '../basics';
import { layOut, type Observation, type Problem, type Values } from './problem';

/** Residuals and Jacobian at given values, with the rows of each observation. */
export interface Linearization {
  readonly residuals: readonly number[];
  readonly jacobian: Matrix;
  readonly rows: readonly { readonly observation: Observation; readonly first: number; readonly count: number }[];
}

export function valuesOf(values: Values, observation: Observation): number[][] {
  return observation.blocks.map((id) => {
    const value = values.get(id);
    if (!value) throw new CoreError('unknown-block', { id, group: observation.group });
    return [...value];
  });
}

export function evaluate(problem: Problem, values: Values): number[] {
  return problem.observations.flatMap((observation) => [...observation.residuals(valuesOf(values, observation))]);
}

/** Half the sum of squared residuals. */
export function cost(residuals: readonly number[]): number {
  return residuals.reduce((sum, r) => sum + r * r, 0) / 2;
}

/** The Jacobian by central differences: exact to about 1e-9 of each entry for the smooth residuals used here. */
export function linearize(problem: Problem, values: Values): Linearization {
  const { columns, width } = layOut(problem.blocks);
  const residuals: number[] = [];
  const rows: { observation: Observation; first: number; count: number }[] = [];
  const entries: number[][] = [];
  for (const observation of problem.observations) {
    const at = valuesOf(values, observation);
    const here = observation.residuals(at);
    rows.push({ observation, first: residuals.length, count: here.length });
    const block = here.map(() => new Array<number>(width).fill(0));
    observation.blocks.forEach((id, b) => fillColumns(observation, at, b, columns.get(id)!, block));
    residuals.push(...here);
    entries.push(...block);
  }
  return { residuals, jacobian: entries.length ? new Matrix(entries) : Matrix.zeros(0, width), rows };
}

function fillColumns(observation: Observation, at: number[][], block: number, column: number, rows: number[][]): void {
  const values = at[block]!;
  values.forEach((value, k) => {
    const step = 1e-6 * Math.max(1, Math.abs(value));
    values[k] = value + step;
    const above = observation.residuals(at);
    values[k] = value - step;
    const below = observation.residuals(at);
    values[k] = value;
    rows.forEach((row, i) => (row[column + k]! += (above[i]! - below[i]!) / (2 * step)));
  });
}
