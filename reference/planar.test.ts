/** Arrangements, regions and what outlines are together, against Clipper2 (Angus Johnson's polygon library) on the same drawings with their curves flattened. */
import {
  areaPaths,
  differenceD,
  EndType,
  FillRule,
  inflatePathsD,
  intersectD,
  JoinType,
  unionD,
  type PathsD,
} from 'clipper2-ts';
import fc from 'fast-check';
import {
  circle,
  enclosedArea,
  nearestOn,
  pieceLength,
  pointAt,
  windingNumber,
  type Path,
  type Piece,
  type Vec,
} from '../src/core/geometry';
import {
  arrange,
  combine,
  listRegions,
  offsetClosed,
  offsetOpen,
  strip,
  wellInside,
  type Combining,
} from '../src/core/planar';

const TOLERANCE = 1e-6;
/** Digits that the other library keeps of a flattened place. */
const DIGITS = 6;
const CHORDS = 200;

const flattened = ({ pieces }: Path): { x: number; y: number }[] =>
  pieces
    .flatMap((piece) =>
      (piece.kind === 'line' ? [0] : Array.from({ length: CHORDS }, (_, i) => i / CHORDS)).map((t) =>
        pointAt(piece, t),
      ),
    )
    .map(([x, y]) => ({ x, y }));

const place = fc.tuple(
  fc.double({ min: -50, max: 50, noNaN: true }),
  fc.double({ min: -50, max: 50, noNaN: true }),
) as fc.Arbitrary<Vec>;
const polygonal = (corners: readonly Vec[], bend: number): Path => ({
  closed: true,
  pieces: corners.map((a, i): Piece => {
    const b = corners[(i + 1) % corners.length]!;
    const aside: Vec = [(a[1] - b[1]) * bend, (b[0] - a[0]) * bend];
    return bend === 0
      ? { kind: 'line', a, b }
      : {
          kind: 'cubic',
          a,
          b: [a[0] + (b[0] - a[0]) / 3 + aside[0], a[1] + (b[1] - a[1]) / 3 + aside[1]],
          c: [b[0] + aside[0], b[1] + aside[1]],
          d: b,
        };
  }),
});
/** Star-shaped about a middle, so that it does not cross itself. */
const star = fc
  .tuple(place, fc.array(fc.double({ min: 5, max: 30, noNaN: true }), { minLength: 3, maxLength: 7 }))
  .map(([[x, y], reach]): Path =>
    polygonal(
      reach.map((r, i): Vec => [
        x + r * Math.cos((2 * Math.PI * i) / reach.length),
        y + r * Math.sin((2 * Math.PI * i) / reach.length),
      ]),
      0,
    ),
  );
const round = fc
  .tuple(place, fc.double({ min: 1, max: 30, noNaN: true }))
  .map(([at, r]): Path => ({ closed: true, pieces: [circle(at, r)] }));
const flat = fc
  .tuple(
    place,
    fc.double({ min: 1, max: 30, noNaN: true }),
    fc.double({ min: 0.1, max: 1, noNaN: true }),
    fc.double({ min: 0, max: 3, noNaN: true }),
  )
  .map(([centre, r, ratio, turn]): Path => ({
    closed: true,
    pieces: [
      { kind: 'ellipse', centre, major: [r * Math.cos(turn), r * Math.sin(turn)], ratio, start: 0, sweep: 2 * Math.PI },
    ],
  }));
const bowed = fc
  .tuple(place, fc.double({ min: 5, max: 25, noNaN: true }), fc.double({ min: 0.05, max: 0.3, noNaN: true }))
  .map(([[x, y], r, bend]): Path =>
    polygonal(
      [0, 1, 2, 3].map((i): Vec => [x + r * Math.cos((Math.PI * i) / 2), y + r * Math.sin((Math.PI * i) / 2)]),
      -bend,
    ),
  );
const shape = fc.oneof(star, round, flat, bowed);

const areaOf = (paths: readonly Path[]) => paths.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
const perimeterOf = (paths: readonly Path[]) =>
  paths.reduce((sum, { pieces }) => sum + pieces.reduce((along, piece) => along + pieceLength(piece), 0), 0);
