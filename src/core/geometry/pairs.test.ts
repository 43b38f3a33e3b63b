/** Every pair of kinds against a dense numeric reference, worked figures, and drawings far from zero. */
import fc from 'fast-check';
import { arrange, combine, listRegions, offsetClosed } from '../planar';
import {
  accelerationAt,
  circle,
  curvatureAt,
  distance,
  enclosedArea,
  findCentroid,
  findGap,
  findNearest,
  listCrossings,
  moved,
  nearestOn,
  partOf,
  pieceBounds,
  pieceLength,
  placed,
  pointAt,
  subtract,
  velocityAt,
  windingNumber,
  type Piece,
  type Vec,
} from '.';

/** Evenly spread, thousandths apart: not the extremes that a search for faults is drawn to. */
const between = (min: number, max: number) =>
  fc.integer({ min: Math.round(min * 1000), max: Math.round(max * 1000) }).map((value) => value / 1000);
const place = fc.tuple(between(-20, 20), between(-20, 20)) as fc.Arbitrary<Vec>;
const angle = between(0, 6.2);
const sweep = between(0.5, 6.2);
const radius = between(2, 20);
const kinds: Readonly<Record<Piece['kind'], fc.Arbitrary<Piece>>> = {
  line: fc
    .tuple(place, place)
    .filter(([a, b]) => distance(a, b) > 1)
    .map(([a, b]) => ({ kind: 'line', a, b })),
  arc: fc
    .tuple(place, radius, angle, sweep)
    .map(([centre, r, start, turn]) => ({ kind: 'arc', centre, radius: r, start, sweep: turn })),
  cubic: fc
    .tuple(place, place, place, place)
    .filter(([a, , , d]) => distance(a, d) > 1)
    .map(([a, b, c, d]) => ({ kind: 'cubic', a, b, c, d })),
  ellipse: fc
    .tuple(place, radius, angle, between(0.15, 1), angle, sweep)
    .map(([centre, r, turn, ratio, start, over]) => ({
      kind: 'ellipse',
      centre,
      major: [r * Math.cos(turn), r * Math.sin(turn)],
      ratio,
      start,
      sweep: over,
    })),
};
const pairs = Object.keys(kinds).flatMap((a, i) =>
  Object.keys(kinds)
    .slice(i)
    .map((b) => [a, b] as [Piece['kind'], Piece['kind']]),
);

/** Crossings of both pieces as chains of short chords: how many there are, where they are clear. */
function crossingsOfChords(a: Piece, b: Piece, count = 250): readonly Vec[] {
  const chords = (piece: Piece) =>
    Array.from({ length: count }, (_, i): Piece => ({
      kind: 'line',
      a: pointAt(piece, i / count),
      b: pointAt(piece, (i + 1) / count),
    }));
  const [first, second] = [chords(a), chords(b)];
  const boxes = second.map(pieceBounds);
  return first.flatMap((p) => {
    const { min, max } = pieceBounds(p);
    return second.flatMap((q, k) =>
      boxes[k]!.min[0] > max[0] || boxes[k]!.max[0] < min[0] || boxes[k]!.min[1] > max[1] || boxes[k]!.max[1] < min[1]
        ? []
        : listCrossings(p, q).map(({ point }) => point),
    );
  });
}

describe('crossings of every pair of kinds', () => {
  it.each(pairs)('%s and %s: each is on both, and none is missed', (first, second) => {
    fc.assert(
      fc.property(kinds[first], kinds[second], (a, b) => {
        const found = listCrossings(a, b);
        for (const { point, ta, tb } of found) {
          expect(distance(point, pointAt(a, ta))).toBeLessThan(1e-6);
          expect(distance(point, pointAt(b, tb))).toBeLessThan(1e-6);
        }
        for (const seen of crossingsOfChords(a, b))
          expect(Math.min(Infinity, ...found.map(({ point }) => distance(point, seen)))).toBeLessThan(0.35);
      }),
      { numRuns: 30, seed: 21 },
    );
  });
});

