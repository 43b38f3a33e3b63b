import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { semiInverse } from './pivoted-cholesky';
import type { Condition, Layout, Problem } from './problem';

/**
 * How a symmetric system comes apart: blocks of unknowns of which none meets another (places seen in views), and the rest that ties them together (the views). Eliminating the
 * leaves first leaves a system as large as the rest (Schur complement; Triggs et al., Bundle Adjustment – A Modern Synthesis, 2000, section 6.1).
 */
export interface Partition {
  readonly leaves: readonly (readonly number[])[];
  readonly rest: readonly number[];
}

/** What is left to be factored has to cost less than this share of the whole for coming apart to be worth it. */
const WORTH = 0.25;

/** Which unknown blocks of a problem meet: those of one condition, and of conditions that share something observed. By their place among the unknown ones. */
export function listMeetings({ blocks, conditions }: Problem): readonly ReadonlySet<number>[] {
  const unknown = new Map(blocks.filter(({ sigma }) => sigma === undefined).map(({ id }, i) => [id, i]));
  const met = Array.from({ length: unknown.size }, () => new Set<number>());
  for (const tied of tiedConditions(conditions, unknown)) {
    const together = new Set(tied.flatMap((condition) => condition.blocks.flatMap((id) => unknown.get(id) ?? [])));
    for (const one of together) for (const other of together) if (one !== other) met[one]!.add(other);
  }
  return met;
}

/** Conditions in groups that share observed blocks, directly or through others. */
function tiedConditions(
  conditions: readonly Condition[],
  unknown: ReadonlyMap<string, number>,
): readonly (readonly Condition[])[] {
  const groupOf = new Map<string, Set<Condition>>();
  const groups = new Set<Set<Condition>>();
  for (const condition of conditions) {
    const observed = condition.blocks.filter((id) => !unknown.has(id));
    const group = new Set([condition]);
    for (const other of new Set(observed.flatMap((id) => groupOf.get(id) ?? []))) {
      for (const each of other) group.add(each);
      groups.delete(other);
    }
    groups.add(group);
    for (const each of group) for (const id of each.blocks) if (!unknown.has(id)) groupOf.set(id, group);
  }
  return [...groups].map((group) => [...group]);
}

/** Leaves by how few others they meet, fewest first; undefined where taking the system apart gains little. `blocks`: columns that belong together. */
export function findPartition(
  blocks: readonly (readonly number[])[],
  met: readonly ReadonlySet<number>[],
): Partition | undefined {
  const order = blocks.map((_, b) => b).sort((a, b) => met[a]!.size - met[b]!.size || a - b);
  const [leaves, inRest] = [new Set<number>(), new Set<number>()];
  for (const b of order) {
    if (inRest.has(b)) continue;
    leaves.add(b);
    for (const other of met[b]!) inRest.add(other);
  }
  const rest = blocks.flatMap((columns, b) => (leaves.has(b) ? [] : columns));
  const [n, r] = [blocks.flat().length, rest.length];
  return r ** 3 + n * r ** 2 < WORTH * n ** 3 ? { leaves: blocks.filter((_, b) => leaves.has(b)), rest } : undefined;
}

/** Fewer unknowns are solved as a whole before it is found out how they come apart. */
const FEW = 60;

/** How the unknowns of a problem come apart; undefined where that gains little. */
export const partitionOf = (problem: Problem, { blocks, unknowns }: Layout): Partition | undefined =>
  unknowns < FEW ? undefined : findPartition(blocks, listMeetings(problem));

/** A leaf with the unknowns of the rest that it meets, and how these follow from those: N⁻¹ between. */
interface Leaf {
  readonly own: readonly number[];
  readonly matrix: Matrix;
  readonly met: readonly number[];
  readonly follows: Matrix;
}

