/** The order around a place, judged by where pieces cross a small circle about it. */
import fc from 'fast-check';
import { angleOf, distance, moved, placed, pointAt, polar, startOf, subtract, type Piece, type Vec } from '../geometry';
import { aroundPlace } from './order';

const angle = fc.integer({ min: 0, max: 6282 }).map((thousandths) => thousandths / 1000);
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A piece that leaves zero along x. A cubic may begin in its own end, with no direction there. */
const leaving: fc.Arbitrary<Piece> = fc.oneof(
  between(5, 40).map((length): Piece => ({ kind: 'line', a: [0, 0], b: [length, 0] })),
  fc.tuple(between(5, 40), between(0.2, 2), fc.boolean()).map(([radius, sweep, left]): Piece => {
    const way = left ? 1 : -1;
    return { kind: 'arc', centre: [0, way * radius], radius, start: (-way * Math.PI) / 2, sweep: way * sweep };
  }),
  fc
    .tuple(between(0, 10), between(8, 20), between(-8, 8), between(21, 40), between(-8, 8))
    .map(([handle, x, y, u, v]): Piece => {
      const b: Vec = [handle < 1 ? 0 : handle, 0];
      return { kind: 'cubic', a: [0, 0], b, c: [x, y], d: [u, v] };
    }),
);
const fans = fc
  .array(fc.tuple(leaving, angle), { minLength: 3, maxLength: 5 })
  .map((all) => all.map(([piece, turn]) => moved(piece, placed([12, -7], turn))));

const NEAR = 0.05;

/** Where a piece first is so far from where it starts, as an angle about that. */
function crossingAngle(piece: Piece): number {
  const start = startOf(piece);
  let [low, high] = [0, 1];
  for (let t = 0; t <= 1; t += 1e-3) {
    if (distance(pointAt(piece, t), start) < NEAR) low = t;
    else {
      high = t;
      break;
    }
  }
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (distance(pointAt(piece, middle), start) < NEAR) low = middle;
    else high = middle;
  }
  return angleOf(subtract(pointAt(piece, high), start));
}

/** Begun with the first, so that two ways around a circle can be compared. */
const fromFirst = (order: readonly number[]) => {
  const at = order.indexOf(0);
  return [...order.slice(at), ...order.slice(0, at)];
};

it('is that in which they cross a small circle, where they are apart there and until they have gone on', () => {
  let compared = 0;
  fc.assert(
    fc.property(fans, (pieces) => {
      const angles = pieces.map(crossingAngle);
      const order = pieces.map((_, i) => i).sort((i, j) => angles[i]! - angles[j]!);
      const gaps = order.map((i, k) => Math.abs(angles[i]! - angles[order[(k + 1) % order.length]!]!));
      // So far apart that none bends over to its neighbour within a quarter of its length.
      if (Math.min(...gaps.map((gap) => Math.min(gap, 2 * Math.PI - gap))) < 0.6) return;
      compared++;
      expect(fromFirst(aroundPlace(pieces))).toEqual(fromFirst(order));
    }),
    { numRuns: 3000, seed: 17 },
  );
  expect(compared).toBeGreaterThan(150);
});

it('of what is clearly apart at the place is told there, however it goes on', () => {
  const bent: Piece = { kind: 'cubic', a: [0, 0], b: [1, 0], c: [-30, 40], d: [-60, -20] };
  const straight = (turn: number): Piece => ({ kind: 'line', a: [0, 0], b: polar(200, turn) });
  expect(fromFirst(aroundPlace([bent, straight(0.5), straight(-0.5)]))).toEqual([0, 1, 2]);
  expect(fromFirst(aroundPlace([bent, straight(-0.5), straight(0.5)]))).toEqual([0, 2, 1]);
});

it('of what touches is told by where it goes on', () => {
  const line: Piece = { kind: 'line', a: [0, 0], b: [20, 0] };
  const upward: Piece = { kind: 'arc', centre: [0, 30], radius: 30, start: -Math.PI / 2, sweep: 0.5 };
  const downward: Piece = { kind: 'arc', centre: [0, -30], radius: 30, start: Math.PI / 2, sweep: -0.5 };
  expect(fromFirst(aroundPlace([line, downward, upward]))).toEqual([0, 2, 1]);
  expect(fromFirst(aroundPlace([line, upward, downward]))).toEqual([0, 1, 2]);
});