const clip: Readonly<Record<Combining, (a: PathsD, b: PathsD) => PathsD>> = {
  united: (a, b) => unionD(a, b, FillRule.NonZero, DIGITS),
  subtracted: (a, b) => differenceD(a, b, FillRule.NonZero, DIGITS),
  intersected: (a, b) => intersectD(a, b, FillRule.NonZero, DIGITS),
};

describe('what closed outlines are together', () => {
  it.each(['united', 'subtracted', 'intersected'] as const)(
    '%s: the same area as the polygon library, to what flattening loses',
    (how) => {
      fc.assert(
        fc.property(
          fc.array(shape, { minLength: 1, maxLength: 2 }),
          fc.array(shape, { minLength: 1, maxLength: 1 }),
          (first, second) => {
            const result = combine([first.slice(0, 1), second], how, TOLERANCE);
            if (!result.ok) throw new Error(result.code);
            const known = areaPaths(clip[how](first.slice(0, 1).map(flattened), second.map(flattened)));
            const lost =
              1e-5 * (perimeterOf(first) + perimeterOf(second)) + (7 / CHORDS ** 2) * (areaOf(first) + areaOf(second));
            expect(Math.abs(areaOf(result.value) - Math.abs(known))).toBeLessThan(lost + 0.01);
          },
        ),
        { numRuns: 50, seed: 5 },
      );
    },
  );

  it('a place is in the union exactly when it is in one of them', () => {
    fc.assert(
      fc.property(shape, shape, fc.array(place, { minLength: 20, maxLength: 20 }), (a, b, places) => {
        const [union, rest, both] = (['united', 'subtracted', 'intersected'] as const).map((how) => {
          const result = combine([[a], [b]], how, TOLERANCE);
          if (!result.ok) throw new Error(result.code);
          return result.value;
        });
        const isIn = (paths: readonly Path[], at: Vec) =>
          paths.reduce((sum, { pieces }) => sum + windingNumber(pieces, at), 0);
        for (const at of places) {
          const [inA, inB] = [isIn([a], at) !== 0, isIn([b], at) !== 0];
          expect([isIn(union!, at), isIn(rest!, at), isIn(both!, at)]).toEqual(
            [inA || inB, inA && !inB, inA && inB].map(Number),
          );
        }
      }),
      { numRuns: 40, seed: 6 },
    );
  });
});

describe('regions of many outlines over each other', () => {
  it('add up to the union of all, and each is where it says it is', () => {
    fc.assert(
      fc.property(fc.array(shape, { minLength: 2, maxLength: 8 }), (paths) => {
        const regions = listRegions(
          paths.flatMap(({ pieces }) => pieces),
          TOLERANCE,
        );
        const covered = regions.filter(({ inside }) => paths.some(({ pieces }) => windingNumber(pieces, inside) !== 0));
        const known = Math.abs(areaPaths(unionD(paths.map(flattened), [], FillRule.NonZero, DIGITS)));
        const lost = 1e-5 * perimeterOf(paths) + (14 / CHORDS ** 2) * areaOf(paths) + 0.01;
        expect(Math.abs(covered.reduce((sum, { area }) => sum + area, 0) - known)).toBeLessThan(lost);
        for (const region of regions.slice(-3))
          expect(
            [region.around, ...region.holes].reduce(
              (sum, { pieces }) => sum + windingNumber(pieces, wellInside(region)),
              0,
            ),
          ).toBe(1);
        for (const { inside, around, holes } of regions)
          expect([around, ...holes].reduce((sum, { pieces }) => sum + windingNumber(pieces, inside), 0)).toBe(1);
      }),
      { numRuns: 20, seed: 7 },
    );
  });

  it('Euler: vertices − edges + faces − 1 is the number of connected parts', () => {
    fc.assert(
      fc.property(fc.array(shape, { minLength: 1, maxLength: 8 }), (paths) => {
        const { edges, faces } = arrange(
          paths.flatMap(({ pieces }) => pieces),
          TOLERANCE,
        );
        const parent = new Map<number, number>();
        const rootOf = (v: number): number =>
          parent.get(v) === undefined || parent.get(v) === v ? v : rootOf(parent.get(v)!);
        for (const { from, to } of edges) {
          if (!parent.has(from)) parent.set(from, from);
          if (!parent.has(to)) parent.set(to, to);
          parent.set(rootOf(from), rootOf(to));
        }
        const parts = new Set([...parent.keys()].map(rootOf)).size;
        expect(parent.size - edges.length + faces.length + 1 - 1).toBe(parts);
      }),
      { numRuns: 25, seed: 8 },
    );
  });
});

