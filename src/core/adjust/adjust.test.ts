import fc from 'fast-check';
import { Matrix } from 'ml-matrix';
import {
  chiSquareQuantile99,
  covarianceOf,
  diagnose,
  equivalentNormal,
  propagate,
  solve,
  type Block,
  type Condition,
  type Problem,
} from '.';
import { semiInverse } from './pivoted-cholesky';

type Values = readonly (readonly number[])[];

/** A stated number: predicted from blocks, with its sigma. */
function stated(
  group: string,
  blocks: readonly string[],
  f: (values: Values) => number,
  value: number,
  sigma: number,
): Condition {
  return { group, origin: 'stated', exact: false, blocks, residuals: (values) => [(f(values) - value) / sigma] };
}
const relation = (group: string, blocks: readonly string[], f: (values: Values) => number): Condition => ({
  group,
  origin: 'stated',
  exact: true,
  blocks,
  residuals: (values) => [f(values)],
});

function adjusted(problem: Problem) {
  const solution = solve(problem);
  const covariance = covarianceOf(problem, solution);
  if (covariance.kind !== 'ok') throw new Error(covariance.undetermined.join());
  return { solution, covariance, diagnosis: diagnose(solution, covariance.matrix, covariance.redundancy) };
}

describe('the engine', () => {
  const line: Problem = {
    blocks: [{ id: 'line', start: [0, 0] }],
    conditions: (
      [
        [0, 1],
        [1, 3],
        [2, 5.3],
      ] as const
    ).map(([x, y], i) => stated(String(i), ['line'], ([v]) => v![0]! + v![1]! * x, y, 0.1)),
  };

  it('fits a straight line as the normal equations do', () => {
    // By hand: y = a + b x through (0, 1), (1, 3), (2, 5.3); covariance sigma² (AᵀA)⁻¹ with AᵀA = [[3, 3], [3, 5]].
    const { solution, covariance } = adjusted(line);
    expect(solution.values.get('line')![0]).toBeCloseTo(0.95, 9);
    expect(solution.values.get('line')![1]).toBeCloseTo(2.15, 9);
    expect(covariance.matrix.get(0, 0)).toBeCloseTo((5 / 6) * 0.01, 9);
    expect(covariance.matrix.get(1, 1)).toBeCloseTo(0.5 * 0.01, 9);
  });

  it('diagnoses it as the textbook does', () => {
    // Hat matrix of three equidistant abscissae: diagonal 5/6, 1/3, 5/6, so redundancy numbers 1/6, 2/3, 1/6 and equal w.
    const { diagnosis } = adjusted(line);
    expect(diagnosis.redundancy).toBe(1);
    expect(diagnosis.varianceFactor).toBeCloseTo(0.015 / 0.01, 6);
    [1 / 6, 2 / 3, 1 / 6].forEach((redundancy, i) =>
      expect(diagnosis.groups[i]!.redundancy).toBeCloseTo(redundancy, 6),
    );
    diagnosis.groups.forEach(({ normalized, leverage, redundancy }) => {
      expect(Math.abs(normalized!)).toBeCloseTo(Math.sqrt(1.5), 5);
      expect(leverage + redundancy).toBeCloseTo(1, 6);
    });
    expect(diagnosis.groups[1]!.rows[0]!.detectable).toBeCloseTo(4.13 / Math.sqrt(2 / 3), 3);
  });

  it('adjusts a triangle whose angles must make 180°: each gives a third, with two thirds of its variance', () => {
    const angles: Block[] = [60.3, 59.5, 60.8].map((start, i) => ({ id: `a${i}`, start: [start], sigma: 0.2 }));
    const { solution, covariance, diagnosis } = adjusted({
      blocks: angles,
      conditions: [relation('sum', ['a0', 'a1', 'a2'], ([a, b, c]) => a![0]! + b![0]! + c![0]! - 180)],
    });
    expect(solution.values.get('a0')![0]).toBeCloseTo(60.3 - 0.2, 9);
    const joint = covariance.withObserved(['a0', 'a1']);
    expect(joint.get(0, 0)).toBeCloseTo((2 / 3) * 0.04, 9);
    expect(joint.get(0, 1)).toBeCloseTo((-1 / 3) * 0.04, 9);
    // The misclosure 0.6 has a sigma of 0.2 √3.
    expect(Math.abs(diagnosis.groups[0]!.normalized!)).toBeCloseTo(0.6 / (0.2 * Math.sqrt(3)), 6);
  });

  it('gives the same as the form in which observed numbers are unknowns of their own', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 8, maxLength: 8 }), (noise) => {
        const points = [0, 1, 2, 3].map(
          (x, i) => [x + 0.05 * noise[2 * i]!, 1 + 2 * x + 0.1 * noise[2 * i + 1]!] as const,
        );
        const conditions = points.map((_, i) =>
          relation(`p${i}`, ['line', `p${i}`], ([v, p]) => p![1]! - v![0]! - v![1]! * p![0]!),
        );
        const mixed = adjusted({
          blocks: [{ id: 'line', start: [1, 2] }, ...points.map((start, i) => ({ id: `p${i}`, start, sigma: 0.1 }))],
          conditions,
        });
        // Points on the line by construction: an abscissa each, both coordinates observed.
        const plain = adjusted({
          blocks: [{ id: 'line', start: [1, 2] }, ...points.map(([x], i) => ({ id: `x${i}`, start: [x] }))],
          conditions: points.flatMap(([x, y], i) => [
            stated(`x${i}`, [`x${i}`], ([t]) => t![0]!, x, 0.1),
            stated(`y${i}`, ['line', `x${i}`], ([v, t]) => v![0]! + v![1]! * t![0]!, y, 0.1),
          ]),
        });
        expect(mixed.solution.chiSquare).toBeCloseTo(plain.solution.chiSquare, 6);
        [0, 1].forEach((k) => {
          expect(mixed.solution.values.get('line')![k]).toBeCloseTo(plain.solution.values.get('line')![k]!, 6);
          // First order at slightly different places: within a share of the noise.
          expect(mixed.covariance.matrix.get(k, k) / plain.covariance.matrix.get(k, k)).toBeCloseTo(1, 1);
        });
        expect(mixed.covariance.redundancy).toBe(plain.covariance.redundancy);
      }),
      { numRuns: 40 },
    );
  });

  it('takes relations that only repeat others, and relations between unknowns alone', () => {
    const blocks: Block[] = [
      { id: 'x', start: [0.3] },
      { id: 'y', start: [0.1] },
      { id: 'a', start: [2.1], sigma: 0.1 },
      { id: 'b', start: [1.8], sigma: 0.1 },
    ];
    const conditions = [
      relation('x is a', ['x', 'a'], ([x, a]) => x![0]! - a![0]!),
      relation('y is b', ['y', 'b'], ([y, b]) => y![0]! - b![0]!),
      relation('equal', ['x', 'y'], ([x, y]) => x![0]! - y![0]!),
      relation('equal again', ['a', 'b'], ([a, b]) => 3 * (a![0]! - b![0]!)),
    ];
    const { solution, covariance } = adjusted({ blocks, conditions });
    expect(solution.values.get('x')![0]).toBeCloseTo(1.95, 6);
    expect(solution.relationsHold).toBe(true);
    expect(covariance.redundancy).toBe(1);
    expect(covariance.matrix.get(0, 0)).toBeCloseTo(0.005, 6);
  });

  it('says when relations cannot hold together', () => {
    const blocks: Block[] = [{ id: 'a', start: [2.1], sigma: 0.1 }];
    expect(
      solve({
        blocks,
        conditions: [relation('two', ['a'], ([a]) => a![0]! - 2), relation('three', ['a'], ([a]) => a![0]! - 3)],
      }).relationsHold,
    ).toBe(false);
  });

  it('names what is undetermined instead of giving a number', () => {
    const problem: Problem = {
      blocks: [
        { id: 'seen', start: [1] },
        { id: 'unseen', start: [1] },
      ],
      conditions: [stated('a', ['seen'], ([v]) => v![0]!, 2, 1)],
    };
    expect(covarianceOf(problem, solve(problem))).toMatchObject({ kind: 'rank-deficient', undetermined: ['unseen'] });
  });

  it('finds the rank of a singular matrix and what vanishes', () => {
    const { inverse, dependent } = semiInverse(
      new Matrix([
        [4, 2, 6],
        [2, 3, 5],
        [6, 5, 11],
      ]),
    );
    expect(dependent).toHaveLength(1);
    const image = new Matrix([
      [4, 2, 6],
      [2, 3, 5],
      [6, 5, 11],
    ]).mmul(Matrix.columnVector([...dependent[0]!.combination]));
    image.to1DArray().forEach((entry) => expect(entry).toBeCloseTo(0, 9));
    expect(
      inverse
        .to2DArray()
        .flat()
        .filter((entry) => entry === 0),
    ).toHaveLength(5);
  });
});

