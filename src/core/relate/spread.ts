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
  /** The fit's own doubts among them, in the order of the plane's freedoms. */
  doubtsFrom(x: readonly number[]): readonly number[];
}

/**
 * Joint covariance of the unknowns of solved outlines, and their values, in one order; undefined when something is not determined. Where
 * the fit's doubts took no part in the solution they still move everything that was pointed, and what was solved follows: then they stand at the end, as they are
 * tied to the rest.
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
  const x = order.flatMap((id) => solution.values.get(id)!);
  if (takesPart) return { matrix: covariance.matrix, x, valuesFrom, doubtsFrom: (at) => valuesFrom(at).get(MAP_BLOCK) ?? [] };
  const follows = followingOf(covariance.matrix, solved, outlines, plane);
  return { matrix: joint(covariance.matrix, follows), x: [...x, ...plane.freedoms.map(() => 0)], valuesFrom, doubtsFrom: (at) => at.slice(x.length) };
}

/** Covariance of what follows doubts of sigma one, beside its own, and of those doubts. */
function joint(own: Matrix, follows: Matrix): Matrix {
  const [n, m] = [own.rows, follows.columns];
  const all = Matrix.zeros(n + m, n + m);
  all.setSubMatrix(Matrix.add(own, follows.mmul(follows.transpose())), 0, 0);
  all.setSubMatrix(follows, 0, n);
  all.setSubMatrix(follows.transpose(), n, 0);
  all.setSubMatrix(Matrix.eye(m), n, n);
  return all;
}

/** How a solution that holds the fit follows its doubts: −C N, with N the normal equations between unknowns and doubts. */
function followingOf(covariance: Matrix, { solution, known }: Solved, outlines: readonly Relatable[], plane: RelatingPlane): Matrix {
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
  return covariance.mmul(between).mul(-1);
}