const LIMITS = { corners: 'round', precision: 0.01, tolerance: TOLERANCE } as const;
const by = fc.double({ min: -12, max: 12, noNaN: true }).filter((d) => Math.abs(d) > 0.05);
const nearestTo = ({ pieces }: Path, at: Vec) => Math.min(...pieces.map((piece) => nearestOn(piece, at).distance));
const sampled = (paths: readonly Path[]) =>
  paths.flatMap(({ pieces }) => pieces.flatMap((piece) => [0, 0.1, 0.3, 0.5, 0.7, 0.9].map((t) => pointAt(piece, t))));

describe('offset', () => {
  it('encloses the same area as the polygon library’s, grown or shrunk', () => {
    fc.assert(
      fc.property(shape, by, (path, d) => {
        const result = offsetClosed([path], d, LIMITS);
        if (!result.ok) throw new Error(result.code);
        const known = Math.abs(
          areaPaths(inflatePathsD([flattened(path)], d, JoinType.Round, EndType.Polygon, 2, DIGITS, 1e-3)),
        );
        expect(Math.abs(areaOf(result.value) - known)).toBeLessThan(
          (14 / CHORDS ** 2) * (areaOf([path]) + known) + 0.011 * perimeterOf(result.value) + 0.02,
        );
      }),
      { numRuns: 40, seed: 9 },
    );
  });

  it('lies at its distance from what it was made of, everywhere, within its precision', () => {
    fc.assert(
      fc.property(shape, by, (path, d) => {
        const result = offsetClosed([path], d, LIMITS);
        if (!result.ok) throw new Error(result.code);
        for (const at of sampled(result.value))
          expect(Math.abs(nearestTo(path, at) - Math.abs(d))).toBeLessThan(0.0101);
      }),
      { numRuns: 50, seed: 10 },
    );
  });

  it('beside an open line keeps its distance where it is, and is where nothing is nearer', () => {
    const open = fc.array(place, { minLength: 2, maxLength: 6 }).map((places): Path => ({
      closed: false,
      pieces: places.slice(1).map((b, i) => ({ kind: 'line', a: places[i]!, b })),
    }));
    fc.assert(
      fc.property(open, by, (path, d) => {
        const result = offsetOpen(path, d, LIMITS);
        if (!result.ok) throw new Error(result.code);
        for (const at of sampled(result.value)) expect(Math.abs(nearestTo(path, at) - Math.abs(d))).toBeLessThan(1e-4);
      }),
      { numRuns: 120, seed: 11 },
    );
  });

  it('a strip with round ends covers what the polygon library’s does', () => {
    fc.assert(
      fc.property(
        fc
          .array(place, { minLength: 2, maxLength: 6 })
          .filter(([a, b]) => Math.hypot(a![0] - b![0], a![1] - b![1]) > 0.1),
        fc.double({ min: 0.2, max: 10, noNaN: true }),
        (places, width) => {
          const path: Path = {
            closed: false,
            pieces: places.slice(1).map((b, i) => ({ kind: 'line', a: places[i]!, b })),
          };
          const result = strip([path], { right: width / 2, left: width / 2 }, 'round', LIMITS);
          if (!result.ok) throw new Error(result.code);
          const known = Math.abs(
            areaPaths(
              inflatePathsD(
                [places.map(([x, y]) => ({ x, y }))],
                width / 2,
                JoinType.Round,
                EndType.Round,
                2,
                DIGITS,
                1e-3,
              ),
            ),
          );
          expect(Math.abs(areaOf(result.value) - known)).toBeLessThan(1e-3 * perimeterOf(result.value) + 0.01);
        },
      ),
      { numRuns: 120, seed: 12 },
    );
  });
});
