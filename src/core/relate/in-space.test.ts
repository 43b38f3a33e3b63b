/** Relations between planes that stand in the object frame: what they come to, against closed forms. */
import fc from 'fast-check';
import { createRandom } from '../calibrate/simulation';
import { distance, type Vec } from '../geometry';
import { shapeOf, type Chain, type CircleOutline } from '../outline';
import {
  cross3,
  distance3,
  dot3,
  poseFacing,
  scale3,
  sharedDirections,
  SIDES,
  toSpace,
  type Side,
  type Vec3,
} from '../space';
import {
  judgeRelation,
  solvedOutlines,
  solveRelations,
  type Relatable,
  type RelatingPlane,
  type Relation,
  type RelationKind,
} from '.';
import { findLive, missesOf } from './live';

/** Sheets at 10 px a mm, each pointed as well as it says, mm. */
const SIGMA: Readonly<Record<string, number>> = { front: 0.1, right: 0.3, top: 0.2, back: 0.2 };

const onSheet = ([x, y]: Vec): Vec => [x * 10, -y * 10];
const planeOf = (standing: RelatingPlane['standing']): RelatingPlane => ({
  scaled: true,
  toPlane: ([x, y]) => [x / 10, -y / 10],
  freedoms: [],
  knowing: { steadinessIn: () => 1, edgesKnownTo: () => 0 },
  covarianceOf: ({ sigma }) => [sigma ** 2, 0, sigma ** 2],
  standing,
});
const facing = (side: Side) => {
  const pose = poseFacing(side);
  return planeOf({ pose, shows: [pose.x, pose.y], moves: [] });
};

/** A wall that stands on an edge in plan: what is drawn on it lies on it. */
const wall = (origin: Vec3, angle: number) => {
  const [x, y]: [Vec3, Vec3] = [
    [Math.cos(angle), Math.sin(angle), 0],
    [0, 0, 1],
  ];
  return planeOf({ pose: { origin, x, y }, shows: [x, y, cross3(x, y)], moves: [] });
};
const CORNER: Vec3 = [4000, 0, 0];
const WALLS: Readonly<Record<string, RelatingPlane>> = { south: wall([0, 0, 0], 0), east: wall(CORNER, Math.PI / 3) };
const planes = (id: string): RelatingPlane => WALLS[id] ?? facing(id as Side);

const pointed = (at: Vec, sigma: number) => ({ kind: 'pointed' as const, at: onSheet(at), sigma: 10 * sigma });
const chain = (plane: string, nodes: readonly Vec[], id = plane): Chain => ({
  shape: 'chain',
  id,
  layer: 'l',
  plane,
  closed: false,
  nodes: nodes.map((at, i) => ({ id: `n${i}`, place: pointed(at, SIGMA[plane] ?? 1), smooth: false })),
  segments: nodes.slice(1).map(() => ({ kind: 'line' })),
});
const hole = (plane: string, centre: Vec, radius: number): CircleOutline => ({
  shape: 'circle',
  id: `${plane}-hole`,
  layer: 'l',
  plane,
  by: {
    kind: 'rim',
    centre: pointed(centre, SIGMA[plane]!),
    rim: pointed([centre[0] + radius, centre[1]], SIGMA[plane]!),
  },
});
const node = (outline: string, i = 0) => ({ outline, node: `n${i}` });
const line = (outline: string, i = 0) => ({ outline, segment: `n${i}` });
const say = (kind: RelationKind, on: Relation['on'], value?: number, id: string = kind): Relation => ({
  id,
  plane: on[0]!.outline,
  kind,
  on,
  value,
});

/** Where the nodes of solved outlines are, by outline. */
function nodesOf(
  outlines: readonly Relatable[],
  relations: readonly Relation[],
): Readonly<Record<string, readonly Vec[]>> {
  const solved = solveRelations(outlines, relations, planes);
  expect(solved.holds && solved.solution.settled).toBe(true);
  expect(solved.live).toHaveLength(relations.length);
  return Object.fromEntries(
    [...solvedOutlines(solved)].map(([id, outline]) => [
      id,
      shapeOf(outline, { ...planes(outline.plane), scaled: true }).nodes,
    ]),
  );
}

