import fc from 'fast-check';
import { layOut, type Problem } from './problem';
import { solve } from './solve';
import { fromRatios, inRatios, listInUnits } from './units';

/**
 * What a picture says of a slant and a focal length: their ratio very well (how edges run together), the slant itself only by its square (how things are foreshortened), the focal length
 * hardly at all.
 */
function slanted(tilt: number, focal: number, from: readonly [number, number], inUnits: boolean): Problem {
  const [ratio, foreshortened] = [tilt / Math.exp(focal), 1 - Math.cos(tilt)];
  return {
    blocks: [
      { id: 'tilt', start: [from[0]], inUnitsOf: inUnits ? 'focal' : undefined },
      { id: 'focal', start: [from[1]] },
    ],
    conditions: [
      {
        group: 'picture',
        origin: 'measured',
        exact: false,
        blocks: ['tilt', 'focal'],
        residuals: ([[t = 0] = [], [f = 0] = []]) => [
          (t / Math.exp(f) - ratio) / 1e-4,
          (1 - Math.cos(t) - foreshortened) / 1e-3,
        ],
      },
      {
        group: 'assumed',
        origin: 'assumed',
        exact: false,
        blocks: ['focal'],
        residuals: ([[f = 0] = []]) => [(f - 0.4) / 0.55],
      },
    ],
  };
}

const cameras = fc.record({
  tilt: fc.double({ min: 0.15, max: 0.7, noNaN: true }),
  focal: fc.double({ min: -0.4, max: 1.3, noNaN: true }),
  from: fc.tuple(fc.double({ min: 0.1, max: 0.8, noNaN: true }), fc.double({ min: -0.5, max: 1.5, noNaN: true })),
});

it('finds what is there as often as without units, in fewer steps, and then just that', () => {
  const runs = fc.sample(cameras, { seed: 3, numRuns: 300 }).map(({ tilt, focal, from }) => {
    const [plain, sought] = [false, true].map((inUnits) => solve(slanted(tilt, focal, from, inUnits)));
    return { plain: plain!, sought: sought! };
  });
  // Beyond a quarter turn things are foreshortened alike again.
  const isFound = ({ settled, values }: ReturnType<typeof solve>) => settled && Math.abs(values.get('tilt')![0]!) < 1.5;
  const found = (which: 'plain' | 'sought') => runs.filter((run) => isFound(run[which]));
  expect(found('sought').length).toBeGreaterThanOrEqual(found('plain').length);
  expect(found('sought').length).toBeGreaterThan(0.95 * runs.length);
  const both = found('plain').filter(({ sought }) => isFound(sought));
  const steps = (which: 'plain' | 'sought') => both.reduce((sum, run) => sum + run[which].steps, 0);
  expect(steps('sought')).toBeLessThan(steps('plain'));
  for (const { plain, sought } of both)
    for (const id of ['tilt', 'focal'])
      expect(Math.abs(plain.values.get(id)![0]! - sought.values.get(id)![0]!)).toBeLessThan(1e-6);
});

it('a change of ratios and the equations by them belong together: what they promise is the same', () => {
  fc.assert(
    fc.property(cameras, fc.double({ min: 1e-6, max: 1e-4, noNaN: true }), ({ tilt, focal, from }, small) => {
      const problem = slanted(tilt, focal, from, true);
      const layout = layOut(problem.blocks);
      const { equations, values } = solve(problem, { steps: 0 });
      const inUnits = listInUnits(problem.blocks, layout);
      const ratios = inRatios(equations, inUnits, values);
      const change = Float64Array.of(small, 2 * small);
      const moved = fromRatios(change, inUnits, values);
      const along = (gradient: Float64Array, by: Float64Array) => gradient[0]! * by[0]! + gradient[1]! * by[1]!;
      const steepest = Math.max(...equations.gradient.map(Math.abs));
      // To first order: what is left is of the square of the step.
      const apart = along(equations.gradient, moved) - along(ratios.gradient, change);
      expect(Math.abs(apart)).toBeLessThan(4 * steepest * small ** 2 + 1e-9 * steepest * small);
    }),
  );
});

it('where nothing is sought in units of another, nothing changes', () => {
  const problem = slanted(0.3, 0.5, [0.2, 0.4], false);
  const { equations, values } = solve(problem, { steps: 0 });
  expect(inRatios(equations, listInUnits(problem.blocks, layOut(problem.blocks)), values)).toBe(equations);
});
