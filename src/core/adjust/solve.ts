import { CholeskyDecomposition } from 'ml-matrix';
import { cost, evaluate, linearize, type Linearization } from './linearize';
import { normalEquations } from './normal';
import { layOut, type Problem, type Values } from './problem';

export interface Solution {
  readonly values: Values;
  readonly linearization: Linearization;
  /** Sum of squared whitened residuals at the solution. */
  readonly chiSquare: number;
  readonly converged: boolean;
}

/**
 * Levenberg-Marquardt on the normal equations, damped on their own diagonal (Marquardt 1963; Madsen, Nielsen & Tingleff,
 * Methods for Non-Linear Least Squares Problems, 2004, section 3.2). `converged` is false when the last step was still
 * larger than 1e-10 of the unknowns; the values are the best that were found.
 */
export function solve(problem: Problem, maximumSteps = 60): Solution {
  let values: Values = new Map(problem.blocks.map((block) => [block.id, block.start]));
  let damping = 1e-4;
  let current = linearize(problem, values);
  let converged = problem.blocks.length === 0;
  for (let i = 0; i < maximumSteps && !converged; i++) {
    const { step, size } = dampedStep(problem, current, values, damping);
    if (!step) {
      damping *= 10;
      continue;
    }
    const before = cost(current.residuals);
    const after = cost(evaluate(problem, step));
    if (after <= before || size < 1e-12) {
      values = step;
      current = linearize(problem, values);
      damping = Math.max(damping / 10, 1e-12);
      converged = size < 1e-10 || before - after <= 1e-14 * before;
    } else damping = Math.min(damping * 10, 1e12);
  }
  return { values, linearization: current, chiSquare: 2 * cost(current.residuals), converged };
}

function dampedStep(problem: Problem, at: Linearization, values: Values, damping: number): { step?: Values; size: number } {
  const { normal, gradient } = normalEquations(at);
  for (let i = 0; i < normal.rows; i++) normal.set(i, i, normal.get(i, i) * (1 + damping) + 1e-30);
  const cholesky = new CholeskyDecomposition(normal);
  if (!cholesky.isPositiveDefinite()) return { size: Infinity };
  const change = cholesky.solve(gradient);
  const { columns } = layOut(problem.blocks);
  let size = 0;
  const step = new Map<string, readonly number[]>();
  for (const { id } of problem.blocks) {
    const first = columns.get(id)!;
    step.set(id, values.get(id)!.map((value, k) => {
      const by = -change.get(first + k, 0);
      size = Math.max(size, Math.abs(by) / Math.max(1, Math.abs(value)));
      return value + by;
    }));
  }
  return { step, size };
}
