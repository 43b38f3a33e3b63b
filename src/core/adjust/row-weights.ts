import { Matrix } from 'ml-matrix';
import type { Linearization } from './linearize';
import type { Layout } from './problem';
import { semiInverse } from './pivoted-cholesky';

/** Rows that share an observed number, directly or through others, with the inverse of their joint covariance. */
interface Component {
  readonly rows: readonly number[];
  readonly inverse: Matrix;
}

/** How much each row weighs once the observed numbers are eliminated. */
export interface RowWeights {
  /** The weight matrix times a matrix with one row for each row. */
  times(matrix: Matrix): Matrix;
  at(row: number, column: number): number;
  /** Covariance of the rows, by entry. */
  covarianceAt(row: number, column: number): number;
  /** Combinations of rows in which nothing observed is left: they bind the unknowns alone. */
  readonly bound: readonly { readonly rows: readonly number[]; readonly combination: readonly number[] }[];
}

export function weighRows({ rows }: Linearization, { variances }: Layout): RowWeights {
  const covarianceAt = (i: number, k: number) => {
    let sum = i === k ? rows[i]!.noise : 0;
    const [small, large] = rows[i]!.slopes.size < rows[k]!.slopes.size ? [rows[i]!, rows[k]!] : [rows[k]!, rows[i]!];
    for (const [column, slope] of small.slopes) sum += slope * (large.slopes.get(column) ?? 0) * variances[column]!;
    return sum;
  };
  const home = new Int32Array(rows.length);
  const place = new Int32Array(rows.length);
  const bound: { rows: readonly number[]; combination: readonly number[] }[] = [];
  const components = listComponents(rows.map((row) => row.slopes)).map((members, index): Component => {
    members.forEach((row, i) => ([home[row], place[row]] = [index, i]));
    const covariance = Matrix.zeros(members.length, members.length);
    members.forEach((row, i) => members.forEach((other, k) => k >= i && (covariance.set(i, k, covarianceAt(row, other)), covariance.set(k, i, covariance.get(i, k)))));
    const { inverse, dependent } = semiInverse(covariance);
    bound.push(...dependent.map(({ combination }) => ({ rows: members, combination })));
    return { rows: members, inverse };
  });
  return {
    covarianceAt, bound,
    at: (row, column) => (home[row] === home[column] ? components[home[row]!]!.inverse.get(place[row]!, place[column]!) : 0),
    times(matrix) {
      const product = Matrix.zeros(matrix.rows, matrix.columns);
      for (const { rows: members, inverse } of components) {
        members.forEach((row, i) => members.forEach((other, k) => {
          const weight = inverse.get(i, k);
          if (weight !== 0) for (let c = 0; c < matrix.columns; c++) product.set(row, c, product.get(row, c) + weight * matrix.get(other, c));
        }));
      }
      return product;
    },
  };
}

/** Rows joined by the observed columns they touch (union by the lowest row). */
function listComponents(slopes: readonly ReadonlyMap<number, number>[]): number[][] {
  const parent = slopes.map((_, row) => row);
  const rootOf = (row: number): number => (parent[row] === row ? row : (parent[row] = rootOf(parent[row]!)));
  const owner = new Map<number, number>();
  slopes.forEach((touched, row) => {
    for (const column of touched.keys()) {
      const other = owner.get(column);
      if (other === undefined) owner.set(column, row);
      else parent[rootOf(row)] = rootOf(other);
    }
  });
  const members = new Map<number, number[]>();
  slopes.forEach((_, row) => members.set(rootOf(row), [...(members.get(rootOf(row)) ?? []), row]));
  return [...members.values()];
}
