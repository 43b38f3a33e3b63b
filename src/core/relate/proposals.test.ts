/** What is proposed never harms: as it would be solved, no place moves farther than the picture allows, and after taking all nothing is left to take. */
import type { Vec } from '../geometry';
import { shapeOf, type Chain, type CircleOutline } from '../outline';
import type { Random } from '../basics';
import { createRandom } from '../calibrate/simulation';
import { listFarthest, TOO_FAR } from './solve-relations';
import {
  foreseeMoves,
  listMoves,
  listProposals,
  solvedOutlines,
  solveRelations,
  type Move,
  type Relatable,
  type Relation,
  type RelatingPlane,
} from '.';

const SIGMA = 0.2;
/** A sheet at 10 px a mm whose scale is in doubt by 2 %: room for sizes, none for shapes. */
const plane: RelatingPlane = {
  scaled: true,
  toPlane: ([x, y]) => [x / 10, -y / 10],
  knowing: { steadinessIn: () => 1, edgesKnownTo: () => 0 },
  covarianceOf: ({ sigma }) => [sigma ** 2, 0, sigma ** 2],
  freedoms: [([x, y]) => [(0.02 * x) / 10, (-0.02 * y) / 10], ([x, y]) => [(0.01 * y) / 10, (0.01 * x) / 10]],
};
const pointed = ([x, y]: Vec) => ({ kind: 'pointed' as const, at: [x * 10, -y * 10] as Vec, sigma: SIGMA * 10 });
const chain = (id: string, nodes: readonly Vec[], closed = true): Chain => ({
  shape: 'chain',
  id,
  layer: 'l',
  plane: 'v',
  closed,
  nodes: nodes.map((at, i) => ({ id: `n${i}`, place: pointed(at), smooth: false })),
  segments: Array.from({ length: closed ? nodes.length : nodes.length - 1 }, () => ({ kind: 'line' })),
});
const hole = (id: string, centre: Vec, radius: number): CircleOutline => ({
  shape: 'circle',
  id,
  layer: 'l',
  plane: 'v',
  by: { kind: 'rim', centre: pointed(centre), rim: pointed([centre[0] + radius, centre[1]]) },
});
const asTaken = (outlines: readonly Relatable[], held: readonly Relation[] = []): Relation[] => [
  ...held,
  ...listProposals(outlines, held, () => plane).map(({ kind, on }, i) => ({
    id: `p${held.length + i}`,
    plane: 'v',
    kind,
    on,
  })),
];
const named = (relations: readonly { kind: string; on: Relation['on'] }[]) =>
  relations.map(({ kind, on }) => `${kind} ${on.map((end) => `${end.outline}${end.segment ?? ''}`).join(' ')}`).sort();

/** A plate with a step and two holes, a little askew in all its parts: some of that is the hand's, some is how it is made. */
function drawn(random: Random): Relatable[] {
  const off = (share: number) => share * random.normal();
  const [turn, made] = [off(0.02), 0.6 * random.uniform()];
  const at = ([x, y]: Vec): Vec => [
    x * Math.cos(turn) - y * Math.sin(turn) + off(SIGMA) + off(made),
    x * Math.sin(turn) + y * Math.cos(turn) + off(SIGMA) + off(made),
  ];
  return [
    chain(
      'f',
      (
        [
          [0, 0],
          [80, 0],
          [80, 30],
          [50, 30],
          [50, 42],
          [0, 42],
        ] as Vec[]
      ).map(at),
    ),
    chain(
      'g',
      (
        [
          [95, 0],
          [130, 0],
        ] as Vec[]
      ).map(at),
      false,
    ),
    hole('h', at([15, 12]), 4 + off(SIGMA) + off(made)),
    hole('i', at([65, 12]), 4 + off(SIGMA)),
  ];
}

it('taking all of it moves no place farther than the picture allows, and leaves nothing to take', () => {
  const random = createRandom(7);
  let taken = 0;
  for (let i = 0; i < 40; i++) {
    const outlines = drawn(random);
    const relations = asTaken(outlines);
    taken += relations.length;
    // Shape alone is said: it is solved without the doubts of the fit.
    const solved = solveRelations(outlines, relations, () => ({ ...plane, freedoms: [] }));
    expect(solved.holds).toBe(true);
    expect(Math.max(0, ...listFarthest(solved).map(({ sigmas }) => sigmas))).toBeLessThanOrEqual(TOO_FAR);
    expect(named(listProposals(outlines, relations, () => plane))).toEqual([]);
  }
  expect(taken).toBeGreaterThan(120);
});

