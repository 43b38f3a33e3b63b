import { Matrix } from 'ml-matrix';
import type { Linearization } from './linearize';
import type { Layout } from './problem';
import { semiInverseOfRows } from './pivoted-cholesky';
import { RowSum, slopeBy, type SparseRow } from './sparse';

/** Rows that share an observed number, directly or through others, with the inverse of their joint covariance, row by row. */
export interface Component {
  readonly rows: readonly number[];
  readonly inverse: Float64Array;
}

/** How much each row weighs once the observed numbers are eliminated. */
export interface RowWeights {
  readonly components: readonly Component[];
  /** The weight matrix times a matrix with one row for each row. */
  times(matrix: Matrix): Matrix;
  timesVector(values: readonly number[]): Float64Array;
  at(row: number, column: number): number;
  /** Covariance of the rows, by entry. */
  covarianceAt(row: number, column: number): number;
  /** Combinations of rows in which nothing observed is left: they bind the unknowns alone. */
  readonly bound: readonly Combination[];
}

/** Rows with a factor each. */
export interface Combination {
  readonly rows: readonly number[];
  readonly combination: readonly number[];
}

export function weighRows({ rows }: Linearization, { variances }: Layout): RowWeights {
  const covarianceAt = (i: number, k: number) => {
    const [{ columns, slopes }, other] = [rows[i]!.observed, rows[k]!.observed];
    let sum: number = i === k ? rows[i]!.noise : 0;
    for (let a = 0; a < columns.length; a++) sum += slopes[a]! * slopeBy(other, columns[a]!) * variances[columns[a]!]!;
    return sum;
  };
  const home = new Int32Array(rows.length);
  const place = new Int32Array(rows.length);
  const bound: Combination[] = [];
  const components = listComponents(rows.map(({ observed }) => observed.columns)).map((members, index): Component => {
    members.forEach((row, i) => ([home[row], place[row]] = [index, i]));
    const { inverse, combinations } =
      members.length === 1 ? invertedAlone(covarianceAt(members[0]!, members[0]!)) : inverted(members, covarianceAt);
    bound.push(...combinations.map((combination) => ({ rows: members, combination })));
    return { rows: members, inverse };
  });
  const entry = (row: number, column: number) => {
    const { rows: members, inverse } = components[home[row]!]!;
    return inverse[place[row]! * members.length + place[column]!]!;
  };
  return {
    components,
    covarianceAt,
    bound,
    at: (row, column) => (home[row] === home[column] ? entry(row, column) : 0),
    timesVector: (values) => weightedVector(components, values),
    times(matrix) {
      const columns = Array.from({ length: matrix.columns }, (_, c) => weightedVector(components, matrix.getColumn(c)));
      const product = Matrix.zeros(matrix.rows, matrix.columns);
      columns.forEach((column, c) => column.forEach((value, r) => product.set(r, c, value)));
      return product;
    },
  };
}

function invertedAlone(variance: number): { inverse: Float64Array; combinations: readonly (readonly number[])[] } {
  return variance > 0
    ? { inverse: Float64Array.of(1 / variance), combinations: [] }
    : { inverse: Float64Array.of(0), combinations: [[1]] };
}

function inverted(
  members: readonly number[],
  covarianceAt: RowWeights['covarianceAt'],
): { inverse: Float64Array; combinations: readonly (readonly number[])[] } {
  const covariance = members.map(() => new Array<number>(members.length).fill(0));
  for (let i = 0; i < members.length; i++)
    for (let k = i; k < members.length; k++)
      covariance[i]![k] = covariance[k]![i] = covarianceAt(members[i]!, members[k]!);
  const { inverse, dependent } = semiInverseOfRows(covariance);
  return {
    inverse: Float64Array.from(inverse.flat()),
    combinations: dependent.map(({ combination }) => combination),
  };
}

function weightedVector(components: readonly Component[], values: readonly number[]): Float64Array {
  const product = new Float64Array(values.length);
  for (const { rows, inverse } of components) {
    for (let i = 0; i < rows.length; i++)
      for (let k = 0; k < rows.length; k++) product[rows[i]!]! += inverse[i * rows.length + k]! * values[rows[k]!]!;
  }
  return product;
}

/** The weight matrix times rows of slopes by so many unknowns. */
export function weightedRows(
  { components }: Pick<RowWeights, 'components'>,
  free: readonly SparseRow[],
  unknowns: number,
): readonly SparseRow[] {
  const weighted = new Array<SparseRow>(free.length);
  const sum = new RowSum(unknowns);
  for (const { rows, inverse } of components) {
    for (let i = 0; i < rows.length; i++) {
      for (let k = 0; k < rows.length; k++) {
        const weight = inverse[i * rows.length + k]!;
        if (weight !== 0) sum.add(weight, free[rows[k]!]!);
      }
      weighted[rows[i]!] = sum.take();
    }
  }
  return weighted;
}

/** Rows joined by the observed columns they touch (union by the lowest row). */
function listComponents(touched: readonly (readonly number[])[]): number[][] {
  const parent = Int32Array.from(touched, (_, row) => row);
  const rootOf = (row: number): number => (parent[row] === row ? row : (parent[row] = rootOf(parent[row]!)));
  const owner = new Map<number, number>();
  touched.forEach((columns, row) => {
    for (const column of columns) {
      const other = owner.get(column);
      if (other === undefined) owner.set(column, row);
      else parent[rootOf(row)] = rootOf(other);
    }
  });
  const members = new Map<number, number[]>();
  for (let row = 0; row < touched.length; row++) {
    const root = rootOf(row);
    const others = members.get(root);
    if (others) others.push(row);
    else members.set(root, [row]);
  }
  return [...members.values()];
}
