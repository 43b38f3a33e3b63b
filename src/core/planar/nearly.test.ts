/** What is nearly something else: arcs that are nearly lines, cubics that are nearly quadratics, places that lie nearly on a rim. */
import fc from 'fast-check';
import {
  circle,
  distance,
  enclosedArea,
  listCrossings,
  nearestOn,
  partOf,
  pieceBounds,
  pointAt,
  type Arc,
  type Cubic,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import { bowedArc } from './random-drawing';
import { combine, listRegions } from '.';

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const place = fc.tuple(between(-100, 100), between(-100, 100)) as fc.Arbitrary<Vec>;

const closed = (pieces: readonly Piece[]): Path => ({ closed: true, pieces });
const areaOf = (paths: readonly Path[]) => paths.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);

describe('an arc of nearly no curvature and a small circle', () => {
  const pairs = [
    [400, 0.1, 1],
    [1000, 0.2, 4],
    [400, 0.001, 1],
  ] as const;
  it.each(pairs)(
    'over %d mm bowed by %d, hole of %d mm radius: a plate loses what lies in it, wherever it is drilled',
    (chord, bow, radius) => {
      const edge = bowedArc([0, 0], [chord, 0], bow);
      const plate = closed([
        edge,
        { kind: 'line', a: [chord, 0], b: [chord, 50] },
        { kind: 'line', a: [chord, 50], b: [0, 50] },
        { kind: 'line', a: [0, 50], b: [0, 0] },
      ]);
      for (let i = 0; i < 60; i++) {
        const centre: Vec = [chord * (0.1 + 0.8 * (i / 60)), -bow / 2 + radius * Math.sin(i)];
        const hole = circle(centre, radius);
        for (const { point, ta, tb } of listCrossings(edge, hole)) {
          expect(Math.abs(distance(point, edge.centre) - edge.radius)).toBeLessThan(
            1e-9 * Math.max(1, edge.radius / 1e5),
          );
          expect(Math.abs(distance(point, centre) - radius)).toBeLessThan(1e-9);
          expect(distance(pointAt(edge, ta), pointAt(hole, tb))).toBeLessThan(1e-7);
        }
        const left = combine([[plate], [closed([hole])]], 'subtracted', 1e-6);
        // The edge is level within the hole, as far as can be seen: what is above it is a part of a disc.
        const [dx] = [centre[0] - chord / 2];
        const level = edge.centre[1] - Math.sqrt(edge.radius ** 2 - dx ** 2) - centre[1];
        // A level beyond the disc has all of it above, or nothing.
        const within = Math.min(radius, Math.max(-radius, level));
        const segment = radius ** 2 * Math.acos(within / radius) - within * Math.sqrt(radius ** 2 - within ** 2);
        expect(left.ok && Math.abs(areaOf([plate]) - areaOf(left.value) - segment)).toBeLessThan(
          4 * radius ** 2 * ((2 * radius) / edge.radius) + 0.01 * radius ** 2 * ((8 * bow) / chord) + 1e-5,
        );
      }
    },
  );
});

it('a short curve crosses a long arc where it does, however far the middle of the arc is', () => {
  fc.assert(
    fc.property(
      between(0.05, 0.95),
      between(0.2, 2.9),
      between(0.5, 5),
      between(-0.3, 0.3),
      between(0.2, 0.8),
      (along, turned, size, bend, share) => {
        const arc: Arc = { kind: 'arc', centre: [10, 20], radius: 112, start: -2.6, sweep: 0.8 };
        const [at, way] = [pointAt(arc, along), arc.start + along * arc.sweep + Math.PI / 2 + turned];
        const to = (step: number, aside: number): Vec => [
          at[0] + size * (step * Math.cos(way) - aside * Math.sin(way)),
          at[1] + size * (step * Math.sin(way) + aside * Math.cos(way)),
        ];
        const curve: Cubic = {
          kind: 'cubic',
          a: to(-share, bend),
          b: to(1 / 3 - share, 0),
          c: to(2 / 3 - share, 0),
          d: to(1 - share, -bend),
        };
        const sides = [curve.a, curve.d].map((end) => distance(end, arc.centre) > arc.radius);
        fc.pre(sides[0] !== sides[1]);
        expect(listCrossings(arc, curve).length).toBeGreaterThan(0);
        expect(listCrossings(curve, arc).length).toBe(listCrossings(arc, curve).length);
      },
    ),
    { seed: 4, numRuns: 500 },
  );
});

