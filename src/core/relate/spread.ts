import { Matrix } from 'ml-matrix';
import {
  covarianceOf,
  freeMatrix,
  layOut,
  linearize,
  semiInverse,
  transposedTimes,
  type Condition,
  type Values,
} from '../adjust';
import { conditionOf, listLive } from './live';
import type { Relatable } from './relatable';
import { MAP_BLOCK } from './observed';
import type { RelatingPlanes } from './plane';
import { gatherOutlines } from './problem';
import type { Solved } from './solve-relations';

/** Equations at a solution repeat each other as nearly as this. */
const REPEATS = 1e-9;

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

/**
 * How a solution that holds the fit follows its doubts: P − C (N P + M), with N the normal equations of the unknowns and M those between them and the doubts. P is how exact equations alone
 * would move them, where planes that are related stand as the doubts have it; without such, none.
 */
function followingOf(
  covariance: Matrix,
  { solution, known, live }: Solved,
  outlines: readonly Relatable[],
  planes: RelatingPlanes,
): Matrix {
  const { blocks, conditions } = gatherOutlines(
    outlines.filter(({ id }) => known.has(id)),
    planes,
  );
  const layout = layOut(blocks);
  const values: Values = new Map(blocks.map(({ id, start }) => [id, solution.values.get(id) ?? start]));
  const own = [...solution.layout.unknown.keys()].flatMap((id) =>
    solution.values.get(id)!.map((_, k) => layout.unknown.get(id)! + k),
  );
  const doubts = values.get(MAP_BLOCK)!.map((_, k) => layout.unknown.get(MAP_BLOCK)! + k);
  const slopesOf = (some: readonly Condition[]): SlopesApart => {
    const rows = freeMatrix(linearize({ blocks, conditions: some }, layout, values), layout).to2DArray();
    const among = (columns: readonly number[]) => rows.map((row) => columns.map((column) => row[column]!));
    return { byUnknowns: among(own), byDoubts: among(doubts) };
  };
  const seen = slopesOf(conditions.filter(({ exact }) => !exact));
  const between = transposedTimes(seen.byUnknowns, seen.byDoubts, own.length, doubts.length);
  const related = listLive(
    live.map(({ relation }) => relation),
    known,
    planes,
  );
  if (related.every(({ blocks: about }) => !about.includes(MAP_BLOCK))) return covariance.mmul(between).mul(-1);
  const held = slopesOf([...conditions.filter(({ exact }) => exact), ...related.map(conditionOf)]);
  const pulled = pulledBy(held, own.length);
  const normal = transposedTimes(seen.byUnknowns, seen.byUnknowns, own.length, own.length);
  return Matrix.sub(pulled, covariance.mmul(Matrix.add(normal.mmul(pulled), between)));
}

/** Slopes of conditions by the unknowns of a solution, and by the doubts that it holds: a row each. */
interface SlopesApart {
  readonly byUnknowns: readonly (readonly number[])[];
  readonly byDoubts: readonly (readonly number[])[];
}

/** The smallest move of the unknowns with which exact equations go on holding when a doubt goes by one sigma: −Bᵀ (B Bᵀ)⁺ E. */
function pulledBy({ byUnknowns, byDoubts }: SlopesApart, unknowns: number): Matrix {
  const columns = Array.from({ length: unknowns }, (_, column) => byUnknowns.map((row) => row[column]!));
  const { inverse } = semiInverse(transposedTimes(columns, columns, byUnknowns.length, byUnknowns.length), REPEATS);
  const forces = inverse.mmul(new Matrix(byDoubts.map((row) => [...row])));
  return transposedTimes(byUnknowns, forces.to2DArray(), unknowns, forces.columns).mul(-1);
}