describe('probabilities', () => {
  // 99 % quantiles of chi-square: 6.635, 9.210, 23.209 for 1, 2, 10 freedoms (Abramowitz & Stegun, table 26.8).
  it('knows the 99 % quantile of chi-square within 1 %', () => {
    for (const [freedoms, quantile] of [
      [1, 6.635],
      [2, 9.21],
      [10, 23.209],
    ] as const)
      expect(Math.abs(chiSquareQuantile99(freedoms) / quantile - 1)).toBeLessThan(0.01);
  });

  // The same quantiles are exceeded as often as a normal deviate exceeds 2.576 to either side.
  it('turns a test of several freedoms into the normal deviate that is as unlikely', () => {
    for (const [freedoms, quantile] of [
      [1, 6.635],
      [2, 9.21],
      [10, 23.209],
    ] as const)
      expect(equivalentNormal(quantile, freedoms)).toBeCloseTo(2.576, 1);
  });

  it('propagates a product as the textbook does', () => {
    const { value, sigma } = propagate(
      ([a, b]) => a! * b!,
      [3, 4],
      new Matrix([
        [0.01, 0],
        [0, 0.04],
      ]),
    );
    expect(value).toBe(12);
    expect(sigma).toBeCloseTo(Math.sqrt(16 * 0.01 + 9 * 0.04), 9);
  });
});
