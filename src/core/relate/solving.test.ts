/** The search for where relations hold: how many steps it takes, and that it ends where chi-square is least. */
import fc from 'fast-check';
import { SingularValueDecomposition } from 'ml-matrix';
import { createRandom } from '../calibrate/simulation';
import { freeMatrix, layOut, linearize, type Values } from '../adjust';
import { distance, type Vec } from '../geometry';
import { shapeOf, type Chain, type CircleOutline } from '../outline';
import { directionOfOne, RELATION_KINDS } from './relation';
import {
  solvedOutlines,
  solveRelations,
  spreadOf,
  type Relatable,
  type Relation,
  type RelatingPlane,
  type RelationKind,
  type Solved,
} from '.';

/** A sheet at 10 px a mm, pointed to 0.2 mm. */
const plane: RelatingPlane = {
  scaled: true,
  toPlane: ([x, y]) => [x / 10, -y / 10],
  freedoms: [],
  knowing: { steadinessIn: () => 1, edgesKnownTo: () => 0 },
  covarianceOf: ({ sigma }) => [sigma ** 2, 0, sigma ** 2],
};
const SIGMA = 0.2;
const pointed = ([x, y]: Vec) => ({ kind: 'pointed' as const, at: [x * 10, -y * 10] as Vec, sigma: 10 * SIGMA });
const chain = (id: string, nodes: readonly Vec[], closed = false): Chain => ({
  shape: 'chain',
  id,
  layer: 'l',
  plane: 'v',
  closed,
  nodes: nodes.map((at, i) => ({ id: `n${i}`, place: pointed(at), smooth: false })),
  segments: Array.from({ length: nodes.length - (closed ? 0 : 1) }, () => ({ kind: 'line' })),
});
const hole = (id: string, centre: Vec, radius: number): CircleOutline => ({
  shape: 'circle',
  id,
  layer: 'l',
  plane: 'v',
  by: { kind: 'rim', centre: pointed(centre), rim: pointed([centre[0] + radius, centre[1]]) },
});
const line = (outline: string, i = 0) => ({ outline, segment: `n${i}` });
const end = (outline: string, node = 'n0') => ({ outline, node });
const round = (outline: string) => ({ outline });
const say = (kind: RelationKind, on: Relation['on'], value?: number, id: string = kind): Relation => ({
  id,
  plane: 'v',
  kind,
  on,
  value,
});

/** Lines and holes that nearly stand as each kind says. */
const DRAWN: Readonly<Record<string, readonly Vec[]>> = {
  a: [
    [0, 0],
    [40, 1.2],
  ],
  b: [
    [5, 30],
    [60, 31.3],
  ],
  c: [
    [70, 0],
    [72, 50],
  ],
  d: [
    [50, 1],
    [90, 1.4],
  ],
  e: [
    [1, -40],
    [139, -10],
  ],
};
const HOLES: Readonly<Record<string, readonly [Vec, number]>> = {
  h: [[30, 38.5], 8],
  k: [[60.5, 42], 22],
  m: [[92, 45], 9],
};
const SAID: readonly Relation[] = [
  say('level', [line('a')]),
  say('upright', [line('c')]),
  say('parallel', [line('a'), line('b')]),
  say('square', [line('a'), line('c')]),
  say('collinear', [line('a'), line('d')]),
  say('tangent', [line('b'), round('h')]),
  say('tangent', [round('h'), round('k')]),
  say('concentric', [round('h'), end('b', 'n0')]),
  say('coincident', [end('a', 'n1'), end('d')]),
  say('on', [end('b', 'n1'), round('k')]),
  say('on', [end('a', 'n1'), line('d')]),
  say('middle', [end('a', 'n1'), line('e')]),
  say('equal-length', [line('a'), line('d')]),
  say('equal-radius', [round('h'), round('m')]),
  say(
    'equal-spacing',
    ['h', 'k', 'm'].map((id) => end(id, 'centre')),
  ),
  say('symmetric', [end('a'), end('e', 'n1'), line('c')]),
  say('length', [line('a')], 42),
  say('radius', [round('h')], 9),
  say('angle', [line('a'), line('c')], 1.5),
  say('direction', [line('e')], 0.25),
  say('distance', [line('a'), line('b')], 29),
  say('distance', [end('h', 'centre'), end('k', 'centre')], 32),
  say('distance', [line('a'), end('h', 'centre')], 37),
  say('across', [end('a')], 2),
  say('up', [end('a')], 2),
];

function drawnFor({ on }: Relation, seed: number): Relatable[] {
  const { normal } = createRandom(seed);
  const shaken = ([x, y]: Vec): Vec => [x + 0.4 * normal(), y + 0.4 * normal()];
  return [...new Set(on.map(({ outline }) => outline))].map((id) =>
    DRAWN[id] ? chain(id, DRAWN[id].map(shaken)) : hole(id, shaken(HOLES[id]![0]), HOLES[id]![1] + 0.3 * normal()),
  );
}

it('there is one of every kind here that is said on one plane', () =>
  expect(new Set(SAID.map(({ kind }) => kind))).toEqual(
    new Set(RELATION_KINDS.filter((kind) => !directionOfOne(kind))),
  ));

