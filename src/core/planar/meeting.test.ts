/** Pieces that are said to meet at one end only, or to keep apart, share nothing else: judged by looking for everything that they share. */
import fc from 'fast-check';
import {
  distance,
  endOf,
  listCrossings,
  moved,
  nearestOn,
  placed,
  pointAt,
  polar,
  reversed,
  startOf,
  type Piece,
  type Vec,
} from '../geometry';
import { findMeetings } from './meeting';

const TOLERANCE = 1e-6;
const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
const place = fc.tuple(coordinate, coordinate);
const pieces: fc.Arbitrary<Piece> = fc.oneof(
  fc.tuple(place, place).map(([a, b]): Piece => ({ kind: 'line', a, b })),
  fc.tuple(place, place, place, place).map(([a, b, c, d]): Piece => ({ kind: 'cubic', a, b, c, d })),
  fc
    .tuple(
      place,
      fc.double({ min: 1, max: 40, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: -6, max: 6, noNaN: true }),
    )
    .map(([centre, radius, start, sweep]): Piece => ({ kind: 'arc', centre, radius, start, sweep })),
);
/** The second begins where the first ends, turned by any angle. */
const joined = fc.tuple(pieces, pieces, fc.double({ min: -4, max: 4, noNaN: true })).map(([a, b, turn]) => {
  const turned = moved(b, placed([0, 0], turn));
  const [end, start] = [endOf(a), startOf(turned)];
  return [a, moved(turned, placed([end[0] - start[0], end[1] - start[1]]))] as const;
});
const long = (piece: Piece) => distance(startOf(piece), endOf(piece)) > 0.1;

it('of any two that follow each other', () => {
  let told = 0;
  fc.assert(
    fc.property(
      joined.filter((both) => both.every(long)),
      fc.boolean(),
      fc.boolean(),
      ([a, b], back, around) => {
        const [first, second] = [back ? reversed(a) : a, around ? reversed(b) : b];
        const [meeting] = findMeetings(first, second, TOLERANCE) ?? [];
        if (!meeting) return;
        told++;
        const joint = pointAt(first, meeting[0]);
        expect(distance(joint, pointAt(second, meeting[1]))).toBeLessThanOrEqual(TOLERANCE);
        for (const { point } of listCrossings(first, second, TOLERANCE))
          expect(distance(point, joint)).toBeLessThan(100 * TOLERANCE);
        for (let i = 0; i <= 60; i++) {
          const at = pointAt(first, i / 60);
          if (distance(at, joint) > 1e-3) expect(nearestOn(second, at).distance).toBeGreaterThan(100 * TOLERANCE);
        }
      },
    ),
    { numRuns: 1000, seed: 5 },
  );
  // Most that do not turn back are told.
  expect(told).toBeGreaterThan(200);
});

it('of any two that lie somewhere', () => {
  let told = 0;
  fc.assert(
    fc.property(pieces.filter(long), pieces.filter(long), place, (a, b, away) => {
      const other = moved(b, placed(away));
      if (findMeetings(a, other, TOLERANCE)?.length !== 0) return;
      told++;
      expect(listCrossings(a, other, TOLERANCE)).toEqual([]);
      for (let i = 0; i <= 60; i++)
        expect(nearestOn(other, pointAt(a, i / 60)).distance).toBeGreaterThan(100 * TOLERANCE);
    }),
    { numRuns: 1000, seed: 6 },
  );
  expect(told).toBeGreaterThan(60);
});

const line = (a: Vec, b: Vec): Piece => ({ kind: 'line', a, b });

it.each<[string, Piece, Piece, readonly (readonly number[])[] | undefined]>([
  ['lines that go on', line([0, 0], [9, 0]), line([9, 0], [20, 5]), [[1, 0]]],
  ['a line and its way back', line([0, 0], [9, 0]), line([9, 0], [0, 0]), undefined],
  ['a line that turns back beside it', line([0, 0], [9, 0]), line([9, 0], [0, 0.001]), undefined],
  ['lines apart', line([0, 0], [9, 0]), line([9, 1], [20, 5]), []],
  ['lines that cross', line([0, 0], [9, 0]), line([3, -2], [5, 4]), undefined],
  ['a line whose end touches the other', line([0, 0], [9, 0]), line([4, 0], [5, 4]), undefined],
  [
    'two that share both ends',
    line([0, 0], [9, 0]),
    { kind: 'cubic', a: [0, 0], b: [3, 4], c: [6, 4], d: [9, 0] },
    undefined,
  ],
  [
    'a round that comes back',
    line([0, 0], [9, 0]),
    { kind: 'arc', centre: [9, 5], radius: 5, start: -Math.PI / 2, sweep: 5 },
    undefined,
  ],
  [
    'a curve that comes back over the line',
    line([0, 0], [9, 0]),
    { kind: 'cubic', a: [9, 0], b: [20, 0], c: [3, 9], d: [4, -9] },
    undefined,
  ],
  [
    'a smooth arc',
    line([0, 0], [9, 0]),
    { kind: 'arc', centre: [9, 5], radius: 5, start: -Math.PI / 2, sweep: 1 },
    [[1, 0]],
  ],
  ['begun at one place', line([0, 0], [9, 0]), line([0, 0], polar(9, 2)), [[0, 0]]],
])('%s', (_, a, b, meeting) => expect(findMeetings(a, b, TOLERANCE)).toEqual(meeting));
