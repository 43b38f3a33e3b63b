/** How a drawing stands on another plane: against known truth, and what is left where nothing is said. */
import fc from 'fast-check';
import { add, applied, composed, distance, polar, subtract, type Affine, type Vec } from '../geometry';
import type { Thing } from './end';
import type { Hold } from './hold';
import { mapOfPut, type Put } from './put';
import { siteBy, type Siting } from './siting';
import { turnedSiting, type Turn } from './turn';

/** A house of 8 by 6 m in its own plan, a plot with an askew boundary, and two trees. mm */
const HOUSE: readonly Vec[] = [
  [0, 0],
  [8000, 0],
  [8000, 6000],
  [0, 6000],
];
const PLOT: readonly Vec[] = [
  [0, 0],
  [20_000, 5000],
  [18_000, 30_000],
  [-4000, 22_000],
];
const TREES: readonly Vec[] = [
  [3000, 15_000],
  [14_000, 9000],
];
const lines = (corners: readonly Vec[]): readonly Thing[] =>
  corners.map((a, i) => ({ kind: 'piece', piece: { kind: 'line', a, b: corners[(i + 1) % corners.length]! } }));
const places = (all: readonly Vec[]): readonly Thing[] => all.map((at) => ({ kind: 'place', at }));
const THINGS: Readonly<Record<string, readonly Thing[]>> = {
  wall: lines(HOUSE),
  corner: places(HOUSE),
  edge: lines(PLOT),
  post: places(PLOT),
  tree: places(TREES),
};
const find = ({ outline, node }: { readonly outline: string; readonly node?: string | undefined }) =>
  THINGS[outline]?.[Number(node)];
const end = (outline: string, node: number) => ({ outline, node: String(node) });
const hold = (kind: Hold['kind'], own: Hold['own'], to: Hold['to'], value = 0, more: Partial<Hold> = {}): Hold => ({
  id: `${kind}-${own.outline}${own.node}-${to.outline}${to.node}`,
  kind,
  own,
  to,
  value,
  ...more,
});
/** The same holds with what they come to where the house stands so. */
const saidAt = (truth: Put, holds: readonly Hold[]): readonly Hold[] =>
  holds.map((one) => ({ ...one, value: valueAt(one, mapOfPut(truth)) }));
/** What a hold comes to, by geometry of its own. */
function valueAt({ kind, own, to, fromEnd }: Hold, map: Affine): number {
  const lineOf = (thing: Thing | undefined) => {
    if (thing?.kind !== 'piece' || thing.piece.kind !== 'line') throw new Error('no line');
    return thing.piece;
  };
  const placeOf = (thing: Thing | undefined) => {
    if (thing?.kind !== 'place') throw new Error('no place');
    return thing.at;
  };
  const beside = (a: Vec, b: Vec, at: Vec) => {
    const [dx, dy] = subtract(b, a);
    return (dx * (at[1] - a[1]) - dy * (at[0] - a[0])) / Math.hypot(dx, dy);
  };
  const alongFrom = (a: Vec, b: Vec, at: Vec) => {
    const [dx, dy] = subtract(b, a);
    return (dx * (at[0] - a[0]) + dy * (at[1] - a[1])) / Math.hypot(dx, dy);
  };
  const [ours, theirs] = [find(own), find(to)];
  if (kind === 'apart') return distance(applied(map, placeOf(ours)), placeOf(theirs));
  if (kind === 'off' && ours?.kind === 'piece' && theirs?.kind === 'place') {
    const { a, b } = lineOf(ours);
    return beside(applied(map, a), applied(map, b), theirs.at);
  }
  const { a, b } = lineOf(theirs);
  if (kind === 'parallel') {
    const wall = lineOf(ours);
    const turn = Math.atan2(
      ...([1, 0].map((i) => applied(map, wall.b)[i]! - applied(map, wall.a)[i]!) as [number, number]),
    );
    return turn - Math.atan2(b[1] - a[1], b[0] - a[0]);
  }
  const at = applied(map, ours?.kind === 'piece' ? middleOf(lineOf(ours)) : placeOf(ours));
  if (kind === 'off') return beside(a, b, at);
  return fromEnd ? alongFrom(b, a, at) : alongFrom(a, b, at);
}
const middleOf = ({ a, b }: { readonly a: Vec; readonly b: Vec }): Vec => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

