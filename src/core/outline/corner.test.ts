import fc from 'fast-check';
import {
  cross,
  distance,
  dot,
  endOf,
  enclosedArea,
  findArcThrough,
  pieceLength,
  startOf,
  tangentAt,
  type Line,
  type Piece,
  type Vec,
} from '../geometry';
import { finishCorners } from '.';

const line = (a: Vec, b: Vec): Line => ({ kind: 'line', a, b });
const square: readonly Line[] = [
  line([0, 0], [40, 0]),
  line([40, 0], [40, 30]),
  line([40, 30], [0, 30]),
  line([0, 30], [0, 0]),
];
const all = (kind: 'fillet' | 'chamfer', size: number) => square.map(() => ({ kind, size }));

it('a rectangle with four round corners has the area and the way around that its radius says; cut off, too', () => {
  const round = finishCorners(square, all('fillet', 5), true);
  expect(round.faults).toEqual([]);
  expect(enclosedArea(round.pieces)).toBeCloseTo(1200 - (4 - Math.PI) * 25, 9);
  expect(round.pieces.reduce((sum, piece) => sum + pieceLength(piece), 0)).toBeCloseTo(140 - 40 + 10 * Math.PI, 9);
  const cut = finishCorners(square, all('chamfer', 4), true);
  expect(enclosedArea(cut.pieces)).toBeCloseTo(1200 - 4 * 8, 9);
});

/** Two sides that meet at the origin, lines or arcs, at any angle. */
const sides = fc.record({
  turn: fc.double({ min: 0.3, max: 2.8, noNaN: true }),
  side: fc.constantFrom(1, -1),
  bendBefore: fc.double({ min: -8, max: 8, noNaN: true }),
  bendAfter: fc.double({ min: -8, max: 8, noNaN: true }),
  radius: fc.double({ min: 0.2, max: 3, noNaN: true }),
});

it('a round corner between any lines and arcs touches both to rounding error, hangs together, and leaves the rest as it was', () => {
  const bent = (a: Vec, b: Vec, by: number): Piece => {
    const middle: Vec = [
      (a[0] + b[0]) / 2 - (by * (b[1] - a[1])) / 100,
      (a[1] + b[1]) / 2 + (by * (b[0] - a[0])) / 100,
    ];
    // Flatter than this an arc's centre is so far away that double precision does not tell a nanometre.
    return Math.abs(by) < 0.01 ? line(a, b) : findArcThrough(a, middle, b)!;
  };
  let done = 0;
  fc.assert(
    fc.property(sides, ({ turn, side, bendBefore, bendAfter, radius }) => {
      const before = bent([-50, 0], [0, 0], bendBefore);
      const after = bent([0, 0], [50 * Math.cos(side * turn), 50 * Math.sin(side * turn)], bendAfter);
      const { pieces, faults } = finishCorners([before, after], [undefined, { kind: 'fillet', size: radius }], false);
      if (faults.length > 0) return;
      done++;
      const [a, arc, b] = pieces as [Piece, Piece, Piece];
      expect(pieces).toHaveLength(3);
      for (const [p, q] of [
        [a, arc],
        [arc, b],
      ] as const) {
        expect(distance(endOf(p), startOf(q))).toBeLessThan(1e-9);
        expect(Math.abs(cross(tangentAt(p, 1), tangentAt(q, 0)))).toBeLessThan(1e-9);
        expect(dot(tangentAt(p, 1), tangentAt(q, 0))).toBeGreaterThan(0);
      }
      expect(arc).toMatchObject({ kind: 'arc', radius });
      expect(distance(startOf(a), startOf(before)) + distance(endOf(b), endOf(after))).toBeLessThan(1e-9);
    }),
    { seed: 5, numRuns: 300 },
  );
  expect(done).toBeGreaterThan(250);
});

it('what has no room, lies on a curve or is no corner stays sharp and says so', () => {
  const faultsOf = (pieces: readonly Piece[], size: number, kind: 'fillet' | 'chamfer' = 'fillet') =>
    finishCorners(
      pieces,
      pieces.map(() => ({ kind, size })),
      false,
    ).faults.map(({ fault }) => fault);
  expect(faultsOf([square[0]!, square[1]!], 31)).toEqual(['corner-too-large']);
  expect(faultsOf([square[0]!, square[1]!], 31, 'chamfer')).toEqual(['corner-too-large']);
  expect(finishCorners(square, all('fillet', 16), true).faults).toHaveLength(2);
  expect(faultsOf([line([0, 0], [10, 0]), line([10, 0], [20, 0])], 1)).toEqual(['corner-is-none']);
  expect(
    faultsOf([line([0, 0], [10, 0]), { kind: 'cubic', a: [10, 0], b: [10, 5], c: [15, 9], d: [20, 9] }], 1),
  ).toEqual(['corner-on-a-curve']);
  const [kept] = finishCorners([square[0]!, square[1]!], [undefined, { kind: 'fillet', size: 99 }], false).pieces;
  expect(kept).toBe(square[0]);
});