it('the fit’s own doubt is no room for a shape: a corner 3.5 mm out of square stays there though the scale is good to 2 % only', () => {
  const outlines = [
    chain('f', [
      [0, 0],
      [200, 0],
      [200, 100],
      [3.5, 100],
    ]),
  ];
  const relations = asTaken(outlines);
  expect(named(relations)).not.toContain('upright fn3');
  const moves = listMoves(
    solveRelations(outlines, relations, () => ({ ...plane, freedoms: [] })),
    (outline) => shapeOf(outline, plane),
  );
  expect(Math.max(...moves.map((move) => move.distance))).toBeLessThan(0.1);
});

it('what taking all would move is foreseen, place by place', () => {
  const outlines = drawn(createRandom(11));
  const shape = (outline: Relatable) => shapeOf(outline, plane);
  const foreseen = foreseeMoves(
    listProposals(outlines, [], () => plane),
    outlines,
    [],
    () => plane,
    shape,
  );
  const moved = listMoves(
    solveRelations(outlines, asTaken(outlines), () => ({ ...plane, freedoms: [] })),
    shape,
  );
  expect(Math.max(...foreseen.map((move) => move.distance))).toBeGreaterThan(0.05);
  const near = ({ at, distance: by, sigmas, ...where }: Move) => ({
    ...where,
    at: at.map((value) => expect.closeTo(value, 9)),
    distance: expect.closeTo(by, 9),
    sigmas: expect.closeTo(sigmas, 9),
  });
  expect(foreseen).toEqual(moved.map(near));
});

it('a part that lies 2° askew has no blind zone: its edges are parallel, square, and in one line across a gap', () => {
  const turn = (2 * Math.PI) / 180;
  const at = ([x, y]: Vec): Vec => [x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn)];
  const outlines = [
    chain(
      'f',
      (
        [
          [0, 0],
          [80.1, 0.1],
          [80, 30],
          [0.1, 30.2],
        ] as Vec[]
      ).map(at),
    ),
    chain(
      'g',
      (
        [
          [95, 0.1],
          [130, -0.1],
        ] as Vec[]
      ).map(at),
      false,
    ),
  ];
  const relations = asTaken(outlines);
  expect(relations.some(({ kind }) => kind === 'level' || kind === 'upright')).toBe(false);
  const kinds = new Set(relations.map(({ kind }) => kind));
  expect([...kinds].sort()).toEqual(['collinear', 'parallel', 'square']);
  const put = solvedOutlines(solveRelations(outlines, relations, () => ({ ...plane, freedoms: [] })));
  const [a, b] = ['f', 'g'].map((id) => shapeOf(put.get(id)!, { ...plane, scaled: true }).nodes as readonly Vec[]) as [
    readonly Vec[],
    readonly Vec[],
  ];
  const slope = (p: Vec, q: Vec) => Math.atan2(q[1] - p[1], q[0] - p[0]);
  expect(slope(a[0]!, a[1]!)).toBeCloseTo(slope(b[0]!, b[1]!), 9);
  expect(slope(a[0]!, b[1]!)).toBeCloseTo(slope(a[0]!, a[1]!), 9);
});

it('lines that are said to be so far apart are parallel by that, on the side on which they lie', () => {
  const outlines = [
    chain('f', [
      [0, 0],
      [80, 0.3],
      [79.8, 30],
      [0.2, 30.4],
    ]),
  ];
  const seg = (i: number) => ({ outline: 'f', segment: `n${i}` });
  const solved = solveRelations(
    outlines,
    [{ id: 'd', plane: 'v', kind: 'distance', on: [seg(0), seg(2)], value: 32 }],
    () => plane,
  );
  const [a, b, c, d] = shapeOf(solvedOutlines(solved).get('f')!, { ...plane, scaled: true }).nodes as [
    Vec,
    Vec,
    Vec,
    Vec,
  ];
  const off = (at: Vec) =>
    ((b[0] - a[0]) * (at[1] - a[1]) - (b[1] - a[1]) * (at[0] - a[0])) / Math.hypot(b[0] - a[0], b[1] - a[1]);
  expect(solved.holds).toBe(true);
  expect([off(c), off(d)]).toEqual([expect.closeTo(32, 8), expect.closeTo(32, 8)]);
});
