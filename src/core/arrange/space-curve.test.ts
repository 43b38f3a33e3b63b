/** Curves in space from two views, against curves that are known in closed form. */
import * as fc from 'fast-check';
import {
  circle,
  endOf,
  movedPath,
  pointAt,
  reversedPath,
  startOf,
  type Cubic,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import {
  axesSeenFrom,
  DIRECTIONS,
  distance3,
  endInSpace,
  pointInSpace,
  type Side,
  type SpacePiece,
  type Vec3,
} from '../space';
import { spaceCurveOf, type SeenCurve, type SpaceCurve } from '.';

const TOLERANCE = 0.005;
/** What is asked of exact views. mm. */
const NEAR = 0.01;

const open = (...pieces: Piece[]): Path => ({ closed: false, pieces });
const curveOf = (first: SeenCurve, second: SeenCurve): SpaceCurve => {
  const made = spaceCurveOf(first, second, TOLERANCE);
  if (!made.ok) throw new Error(`${made.code} ${JSON.stringify(made.detail)}`);
  return made.value;
};
const sampled = ({ pieces }: SpaceCurve): Vec3[] =>
  pieces.flatMap((piece) => Array.from({ length: 33 }, (_, i) => pointInSpace(piece, i / 32)));
const expectUnbroken = ({ pieces, closed }: SpaceCurve) => {
  pieces.slice(1).forEach((piece, i) => expect(distance3(endInSpace(pieces[i]!), piece.a)).toBe(0));
  if (closed) expect(distance3(endInSpace(pieces.at(-1)!), pieces[0]!.a)).toBe(0);
};

/** A curve in the plane by its place and velocity, as cubics so short that none is off by more than a hundred-thousandth. */
function traced(count: number, at: (u: number) => readonly [Vec, Vec]): Path {
  const pieces = Array.from({ length: count }, (_, i): Cubic => {
    const [[a, da], [d, dd]] = [at(i / count), at((i + 1) / count)];
    const third = 1 / (3 * count);
    return {
      kind: 'cubic',
      a,
      b: [a[0] + da[0] * third, a[1] + da[1] * third],
      c: [d[0] - dd[0] * third, d[1] - dd[1] * third],
      d,
    };
  });
  return open(...pieces);
}

/** By halves, along a piece on which x rises. */
function heightOver(piece: Piece, x: number): number {
  let [low, high] = [0, 1];
  for (let i = 0; i < 60; i++) {
    const t = (low + high) / 2;
    if (pointAt(piece, t)[0] > x) high = t;
    else low = t;
  }
  return pointAt(piece, low)[1];
}

/** What a side shows of a curve in space. */
const seenFrom = (side: Side, pieces: readonly SpacePiece[]): Path => {
  const flat = (point: Vec3) =>
    axesSeenFrom(side).map(({ direction, sign }) => sign * point[DIRECTIONS.indexOf(direction)]!) as unknown as Vec;
  return open(
    ...pieces.map((piece): Piece =>
      piece.kind === 'line'
        ? { kind: 'line', a: flat(piece.a), b: flat(piece.b) }
        : { kind: 'cubic', a: flat(piece.a), b: flat(piece.b), c: flat(piece.c), d: flat(piece.d) },
    ),
  );
};

it('a rail whose plan and elevation are cubics', () => {
  const plan: Cubic = { kind: 'cubic', a: [0, 0], b: [300, 40], c: [500, -250], d: [900, 120] };
  const elevation: Cubic = { kind: 'cubic', a: [0, 800], b: [200, 820], c: [700, 1300], d: [900, 1700] };
  const rail = curveOf({ side: 'front', path: open(elevation) }, { side: 'top', path: open(plan) });
  expect([rail.along, rail.closed, rail.missing]).toEqual(['across', false, []]);
  expectUnbroken(rail);
  for (const [x, y, z] of sampled(rail)) {
    expect(Math.abs(y - heightOver(plan, x))).toBeLessThan(NEAR);
    expect(Math.abs(z - heightOver(elevation, x))).toBeLessThan(NEAR);
  }
  expect(rail.pieces.length).toBeLessThan(20);
});

it('a helix, from the front and from the right', () => {
  const [radius, turns, rise] = [40, 2.25, 300];
  const angle = (u: number) => 2 * Math.PI * turns * u;
  const wave = (of: (a: number) => number, slope: (a: number) => number) =>
    traced(400, (u) => [
      [radius * of(angle(u)), rise * u],
      [radius * slope(angle(u)) * 2 * Math.PI * turns, rise],
    ]);
  const helix = curveOf(
    { side: 'front', path: wave(Math.cos, (a) => -Math.sin(a)) },
    { side: 'right', path: wave(Math.sin, Math.cos) },
  );
  expect(helix.along).toBe('up');
  for (const [x, y, z] of sampled(helix)) {
    const a = angle(z / rise);
    expect(Math.hypot(x - radius * Math.cos(a), y - radius * Math.sin(a))).toBeLessThan(NEAR);
  }
});

/** Where a pipe of radius `through` along the depth comes out of an upright one: front half, as both views show it. */
function crossing(upright: number, through: number) {
  const bore: Path = { closed: true, pieces: [{ ...circle([0, 80], through), start: 1.1 }] };
  const wall = open({ kind: 'arc', centre: [0, 0], radius: upright, start: Math.PI, sweep: Math.PI });
  return { bore, wall };
}

it.each([
  ['narrower than', 60, 35],
  ['nearly as wide as', 60, 59.9],
  ['as wide as', 60, 60],
])('two cylinders, the one that goes through %s the other', (_, upright, through) => {
  const { bore, wall } = crossing(upright, through);
  const rim = curveOf({ side: 'front', path: bore }, { side: 'top', path: wall });
  expect(rim.closed).toBe(true);
  expectUnbroken(rim);
  for (const [x, y, z] of sampled(rim)) {
    expect(Math.abs(Math.hypot(x, y) - upright)).toBeLessThan(NEAR);
    expect(Math.abs(Math.hypot(x, z - 80) - through)).toBeLessThan(NEAR);
    expect(y).toBeLessThan(NEAR);
  }
  const all = sampled(rim).map(([, , z]) => z);
  expect([Math.min(...all), Math.max(...all)]).toEqual([
    expect.closeTo(80 - through, 2),
    expect.closeTo(80 + through, 2),
  ]);
  // The wall goes on to both sides of the bore, below and above it.
  const beyond = upright - through;
  expect(rim.missing).toEqual(
    beyond > TOLERANCE
      ? [0, 1].flatMap(() => [
          { of: 'second', from: -upright, to: expect.closeTo(-through, 6) as number },
          { of: 'second', from: expect.closeTo(through, 6) as number, to: upright },
        ])
      : [],
  );
});

it('lines stay lines, and a step in one view is a line where the other waits', () => {
  const tread: Path = open(
    { kind: 'line', a: [0, 0], b: [250, 0] },
    { kind: 'line', a: [250, 0], b: [250, 180] },
    { kind: 'line', a: [250, 180], b: [500, 180] },
  );
  const plan: Path = open({ kind: 'line', a: [0, 0], b: [500, 100] });
  const stair = curveOf({ side: 'front', path: tread }, { side: 'top', path: plan });
  expect(stair.pieces).toEqual([
    { kind: 'line', a: [0, 0, 0], b: [250, 50, 0] },
    { kind: 'line', a: [250, 50, 0], b: [250, 50, 180] },
    { kind: 'line', a: [250, 50, 180], b: [500, 100, 180] },
  ]);
});

it('a curve in space is had again from any two neighbouring sides, whichever way round they are drawn', () => {
  const [small, any] = [fc.double({ min: 5, max: 100, noNaN: true }), fc.double({ min: -150, max: 150, noNaN: true })];
  const sides: readonly (readonly [Side, Side])[] = [
    ['front', 'top'],
    ['back', 'bottom'],
    ['top', 'back'],
    ['bottom', 'front'],
  ];
  let bent = 0;
  fc.assert(
    fc.property(
      fc.tuple(small, small, small),
      fc.array(any, { minLength: 8, maxLength: 8 }),
      fc.constantFrom(...sides),
      fc.boolean(),
      (steps, off, [one, other], isTurned) => {
        // x rises along it, so that it can be told from what is shared.
        const xs = steps.reduce<number[]>((sums, step) => [...sums, sums.at(-1)! + step], [0]);
        const [a, b, c, d] = xs.map((x, i): Vec3 => [x, off[2 * i]!, off[2 * i + 1]!]) as [Vec3, Vec3, Vec3, Vec3];
        const truth: SpacePiece = { kind: 'cubic', a, b, c, d };
        const second = seenFrom(other, [truth]);
        const made = curveOf(
          { side: one, path: seenFrom(one, [truth]) },
          { side: other, path: isTurned ? reversedPath(second) : second },
        );
        expectUnbroken(made);
        const near = Array.from({ length: 2001 }, (_, i) => pointInSpace(truth, i / 2000));
        for (const point of sampled(made))
          expect(Math.min(...near.map((place) => distance3(place, point)))).toBeLessThan(NEAR + 0.2);
        expect(distance3(made.pieces[0]!.a, a)).toBeLessThan(1e-6);
        expect(distance3(endInSpace(made.pieces.at(-1)!), d)).toBeLessThan(1e-6);
        bent += made.pieces.length > 1 ? 1 : 0;
      },
    ),
    { numRuns: 40 },
  );
  expect(bent).toBeGreaterThan(5);
});

it('what one view shows farther than the other is said, and left away', () => {
  const shorter = open({ kind: 'line', a: [10, 0], b: [90, 40] });
  const longer = open({ kind: 'line', a: [0, 0], b: [100, 0] });
  const made = curveOf({ side: 'front', path: shorter }, { side: 'top', path: longer });
  expect(made.missing).toEqual([
    { of: 'second', from: 0, to: 10 },
    { of: 'second', from: 90, to: 100 },
  ]);
  expect(made.pieces).toEqual([{ kind: 'line', a: [10, 0, 0], b: [90, 0, 40] }]);
});

const line = (a: Vec, b: Vec): Path => open({ kind: 'line', a, b });
const zigzag = (xs: readonly number[]): Path =>
  open(...xs.slice(1).map((x, i): Piece => ({ kind: 'line', a: [xs[i]!, i], b: [x, i + 1] })));

it.each([
  ['curve-sides-share-nothing', 'front', line([0, 0], [1, 1]), 'back', line([0, 0], [1, 1])],
  ['curve-empty', 'front', open(), 'top', line([0, 0], [1, 1])],
  ['curve-nothing-shared', 'front', line([0, 0], [10, 1]), 'top', line([20, 0], [30, 1])],
  ['curve-stretches-differ', 'front', zigzag([0, 10, 2, 12]), 'top', zigzag([0, 10, 2])],
  [
    'curve-steps-in-both',
    'front',
    open(...line([0, 0], [5, 0]).pieces, ...line([5, 0], [5, 9]).pieces, ...line([5, 9], [9, 9]).pieces),
    'top',
    open(...line([0, 0], [5, 0]).pieces, ...line([5, 0], [5, 9]).pieces, ...line([5, 9], [9, 9]).pieces),
  ],
] as const)('refused with %s', (code, one, first, other, second) => {
  expect(spaceCurveOf({ side: one, path: first }, { side: other, path: second }, TOLERANCE)).toMatchObject({
    ok: false,
    code,
  });
});

it('stays in the views when it is moved in both along what they share', () => {
  const { bore, wall } = crossing(60, 35);
  const away = curveOf(
    { side: 'front', path: movedPath(bore, [1, 0, 0, 1, 500, 0]) },
    { side: 'top', path: movedPath(wall, [1, 0, 0, 1, 500, 0]) },
  );
  const here = curveOf({ side: 'front', path: bore }, { side: 'top', path: wall });
  sampled(away).forEach((point, i) =>
    expect(
      distance3(point, [sampled(here)[i]![0] + 500, ...sampled(here)[i]!.slice(1)] as unknown as Vec3),
    ).toBeLessThan(1e-3),
  );
  expect(startOf(wall.pieces[0]!)[0]).toBe(-60);
  expect(endOf(wall.pieces[0]!)[0]).toBeCloseTo(60);
});