/** The mean of values that are known so well each: what least squares makes of two readings of one thing. */
const weighted = (...all: readonly (readonly [value: number, sigma: number])[]) =>
  all.reduce((sum, [value, sigma]) => sum + value / sigma ** 2, 0) /
  all.reduce((sum, [, sigma]) => sum + 1 / sigma ** 2, 0);

const FRONT = chain('front', [
  [10, 430.2],
  [60, 431],
]);
const RIGHT = chain('right', [
  [25, 429.4],
  [31, 12],
]);
const TOP = chain('top', [
  [59.2, 40],
  [90.5, 44],
]);

it('what is at one height in two views is there at the mean of both, each by how well it was pointed, and moves no other way', () => {
  const { front, right } = nodesOf([FRONT, RIGHT], [say('one-up', [node('front'), node('right')])]);
  const height = weighted([430.2, SIGMA.front!], [429.4, SIGMA.right!]);
  expect(front![0]![1]).toBeCloseTo(height, 9);
  expect(right![0]![1]).toBeCloseTo(height, 9);
  expect([front![0]![0], right![0]![0]]).toEqual([expect.closeTo(10, 9), expect.closeTo(25, 9)]);
  expect(distance(front![1]!, [60, 431])).toBeLessThan(1e-9);
});

it('an edge at the height of a place is level: both its ends lie there', () => {
  const { front, right } = nodesOf([FRONT, RIGHT], [say('one-up', [line('front'), node('right')])]);
  const height = weighted([430.2, SIGMA.front!], [431, SIGMA.front!], [429.4, SIGMA.right!]);
  for (const [, up] of [...front!, right![0]!]) expect(up).toBeCloseTo(height, 9);
});

it('three views agree on a place, each on what it shows', () => {
  const back = chain('back', [[-60.4, 430]]);
  const {
    front,
    right,
    top,
    back: behind,
  } = nodesOf(
    [FRONT, RIGHT, TOP, back],
    [
      say('coincident', [node('front', 1), node('right')], undefined, 'up'),
      say('coincident', [node('front', 1), node('top')], undefined, 'across'),
      say('coincident', [node('right'), node('top')], undefined, 'deep'),
      say('coincident', [node('front', 1), node('back')], undefined, 'both'),
    ],
  );
  const across = weighted([60, SIGMA.front!], [59.2, SIGMA.top!], [60.4, SIGMA.back!]);
  const up = weighted([431, SIGMA.front!], [429.4, SIGMA.right!], [430, SIGMA.back!]);
  const deep = weighted([25, SIGMA.right!], [40, SIGMA.top!]);
  expect(distance(front![1]!, [across, up])).toBeLessThan(1e-9);
  expect(distance(behind![0]!, [-across, up])).toBeLessThan(1e-9);
  expect(distance(right![0]!, [deep, up])).toBeLessThan(1e-9);
  expect(distance(top![0]!, [across, deep])).toBeLessThan(1e-9);
});

it('lengths and radii are as large on whichever planes they lie', () => {
  const holes = [hole('front', [0, 0], 8), hole('right', [5, 5], 8.6)];
  const relations = [say('equal-radius', [{ outline: 'front-hole' }, { outline: 'right-hole' }])];
  const solved = solvedOutlines(solveRelations(holes, relations, planes));
  const radii = [...solved.values()].map((outline) => shapeOf(outline, planes('front')).pieces[0]);
  // A radius has the doubt of two places.
  for (const circle of radii)
    expect(circle).toMatchObject({ radius: expect.closeTo(weighted([8, SIGMA.front!], [8.6, SIGMA.right!]), 6) });
  const { front, top } = nodesOf([FRONT, TOP], [say('equal-length', [line('front'), line('top')])]);
  const drawn = [distance([10, 430.2], [60, 431]), distance([59.2, 40], [90.5, 44])];
  const long = weighted([drawn[0]!, SIGMA.front!], [drawn[1]!, SIGMA.top!]);
  for (const [a, b] of [front!, top!]) expect(distance(a!, b!)).toBeCloseTo(long, 6);
});

