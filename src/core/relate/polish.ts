import { Matrix } from 'ml-matrix';
import { freeMatrix, layOut, linearize, semiInverse, type Problem, type Values } from '../adjust';

const ROUNDS = 8;
/** Farther off than this, equations contradict each other: there is nothing to polish. */
const FAR = 0.05;
/** As near as lengths of metres can be told in double precision, mm. */
const EXACT = 1e-12;

/**
 * The nearest values at which exact equations hold to the last digits: Newton's method with the smallest step each time. Equations that
 * only repeat others are passed over. What is far off stays as it is.
 */
export function polished(problem: Problem, values: Values): Values {
  const exact: Problem = {
    blocks: problem.blocks,
    conditions: problem.conditions.filter((condition) => condition.exact),
  };
  const layout = layOut(problem.blocks);
  let at = values;
  for (let round = 0; round < ROUNDS; round++) {
    const found = linearize(exact, layout, at);
    const { residuals } = found;
    const worst = Math.max(0, ...residuals.map(Math.abs));
    if (!(worst > EXACT && worst < FAR)) return at;
    const step = smallestStep(freeMatrix(found, layout), residuals);
    at = new Map(
      [...at].map(([id, numbers]) => {
        const first = layout.unknown.get(id)!;
        return [id, numbers.map((value, k) => value - step[first + k]!)];
      }),
    );
  }
  return at;
}

/** Bᵀ (B Bᵀ)⁻¹ c, with rows that depend on others left away. */
function smallestStep(slopes: Matrix, misses: readonly number[]): number[] {
  const { inverse } = semiInverse(slopes.mmul(slopes.transpose()));
  const multipliers = inverse.mmul(Matrix.columnVector([...misses]));
  return slopes.transpose().mmul(multipliers).to1DArray();
}
