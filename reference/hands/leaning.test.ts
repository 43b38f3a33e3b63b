/** A camera that was held nearly square-on: told of when something is not at ease with square-on, and told of again by its verdict. */
import { fitView, type Fit, type FitInput } from '../../src/core/calibrate';
import { showTo, type Known } from './bench-things';
import { drawWorld } from './world';

const KNOWN: Known = { card: true, lengths: 1 };

function inputOf(seed: number, known: Known, tilt: number, measured = false): FitInput {
  const world = drawWorld({ focal35mm: [82, 82], told: false, tilt: [tilt, tilt], fill: [0.75, 0.95] }, seed);
  const { points, evidence } = showTo(world, known, 0.5);
  return {
    picture: measured ? { ...world.picture, tilt: [0, 0] } : world.picture,
    datum: { origin: [0, world.picture.height], direction: 0 },
    points,
    evidence,
    lift: { mm: 0, sigma: 1e-9 },
  };
}

function fitted(input: FitInput): Fit {
  const fit = fitView(input);
  if (!fit.ok) throw new Error(fit.code);
  return fit.value;
}

const leans = ({ verdict }: Fit) => [verdict!.best, ...verdict!.others].some(({ holding }) => holding !== undefined);

const seeds = Array.from({ length: 8 }, (_, i) => 900 + i);

it('is among what was weighed in most photographs from 9° aside, and in none where a length is all that is known', () => {
  expect(seeds.filter((seed) => leans(fitted(inputOf(seed, KNOWN, 9)))).length).toBeGreaterThanOrEqual(6);
  expect(seeds.filter((seed) => leans(fitted(inputOf(seed, { lengths: 1 }, 9))))).toEqual([]);
});

it('is not thought of where the phone measured how it was held', () => {
  expect(seeds.filter((seed) => leans(fitted(inputOf(seed, KNOWN, 2, true))))).toEqual([]);
});

it('is weighed the same by its verdict, without being sought again', () => {
  let reached = 0;
  for (const seed of seeds) {
    const input = inputOf(seed, KNOWN, 9);
    const first = fitted(input);
    if (!leans(first)) continue;
    reached++;
    const again = fitted({ ...input, verdict: first.verdict });
    first.values.forEach((value, i) => {
      const sigma = Math.sqrt(first.covariance.get(i, i));
      expect(Math.abs(again.values[i]! - value)).toBeLessThan(1e-3 * sigma + 1e-12);
      expect(Math.sqrt(again.covariance.get(i, i)) / sigma).toBeCloseTo(1, 3);
    });
  }
  expect(reached).toBeGreaterThanOrEqual(6);
});