it('places of two views are mirror images about a centre line that one of them shows upright', () => {
  const centre = chain(
    'front',
    [
      [35, 0],
      [35.4, 400],
    ],
    'axis',
  );
  const solved = nodesOf([FRONT, TOP, centre], [say('symmetric', [node('front'), node('top'), line('axis')])]);
  const [[left], [right], [foot, head]] = [solved.front!, solved.top!, solved.axis!];
  expect(foot![0]).toBeCloseTo(head![0], 9);
  expect((left![0] + right![0]) / 2).toBeCloseTo(foot![0], 9);
});

it('a back view lies in one line with a front view, as on one plane', () => {
  const back = chain('back', [
    [-70, 431.6],
    [-110, 432.2],
  ]);
  const { front, back: behind } = nodesOf([FRONT, back], [say('collinear', [line('front'), line('back')])]);
  const [a, b] = front as [Vec, Vec];
  for (const [x, y] of behind!) expect((b[0] - a[0]) * (y - a[1])).toBeCloseTo((b[1] - a[1]) * (-x - a[0]), 6);
});

it('ends on the edge that two walls share are one point of it, at one height', () => {
  const [south, east] = [
    chain('south', [
      [1000, 2100],
      [3998, 2102],
    ]),
    chain('east', [
      [3, 2107],
      [900, 2100],
    ]),
  ];
  const solved = nodesOf([south, east], [say('coincident', [node('south', 1), node('east')])]);
  const [a, b] = [
    toSpace(WALLS.south!.standing!.pose, solved.south![1]!),
    toSpace(WALLS.east!.standing!.pose, solved.east![0]!),
  ];
  expect(distance3(a, b)).toBeLessThan(1e-9);
  expect(distance3(a, [CORNER[0], CORNER[1], (2102 + 2107) / 2])).toBeLessThan(1e-6);
});

it('settles within ten steps whatever the hand did', () => {
  const shaken = (seed: number, [x, y]: Vec): Vec => {
    const { normal } = createRandom(seed);
    return [x + 2 * normal(), y + 2 * normal()];
  };
  fc.assert(
    fc.property(fc.nat(), (seed) => {
      const outlines = [FRONT, RIGHT, TOP].map((outline, i) =>
        chain(
          outline.plane,
          outline.nodes.map(({ place }, k) =>
            shaken(seed + 7 * i + k, [(place as { at: Vec }).at[0] / 10, -(place as { at: Vec }).at[1] / 10]),
          ),
        ),
      );
      const { holds, solution } = solveRelations(
        outlines,
        [
          say('one-up', [line('front'), node('right')]),
          say('one-across', [node('front', 1), node('top')]),
          say('one-deep', [node('right'), node('top', 1)]),
        ],
        planes,
      );
      expect(holds && solution.settled).toBe(true);
      expect(solution.steps).toBeLessThanOrEqual(10);
    }),
    { seed: 1, numRuns: 40 },
  );
});

it('what is called straight adds up: its slopes are the same wherever its places lie', () => {
  const outlines = new Map([FRONT, RIGHT, TOP].map((outline) => [outline.id, outline]));
  const place = fc.tuple(fc.integer({ min: -5000, max: 5000 }), fc.integer({ min: -5000, max: 5000 }));
  for (const [relation, count] of [
    [say('one-up', [line('front'), node('right')]), 3],
    [say('coincident', [node('front'), node('top')]), 2],
    [say('symmetric', [node('front'), node('top'), line('front')]), 4],
  ] as const) {
    const live = findLive(relation, outlines, planes)!;
    expect(live.isStraight).toBe(true);
    const places = fc.tuple(...Array.from({ length: count }, () => place));
    fc.assert(
      fc.property(places, places, (one, other) => {
        const sum = one.map(([x, y], i) => [x + other[i]![0], y + other[i]![1]]);
        const [a, b, both, none] = [one, other, sum, one.map(() => [0, 0])].map((at) => missesOf(live, at));
        both!.forEach((miss, i) => expect(miss + none![i]!).toBeCloseTo(a![i]! + b![i]!, 6));
      }),
    );
  }
  // The middle of an arc is no sum of its ends.
  const bow: Chain = {
    ...FRONT,
    id: 'bow',
    segments: [{ kind: 'arc', through: { kind: 'pointed', at: onSheet([35, 440]), sigma: 1 } }],
  };
  const bowed = findLive(say('one-up', [line('bow'), node('right')]), new Map([...outlines, ['bow', bow]]), planes);
  expect(bowed!.isStraight).toBe(false);
  // Lengths bend with their ends, and planes that move turn what lies on them.
  const isStraight = (relation: Relation, on = planes) => findLive(relation, outlines, on)!.isStraight;
  expect(isStraight(say('equal-length', [line('front'), line('top')]))).toBe(false);
  const moving = (id: string): RelatingPlane => {
    const plane = planes(id);
    return { ...plane, standing: { ...plane.standing!, moves: [{ shift: [1, 0, 0], turn: 0.01 }] } };
  };
  expect(isStraight(say('one-up', [node('front'), node('right')]), moving)).toBe(false);
});