describe('cubics', () => {
  const quadratic = ([a, b, c]: readonly [Vec, Vec, Vec]): Cubic => ({
    kind: 'cubic',
    a,
    b: [(a[0] + 2 * b[0]) / 3, (a[1] + 2 * b[1]) / 3],
    c: [(c[0] + 2 * b[0]) / 3, (c[1] + 2 * b[1]) / 3],
    d: c,
  });
  /** The box around many places: the slow way. */
  const dense = (piece: Piece) => Array.from({ length: 2001 }, (_, i) => pointAt(piece, i / 2000));

  it('that are really quadratics stand where they stand, and all others', () => {
    expect(
      pieceBounds(
        quadratic([
          [10, 10],
          [60.1, 110.3],
          [110.7, 10.2],
        ]),
      ).max[1],
    ).toBeCloseTo(60.2, 2);
    const any = fc.oneof(
      fc.tuple(place, place, place).map(quadratic),
      fc.tuple(place, place, place, place).map(([a, b, c, d]): Cubic => ({ kind: 'cubic', a, b, c, d })),
      fc.tuple(place, place, place, between(-1e-9, 1e-9)).map(([a, b, c, off]) => {
        const near = quadratic([a, b, c]);
        return { ...near, b: [near.b[0] + off, near.b[1] - off] as Vec };
      }),
    );
    fc.assert(
      fc.property(any, (cubic) => {
        const [{ min, max }, places] = [pieceBounds(cubic), dense(cubic)];
        for (const axis of [0, 1] as const) {
          const seen = places.map((at) => at[axis]);
          expect(min[axis] - Math.min(...seen)).toBeLessThan(1e-9);
          expect(max[axis] - Math.max(...seen)).toBeGreaterThan(-1e-9);
          expect(min[axis] - Math.min(...seen)).toBeGreaterThan(-1e-3);
          expect(max[axis] - Math.max(...seen)).toBeLessThan(1e-3);
        }
      }),
      { seed: 1, numRuns: 1000 },
    );
  });

  it('are the same curve in every part, within them and carried on beyond', () => {
    const evaluated = ({ a, b, c, d }: Cubic, t: number): Vec =>
      ([0, 1] as const).map(
        (axis) =>
          (1 - t) ** 3 * a[axis] + 3 * (1 - t) ** 2 * t * b[axis] + 3 * (1 - t) * t ** 2 * c[axis] + t ** 3 * d[axis],
      ) as unknown as Vec;
    fc.assert(
      fc.property(
        fc.tuple(place, place, place, place),
        fc.constantFrom(0, 1, 0.3, -1, 1.5),
        fc.constantFrom(1, 2, 0.6, -0.5, 0),
        between(-1, 2),
        ([a, b, c, d], from, to, share) => {
          const cubic: Cubic = { kind: 'cubic', a, b, c, d };
          expect(
            distance(pointAt(partOf(cubic, from, to), share), evaluated(cubic, from + share * (to - from))),
          ).toBeLessThan(1e-9);
        },
      ),
      { seed: 2, numRuns: 1000 },
    );
  });
});

describe('the place in a region', () => {
  it.each([1, 2, 4, 8, 16, 0.5, 0.25])('of a rectangle of %d to 1 lies well in it', (ratio) => {
    const corners: readonly Vec[] = [
      [0, 0],
      [40 * ratio, 0],
      [40 * ratio, 40],
      [0, 40],
    ];
    const pieces = corners.map((a, i): Piece => ({ kind: 'line', a, b: corners[(i + 1) % 4]! }));
    const [region] = listRegions(pieces, 1e-6);
    expect(Math.min(...pieces.map((piece) => nearestOn(piece, region!.inside).distance))).toBeGreaterThanOrEqual(
      Math.min(20, 20 * ratio) - 1e-9,
    );
  });

  it('of any that lines and circles shut in is no place that a rim runs over when it moves a little', () => {
    const shape = fc.oneof(
      fc
        .tuple(place, place, place)
        .map((corners) => corners.map((a, i): Piece => ({ kind: 'line', a, b: corners[(i + 1) % 3]! }))),
      fc.tuple(place, between(3, 60)).map(([at, radius]): Piece[] => [circle(at, radius)]),
    );
    fc.assert(
      fc.property(fc.array(shape, { minLength: 1, maxLength: 5 }), (shapes) => {
        for (const { around, holes, inside, area } of listRegions(shapes.flat(), 1e-6).filter(
          (region) => region.area > 1,
        )) {
          const rims = [around, ...holes].flatMap(({ pieces }) => pieces);
          const widest =
            (2 * area) /
            rims.reduce(
              (sum, piece) =>
                sum +
                distance(pointAt(piece, 0), pointAt(piece, 0.5)) +
                distance(pointAt(piece, 0.5), pointAt(piece, 1)),
              0,
            );
          expect(Math.min(...rims.map((piece) => nearestOn(piece, inside).distance))).toBeGreaterThan(0.005 * widest);
        }
      }),
      { seed: 3, numRuns: 200 },
    );
  });
});
