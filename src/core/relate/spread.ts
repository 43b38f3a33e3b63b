import { Matrix } from 'ml-matrix';
import { covarianceOf, layOut, linearize, type Values } from '../adjust';
import type { Relatable } from './relatable';
import { MAP_BLOCK } from './observed';
import type { RelatingPlane } from './plane';
import { gatherOutlines } from './problem';
import type { Solved } from './solve-relations';

export interface Spread {
  readonly matrix: Matrix;
  readonly x: readonly number[];
  valuesFrom(x: readonly number[]): Values;
}

/**
 * Joint covariance of the unknowns of solved outlines, and their values, in one order; undefined when something is not determined. Where
 * the fit's doubts took no part in the solution they still move everything that was pointed, and what was solved follows: that is added.
 */
export function spreadOf(solved: Solved, outlines: readonly Relatable[], plane: RelatingPlane): Spread | undefined {
  const { problem, solution } = solved;
  const covariance = covarianceOf(problem, solution);
  if (covariance.kind !== 'ok') return undefined;
  const order = [...solution.layout.unknown.keys()];
  const takesPart = order.includes(MAP_BLOCK) || plane.freedoms.length === 0;
  const valuesFrom = (x: readonly number[]): Values => new Map(order.map((id) => {
    const first = solution.layout.unknown.get(id)!;
    return [id, x.slice(first, first + solution.values.get(id)!.length)];
  }));
  const matrix = takesPart ? covariance.matrix : Matrix.add(covariance.matrix, carried(covariance.matrix, solved, outlines, plane));
  return { matrix, x: order.flatMap((id) => solution.values.get(id)!), valuesFrom };
}

/** What the fit's doubts do to a solution that holds the fit: C N (C N)ᵀ with N the normal equations between unknowns and doubts. */
function carried(covariance: Matrix, { solution, known }: Solved, outlines: readonly Relatable[], plane: RelatingPlane): Matrix {
  const { blocks, conditions } = gatherOutlines(outlines.filter(({ id }) => known.has(id)), plane);
  const layout = layOut(blocks);
  const values: Values = new Map(blocks.map(({ id, start }) => [id, solution.values.get(id) ?? start]));
  const { free } = linearize({ blocks, conditions: conditions.filter(({ exact }) => !exact) }, layout, values);
  const first = layout.unknown.get(MAP_BLOCK)!;
  const between = Matrix.zeros(covariance.rows, plane.freedoms.length);
  for (const [id, at] of solution.layout.unknown) {
    const there = layout.unknown.get(id)!;
    solution.values.get(id)!.forEach((_, k) => plane.freedoms.forEach((__, doubt) => {
      between.set(at + k, doubt, free.reduce((sum, row) => sum + row[there + k]! * row[first + doubt]!, 0));
    }));
  }
  const follows = covariance.mmul(between);
  return follows.mmul(follows.transpose());
}
