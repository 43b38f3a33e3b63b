import fc from 'fast-check';
import {
  angleOf,
  circle,
  cross,
  distance,
  dot,
  enclosedArea,
  endOf,
  findArcThrough,
  findCircumcentre,
  findFoot,
  findTangentArc,
  listCrossings,
  mostLengthOf,
  nearestOn,
  norm,
  pieceBounds,
  pieceLength,
  pointAt,
  reversed,
  signedAngle,
  splitCubic,
  startOf,
  subtract,
  tangentAt,
  toCubics,
  velocityAt,
  type Arc,
  type Cubic,
  type Piece,
  type Vec,
} from '.';

/** Hundredths of a millimetre: drawings hold no numbers of 1e-300. */
const coordinate = fc.integer({ min: -50_000, max: 50_000 }).map((hundredths) => hundredths / 100);
const vec: fc.Arbitrary<Vec> = fc.tuple(coordinate, coordinate);
const line: fc.Arbitrary<Piece> = fc.record({ kind: fc.constant('line' as const), a: vec, b: vec });
const arc: fc.Arbitrary<Arc> = fc.record({
  kind: fc.constant('arc' as const),
  centre: vec,
  radius: fc.double({ min: 0.5, max: 400, noNaN: true }),
  start: fc.double({ min: -7, max: 7, noNaN: true }),
  sweep: fc.double({ min: 0.05, max: 6.2, noNaN: true }).chain((s) => fc.constantFrom(s, -s)),
});
const cubic: fc.Arbitrary<Cubic> = fc.record({ kind: fc.constant('cubic' as const), a: vec, b: vec, c: vec, d: vec });
const piece = fc.oneof(line, arc, cubic);

/** A piece as many short chords: the slow reference for everything that is computed in closed form. */
function chords(of: Piece, count: number): Vec[] {
  return Array.from({ length: count + 1 }, (_, i) => pointAt(of, i / count));
}

