import { Matrix } from 'ml-matrix';
import { covarianceOf, freeMatrix, layOut, linearize, type Values } from '../adjust';
import type { Relatable } from './relatable';
import { MAP_BLOCK } from './observed';
import type { RelatingPlanes } from './plane';
import { gatherOutlines } from './problem';
import type { Solved } from './solve-relations';

export interface Spread {
  readonly x: readonly number[];
  /** Covariance of the unknowns as far as it does not come from the fit's doubts, or all of it where those are among the unknowns. */
  readonly own: Matrix;
  /** How the unknowns follow the fit's doubts; undefined where those are among them, or there are none. */
  readonly follows: Matrix | undefined;
  /** All of their covariance. */
  readonly matrix: Matrix;
  valuesFrom(x: readonly number[]): Values;
  /** The fit's own doubts, in the order of the plane's freedoms, where they are among the unknowns. */
  findDoubts(x: readonly number[]): readonly number[] | undefined;
}

/**
 * Joint covariance of the unknowns of solved outlines, and their values, in one order; undefined when something is not determined. Where
 * the fit's doubts took no part in the solution they still move everything that was pointed, and what was solved follows.
 */
export function spreadOf(solved: Solved, outlines: readonly Relatable[], planes: RelatingPlanes): Spread | undefined {
  const { problem, solution } = solved;
  const covariance = covarianceOf(problem, solution);
  if (covariance.kind !== 'ok') return undefined;
  const own = covariance.matrix;
  const order = [...solution.layout.unknown.keys()];
  const valuesFrom = (x: readonly number[]): Values =>
    new Map(
      order.map((id) => {
        const first = solution.layout.unknown.get(id)!;
        return [id, x.slice(first, first + solution.values.get(id)!.length)];
      }),
    );
  const follows =
    order.includes(MAP_BLOCK) || outlines.every((outline) => planes(outline.plane).freedoms.length === 0)
      ? undefined
      : followingOf(own, solved, outlines, planes);
  return {
    own,
    follows,
    valuesFrom,
    x: order.flatMap((id) => solution.values.get(id)!),
    matrix: follows ? Matrix.add(own, follows.mmul(follows.transpose())) : own,
    findDoubts: (x) => valuesFrom(x).get(MAP_BLOCK),
  };
}

/** How a solution that holds the fit follows its doubts: −C N, with N the normal equations between unknowns and doubts. */
function followingOf(
  covariance: Matrix,
  { solution, known }: Solved,
  outlines: readonly Relatable[],
  planes: RelatingPlanes,
): Matrix {
  const { blocks, conditions } = gatherOutlines(
    outlines.filter(({ id }) => known.has(id)),
    planes,
  );
  const layout = layOut(blocks);
  const values: Values = new Map(blocks.map(({ id, start }) => [id, solution.values.get(id) ?? start]));
  const observed = { blocks, conditions: conditions.filter(({ exact }) => !exact) };
  const free = freeMatrix(linearize(observed, layout, values), layout).to2DArray();
  const [first, doubts] = [layout.unknown.get(MAP_BLOCK)!, values.get(MAP_BLOCK)!];
  const between = Matrix.zeros(covariance.rows, doubts.length);
  for (const [id, at] of solution.layout.unknown) {
    const there = layout.unknown.get(id)!;
    solution.values.get(id)!.forEach((_, k) =>
      doubts.forEach((__, doubt) => {
        between.set(
          at + k,
          doubt,
          free.reduce((sum, row) => sum + row[there + k]! * row[first + doubt]!, 0),
        );
      }),
    );
  }
  return covariance.mmul(between).mul(-1);
}