const WAYS: readonly (readonly Hold[])[] = [
  // Turned parallel, so far from one edge, so far from another.
  [
    hold('parallel', end('wall', 0), end('edge', 0)),
    hold('off', end('wall', 0), end('edge', 0)),
    hold('off', end('corner', 2), end('edge', 1)),
  ],
  // Slid along the edge that it is parallel to.
  [
    hold('parallel', end('wall', 0), end('edge', 0)),
    hold('off', end('corner', 0), end('edge', 0)),
    hold('along', end('corner', 0), end('edge', 0), 0, { fromEnd: true }),
  ],
  // By tape: two corners from two trees and a post.
  [
    hold('apart', end('corner', 0), end('tree', 0)),
    hold('apart', end('corner', 0), end('tree', 1)),
    hold('apart', end('corner', 2), end('post', 2)),
  ],
  // A tree beside its wall.
  [
    hold('off', end('wall', 1), end('tree', 1)),
    hold('off', end('corner', 0), end('edge', 3)),
    hold('along', end('corner', 3), end('edge', 3)),
  ],
];
const near = (truth: Put, by: Vec, turn: number): Put => ({ at: add(truth.at, by), turn: truth.turn + turn });
const offBy = (map: Affine, truth: Put) =>
  Math.max(...HOUSE.map((corner) => distance(applied(map, corner), applied(mapOfPut(truth), corner))));

it('a house stands where three things that are said put it, from wherever a hand had put it before', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...WAYS),
      fc.double({ min: -0.4, max: 0.4, noNaN: true }),
      fc.tuple(fc.integer({ min: 4000, max: 9000 }), fc.integer({ min: 8000, max: 14_000 })),
      fc.tuple(fc.integer({ min: -800, max: 800 }), fc.integer({ min: -800, max: 800 })),
      fc.double({ min: -0.2, max: 0.2, noNaN: true }),
      (way, turn, at, by, turned) => {
        const truth: Put = { at, turn };
        // Tapes have a mirror image: by them it stands where it was put nearer to.
        const share = way[0]!.kind === 'apart' ? 0.1 : 1;
        const put = near(truth, [share * by[0], share * by[1]], share * turned);
        const sited = siteBy({ holds: saidAt(truth, way), put }, find);
        expect(offBy(sited.map, truth)).toBeLessThan(1e-5);
        expect([sited.slides, sited.turns, sited.lost]).toEqual([undefined, false, []]);
        expect(Math.max(...[...sited.left.values()].map(Math.abs))).toBeLessThan(1e-5);
      },
    ),
    { numRuns: 120 },
  );
});

it('what is not said stays as it was put: it slides along its edge, and there only', () => {
  const [parallel, off] = saidAt({ at: [6000, 9000], turn: 0.1 }, [
    hold('parallel', end('wall', 0), end('edge', 0)),
    hold('off', end('wall', 0), end('edge', 0)),
  ]);
  const holds = [
    { ...parallel!, value: 0 },
    { ...off!, value: 4000 },
  ];
  const along = polar(1, Math.atan2(5000, 20_000));
  const stands = (at: Vec) => siteBy({ holds, put: { at, turn: 0.2 } }, find);
  const here = stands([6000, 9000]);
  expect(here.turns).toBe(false);
  expect((here.slides as Vec).map(Math.abs)).toEqual([expect.closeTo(along[0], 9), expect.closeTo(along[1], 9)]);
  const there = stands(add([6000, 9000], [1000, 300]));
  const moved = subtract(there.put.at, here.put.at);
  // Of a move by hand just that goes through which runs along the edge.
  expect(moved).toEqual([0, 1].map((axis) => expect.closeTo((1000 * along[0] + 300 * along[1]) * along[axis]!, 4)));
  expect(valueAt(holds[1]!, there.map)).toBeCloseTo(4000, 6);
});

it.each([
  ['nothing', [], 'everywhere', true],
  ['one distance', [hold('off', end('corner', 0), end('edge', 0), 3000)], 'along', true],
  ['a direction', [hold('parallel', end('wall', 0), end('edge', 0))], 'everywhere', false],
  [
    'two tapes at one corner',
    [hold('apart', end('corner', 0), end('tree', 0), 5000), hold('apart', end('corner', 0), end('tree', 1), 9000)],
    undefined,
    true,
  ],
] as const)('with %s said, what is free is told', (_, holds, slides, turns) => {
  const sited = siteBy({ holds, put: { at: [6000, 9000], turn: 0.1 } }, find);
  expect([slides === 'along' ? Array.isArray(sited.slides) : sited.slides === slides, sited.turns]).toEqual([
    true,
    turns,
  ]);
});

it('a corner that is said to lie on another lies there, and turns about it', () => {
  const onPost = hold('apart', end('corner', 0), end('post', 0), 0);
  const put: Put = { at: [6000, 9000], turn: 0.2 };
  const free = siteBy({ holds: [onPost], put }, find);
  expect([distance(applied(free.map, HOUSE[0]!), PLOT[0]!) < 1e-6, free.slides, free.turns]).toEqual([
    true,
    undefined,
    true,
  ]);
  const fast = siteBy({ holds: [onPost, hold('parallel', end('wall', 0), end('edge', 0))], put }, find);
  expect([fast.slides, fast.turns, fast.put.turn]).toEqual([undefined, false, expect.closeTo(Math.atan2(5, 20), 9)]);
});

