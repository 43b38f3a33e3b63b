/** Curves through points: what runs on through them, and what of that can be said. */
import fc from 'fast-check';
import {
  angleOf,
  curvatureAt,
  distance,
  endOf,
  evenHandles,
  norm,
  pointAt,
  scale,
  startOf,
  subtract,
  tangentAt,
  velocityAt,
  type Cubic,
  type Vec,
} from '../geometry';
import {
  loosened,
  reversedChain,
  shapeOf,
  splitAt,
  withNodeOn,
  type Chain,
  type Editing,
  type Node,
  type Segment,
} from '.';

const toSheet = ([x, y]: Vec): Vec => [x * 10, -y * 10];
const placing = { scaled: true, toPlane: ([x, y]: Vec): Vec => [x / 10, -y / 10] };
let count = 0;
const editing: Editing = { toSheet, newId: () => `new${count++}`, sigma: 0.5 };
const curveOf = (at: readonly Vec[], change: Partial<Chain> = {}, kinds: readonly Segment['kind'][] = []): Chain => ({
  shape: 'chain',
  id: 'c',
  layer: 'l',
  plane: 'v',
  closed: false,
  nodes: at.map((place, i): Node => ({
    id: `n${i}`,
    place: { kind: 'pointed', at: toSheet(place), sigma: 1 },
    smooth: true,
  })),
  segments: Array.from(
    { length: at.length - (change.closed ? 0 : 1) },
    (_, i) => ({ kind: kinds[i] ?? 'curve' }) as Segment,
  ),
  ...change,
});
const cubicsThrough = (points: readonly Vec[], closed: boolean): readonly Cubic[] =>
  evenHandles(points, closed).map(([b, c], i) => ({
    kind: 'cubic',
    a: points[i]!,
    b,
    c,
    d: points[(i + 1) % points.length]!,
  }));
const points = fc.uniqueArray(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })), {
  minLength: 3,
  maxLength: 12,
  selector: String,
});

