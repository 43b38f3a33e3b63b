import { Matrix } from 'ml-matrix';
import type { Linearization } from './linearize';
import type { Condition, Layout, Problem, Values } from './problem';

/** Step of second differences, as a share of the number: near the fourth root of the precision. */
const STEP = 1e-4;

/**
 * How exact equations bend, each by the force with which it holds (half of the second derivatives of the Lagrangian beyond Gauss and Newton's part; Nocedal & Wright, Numerical
 * Optimization, 2006, section 18.1): without it a relation that pulls hard is approached slowly. `forces` by row. Only of equations between unknowns alone.
 * Undefined where nothing pulls.
 */
export function curvatureOf(
  problem: Problem,
  layout: Layout,
  { rows }: Linearization,
  values: Values,
  forces: Readonly<Float64Array>,
): Matrix | undefined {
  const pulled = new Map<Condition, number[]>();
  rows.forEach(({ condition }, row) => pulled.set(condition, [...(pulled.get(condition) ?? []), forces[row]!]));
  const bent = problem.conditions.filter(
    (condition) =>
      condition.exact &&
      !condition.isStraight &&
      pulled.get(condition)!.some((force) => force !== 0) &&
      condition.blocks.every((id) => layout.unknown.has(id)),
  );
  if (bent.length === 0) return undefined;
  const curvature = Matrix.zeros(layout.unknowns, layout.unknowns);
  for (const condition of bent) {
    const columns = condition.blocks.flatMap((id) => values.get(id)!.map((_, k) => layout.unknown.get(id)! + k));
    secondDifferences(
      condition,
      condition.blocks.map((id) => [...values.get(id)!]),
      pulled.get(condition)!,
    ).forEach((row, i) =>
      row.forEach((second, k) => {
        curvature.set(columns[i]!, columns[k]!, curvature.get(columns[i]!, columns[k]!) + second);
      }),
    );
  }
  return curvature;
}

/** Second derivatives of the sum of a condition's residuals, each times its force. */
function secondDifferences(condition: Condition, at: number[][], forces: readonly number[]): number[][] {
  const places = at.flatMap((values, block) =>
    values.map((value, k) => ({ block, k, value, step: STEP * Math.max(1, Math.abs(value)) })),
  );
  const pullAt = (...moves: readonly (readonly [number, number])[]) => {
    for (const [i, by] of moves) at[places[i]!.block]![places[i]!.k]! += by * places[i]!.step;
    const pull = condition.residuals(at).reduce((sum, residual, i) => sum + forces[i]! * residual, 0);
    for (const [i] of moves) at[places[i]!.block]![places[i]!.k] = places[i]!.value;
    return pull;
  };
  const second = places.map(() => new Array<number>(places.length).fill(0));
  for (let i = 0; i < places.length; i++) {
    for (let k = i; k < places.length; k++) {
      const sum = pullAt([i, 1], [k, 1]) - pullAt([i, 1], [k, -1]) - pullAt([i, -1], [k, 1]) + pullAt([i, -1], [k, -1]);
      second[i]![k] = second[k]![i] = sum / (4 * places[i]!.step * places[k]!.step);
    }
  }
  return second;
}
