/** How far things keep from an edge: by the places of thousands of samples, and by hand. */
import fc from 'fast-check';
import { distance, findClearance, pointAt, type Line, type Piece, type Vec } from '.';

const edge: Line = { kind: 'line', a: [0, 0], b: [100, 0] };
const line = (a: Vec, b: Vec): Piece => ({ kind: 'line', a, b });
const circle = (centre: Vec, radius: number): Piece => ({ kind: 'arc', centre, radius, start: 0, sweep: 2 * Math.PI });
const place = fc.tuple(fc.integer({ min: -200, max: 300 }), fc.integer({ min: -150, max: 150 }));
const piece: fc.Arbitrary<Piece> = fc.oneof(
  fc.tuple(place, place).map(([a, b]) => line(a, [b[0] + 0.5, b[1] + 0.25])),
  fc.tuple(place, fc.integer({ min: 1, max: 90 })).map(([centre, radius]) => circle(centre, radius)),
  fc
    .tuple(place, place, place, place)
    .map(([a, b, c, d]): Piece => ({ kind: 'cubic', a, b, c, d: [d[0] + 0.5, d[1]] })),
);

/** Of one place; Infinity past the edge's ends and beyond it. */
function ofPlace([x, y]: Vec): number {
  if (x >= -1e-6 && x <= 100 + 1e-6) return y;
  return y > 1e-3 ? Math.hypot(x - Math.max(0, Math.min(100, x)), y) : Infinity;
}

it('is the least over all of its places', () => {
  let reached = 0;
  fc.assert(
    fc.property(fc.array(piece, { minLength: 1, maxLength: 4 }), (pieces) => {
      const sampled = pieces.flatMap((one) => Array.from({ length: 4001 }, (_, i) => ofPlace(pointAt(one, i / 4000))));
      const least = Math.min(...sampled);
      const found = findClearance(pieces, edge, 1);
      if (!found) return expect(least).toBe(Infinity);
      reached++;
      // What is sampled is never nearer than what is found, and hardly farther.
      expect(found.value).toBeLessThan(least + 1e-6);
      expect(found.value).toBeGreaterThan(least - 0.7);
      expect(distance(found.from, found.to)).toBeCloseTo(Math.abs(found.value), 6);
    }),
    { numRuns: 400 },
  );
  expect(reached).toBeGreaterThan(300);
});

it('lies on the side that is the inner one, wherever the edge runs', () => {
  const askew: Line = { kind: 'line', a: [10, 20], b: [10, 120] };
  const dot = [circle([40, 60], 5)];
  expect(findClearance(dot, askew, -1)).toMatchObject({
    value: expect.closeTo(25, 9),
    to: [expect.closeTo(10, 9), expect.closeTo(60, 9)],
  });
  expect(findClearance(dot, askew, 1)!.value).toBeCloseTo(-35, 9);
});

it('past its ends it is from those, and what lies beyond there is the affair of other edges', () => {
  expect(findClearance([circle([130, 40], 10)], edge, 1)!.value).toBeCloseTo(40, 9);
  expect(findClearance([circle([130, -40], 10)], edge, 1)).toBeUndefined();
  expect(findClearance([], edge, 1)).toBeUndefined();
});
