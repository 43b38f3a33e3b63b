import { Matrix } from 'ml-matrix';

/** A row of slopes: only by those columns that it touches, which may be named more than once and add up. */
export interface SparseRow {
  readonly columns: readonly number[];
  readonly slopes: readonly number[];
}

/** Adds a row, so many times, to a full one. */
export function addTimes(sum: Float64Array, factor: number, { columns, slopes }: SparseRow): void {
  for (let i = 0; i < columns.length; i++) sum[columns[i]!]! += factor * slopes[i]!;
}

/** A row times a full column. */
export function rowTimes({ columns, slopes }: SparseRow, full: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < columns.length; i++) sum += slopes[i]! * full[columns[i]!]!;
  return sum;
}

/** The slope by one column. */
export function slopeBy({ columns, slopes }: SparseRow, column: number): number {
  let sum = 0;
  for (let i = 0; i < columns.length; i++) if (columns[i] === column) sum += slopes[i]!;
  return sum;
}

/** The row with zeros where it touches nothing. */
export function filled(row: SparseRow, width: number): Float64Array {
  const full = new Float64Array(width);
  addTimes(full, 1, row);
  return full;
}

/** Adds up rows that mostly touch the same few columns, without looking at the others. */
export class RowSum {
  private readonly sums: Float64Array;
  private readonly isTouched: Uint8Array;
  private columns: number[] = [];

  constructor(width: number) {
    this.sums = new Float64Array(width);
    this.isTouched = new Uint8Array(width);
  }

  add(factor: number, { columns, slopes }: SparseRow): void {
    for (let i = 0; i < columns.length; i++) {
      const column = columns[i]!;
      if (this.isTouched[column] === 0) {
        this.isTouched[column] = 1;
        this.columns.push(column);
      }
      this.sums[column]! += factor * slopes[i]!;
    }
  }

  /** What was added since the last time. */
  take(): SparseRow {
    const { columns, sums, isTouched } = this;
    const slopes = columns.map((column) => sums[column]!);
    for (const column of columns) sums[column] = isTouched[column] = 0;
    this.columns = [];
    return { columns, slopes };
  }
}

/** Aᵀ B of matrices of as many rows, given row by row, most of whose numbers are zero. */
export function transposedTimes(
  a: readonly (readonly number[])[],
  b: readonly (readonly number[])[],
  rows: number,
  columns: number,
): Matrix {
  const sums = Array.from({ length: rows }, () => new Float64Array(columns));
  a.forEach((row, r) => {
    const filled = filledIn(b[r]!);
    for (const i of filledIn(row)) for (const k of filled) sums[i]![k]! += row[i]! * b[r]![k]!;
  });
  return rows > 0 ? new Matrix(sums) : Matrix.zeros(0, columns);
}

const filledIn = (row: readonly number[]): readonly number[] =>
  row.flatMap((value, column) => (value === 0 ? [] : [column]));
