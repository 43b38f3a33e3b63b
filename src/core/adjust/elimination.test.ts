/** Systems that come apart: what is solved piece by piece is what is solved as a whole. */
import fc from 'fast-check';
import { CholeskyDecomposition, inverse, Matrix } from 'ml-matrix';
import { findPartition, invertApart, listMeetings, solvePositive, type Partition } from './elimination';
import { createRandom } from '../calibrate/simulation';
import { covarianceOf, solve } from '.';
import { randomScene } from './random-scene';

interface System {
  readonly matrix: Matrix;
  readonly blocks: readonly (readonly number[])[];
  readonly parts: Partition | undefined;
  readonly right: Float64Array;
}

/** Which blocks a matrix ties together. */
const meetingsIn = (matrix: Matrix, blocks: System['blocks']) =>
  blocks.map(
    (own) =>
      new Set(
        blocks.flatMap((other, b) =>
          other !== own && own.some((row) => other.some((column) => matrix.get(row, column) !== 0)) ? [b] : [],
        ),
      ),
  );

/** Places that are seen from a few views, and meet nothing else: as equations with one row for each sight, and a weak hold on all. */
const systems = fc
  .record({
    places: fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 12, maxLength: 30 }),
    views: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 3 }),
    seed: fc.nat({ max: 1e6 }),
  })
  .map(({ places, views, seed }): System => {
    let state = seed + 1;
    const next = () => {
      state = (16807 * state) % 2147483647;
      return (2 * state) / 2147483647 - 1;
    };
    let first = 0;
    // Views and places in turn, so that neither stand together.
    const sizes = [...places, ...views].map((size, i) => ({ size, isView: i >= places.length, order: next() }));
    sizes.sort((a, b) => a.order - b.order);
    const placed = sizes.map(({ size, isView }) => {
      const columns = Array.from({ length: size }, (_, i) => first + i);
      first += size;
      return { columns, isView };
    });
    const matrix = Matrix.eye(first).mul(0.5);
    const looks = placed.filter(({ isView }) => isView);
    for (const place of placed.filter(({ isView }) => !isView)) {
      const look = looks[Math.floor(((next() + 1) / 2) * looks.length) % looks.length]!;
      const columns = [...place.columns, ...look.columns];
      const slopes = columns.map(() => next());
      columns.forEach((row, i) =>
        columns.forEach((column, k) => matrix.set(row, column, matrix.get(row, column) + slopes[i]! * slopes[k]!)),
      );
    }
    const blocks = placed.map(({ columns }) => columns);
    return {
      matrix,
      blocks,
      parts: findPartition(blocks, meetingsIn(matrix, blocks)),
      right: Float64Array.from(Array.from({ length: first }, next)),
    };
  });

const farthest = (a: Matrix, b: Matrix) => Matrix.sub(a, b).abs().max();

it('leaves do not meet, and nothing is lost between them and the rest', () => {
  let apart = 0;
  fc.assert(
    fc.property(systems, ({ matrix, parts }) => {
      if (!parts) return;
      apart++;
      expect([...parts.leaves.flat(), ...parts.rest].sort((a, b) => a - b)).toEqual(
        Array.from({ length: matrix.rows }, (_, i) => i),
      );
      const meeting = parts.leaves.flatMap((leaf) =>
        parts.leaves.filter(
          (other) => other !== leaf && leaf.some((row) => other.some((column) => matrix.get(row, column) !== 0)),
        ),
      );
      expect(meeting).toEqual([]);
    }),
    { seed: 3, numRuns: 100 },
  );
  expect(apart).toBeGreaterThan(80);
});

it('solved apart and inverted apart is as solved and inverted whole', () => {
  fc.assert(
    fc.property(systems, fc.double({ min: 0, max: 2, noNaN: true }), ({ matrix, parts, right }, damping) => {
      const diagonal = matrix.diagonal().map((value) => value * (1 + damping));
      const whole = matrix.clone();
      diagonal.forEach((value, i) => whole.set(i, i, value));
      expect(
        farthest(
          Matrix.columnVector(solvePositive(matrix, diagonal, right, parts)!),
          new CholeskyDecomposition(whole).solve(Matrix.columnVector(right)),
        ),
      ).toBeLessThan(1e-9);
      if (parts) expect(farthest(invertApart(matrix, parts, 1e-9)!, inverse(matrix))).toBeLessThan(1e-8);
    }),
    { seed: 4, numRuns: 100 },
  );
});

it('what is not determined is not solved: neither a leaf nor the rest', () => {
  const { matrix, parts, right } = fc.sample(systems, { seed: 5, numRuns: 1 })[0]!;
  const { leaves, rest } = parts!;
  for (const column of [leaves[0]![0]!, rest[0]!]) {
    const open = matrix.clone();
    for (let i = 0; i < open.rows; i++) {
      open.set(i, column, 0);
      open.set(column, i, 0);
    }
    expect(solvePositive(open, open.diagonal(), right, parts)).toBeUndefined();
    expect(invertApart(open, parts!, 1e-9)).toBeUndefined();
  }
});

it('unknowns meet in one condition, and through what is observed in several', () => {
  const condition = (...blocks: string[]) =>
    ({ group: '', origin: 'stated', exact: false, blocks, residuals: () => [] }) as const;
  const blocks = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id, start: [0] }));
  const seen = ['p', 'q'].map((id) => ({ id, start: [0], sigma: 1 }));
  const problem = {
    blocks: [seen[0]!, ...blocks, seen[1]!],
    conditions: [
      condition('a', 'b'),
      condition('b', 'p'),
      condition('c', 'q'),
      condition('d', 'p', 'q'),
      condition('e'),
    ],
  };
  expect(listMeetings(problem).map((met) => [...met].sort())).toEqual([[1], [0, 2, 3], [1, 3], [1, 2], []]);
});

it('where everything meets everything nothing is taken apart', () => {
  const matrix = Matrix.add(Matrix.ones(9, 9), Matrix.eye(9));
  const blocks = [
    [0, 1, 2],
    [3, 4, 5],
    [6, 7, 8],
  ];
  expect(findPartition(blocks, meetingsIn(matrix, blocks))).toBeUndefined();
});

it('views that show many places settle within ten steps, with the covariance of the whole', () => {
  const problem = randomScene(6, 60, 4, createRandom(1).normal);
  const solution = solve(problem);
  const covariance = covarianceOf(problem, solution);
  if (covariance.kind !== 'ok') throw new Error(covariance.undetermined.join());
  expect([solution.settled, solution.steps <= 10]).toEqual([true, true]);
  // Chi-square with so many freedoms, within four of its own sigmas.
  expect(Math.abs(solution.chiSquare - covariance.redundancy)).toBeLessThan(4 * Math.sqrt(2 * covariance.redundancy));
  const { normal } = solution.equations;
  expect(farthest(covariance.matrix.mmul(normal), Matrix.eye(normal.rows))).toBeLessThan(1e-5);
});
