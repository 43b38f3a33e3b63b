import { Matrix } from 'ml-matrix';

/**
 * What a symmetric, positive semi-definite matrix says about its own rank: its inverse over the rows that are independent
 * (zero elsewhere), and for every other row the combination of rows that vanishes.
 */
export interface SemiInverse<M = Matrix> {
  readonly inverse: M;
  readonly dependent: readonly { readonly row: number; readonly combination: readonly number[] }[];
}

/** A pivot of the matrix scaled to unit diagonal below this is a dependent row. */
const PIVOT_TOLERANCE = 1e-8;

/** Cholesky with complete pivoting (Golub & Van Loan, Matrix Computations, 4th edition, section 4.2.8), scaled first. */
export function semiInverse(matrix: Matrix, tolerance?: number): SemiInverse {
  const { inverse, dependent } = semiInverseOfRows(matrix.to2DArray(), tolerance);
  return { inverse: inverse.length > 0 ? new Matrix(inverse) : Matrix.zeros(0, 0), dependent };
}

/** Likewise of plain rows: small ones are much quicker to make. */
export function semiInverseOfRows(
  matrix: readonly (readonly number[])[],
  tolerance = PIVOT_TOLERANCE,
): SemiInverse<number[][]> {
  const { left, order, rank, scale } = factored(matrix, tolerance);
  return {
    inverse: inverseOf(left, order, rank, scale),
    dependent: order.slice(rank).map((row) => ({ row, combination: combinationOf(left, order, rank, row, scale) })),
  };
}

/** The rows that others make up for, without what they are made of. */
export function listDependent(matrix: readonly (readonly number[])[], tolerance = PIVOT_TOLERANCE): readonly number[] {
  const { order, rank } = factored(matrix, tolerance);
  return order.slice(rank);
}

/** The factor of the rows that are independent, in the order in which they were taken, scaled. */
function factored(matrix: readonly (readonly number[])[], tolerance: number) {
  const n = matrix.length;
  const scale = matrix.map((row, i) => Math.sqrt(row[i]!) || 1);
  const left = matrix.map((row, i) => row.map((value, k) => value / (scale[i]! * scale[k]!)));
  const order = matrix.map((_, i) => i);
  let rank = 0;
  for (; rank < n; rank++) {
    let best = rank;
    for (let i = rank + 1; i < n; i++) if (left[order[i]!]![order[i]!]! > left[order[best]!]![order[best]!]!) best = i;
    [order[rank], order[best]] = [order[best]!, order[rank]!];
    if (!(left[order[rank]!]![order[rank]!]! > tolerance)) break;
    eliminate(left, order, rank);
  }
  mirror(left);
  return { left, order, rank, scale };
}

/** One step on the lower half, by rows as they were given: the factor's column goes where the matrix's was. Rows that have nothing to do with the pivot are passed over. */
function eliminate(left: number[][], order: readonly number[], step: number): void {
  const pivot = order[step]!;
  const root = Math.sqrt(left[pivot]![pivot]!);
  left[pivot]![pivot] = root;
  const met = order
    .slice(step + 1)
    .filter((row) => left[Math.max(row, pivot)]![Math.min(row, pivot)] !== 0)
    .sort((a, b) => a - b);
  const factors = met.map((row) => (left[Math.max(row, pivot)]![Math.min(row, pivot)]! /= root));
  for (let i = 0; i < met.length; i++) {
    const [row, factor] = [left[met[i]!]!, factors[i]!];
    for (let k = 0; k <= i; k++) row[met[k]!]! -= factor * factors[k]!;
  }
}

/** The upper half as the lower one. */
function mirror(left: number[][]): void {
  for (let row = 0; row < left.length; row++)
    for (let column = 0; column < row; column++) left[column]![row] = left[row]![column]!;
}

/** Solves Lᵀ x = b over the first `rank` pivots, b and x by pivot. */
function backward(left: readonly number[][], order: readonly number[], rank: number, b: number[]): number[] {
  for (let i = rank - 1; i >= 0; i--) {
    for (let k = i + 1; k < rank; k++) b[i]! -= left[order[k]!]![order[i]!]! * b[k]!;
    b[i]! /= left[order[i]!]![order[i]!]!;
  }
  return b;
}

function inverseOf(
  left: readonly number[][],
  order: readonly number[],
  rank: number,
  scale: readonly number[],
): number[][] {
  const inverse = order.map(() => new Array<number>(order.length).fill(0));
  for (let column = 0; column < rank; column++) {
    const b = new Array<number>(rank).fill(0);
    b[column] = 1;
    for (let i = column; i < rank; i++) {
      for (let k = column; k < i; k++) b[i]! -= left[order[i]!]![order[k]!]! * b[k]!;
      b[i]! /= left[order[i]!]![order[i]!]!;
    }
    const solved = backward(left, order, rank, b);
    for (let i = 0; i < rank; i++)
      inverse[order[i]!]![order[column]!] = solved[i]! / (scale[order[i]!]! * scale[order[column]!]!);
  }
  return inverse;
}

function combinationOf(
  left: readonly number[][],
  order: readonly number[],
  rank: number,
  row: number,
  scale: readonly number[],
): number[] {
  const combination = new Array<number>(order.length).fill(0);
  const weights = backward(
    left,
    order,
    rank,
    Array.from({ length: rank }, (_, i) => left[row]![order[i]!]!),
  );
  weights.forEach((weight, i) => (combination[order[i]!] = -weight / scale[order[i]!]!));
  combination[row] = 1 / scale[row]!;
  return combination;
}
