/** Systems that come apart are solved apart, to the very digits of a solution as a whole. */
import fc from 'fast-check';
import { inverse, LuDecomposition, Matrix } from 'ml-matrix';
import { componentsOf, invertByComponents, solveByComponents } from './components';
import { transposedTimes } from './sparse';

const SIZES = fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 4 });
const NUMBERS = fc.array(fc.integer({ min: -900, max: 900 }), { minLength: 90, maxLength: 90 });

/** Symmetric blocks of these sizes, strewn over the rows; a row of the last is a border without a pivot of its own, as of an exact equation. */
function strewn(sizes: readonly number[], numbers: readonly number[]) {
  const count = sizes.reduce((sum, size) => sum + size, 0);
  const rows = Array.from({ length: count }, (_, i) => i).sort((a, b) => numbers[a]! - numbers[b]! || a - b);
  const matrix = Matrix.zeros(count, count);
  let [at, next] = [0, 0];
  for (const size of sizes) {
    const own = rows.slice(at, at + size);
    for (const i of own)
      for (const k of own.filter((other) => other >= i)) {
        const value = numbers[next++ % numbers.length]! / 100 + (i === k ? 40 : 0.005);
        matrix.set(i, k, i === k && size > 1 && i === own.at(-1) ? 0 : value);
        matrix.set(k, i, matrix.get(i, k));
      }
    at += size;
  }
  return { matrix, right: Matrix.columnVector(rows.map((_, i) => numbers[i]! / 7)) };
}

it('each row is in one component, and between components there is nothing', () => {
  fc.assert(
    fc.property(SIZES, NUMBERS, (sizes, numbers) => {
      const { matrix } = strewn(sizes, numbers);
      const components = componentsOf(matrix);
      expect(components.flat().sort((a, b) => a - b)).toEqual(Array.from({ length: matrix.rows }, (_, i) => i));
      expect(components.map(({ length }) => length).sort()).toEqual([...sizes].sort());
      const of = (row: number) => components.findIndex((rows) => rows.includes(row));
      for (let i = 0; i < matrix.rows; i++)
        for (let k = 0; k < matrix.rows; k++) if (of(i) !== of(k)) expect(matrix.get(i, k)).toBe(0);
    }),
    { seed: 3 },
  );
});

it('solves and inverts to the digits that the general library gives for the whole', () => {
  let several = 0;
  fc.assert(
    fc.property(SIZES, NUMBERS, (sizes, numbers) => {
      const { matrix, right } = strewn(sizes, numbers);
      const whole = new LuDecomposition(matrix.clone());
      fc.pre(!whole.isSingular());
      several += sizes.length > 1 ? 1 : 0;
      expect(solveByComponents(matrix, right)!.to1DArray()).toEqual(whole.solve(right).to1DArray());
      const apart = invertByComponents(matrix).to2DArray();
      inverse(matrix)
        .to2DArray()
        .forEach((row, i) => row.forEach((value, k) => expect(apart[i]![k]! - value).toBe(0)));
    }),
    { seed: 5 },
  );
  expect(several).toBeGreaterThan(30);
});

it('has no solution where one of the components is singular, and no inverse', () => {
  const matrix = new Matrix([
    [2, 0, 0],
    [0, 1, 1],
    [0, 1, 1],
  ]);
  expect(solveByComponents(matrix, Matrix.columnVector([1, 1, 1]))).toBeUndefined();
  expect(() => invertByComponents(matrix)).toThrow('singular');
});

it('products of rows of which most is nothing are those of the general library', () => {
  const rows = fc.array(fc.array(fc.constantFrom(0, 0, 0, 1.5, -2.25, 7.125), { minLength: 5, maxLength: 5 }), {
    minLength: 4,
    maxLength: 4,
  });
  fc.assert(
    fc.property(rows, rows, (a, b) => {
      const product = transposedTimes(a, b, 5, 5);
      expect(Matrix.sub(product, new Matrix(a).transpose().mmul(new Matrix(b))).norm('frobenius')).toBe(0);
    }),
  );
  expect(transposedTimes([], [], 0, 3)).toMatchObject({ rows: 0, columns: 3 });
});
