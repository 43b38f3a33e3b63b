/** Exact equations that bend, against what textbooks say of them in closed form. */
import fc from 'fast-check';
import { curvatureOf } from './curvature';
import { linearize } from './linearize';
import { layOut, startValues, type Condition, type Problem } from './problem';
import { solve } from './solve';

const coordinate = fc.double({ min: -40, max: 40, noNaN: true });
/** A place that was seen where it was, to one unit each way. */
const seen = (at: readonly number[]): Condition => ({
  group: 'seen',
  origin: 'measured',
  exact: false,
  blocks: ['p'],
  residuals: ([p]) => at.map((value, i) => p![i]! - value),
});
const held = (miss: (p: readonly number[]) => number): Condition => ({
  group: 'held',
  origin: 'stated',
  exact: true,
  blocks: ['p'],
  residuals: ([p]) => [miss(p!)],
});
const problemOf = (start: readonly number[], ...conditions: readonly Condition[]): Problem => ({
  blocks: [{ id: 'p', start }],
  conditions,
});

it('a distance bends by (1 − u uᵀ)/r, times the force (the Hessian of the norm, common textbook)', () => {
  fc.assert(
    fc.property(
      coordinate,
      coordinate,
      fc.double({ min: -5, max: 5, noNaN: true }).filter((force) => Math.abs(force) > 0.01),
      (x, y, force) => {
        const r = Math.hypot(x, y);
        fc.pre(r > 1);
        const problem = problemOf(
          [x, y],
          held(([a, b]) => Math.hypot(a!, b!) - r),
        );
        const layout = layOut(problem.blocks);
        const values = startValues(problem);
        const curvature = curvatureOf(
          problem,
          layout,
          linearize(problem, layout, values),
          values,
          Float64Array.of(force),
        )!;
        const [u, v] = [x / r, y / r];
        [
          [1 - u * u, -u * v],
          [-u * v, 1 - v * v],
        ].forEach((row, i) =>
          row.forEach((value, k) => expect(curvature.get(i, k)).toBeCloseTo((force * value) / r, 5)),
        );
      },
    ),
    { seed: 1, numRuns: 200 },
  );
});

it('nothing that does not pull bends, and no equation with something observed in it', () => {
  const problem = problemOf(
    [3, 4],
    held(([a, b]) => Math.hypot(a!, b!) - 5),
  );
  const layout = layOut(problem.blocks);
  expect(
    curvatureOf(
      problem,
      layout,
      linearize(problem, layout, startValues(problem)),
      startValues(problem),
      Float64Array.of(0),
    ),
  ).toBeUndefined();
  const observed: Problem = {
    blocks: [
      { id: 'p', start: [3, 4] },
      { id: 'q', start: [1, 1], sigma: 1 },
    ],
    conditions: [
      {
        ...problem.conditions[0]!,
        blocks: ['p', 'q'],
        residuals: ([p, q]) => [Math.hypot(p![0]! - q![0]!, p![1]! - q![1]!) - 5],
      },
    ],
  };
  const wide = layOut(observed.blocks);
  expect(
    curvatureOf(
      observed,
      wide,
      linearize(observed, wide, startValues(observed)),
      startValues(observed),
      Float64Array.of(2),
    ),
  ).toBeUndefined();
});

it('the place on a circle that is nearest to one that was seen lies on the ray through it (Euclid, Elements III.8), found in a few steps from anywhere', () => {
  fc.assert(
    fc.property(coordinate, coordinate, fc.double({ min: 2, max: 60, noNaN: true }), (x, y, radius) => {
      const away = Math.hypot(x, y);
      fc.pre(away > 0.2 * radius);
      const { values, settled, steps } = solve(
        problemOf(
          [x, y],
          seen([x, y]),
          held(([a, b]) => Math.hypot(a!, b!) - radius),
        ),
      );
      expect([settled, values.get('p')!.map((value) => value)]).toEqual([
        true,
        [expect.closeTo((x * radius) / away, 6), expect.closeTo((y * radius) / away, 6)],
      ]);
      expect(steps).toBeLessThanOrEqual(10);
    }),
    { seed: 2, numRuns: 200 },
  );
});

it('the place on a parabola that is nearest to one on its axis is its foot up to half the parameter away, and two beside it from there on (Apollonius, Conics V)', () => {
  const nearest = (height: number) =>
    solve(
      problemOf(
        [0.5, 0.2],
        seen([0, height]),
        held(([x, y]) => y! - x! * x!),
      ),
    ).values.get('p')!;
  expect(nearest(0.3)).toEqual([expect.closeTo(0, 4), expect.closeTo(0, 4)]);
  for (const height of [1, 2, 8])
    expect(nearest(height)).toEqual([expect.closeTo(Math.sqrt(height - 0.5), 5), expect.closeTo(height - 0.5, 5)]);
});

it('an equation that nearly repeats another one is passed over on the way where that is wanted, and binds where the search ends', () => {
  const problem = problemOf(
    [1, 1],
    seen([1, 1]),
    held(([x, y]) => x! + y! - 2),
    held(([x, y]) => x! + 1.01 * y! - 2.01),
  );
  for (const repeats of [undefined, 1e-8, 1e-3])
    expect(solve(problem, { steps: 40, repeats }).equations.bound.rows).toBe(2);
});