it('what contradicts itself is shared by least squares, and what is left over is told; a rougher figure takes more of it', () => {
  const parallel = hold('parallel', end('wall', 0), end('edge', 0));
  const [from, to] = [
    hold('off', end('corner', 0), end('edge', 0), 4000),
    hold('off', end('corner', 3), end('edge', 0), 10_030),
  ];
  const put: Put = { at: [6000, 9000], turn: 0.2 };
  // The wall between the two is 6 m long.
  const { left } = siteBy({ holds: [parallel, from, to], put }, find);
  expect([left.get(from.id), left.get(to.id), left.get(parallel.id)]).toEqual([
    expect.closeTo(15, 1),
    expect.closeTo(-15, 1),
    expect.closeTo(0, 1),
  ]);
  const rough = siteBy({ holds: [parallel, from, { ...to, plusMinus: 50 }], put }, find).left;
  expect(Math.abs(rough.get(from.id)!)).toBeLessThan(0.01);
  expect(rough.get(to.id)).toBeCloseTo(-30, 1);
});

it('least squares of more tapes than are needed: no small move makes it better', () => {
  const truth: Put = { at: [6000, 9000], turn: 0.1 };
  const tapes = saidAt(
    truth,
    [0, 1, 2, 3].flatMap((corner) => [
      hold('apart', end('corner', corner), end('tree', 0)),
      hold('apart', end('corner', corner), end('post', (corner + 2) % 4)),
    ]),
  ).map((one, i) => ({
    ...one,
    value: one.value + [12, -7, 4, 15, -9, -3, 8, -6][i]!,
    plusMinus: 10 + 5 * i,
  }));
  const sited = siteBy({ holds: tapes, put: near(truth, [300, -200], 0.05) }, find);
  const cost = (put: Put) =>
    tapes.reduce((sum, tape) => sum + ((valueAt(tape, mapOfPut(put)) - tape.value) / tape.plusMinus) ** 2, 0);
  const best = cost(sited.put);
  expect(best).toBeGreaterThan(0);
  for (const [x, y, turn] of [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1e-4],
    [1, 1, -1e-4],
  ] as const)
    for (const way of [1, -1]) expect(cost(near(sited.put, [way * x, way * y], way * turn))).toBeGreaterThan(best);
});

it('ends that are gone, or of another kind now, hold nothing and are named', () => {
  const bent = hold('parallel', end('wall', 0), end('post', 0));
  const gone = hold('apart', end('corner', 9), end('tree', 0), 100);
  const put: Put = { at: [1, 2], turn: 0.3 };
  const sited = siteBy({ holds: [bent, gone], put }, find);
  expect(sited.lost).toEqual([bent.id, gone.id]);
  expect(sited.put).toEqual({ at: [expect.closeTo(1, 9), expect.closeTo(2, 9)], turn: expect.closeTo(0.3, 12) });
});

describe('other axes', () => {
  const siting: Siting = { id: 's', plane: 'site', of: 'plan', holds: [], put: { at: [6000, 9000], turn: 0.4 } };
  const turnBy = (angle: number, zero: Vec): Turn => {
    const map = mapOfPut({ at: [0, 0], turn: angle });
    return {
      displacement: (by) => applied(map, by),
      place: (at) => applied(map, subtract(at, zero)),
      angle: (other) => other + angle,
      hand: 1,
    };
  };
  const asMap = (turn: Turn): Affine =>
    [...turn.displacement([1, 0]), ...turn.displacement([0, 1]), ...turn.place([0, 0])] as unknown as Affine;

  it('whichever of its planes turns or begins elsewhere, it stands where it stood on the thing', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.tuple(fc.integer({ min: -5000, max: 5000 }), fc.integer({ min: -5000, max: 5000 })),
        fc.tuple(fc.integer({ min: 0, max: 8000 }), fc.integer({ min: 0, max: 6000 })),
        (angle, zero, at) => {
          const turn = turnBy(angle, zero);
          const before = applied(mapOfPut(siting.put), at);
          const onSite = mapOfPut(turnedSiting(siting, turn, 'site').put);
          expect(distance(applied(onSite, at), turn.place(before))).toBeLessThan(1e-6);
          const ofPlan = mapOfPut(turnedSiting(siting, turn, 'plan').put);
          expect(distance(applied(composed(ofPlan, asMap(turn)), at), before)).toBeLessThan(1e-6);
        },
      ),
    );
  });

  it('where left and right are exchanged it stands on the other hand of edges', () => {
    const holds = [
      hold('parallel', end('wall', 0), end('edge', 0), 0.2),
      hold('off', end('wall', 0), end('edge', 0), 3000),
      hold('apart', end('corner', 0), end('tree', 0), 500),
    ];
    const flip: Turn = {
      place: ([x, y]) => [-x, y],
      displacement: ([x, y]) => [-x, y],
      angle: (angle) => Math.PI - angle,
      hand: -1,
    };
    expect(turnedSiting({ ...siting, holds }, flip, 'site').holds.map(({ value }) => value)).toEqual([
      -0.2, -3000, 500,
    ]);
  });
});