describe('what cannot be said', () => {
  const judged = (relation: Relation, held: readonly Relation[] = [], on = planes) =>
    judgeRelation(relation, held, [FRONT, RIGHT, TOP], on);

  it.each([
    ['a direction that one of the views does not show', say('one-across', [node('front'), node('right')])],
    ['what asks for one plane', say('parallel', [line('front'), line('right')])],
    ['a distance', say('distance', [node('front'), node('right')], 5)],
    ['one thing alone', say('one-up', [node('front')])],
  ])('%s', (_, relation) => expect(judged(relation)).toEqual({ kind: 'meaningless' }));

  it('of planes of which nothing says how they stand, but for lengths', () => {
    const unplaced = (id: string) => planeOf(id === 'right' ? undefined : planes(id).standing);
    expect(judged(say('one-up', [node('front'), node('right')]), [], unplaced)).toEqual({ kind: 'meaningless' });
    expect(judged(say('equal-length', [line('front'), line('top')]), [], unplaced)).toEqual({ kind: 'holds' });
  });

  it('of things without a scale', () => {
    const unscaled = (id: string): RelatingPlane => ({ ...planes(id), scaled: id !== 'right' });
    expect(judged(say('equal-length', [line('front'), line('right')]), [], unscaled)).toEqual({ kind: 'meaningless' });
  });
});

it('names what it contradicts, in whichever views that is said, and nothing else', () => {
  const held = [
    say('up', [node('front')], 430, 'front up'),
    say('up', [node('right')], 432, 'right up'),
    say('level', [line('front')]),
    say('across', [node('top')], 59),
  ];
  const relation = say('one-up', [node('front'), node('right')]);
  expect(judgeRelation(relation, held, [FRONT, RIGHT, TOP], planes)).toEqual({
    kind: 'contradicts',
    others: ['front up', 'right up'],
  });
  expect(judgeRelation(relation, held.slice(1), [FRONT, RIGHT, TOP], planes)).toEqual({ kind: 'holds' });
});

describe('directions that planes share', () => {
  const unit = fc
    .tuple(...[0, 1, 2].map(() => fc.integer({ min: -100, max: 100 })))
    .filter((vector) => Math.hypot(...vector) > 30)
    .map((vector) => scale3(vector as unknown as Vec3, 1 / Math.hypot(...vector)));

  it('of two at an angle: the line in which they meet, by the cross product of their normals', () => {
    const basis = (normal: Vec3): readonly Vec3[] => {
      const aside = Math.abs(normal[0]) < 0.7 ? ([1, 0, 0] as const) : ([0, 1, 0] as const);
      const x = cross3(normal, aside);
      const first = scale3(x, 1 / Math.hypot(...x));
      return [first, cross3(normal, first)];
    };
    fc.assert(
      fc.property(unit, unit, (m, n) => {
        const meeting = cross3(m, n);
        fc.pre(Math.hypot(...meeting) > 0.05);
        const [along, ...more] = sharedDirections([basis(m), basis(n)]);
        expect(more).toEqual([]);
        expect(Math.abs(dot3(along!, meeting)) / Math.hypot(...meeting)).toBeCloseTo(1, 9);
      }),
      { seed: 1 },
    );
  });

  it.each(SIDES)('of the %s with itself: the whole plane', (side) => {
    const { x, y } = poseFacing(side);
    expect(
      sharedDirections([
        [x, y],
        [x, y],
      ]),
    ).toHaveLength(2);
  });
});