/** Takes the leaves out of a system: what is left of it, over the rest; undefined where a leaf is not determined by itself. */
function eliminated(
  matrix: Matrix,
  diagonal: readonly number[],
  { leaves, rest }: Partition,
  solveLeaf: (own: Matrix, right: Matrix) => Matrix | undefined,
): { readonly reduced: Matrix; readonly leaves: readonly Leaf[] } | undefined {
  const ownOf = (columns: readonly number[]): Matrix =>
    withDiagonal(
      matrix.selection([...columns], [...columns]),
      columns.map((column) => diagonal[column]!),
    );
  const reduced = ownOf(rest);
  const taken: Leaf[] = [];
  for (const own of leaves) {
    const met = rest.flatMap((column, i) => (own.some((row) => matrix.get(row, column) !== 0) ? [i] : []));
    const columns = met.map((i) => rest[i]!);
    const between = met.length > 0 ? matrix.selection([...own], columns) : Matrix.zeros(own.length, 0);
    const matrixOfOwn = ownOf(own);
    const follows = solveLeaf(matrixOfOwn, between);
    if (!follows) return undefined;
    for (let a = 0; a < met.length; a++)
      for (let b = a; b < met.length; b++) {
        let left = reduced.get(met[a]!, met[b]!);
        for (let k = 0; k < own.length; k++) left -= between.get(k, a) * follows.get(k, b);
        reduced.set(met[a]!, met[b]!, left);
        reduced.set(met[b]!, met[a]!, left);
      }
    taken.push({ own, matrix: matrixOfOwn, met, follows });
  }
  return { reduced, leaves: taken };
}

function choleskySolved(matrix: Matrix, right: Matrix): Matrix | undefined {
  const cholesky = new CholeskyDecomposition(matrix);
  if (!cholesky.isPositiveDefinite()) return undefined;
  return right.columns > 0 ? cholesky.solve(right) : right;
}

/** The same matrix with another diagonal. */
export function withDiagonal(matrix: Matrix, diagonal: ArrayLike<number>): Matrix {
  const other = matrix.clone();
  setDiagonal(other, diagonal);
  return other;
}

function setDiagonal(matrix: Matrix, diagonal: ArrayLike<number>): void {
  for (let i = 0; i < matrix.rows; i++) matrix.set(i, i, diagonal[i]!);
}

/** Solves a symmetric system, given with another diagonal, for one column, apart where it comes apart; undefined where it is not positive definite. */
export const solvePositive = (
  matrix: Matrix,
  diagonal: readonly number[],
  right: Float64Array,
  parts: Partition | undefined,
): Float64Array | undefined =>
  parts
    ? solveApart(matrix, diagonal, Matrix.columnVector(right), parts)
    : solveWhole(lowerHalf(matrix, diagonal), right);

/** The lower half, row by row, in one array: the systems of single views are so small that making matrices costs more than solving them. */
function lowerHalf(matrix: Matrix, diagonal: readonly number[]): Float64Array {
  const n = matrix.rows;
  const half = new Float64Array((n * (n + 1)) / 2);
  for (let i = 0, at = 0; i < n; i++) {
    for (let k = 0; k < i; k++) half[at++] = matrix.get(i, k);
    half[at++] = diagonal[i]!;
  }
  return half;
}