it.each(SAID.map((said) => [said.kind, said.on.map(({ outline }) => outline).join(' '), said] as const))(
  '%s of %s settles within ten steps, whatever the hand did',
  (_, __, said) => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const { holds, solution } = solveRelations(drawnFor(said, seed), [said], () => plane);
        expect(holds && solution.settled).toBe(true);
        expect(solution.steps).toBeLessThanOrEqual(10);
      }),
      { seed: 1, numRuns: 25 },
    );
  },
);

it('a length of 101 on a traced 100 settles at once, half of it at either end', () => {
  for (const turn of [0, 0.3, 1.2, 2.9]) {
    const solved = solveRelations(
      [
        chain('t', [
          [0, 0],
          [100 * Math.cos(turn), 100 * Math.sin(turn)],
        ]),
      ],
      [say('length', [line('t')], 101)],
      () => plane,
    );
    expect(solved).toMatchObject({
      holds: true,
      solution: { settled: true, chiSquare: expect.closeTo(2 * (0.5 / SIGMA) ** 2, 6) },
    });
    expect(solved.solution.steps).toBeLessThan(5);
  }
});

/** A ring of nodes that was pointed unevenly. */
function ring(count: number, seed: number): Chain {
  const { normal } = createRandom(seed);
  return chain(
    'z',
    Array.from({ length: count }, (_, i) => {
      const [radius, turn] = [100 + 0.1 * normal(), (i / count) * 2 * Math.PI];
      return [radius * Math.cos(turn), radius * Math.sin(turn)];
    }),
    true,
  );
}

it.each([60, 119])(
  '120 nodes with %i equal lengths, one after the other, settle, and no length is left out',
  (count) => {
    const outline = ring(120, 5);
    const solved = solveRelations(
      [outline],
      Array.from({ length: count }, (_, i) =>
        say('equal-length', [line('z', i), line('z', i + 1)], undefined, `r${i}`),
      ),
      () => plane,
    );
    expect(solved).toMatchObject({ holds: true, solution: { settled: true } });
    expect(solved.solution.steps).toBeLessThan(10);
    const { nodes } = shapeOf(solvedOutlines(solved).get('z')!, { ...plane, scaled: true });
    const lengths = nodes.map((at, i) => distance(at, nodes[(i + 1) % nodes.length]!)).slice(0, count + 1);
    expect(Math.max(...lengths) - Math.min(...lengths)).toBeLessThan(1e-9);
    // So many combinations of the nodes are held for good: their covariance has as many directions less.
    const { diagonal } = new SingularValueDecomposition(spreadOf(solved, [outline], () => plane)!.matrix);
    expect(diagonal.filter((value) => value > 1e-9 * diagonal[0]!)).toHaveLength(240 - count);
  },
);

/** How much chi-square still falls along what the exact equations leave free (their null space, by singular values), against how steep it is at all. */
function steepness({ problem, solution: { values } }: Solved): number {
  const layout = layOut(problem.blocks);
  const exact = { ...problem, conditions: problem.conditions.filter((condition) => condition.exact) };
  const held = freeMatrix(linearize(exact, layout, values), layout);
  const chiSquare = (at: Values) =>
    problem.conditions
      .filter(({ exact }) => !exact)
      .reduce(
        (sum, { blocks, residuals }) =>
          sum + residuals(blocks.map((id) => at.get(id)!)).reduce((total, each) => total + each * each, 0),
        0,
      );
  const slope = problem.blocks.flatMap(({ id }) =>
    values.get(id)!.map((value, k) => {
      const at = (by: number) =>
        chiSquare(new Map([...values, [id, values.get(id)!.map((other, i) => (i === k ? value + by : other))]]));
      return (at(1e-3) - at(-1e-3)) / 2e-3;
    }),
  );
  const { rightSingularVectors, diagonal } = new SingularValueDecomposition(held, {
    autoTranspose: true,
  });
  const rank = diagonal.filter((value) => value > 1e-9 * diagonal[0]!).length;
  const along = (column: number) =>
    rightSingularVectors.getColumn(column).reduce((sum, share, i) => sum + share * slope[i]!, 0);
  const heldShare = Math.hypot(...Array.from({ length: rank }, (_, column) => along(column)));
  return Math.sqrt(Math.max(0, Math.hypot(...slope) ** 2 - heldShare ** 2)) / Math.hypot(...slope);
}

it('chi-square is least where it ends: nothing that is left free leads lower', () => {
  fc.assert(
    fc.property(fc.nat(), fc.shuffledSubarray([...SAID], { minLength: 1, maxLength: 5 }), (seed, relations) => {
      const outlines = [
        ...new Map(
          relations.flatMap((relation) => drawnFor(relation, seed)).map((outline) => [outline.id, outline]),
        ).values(),
      ];
      const solved = solveRelations(outlines, relations, () => plane);
      fc.pre(solved.holds && solved.solution.settled);
      expect(steepness(solved)).toBeLessThan(1e-4);
    }),
    { seed: 2, numRuns: 60 },
  );
});