describe('crossings of what bends a little', () => {
  const share = fc.oneof(between(0.001, 0.999), between(0.001, 0.03), between(0.97, 0.999));
  const gentle: fc.Arbitrary<Piece> = fc.oneof(
    fc.tuple(between(20, 400), between(0.02, 0.3), fc.boolean()).map(([r, over, back]): Piece => ({
      kind: 'arc',
      centre: [0, 0],
      radius: r,
      start: 1,
      sweep: back ? -over : over,
    })),
    fc
      .tuple(between(4, 30), between(-0.2, 0.2), between(-0.2, 0.2), between(0.2, 0.45))
      .map(([length, leave, arrive, handle]): Piece => ({
        kind: 'cubic',
        a: [0, 0],
        b: [handle * length, leave * length * handle],
        c: [length * (1 - handle), arrive * length * handle],
        d: [length, 0],
      })),
    fc.tuple(between(20, 200), between(0.3, 1), between(0.02, 0.3)).map(([r, ratio, over]): Piece => ({
      kind: 'ellipse',
      centre: [0, 0],
      major: [r, 0],
      ratio,
      start: 1,
      sweep: over,
    })),
  );
  /** Moved so that a place along it is zero, and its direction there another one. */
  const through = (piece: Piece, t: number, direction: number): Piece => {
    const [x, y] = pointAt(piece, t);
    const [u, v] = velocityAt(piece, t);
    return moved(moved(piece, placed([-x, -y])), placed([0, 0], direction - Math.atan2(v, u)));
  };

  it('are found where they are, near ends too, and where what carries the pieces on would cross elsewhere', () => {
    fc.assert(
      fc.property(
        gentle,
        gentle,
        share,
        share,
        between(0, 6.2),
        between(0.02, 0.5),
        (a, b, ta, tb, direction, apart) => {
          const found = listCrossings(through(a, ta, direction), through(b, tb, direction + apart), 1e-6);
          expect(Math.min(...found.map(({ point }) => Math.hypot(...point)))).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 1200, seed: 24 },
    );
  });
});

describe('the gap between two things', () => {
  it.each(pairs)(
    '%s and %s: no two of many places are nearer, and the two that are named are that far apart',
    (one, other) => {
      fc.assert(
        fc.property(kinds[one], kinds[other], (a, near) => {
          const b = moved(near, placed([37, 21]));
          const gap = findNearest([a], [b])!;
          const [first, second] = [a, b].map((piece) =>
            Array.from({ length: 181 }, (_, i) => pointAt(piece, i / 180)),
          ) as [Vec[], Vec[]];
          const seen = Math.min(...first.map((p) => Math.min(...second.map((q) => distance(p, q)))));
          expect(gap.value).toBeLessThanOrEqual(seen + 1e-9);
          expect(gap.value).toBeGreaterThan(seen - 0.4);
          expect(distance(gap.from, gap.to)).toBeCloseTo(gap.value, 9);
          expect(nearestOn(a, gap.from).distance + nearestOn(b, gap.to).distance).toBeLessThan(1e-6);
        }),
        { numRuns: 15, seed: 8 },
      );
    },
  );

  it('of a house within its plot, beside it, and over its edge', () => {
    const rectangle = (x: number, y: number, w: number, h: number): readonly Piece[] =>
      (
        [
          [x, y],
          [x + w, y],
          [x + w, y + h],
          [x, y + h],
        ] as const
      ).map((at, i, all) => ({ kind: 'line', a: at, b: all[(i + 1) % 4]! }));
    const plot = rectangle(0, 0, 20_000, 15_000);
    expect(findGap(rectangle(3000, 4000, 8000, 6000), plot, true)!.value).toBeCloseTo(3000, 9);
    expect(findGap(rectangle(21_500, 4000, 800, 600), plot, true)!.value).toBeCloseTo(1500, 9);
    expect(findGap(rectangle(-250, 4000, 8000, 6000), plot, true)).toMatchObject({ value: expect.closeTo(-250, 6) });
    expect(findGap(rectangle(-7000, 4000, 8000, 6000), plot, true)!.value).toBeCloseTo(-1000, 6);
    expect(findGap([circle([5000, 3900], 4000)], plot, true)!.value).toBeCloseTo(-100, 3);
  });
});

describe('ellipses', () => {
  it('velocity, acceleration, curvature, length, box and nearest place agree with small steps', () => {
    fc.assert(
      fc.property(kinds.ellipse, between(0.01, 0.99), place, (piece, t, at) => {
        const h = 1e-5;
        const rate = subtract(pointAt(piece, t + h), pointAt(piece, t - h)).map((v) => v / (2 * h));
        const bend = subtract(velocityAt(piece, t + h), velocityAt(piece, t - h)).map((v) => v / (2 * h));
        velocityAt(piece, t).forEach((v, i) => expect(Math.abs(v - rate[i]!)).toBeLessThan(1e-4));
        accelerationAt(piece, t).forEach((v, i) => expect(Math.abs(v - bend[i]!)).toBeLessThan(1e-3));
        const chords = Array.from({ length: 2000 }, (_, i) =>
          distance(pointAt(piece, i / 2000), pointAt(piece, (i + 1) / 2000)),
        ).reduce((sum, d) => sum + d, 0);
        expect(Math.abs(pieceLength(piece) - chords)).toBeLessThan(1e-3);
        const { min, max } = pieceBounds(piece);
        const nearest = nearestOn(piece, at).distance;
        const places = Array.from({ length: 201 }, (_, i) => pointAt(piece, i / 200));
        const isInside = ([x, y]: Vec) =>
          x >= min[0] - 1e-9 && y >= min[1] - 1e-9 && x <= max[0] + 1e-9 && y <= max[1] + 1e-9;
        expect(places.filter((each) => !isInside(each))).toEqual([]);
        expect(nearest).toBeLessThanOrEqual(Math.min(...places.map((each) => distance(each, at))) + 1e-9);
      }),
      { numRuns: 100, seed: 22 },
    );
  });

  it('a circle that is squeezed is one, and comes back round; parts are the same curve', () => {
    const squeezed = moved(circle([3, 4], 10), placed([1, 2], 0.7, 2, 0.5));
    expect(squeezed.kind).toBe('ellipse');
    expect(Math.abs(enclosedArea([squeezed]))).toBeCloseTo(100 * Math.PI, 9);
    const [p, q] = [pointAt(partOf(squeezed, 0.25, 0.75), 0.5), pointAt(squeezed, 0.5)];
    expect(distance(p, q)).toBeLessThan(1e-12);
    expect(curvatureAt(circle([0, 0], 4), 0.3)).toBeCloseTo(0.25, 12);
  });
});

describe('worked figures', () => {
  it('the centre of a half disc is 4r/3π from its diameter (common textbook figure), that of a ring its middle', () => {
    const half: Piece[] = [
      { kind: 'arc', centre: [0, 0], radius: 3, start: 0, sweep: Math.PI },
      { kind: 'line', a: [-3, 0], b: [3, 0] },
    ];
    expect(findCentroid([half])!.map((v) => v.toFixed(9))).toEqual([
      expect.stringMatching(/^-?0.000000000$/),
      (4 / Math.PI).toFixed(9),
    ]);
    const [x, y] = findCentroid([
      [circle([5, 6], 4)],
      [{ ...circle([5, 6], 2), start: 2 * Math.PI, sweep: -2 * Math.PI }],
    ])!;
    expect([x, y]).toEqual([expect.closeTo(5, 9), expect.closeTo(6, 9)]);
    expect(findCentroid([[{ kind: 'line', a: [0, 0], b: [1, 0] }]])).toBeUndefined();
  });

  it('the area of a polygon by the surveyor’s formula, the same by how often it runs around places', () => {
    const corners: readonly Vec[] = [
      [0, 0],
      [7, 1],
      [9, 6],
      [4, 9],
      [-1, 5],
    ];
    const pieces = corners.map((a, i): Piece => ({ kind: 'line', a, b: corners[(i + 1) % 5]! }));
    const surveyor =
      corners.reduce((sum, [x, y], i) => sum + x * corners[(i + 1) % 5]![1] - corners[(i + 1) % 5]![0] * y, 0) / 2;
    expect(enclosedArea(pieces)).toBeCloseTo(surveyor, 12);
    expect([windingNumber(pieces, [4, 4]), windingNumber(pieces, [20, 4])]).toEqual([1, 0]);
  });
});

describe('a floor under it', () => {
  const far: Vec = [1e6, -1e6];
  const there = (pieces: readonly Piece[]) => pieces.map((piece) => moved(piece, placed(far)));

  it('a thousandth of a millimetre, a kilometre from zero', () => {
    const square = (x: number, size: number): Piece[] =>
      (
        [
          [x, 0],
          [x + size, 0],
          [x + size, size],
          [x, size],
        ] as const
      ).map((a, i, all) => ({ kind: 'line', a, b: all[(i + 1) % 4]! }));
    const regions = listRegions(there([...square(0, 10), ...square(9.999, 10)]), 1e-6);
    expect(regions.map(({ area }) => area.toFixed(4))).toEqual(['0.0100', '99.9900', '99.9900']);
    const grown = offsetClosed([{ closed: true, pieces: there(square(0, 10)) }], 0.001, {
      corners: 'mitre',
      precision: 0.01,
      tolerance: 1e-6,
    });
    expect(grown.ok && Math.abs(enclosedArea(grown.value[0]!.pieces)).toFixed(3)).toBe((10.002 ** 2).toFixed(3));
  });

  it('what is nearly parallel, nearly touches, or has no length gives no exception and no wrong area', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.constantFrom(0, 1e-9, 1e-7, 1e-6, 1e-5, 1e-3),
            fc.constantFrom(0, 1e-9, 1e-7, 1e-6, 1e-5, 1e-3),
            fc.boolean(),
          ),
          { minLength: 1, maxLength: 5 },
        ),
        (shakes) => {
          const boxes = shakes.map(([dx, dy, round]): Piece[] =>
            round
              ? [circle([5 + dx, 5 + dy], 5)]
              : (
                  [
                    [dx, dy],
                    [10, dx],
                    [10 + dy, 10],
                    [dx, 10 + dx],
                    [dx, 10 + dx],
                  ] as const
                ).map((a, i, all) => ({ kind: 'line', a, b: all[(i + 1) % 5]! })),
          );
          const whole = combine(
            [
              boxes.slice(0, 1).map((pieces) => ({ closed: true, pieces })),
              ...boxes.slice(1).map((pieces) => [{ closed: true, pieces }]),
            ],
            'united',
            1e-6,
          );
          expect(arrange(boxes.flat(), 1e-6).faces.length).toBeGreaterThan(0);
          if (!whole.ok) return expect(whole.code).toBe('combine-unclear');
          const area = whole.value.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
          expect(Math.abs(area - (shakes.every(([, , round]) => round) ? 25 * Math.PI : 100))).toBeLessThan(0.05);
        },
      ),
      { numRuns: 200, seed: 23 },
    );
  });
});
