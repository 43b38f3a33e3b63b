/** Places that are pointed at more than once: on an edge of the picture, beside it, or freely. */
import fc from 'fast-check';
import type { Vec } from '../geometry';
import { averagedPoint, steadinessOf, type Pointing } from '.';
import { createRandom } from './simulation';

const STEADY = { factor: 1, repetitions: 0 };
const onEdge = (at: Vec, sigma = 0.5): Pointing => ({ at, sigma, edge: { normal: Math.PI / 2, sigma: 0.12 } });

it('one that was caught on an edge is hardly moved off it by one beside it, and says so', () => {
  const { at, sigma, edge } = averagedPoint([onEdge([0, 0]), { at: [4, 2], sigma: 0.5 }], STEADY);
  expect(at[0]).toBeCloseTo(2, 9);
  // By the weights of 1/0.12² and 1/0.5² across.
  expect(at[1]).toBeCloseTo((2 * 4) / (4 + 1 / 0.12 ** 2), 9);
  expect(sigma).toBeCloseTo(0.5 / Math.SQRT2, 9);
  expect(edge).toMatchObject({ sigma: expect.closeTo(1 / Math.sqrt(4 + 1 / 0.12 ** 2), 9) });
  expect(Math.abs(Math.sin(edge!.normal))).toBeCloseTo(1, 9);
});

it('an edge that is caught again stays as well known across as it was', () => {
  expect(averagedPoint([onEdge([0, 0]), onEdge([1, 0.1]), onEdge([2, -0.1])], STEADY)).toEqual({
    at: [1, expect.closeTo(0, 9)],
    sigma: expect.closeTo(0.5 / Math.sqrt(3), 9),
    edge: { normal: Math.PI / 2, sigma: 0.12 },
  });
  expect(
    averagedPoint(
      [
        { at: [0, 0], sigma: 1 },
        { at: [2, 2], sigma: 1 },
      ],
      STEADY,
    ),
  ).toEqual({ at: [1, 1], sigma: expect.closeTo(Math.SQRT1_2, 9), edge: undefined });
});

it('a corner that was caught on both of its edges is known across each', () => {
  const { at, sigma, edge } = averagedPoint(
    [onEdge([3, 0]), { at: [0, 5], sigma: 0.5, edge: { normal: 0, sigma: 0.12 } }],
    STEADY,
  );
  expect(Math.hypot(...at)).toBeLessThan(0.4);
  expect([sigma, edge?.sigma ?? sigma]).toEqual([expect.closeTo(0.1167, 3), expect.closeTo(0.1167, 3)]);
});

it('what is said is how far it is off, along and across, whatever was caught how often', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 3 }),
      fc.integer({ min: 0, max: 3 }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.nat(),
      (caught, free, normal, seed) => {
        fc.pre(caught + free > 0);
        const { normal: random } = createRandom(seed);
        const [along, across] = [
          [-Math.sin(normal), Math.cos(normal)],
          [Math.cos(normal), Math.sin(normal)],
        ] as const;
        let [squareAlong, squareAcross] = [0, 0];
        const runs = 400;
        for (let run = 0; run < runs; run++) {
          const offEdge = 0.12 * random();
          const place = (u: number, v: number): Vec => [
            100 + u * along[0] + v * across[0],
            50 + u * along[1] + v * across[1],
          ];
          const readings: Pointing[] = [
            ...Array.from({ length: caught }, (): Pointing => ({
              at: place(0.7 * random(), offEdge),
              sigma: 0.7,
              edge: { normal, sigma: 0.12 },
            })),
            ...Array.from({ length: free }, (): Pointing => ({
              at: place(0.7 * random(), 0.7 * random()),
              sigma: 0.7,
            })),
          ];
          const { at, sigma, edge } = averagedPoint(readings, STEADY);
          const off: Vec = [at[0] - 100, at[1] - 50];
          squareAlong += ((off[0] * along[0] + off[1] * along[1]) / sigma) ** 2;
          squareAcross += ((off[0] * across[0] + off[1] * across[1]) / (edge?.sigma ?? sigma)) ** 2;
        }
        expect(Math.abs(squareAlong / runs - 1)).toBeLessThan(0.35);
        expect(Math.abs(squareAcross / runs - 1)).toBeLessThan(0.35);
      },
    ),
    { seed: 1, numRuns: 20 },
  );
});

it('how steady a hand is, is told along an edge alone, whichever pointing caught it', () => {
  // Across, the edge decided for one of them, and the hand for the other.
  const readings = [{ at: [0, 0.9] as Vec, sigma: 0.5 }, onEdge([0, 0]), onEdge([0, 0])];
  expect(steadinessOf([readings])).toMatchObject({ repetitions: 2, factor: Math.sqrt(4 / 6) });
});
