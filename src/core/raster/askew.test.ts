import fc from 'fast-check';
import { add, polar, type Vec } from '../geometry';
import { liesAskew } from './askew';

const rotate = ([x, y]: Vec, turn: number): Vec => [
  x * Math.cos(turn) - y * Math.sin(turn),
  x * Math.sin(turn) + y * Math.cos(turn),
];

/** A camera anywhere over a table, which sees it from up to 60° aside; mm to px. */
const cameras = fc
  .record({
    tilt: fc.double({ min: 0, max: 1, noNaN: true }),
    turn: fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
    far: fc.double({ min: 350, max: 3000, noNaN: true }),
  })
  .map(({ tilt, turn, far }) => (at: Vec): Vec => {
    const [x, y] = rotate(at, turn);
    const depth = far + y * Math.sin(tilt);
    return [(3000 * x) / depth, (3000 * y * Math.cos(tilt)) / depth];
  });

const rectangle = (width: number, height: number, middle: Vec, turn: number): Vec[] =>
  [
    [-0.5, -0.5],
    [0.5, -0.5],
    [0.5, 0.5],
    [-0.5, 0.5],
  ].map(([u, v]) => add(middle, rotate([u! * width, v! * height], turn)));

const places = fc
  .tuple(fc.double({ min: 0, max: 60, noNaN: true }), fc.double({ min: 0, max: 7, noNaN: true }))
  .map(([far, way]) => polar(far, way));
const sheet = rectangle(297, 187, [0, 0], 0);
const begunAt = (corners: readonly Vec[], first: number) => [...corners.slice(first), ...corners.slice(0, first)];

describe('a card that lies on a sheet', () => {
  it('lies askew when a hand turned it by a degree or more, seen by any camera', () => {
    fc.assert(
      fc.property(
        cameras,
        places,
        fc.double({ min: 1, max: 89, noNaN: true }),
        fc.constantFrom(1, -1),
        fc.nat(3),
        (see, middle, degrees, way, first) => {
          const card = rectangle(85.6, 53.98, middle, (way * degrees * Math.PI) / 180);
          expect(liesAskew(begunAt(card, first).map(see), sheet.map(see))).toBe(true);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('does not when it runs along the sheet, as what is printed there would, along or across', () => {
    fc.assert(
      fc.property(cameras, places, fc.constantFrom(0, 90), fc.nat(3), (see, middle, degrees, first) => {
        const print = rectangle(85.6, 53.98, middle, (degrees * Math.PI) / 180);
        expect(liesAskew(begunAt(print, first).map(see), sheet.map(see))).toBe(false);
      }),
      { numRuns: 300 },
    );
  });

  it('does not where one side alone runs off, as when a rule lies over it', () => {
    const cut: Vec[] = [
      [-40, -25],
      [40, -23],
      [40, 25],
      [-40, 25],
    ];
    expect(liesAskew(cut, sheet)).toBe(false);
  });

  it('does not where its sides run off different ways, as of a shape that lines of other things make', () => {
    const kite: Vec[] = [
      [-40, -25],
      [40, -23],
      [42, 24],
      [-38, 27],
    ];
    expect(liesAskew(kite, sheet)).toBe(false);
  });
});