describe('pieces', () => {
  it('have the velocity that their points show', () => {
    fc.assert(
      fc.property(piece, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (p, t) => {
        const h = 1e-6;
        const [above, below] = [pointAt(p, t + h), pointAt(p, t - h)];
        const slope: Vec = [(above[0] - below[0]) / (2 * h), (above[1] - below[1]) / (2 * h)];
        expect(distance(slope, velocityAt(p, t))).toBeLessThan(1e-3 * (1 + norm(slope)));
      }),
    );
  });

  it('run the same way back', () => {
    fc.assert(
      fc.property(piece, fc.double({ min: 0, max: 1, noNaN: true }), (p, t) => {
        expect(distance(pointAt(reversed(p), t), pointAt(p, 1 - t))).toBeLessThan(1e-8);
      }),
    );
  });

  it('are as long as many chords, and stay inside their tight box', () => {
    fc.assert(
      fc.property(piece, (p) => {
        const points = chords(p, 4000);
        const sum = points.slice(1).reduce((total, q, i) => total + distance(points[i]!, q), 0);
        expect(Math.abs(pieceLength(p) - sum)).toBeLessThan(1e-3 * (1 + sum));
        const box = pieceBounds(p);
        for (const axis of [0, 1] as const) {
          const values = points.map((q) => q[axis]);
          expect(box.min[axis]).toBeLessThanOrEqual(Math.min(...values) + 1e-9);
          expect(box.min[axis]).toBeGreaterThan(Math.min(...values) - 0.01);
          expect(box.max[axis]).toBeGreaterThanOrEqual(Math.max(...values) - 1e-9);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('know their nearest place as well as a dense search', () => {
    fc.assert(
      fc.property(piece, vec, (p, q) => {
        const best = Math.min(...chords(p, 3000).map((place) => distance(place, q)));
        expect(nearestOn(p, q).distance).toBeLessThan(best + 1e-6 + 1e-3 * best);
      }),
      { numRuns: 150 },
    );
  });

  it('have a foot within a reach just where they are that near', () => {
    let within = 0;
    const reach = fc.double({ min: 0.001, max: 60, noNaN: true });
    fc.assert(
      fc.property(piece, vec, fc.double({ min: 0, max: 1, noNaN: true }), reach, fc.boolean(), (p, q, t, r, beside) => {
        const on = pointAt(p, t);
        const point: Vec = beside ? [on[0] + 0.4 * r, on[1] - 0.3 * r] : q;
        const [nearest, foot] = [nearestOn(p, point), findFoot(p, point, r)];
        expect(foot).toBe(nearest.distance <= r ? nearest.t : undefined);
        if (foot !== undefined) within++;
      }),
      { numRuns: 600, seed: 8 },
    );
    expect(within).toBeGreaterThan(200);
  });

  it('are not longer than is said at once, nor faster anywhere', () => {
    fc.assert(
      fc.property(piece, fc.double({ min: 0, max: 1, noNaN: true }), (p, t) => {
        const most = mostLengthOf(p) * (1 + 1e-12);
        expect(pieceLength(p)).toBeLessThanOrEqual(most + 1e-9);
        expect(norm(velocityAt(p, t))).toBeLessThanOrEqual(most);
      }),
    );
  });

  it('draw an arc as cubics to less than 1 in 100,000 of its radius', () => {
    fc.assert(
      fc.property(arc, (a) => {
        for (const part of toCubics(a))
          for (const q of chords(part, 20))
            expect(Math.abs(distance(q, a.centre) - a.radius)).toBeLessThan(1e-5 * a.radius);
      }),
    );
  });

  it('keep a curve when it is split', () => {
    fc.assert(
      fc.property(cubic, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (c, t) => {
        const [first, second] = splitCubic(c, t);
        expect(distance(pointAt(first, 0.5), pointAt(c, t / 2))).toBeLessThan(1e-8);
        expect(distance(pointAt(second, 0.5), pointAt(c, (1 + t) / 2))).toBeLessThan(1e-8);
      }),
    );
  });
});

describe('arcs from points', () => {
  it('go through their three points in order', () => {
    fc.assert(
      fc.property(vec, vec, vec, (a, through, b) => {
        fc.pre(
          Math.abs(cross(subtract(through, a), subtract(b, a))) > 1 &&
            distance(a, b) > 1 &&
            distance(a, through) > 1 &&
            distance(b, through) > 1,
        );
        const found = findArcThrough(a, through, b)!;
        const scale = 1e-9 * (found.radius + 1);
        expect(distance(startOf(found), a)).toBeLessThan(scale);
        expect(distance(endOf(found), b)).toBeLessThan(1e-6 + scale * 100);
        expect(nearestOn(found, through).distance).toBeLessThan(1e-6 + scale * 100);
      }),
    );
  });

  it('are refused when the points lie in a line', () => {
    expect(findArcThrough([0, 0], [5, 5], [10, 10])).toBeUndefined();
    expect(findArcThrough([0, 0], [5, 5 + 1e-12], [10, 10])).toBeUndefined();
    expect(findCircumcentre([1, 1], [1, 1], [4, 4])).toBeUndefined();
  });

  // Circle through (0,0), (4,0), (0,3): a right triangle, so its centre is the middle of the hypotenuse (Thales).
  it('find the centre of a right triangle in the middle of its longest side', () => {
    expect(findCircumcentre([0, 0], [4, 0], [0, 3])).toEqual([2, 1.5]);
  });

  it('leave tangentially and arrive', () => {
    fc.assert(
      fc.property(vec, vec, fc.double({ min: -3.1, max: 3.1, noNaN: true }), (a, b, angle) => {
        const direction: Vec = [Math.cos(angle), Math.sin(angle)];
        const turn = signedAngle(angleOf(subtract(b, a)) - angle);
        fc.pre(distance(a, b) > 1 && Math.abs(turn) > 1e-3 && Math.abs(turn) < Math.PI - 0.05);
        const found = findTangentArc(a, direction, b)!;
        expect(dot(tangentAt(found, 0), direction)).toBeGreaterThan(1 - 1e-9);
        expect(distance(startOf(found), a)).toBeLessThan(1e-5);
        expect(distance(endOf(found), b)).toBeLessThan(1e-5);
      }),
    );
    expect(findTangentArc([0, 0], [1, 0], [5, 0])).toEqual({ kind: 'line', a: [0, 0], b: [5, 0] });
    expect(findTangentArc([0, 0], [1, 0], [-5, 0])).toBeUndefined();
  });
});

describe('areas', () => {
  it('of a circle and of a rectangle are the school formulas', () => {
    expect(enclosedArea([circle([30, -7], 5)])).toBeCloseTo(Math.PI * 25, 9);
    const corners: Vec[] = [
      [0, 0],
      [85.6, 0],
      [85.6, 53.98],
      [0, 53.98],
    ];
    expect(enclosedArea(corners.map((a, i) => ({ kind: 'line', a, b: corners[(i + 1) % 4]! })))).toBeCloseTo(
      85.6 * 53.98,
      9,
    );
  });

  it('agree with the polygon of many chords', () => {
    fc.assert(
      fc.property(arc, cubic, (a, c) => {
        const joined: Piece[] = [a, { ...c, a: endOf(a), d: startOf(a) }];
        const points = joined.flatMap((p) => chords(p, 3000));
        const polygon = points.reduce((sum, p, i) => sum + cross(p, points[(i + 1) % points.length]!), 0) / 2;
        expect(Math.abs(enclosedArea(joined) - polygon)).toBeLessThan(1e-4 * (1 + Math.abs(polygon)) + 1);
      }),
      { numRuns: 40 },
    );
  });
});

describe('crossings', () => {
  it('lie on both pieces', () => {
    fc.assert(
      fc.property(piece, piece, (a, b) => {
        for (const { point, ta, tb } of listCrossings(a, b)) {
          expect(distance(pointAt(a, ta), point)).toBeLessThan(1e-5);
          expect(distance(pointAt(b, tb), point)).toBeLessThan(1e-5);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('are as many as the chords cross', () => {
    fc.assert(
      fc.property(piece, piece, (a, b) => {
        fc.pre(pieceLength(a) > 1 && pieceLength(b) > 1);
        const counted = crossedChords(chords(a, 150), chords(b, 150));
        expect(listCrossings(a, b).length).toBeGreaterThanOrEqual(counted);
        expect(listCrossings(a, b).length).toBeLessThanOrEqual(counted + 2);
      }),
      { numRuns: 60 },
    );
  });

  it('of a line and a circle are where Pythagoras puts them', () => {
    const found = listCrossings({ kind: 'line', a: [-10, 3], b: [10, 3] }, circle([0, 0], 5))
      .map(({ point }) => point[0])
      .sort((p, q) => p - q);
    expect(found[0]).toBeCloseTo(-4, 12);
    expect(found[1]).toBeCloseTo(4, 12);
    expect(listCrossings({ kind: 'line', a: [-10, 5], b: [10, 5] }, circle([0, 0], 5))).toHaveLength(1);
    expect(listCrossings({ kind: 'line', a: [0, 0], b: [0, 0] }, circle([0, 0], 5))).toHaveLength(0);
  });
});

function crossedChords(p: readonly Vec[], q: readonly Vec[]): number {
  let count = 0;
  for (let i = 1; i < p.length; i++) {
    for (let k = 1; k < q.length; k++) {
      const [a, b, c, d] = [p[i - 1]!, p[i]!, q[k - 1]!, q[k]!];
      const side = (u: Vec, v: Vec, w: Vec) => Math.sign(cross(subtract(v, u), subtract(w, u)));
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) count++;
    }
  }
  return count;
}