describe('curves that bend evenly', () => {
  it('run on with one direction and one curvature at every point, open and closed', () => {
    fc.assert(
      fc.property(points, fc.boolean(), (at, closed) => {
        const cubics = cubicsThrough(at, closed);
        cubics.forEach((before, i) => {
          const after = cubics[i + 1] ?? (closed ? cubics[0]! : undefined);
          if (!after || norm(velocityAt(after, 0)) < 0.1) return;
          expect(distance(tangentAt(before, 1), tangentAt(after, 0))).toBeLessThan(1e-7);
          const [bend, on] = [curvatureAt(before, 1), curvatureAt(after, 0)];
          expect(Math.abs(bend - on)).toBeLessThan(1e-6 * (1 + Math.abs(bend)));
        });
        const [{ a, b, c, d }] = cubics as [Cubic];
        if (!closed) expect(norm(subtract(subtract(d, a), scale(subtract(c, b), 3)))).toBeLessThan(1e-7);
      }),
      { numRuns: 300, seed: 12 },
    );
  });

  it('through 12 points of a circle, are that circle within 1/2000 of its radius', () => {
    const ring = Array.from({ length: 12 }, (_, i): Vec => [
      100 * Math.cos((i * Math.PI) / 6),
      100 * Math.sin((i * Math.PI) / 6),
    ]);
    for (const cubic of cubicsThrough(ring, true))
      for (const t of [0.2, 0.5, 0.8]) expect(Math.abs(norm(pointAt(cubic, t)) - 100)).toBeLessThan(0.05);
  });

  it('through points of a spiral, wind out without a way back', () => {
    const spiral = Array.from({ length: 25 }, (_, i): Vec => [
      (5 + 3 * i) * Math.cos(i * 0.7),
      (5 + 3 * i) * Math.sin(i * 0.7),
    ]);
    const out = shapeOf(curveOf(spiral, { even: true }), placing).pieces.flatMap((piece) =>
      [0, 0.25, 0.5, 0.75].map((t) => norm(pointAt(piece, t))),
    );
    out.slice(1).forEach((radius, i) => expect(radius).toBeGreaterThan(out[i]!));
  });

  it('meet lines and pulled handles as other curves do, also around the start of a closed outline', () => {
    const at: readonly Vec[] = [
      [0, 0],
      [20, 12],
      [44, 10],
      [60, 0],
      [40, -20],
      [10, -18],
    ];
    for (let turn = 0; turn < at.length; turn++) {
      const places = [...at.slice(turn), ...at.slice(0, turn)];
      const line = (3 - turn + at.length) % at.length;
      const shape = shapeOf(
        curveOf(
          places,
          { closed: true, even: true },
          places.map((_, i) => (i === line ? 'line' : 'curve')),
        ),
        placing,
      );
      shape.pieces.forEach((piece, i) => {
        const next = shape.pieces[(i + 1) % shape.pieces.length]!;
        expect(distance(tangentAt(piece, 1), tangentAt(next, 0))).toBeLessThan(1e-9);
        if (piece.kind === 'cubic' && next.kind === 'cubic')
          expect(curvatureAt(piece, 1)).toBeCloseTo(curvatureAt(next, 0), 9);
      });
    }
  });

  it('keep their shape when a point is put on them, when they are cut, and from their other end', () => {
    const chain = curveOf(
      [
        [0, 0],
        [20, 12],
        [44, 10],
        [60, 0],
        [90, 20],
      ],
      { even: true },
    );
    const shape = shapeOf(chain, placing);
    const same = (other: Chain) => {
      const pieces = shapeOf(other, placing).pieces;
      for (const piece of pieces)
        for (const t of [0, 0.5, 1])
          expect(
            Math.min(
              ...shape.pieces.flatMap((whole) =>
                Array.from({ length: 401 }, (_, i) => distance(pointAt(whole, i / 400), pointAt(piece, t))),
              ),
            ),
          ).toBeLessThan(0.1);
    };
    same(withNodeOn(chain, shape, 1, 0.37, editing));
    splitAt(chain, shape, { segment: 2, t: 0.5 }, editing).forEach(same);
    same(reversedChain(chain, shape, editing));
    shapeOf(loosened(chain, shape, editing), placing).pieces.forEach((piece, i) =>
      expect(distance(pointAt(piece, 0.4), pointAt(shape.pieces[i]!, 0.4))).toBeLessThan(1e-9),
    );
  });
});

describe('a node', () => {
  const at: readonly Vec[] = [
    [0, 0],
    [30, 10],
    [60, 0],
  ];
  const withNode = (index: number, change: Partial<Node>, even = false) => {
    const chain = curveOf(at, { even });
    return shapeOf(
      { ...chain, nodes: chain.nodes.map((node, i) => (i === index ? { ...node, ...change } : node)) },
      placing,
    ).pieces;
  };

  it.each([false, true])('gives curves its own direction, on both sides and at an end (even: %s)', (even) => {
    const [before, after] = withNode(1, { direction: 0.4 }, even);
    expect(angleOf(tangentAt(before!, 1))).toBeCloseTo(0.4, 12);
    expect(angleOf(tangentAt(after!, 0))).toBeCloseTo(0.4, 12);
    expect(angleOf(tangentAt(withNode(0, { direction: Math.PI / 2 }, even)[0]!, 0))).toBeCloseTo(Math.PI / 2, 12);
  });

  it('draws curves tighter the more tension it has', () => {
    const length = (tension: number) => {
      const [piece] = withNode(1, { tension }) as [Cubic];
      return distance(piece.c, piece.d);
    };
    expect(length(0)).toBeCloseTo(distance(at[0]!, at[1]!) / 3, 12);
    expect(length(0.5)).toBeCloseTo(length(0) / 2, 12);
    expect(length(1)).toBe(0);
    expect(length(-1)).toBeCloseTo(2 * length(0), 12);
    expect(subtract(endOf(withNode(1, { tension: 1 })[0]!), startOf(withNode(1, { tension: 1 })[1]!))).toEqual([0, 0]);
  });
});