/** Cholesky's factor in the place of the system, and both substitutions (Golub & Van Loan, Matrix Computations, 4th edition, section 4.2). */
function solveWhole(factor: Float64Array, right: Float64Array): Float64Array | undefined {
  const [n, solved] = [right.length, Float64Array.from(right)];
  const first = (row: number) => (row * (row + 1)) / 2;
  for (let i = 0; i < n; i++) {
    const row = first(i);
    for (let k = 0; k <= i; k++) {
      const other = first(k);
      let left = factor[row + k]!;
      for (let m = 0; m < k; m++) left -= factor[row + m]! * factor[other + m]!;
      if (k < i) factor[row + k] = left / factor[other + k]!;
      else if (left > 0) factor[row + i] = Math.sqrt(left);
      else return undefined;
    }
    for (let m = 0; m < i; m++) solved[i]! -= factor[row + m]! * solved[m]!;
    solved[i]! /= factor[row + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    const row = first(i);
    solved[i]! /= factor[row + i]!;
    for (let m = 0; m < i; m++) solved[m]! -= factor[row + m]! * solved[i]!;
  }
  return solved;
}

function solveApart(
  matrix: Matrix,
  diagonal: readonly number[],
  right: Matrix,
  parts: Partition,
): Float64Array | undefined {
  const { rest } = parts;
  const apart = eliminated(matrix, diagonal, parts, choleskySolved);
  if (!apart) return undefined;
  const left = Matrix.columnVector(rest.map((column) => right.get(column, 0)));
  for (const { own, met, follows } of apart.leaves)
    met.forEach((i, a) =>
      left.set(i, 0, left.get(i, 0) - own.reduce((sum, row, k) => sum + follows.get(k, a) * right.get(row, 0), 0)),
    );
  const found = rest.length > 0 ? choleskySolved(apart.reduced, left) : left;
  if (!found) return undefined;
  const solution = new Float64Array(matrix.rows);
  rest.forEach((column, i) => (solution[column] = found.get(i, 0)));
  for (const { own, matrix: matrixOfOwn, met, follows } of apart.leaves) {
    const alone = choleskySolved(matrixOfOwn, Matrix.columnVector(own.map((row) => right.get(row, 0))))!;
    own.forEach((row, k) => {
      solution[row] = alone.get(k, 0) - met.reduce((sum, i, a) => sum + follows.get(k, a) * found.get(i, 0), 0);
    });
  }
  return solution;
}

/** The inverse of a symmetric system that is surely positive definite by its pivots, scaled to a unit diagonal; undefined where it is not, or not surely. */
export function invertApart(matrix: Matrix, parts: Partition, tolerance: number): Matrix | undefined {
  const surely = (own: Matrix) => {
    const { inverse, dependent } = semiInverse(own, tolerance);
    return dependent.length === 0 ? inverse : undefined;
  };
  const apart = eliminated(matrix, matrix.diagonal(), parts, (own, between) => surely(own)?.mmul(between));
  const rest = apart && surely(apart.reduced);
  const owns = apart?.leaves.map((leaf) => surely(leaf.matrix)!);
  return apart && rest && owns && assembled(matrix.rows, parts.rest, rest, apart.leaves, owns);
}

function assembled(
  size: number,
  rest: readonly number[],
  restInverse: Matrix,
  leaves: readonly Leaf[],
  owns: readonly Matrix[],
): Matrix {
  const inverse = Matrix.zeros(size, size);
  const put = (row: number, column: number, value: number) => {
    inverse.set(row, column, value);
    inverse.set(column, row, value);
  };
  rest.forEach((row, i) => rest.forEach((column, k) => inverse.set(row, column, restInverse.get(i, k))));
  // How every leaf goes with the rest: −follows · inverse of the rest.
  const withRest = leaves.map(({ own, met, follows }) =>
    own.map((_, k) => {
      const row = new Float64Array(rest.length);
      met.forEach((i, a) => {
        const factor = -follows.get(k, a);
        for (let c = 0; c < rest.length; c++) row[c]! += factor * restInverse.get(i, c);
      });
      return row;
    }),
  );
  leaves.forEach(({ own }, l) =>
    own.forEach((row, k) => rest.forEach((column, c) => put(row, column, withRest[l]![k]![c]!))),
  );
  const follows = leaves.map((leaf) => leaf.follows.to2DArray());
  for (let l = 0; l < leaves.length; l++)
    for (let o = l; o < leaves.length; o++)
      leaves[l]!.own.forEach((row, k) => {
        const along = withRest[l]![k]!;
        leaves[o]!.own.forEach((column, m) => {
          const [way, { met }] = [follows[o]![m]!, leaves[o]!];
          let sum = o === l ? owns[l]!.get(k, m) : 0;
          for (let a = 0; a < met.length; a++) sum -= along[met[a]!]! * way[a]!;
          put(row, column, sum);
        });
      });
  return inverse;
}
