import { Matrix } from 'ml-matrix';
import { solveByComponents } from './components';
import { solvePositive, withDiagonal, type Partition } from './elimination';
import type { Linearization } from './linearize';
import { listDependent } from './pivoted-cholesky';
import type { Layout } from './problem';
import { addTimes, type SparseRow } from './sparse';
import { weighRows, weightedRows, type Combination, type RowWeights } from './row-weights';

/** The problem reduced to its unknowns, at given values. */
export interface NormalEquations {
  readonly weights: RowWeights;
  readonly normal: Matrix;
  readonly gradient: Float64Array;
  /** Independent equations between unknowns alone: `bound` × change = −`boundMisclosure`. */
  readonly bound: Matrix;
  readonly boundMisclosure: Matrix;
  /** Which combinations of rows the bound equations are. */
  readonly boundBy: readonly Combination[];
  /** Weighted sum of squared misclosures: chi-square once converged. */
  readonly chiSquare: number;
}

/** Relative size below which a combined row binds no unknown at all: it only repeats others. */
const VANISHING = 1e-7;

/** `repeats`: bound rows whose own part is a smaller share of them than this (squared) only repeat others, and are left away. */
export function reduce(at: Linearization, layout: Layout, repeats?: number): NormalEquations {
  const weights = weighRows(at, layout);
  const weightedMisclosures = weights.timesVector(at.misclosures);
  const gradient = new Float64Array(layout.unknowns);
  at.free.forEach((row, r) => addTimes(gradient, weightedMisclosures[r]!, row));
  return {
    weights,
    normal: normalOf(at.free, weights, layout.unknowns),
    gradient,
    ...boundRows(at, weights, layout.unknowns, repeats),
    chiSquare: at.misclosures.reduce((sum, misclosure, r) => sum + misclosure * weightedMisclosures[r]!, 0),
  };
}

/** Aᵀ W A, component by component; its upper half is summed up, since it is symmetric. */
function normalOf(free: readonly SparseRow[], weights: RowWeights, unknowns: number): Matrix {
  const sums = new Float64Array(unknowns * unknowns);
  const weighted = weightedRows(weights, free, unknowns);
  for (const { rows } of weights.components)
    for (const row of rows) addOuter(sums, unknowns, free[row]!, weighted[row]!);
  const normal = Matrix.zeros(unknowns, unknowns);
  for (let a = 0; a < unknowns; a++)
    for (let c = a; c < unknowns; c++) {
      normal.set(a, c, sums[a * unknowns + c]!);
      normal.set(c, a, sums[a * unknowns + c]!);
    }
  return normal;
}

function addOuter(sums: Float64Array, width: number, left: SparseRow, right: SparseRow): void {
  for (let a = 0; a < left.columns.length; a++) {
    const [column, slope] = [left.columns[a]!, left.slopes[a]!];
    for (let c = 0; c < right.columns.length; c++)
      if (right.columns[c]! >= column) sums[column * width + right.columns[c]!]! += slope * right.slopes[c]!;
  }
}

/** Rounding leaves products a little lopsided, which the factorisations do not take. */
export function symmetric(matrix: Matrix): Matrix {
  return Matrix.add(matrix, matrix.transpose()).mul(0.5);
}

/** With what force every row is held: that of the bound equations which are made of it. */
export function forcesOn(
  { boundBy }: NormalEquations,
  { multipliers }: DampedStep,
  { rows: { length } }: Linearization,
): Float64Array {
  const forces = new Float64Array(length);
  boundBy.forEach(({ rows, combination }, i) =>
    rows.forEach((row, k) => (forces[row]! += multipliers[i]! * combination[k]!)),
  );
  return forces;
}

/** What a combination of rows misses by. */
export const missOf = ({ rows, combination }: Combination, { misclosures }: Linearization): number =>
  rows.reduce((sum, row, i) => sum + combination[i]! * misclosures[row]!, 0);

function boundRows(
  at: Linearization,
  weights: RowWeights,
  width: number,
  repeats: number | undefined,
): Pick<NormalEquations, 'bound' | 'boundMisclosure' | 'boundBy'> {
  const found: { slopes: Float64Array; by: Combination }[] = [];
  for (const by of weights.bound) {
    const { rows, combination } = by;
    const [sums, sizes] = [new Float64Array(width), new Float64Array(width)];
    rows.forEach((row, i) => {
      const { columns, slopes } = at.free[row]!;
      columns.forEach((column, k) => {
        sums[column]! += combination[i]! * slopes[k]!;
        sizes[column]! += Math.abs(combination[i]! * slopes[k]!);
      });
    });
    if (sums.every((slope, c) => Math.abs(slope) <= VANISHING * sizes[c]!)) continue;
    found.push({ slopes: sums, by });
  }
  if (found.length === 0) return { bound: Matrix.zeros(0, width), boundMisclosure: Matrix.zeros(0, 1), boundBy: [] };
  const repeated = new Set(listDependent(productsOf(found.map(({ slopes }) => slopes)), repeats));
  const kept = found.filter((_, row) => !repeated.has(row));
  return {
    bound: new Matrix(kept.map(({ slopes }) => slopes)),
    boundMisclosure: Matrix.columnVector(kept.map(({ by }) => missOf(by, at))),
    boundBy: kept.map(({ by }) => by),
  };
}

/** Products of rows with each other: few of their numbers are not zero. */
function productsOf(rows: readonly Float64Array[]): readonly (readonly number[])[] {
  const filledOf = rows.map((row) => [...row.keys()].filter((column) => row[column] !== 0));
  const products = rows.map(() => new Array<number>(rows.length).fill(0));
  rows.forEach((row, i) => {
    for (let k = 0; k <= i; k++) {
      let sum = 0;
      for (const column of filledOf[k]!) sum += row[column]! * rows[k]![column]!;
      products[i]![k] = products[k]![i] = sum;
    }
  });
  return products;
}

/** A change of the unknowns, and with what force every bound equation holds it there (Lagrange multipliers of half of chi-square). */
export interface DampedStep {
  readonly change: Float64Array;
  readonly multipliers: readonly number[];
  /** By how much less the equations say that chi-square, with what bound equations miss by their forces, will be. */
  readonly promised: number;
}

/** The damped step of the unknowns, which may come apart; undefined when the equations are singular as they stand. `curvature` is how exact equations bend. */
export function findStep(
  { normal, gradient, bound, boundMisclosure }: NormalEquations,
  parts: Partition | undefined,
  damping: number,
  curvature?: Matrix,
): DampedStep | undefined {
  const diagonal = normal.diagonal().map((value) => value * (1 + damping) + 1e-30);
  const promisedBy = (change: Float64Array) =>
    quadratic(curvature ? Matrix.add(normal, curvature) : normal, change) +
    2 * damping * change.reduce((sum, each, i) => sum + normal.get(i, i) * each * each, 0);
  if (bound.rows === 0 && !curvature) {
    const change = solvePositive(normal, diagonal, gradient.map(negative), parts);
    return change && { change, multipliers: [], promised: promisedBy(change) };
  }
  const damped = withDiagonal(normal, diagonal);
  if (curvature) damped.add(curvature);
  const right = Matrix.columnVector([...gradient.map(negative), ...Matrix.mul(boundMisclosure, -1).to1DArray()]);
  const solved = solveByComponents(bordered(damped, bound), right)?.to1DArray();
  if (!solved) return undefined;
  const change = Float64Array.from(solved.slice(0, damped.rows));
  return { change, multipliers: solved.slice(damped.rows), promised: promisedBy(change) };
}

const negative = (value: number) => -value;

/** xᵀ M x */
function quadratic(matrix: Matrix, change: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < change.length; i++)
    for (let k = 0; k < change.length; k++) sum += change[i]! * matrix.get(i, k) * change[k]!;
  return sum;
}

export function bordered(normal: Matrix, bound: Matrix): Matrix {
  const width = normal.rows + bound.rows;
  const whole = Matrix.zeros(width, width);
  whole.setSubMatrix(normal, 0, 0);
  whole.setSubMatrix(bound, normal.rows, 0);
  whole.setSubMatrix(bound.transpose(), 0, normal.rows);
  return whole;
}
