import fc from 'fast-check';
import { distance, type Vec } from '../geometry';
import { HOLES, SHEETS } from '../shelf';
import { shapeOf, type Chain, type CircleOutline, type Node, type Shape, type Turn } from '../outline';
import {
  findTurned,
  judgeRelation,
  listFreedoms,
  listMoves,
  listNominals,
  listProposals,
  listSlopes,
  solvedOutlines,
  solveRelations,
  spreadOf,
  outlineAt,
  type Relatable,
  type Relation,
  type RelatingPlane,
  type RelationKind,
} from '.';

const SIGMA = 0.2;
/** A sheet at 10 px a mm, y turned over. */
const plane: RelatingPlane = {
  scaled: true,
  toPlane: ([x, y]) => [x / 10, -y / 10],
  freedoms: [],
  knowing: { steadinessIn: () => 1, edgesKnownTo: () => 0 },
  covarianceOf: ({ sigma }) => [sigma ** 2, 0, sigma ** 2],
};
const pointed = ([x, y]: Vec, px = SIGMA * 10) => ({
  kind: 'pointed' as const,
  at: [x * 10, -y * 10] as Vec,
  sigma: px,
});
const node = (id: string, at: Vec): Node => ({ id, place: pointed(at), smooth: false });
const chain = (id: string, nodes: readonly Vec[], closed = true, arcs: Readonly<Record<number, Vec>> = {}): Chain => ({
  shape: 'chain',
  id,
  layer: 'l',
  plane: 'v',
  closed,
  nodes: nodes.map((at, i) => node(`n${i}`, at)),
  segments: Array.from({ length: closed ? nodes.length : nodes.length - 1 }, (_, i) =>
    arcs[i] ? { kind: 'arc', through: pointed(arcs[i]) } : { kind: 'line' },
  ),
});
const hole = (id: string, centre: Vec, radius: number): CircleOutline => ({
  shape: 'circle',
  id,
  layer: 'l',
  plane: 'v',
  by: { kind: 'rim', centre: pointed(centre), rim: pointed([centre[0] + radius, centre[1]]) },
});
const seg = (outline: string, i: number) => ({ outline, segment: `n${i}` });
let count = 0;
const say = (kind: RelationKind, on: Relation['on'], value?: number): Relation => ({
  id: `r${count++}`,
  plane: 'v',
  kind,
  on,
  value,
});

function shapes(
  outlines: readonly Relatable[],
  relations: readonly Relation[],
  on = plane,
): { held: boolean; of: (id: string) => Shape } {
  const solved = solveRelations(outlines, relations, () => on);
  const put = solvedOutlines(solved);
  return { held: solved.holds, of: (id) => shapeOf(put.get(id)!, { ...on, scaled: true }) };
}

const rough = fc.array(
  fc.tuple(fc.double({ min: -0.3, max: 0.3, noNaN: true }), fc.double({ min: -0.3, max: 0.3, noNaN: true })),
  { minLength: 8, maxLength: 8 },
);
const shaken = (at: readonly Vec[], by: readonly (readonly [number, number])[]): Vec[] =>
  at.map(([x, y], i) => [x + by[i]![0], y + by[i]![1]]);

it('a triangle from three sides has the angles that the law of cosines says, wherever it was pointed (Euclid, Elements II.12 and 13)', () => {
  fc.assert(
    fc.property(rough, (by) => {
      const triangle = chain(
        't',
        shaken(
          [
            [0, 0],
            [60, 0],
            [20, 40],
          ],
          by,
        ),
      );
      const { held, of } = shapes(
        [triangle],
        [say('length', [seg('t', 0)], 60), say('length', [seg('t', 1)], 55), say('length', [seg('t', 2)], 45)],
      );
      const [a, b, c] = of('t').nodes as [Vec, Vec, Vec];
      expect(held).toBe(true);
      expect([distance(a, b), distance(b, c), distance(c, a)]).toEqual([
        expect.closeTo(60, 8),
        expect.closeTo(55, 8),
        expect.closeTo(45, 8),
      ]);
      const cosine = ((b[0] - a[0]) * (c[0] - a[0]) + (b[1] - a[1]) * (c[1] - a[1])) / (60 * 45);
      expect(cosine).toBeCloseTo((60 ** 2 + 45 ** 2 - 55 ** 2) / (2 * 60 * 45), 8);
    }),
    { seed: 1, numRuns: 25 },
  );
});

it('a chain of lines and arcs becomes level, upright and tangent to the last digit, and moves no further than it was badly pointed', () => {
  fc.assert(
    fc.property(rough, (by) => {
      // A slot with round ends: two level lines, two half circles.
      const slot = chain(
        's',
        shaken(
          [
            [0, 0],
            [50, 0],
            [50, 20],
            [0, 20],
          ],
          by,
        ),
        true,
        { 1: [60 + by[4]![0], 10], 3: [-10 + by[5]![0], 10] },
      );
      const relations = [
        say('level', [seg('s', 0)]),
        say('level', [seg('s', 2)]),
        ...[0, 1, 2, 3].map((i) => say('tangent', [seg('s', i), seg('s', (i + 1) % 4)])),
        say('equal-radius', [seg('s', 1), seg('s', 3)]),
      ];
      const solved = solveRelations([slot], relations, () => plane);
      const shape = shapeOf(solvedOutlines(solved).get('s')!, plane);
      expect(solved.holds).toBe(true);
      const [bottom, right, top, left] = shape.pieces;
      if (bottom?.kind !== 'line' || top?.kind !== 'line' || right?.kind !== 'arc' || left?.kind !== 'arc')
        throw new Error('kinds');
      expect(Math.abs(bottom.a[1] - bottom.b[1])).toBeLessThan(1e-9);
      expect(right.centre[0]).toBeCloseTo(bottom.b[0], 8);
      expect(Math.abs(right.sweep)).toBeCloseTo(Math.PI, 8);
      expect(right.radius).toBeCloseTo(left.radius, 8);
      expect(
        Math.max(...listMoves(solved, (outline) => shapeOf(outline, plane)).map((move) => move.distance)),
      ).toBeLessThan(0.9);
    }),
    { seed: 2, numRuns: 25 },
  );
});

it('an arc that leaves a line along it stays tangent to it, and takes a size and a tangent line of its own', () => {
  fc.assert(
    fc.property(rough, (by) => {
      const drawn = chain(
        'e',
        shaken(
          [
            [0, 0],
            [40, 0],
            [52, 12],
            [52, 50],
          ],
          by,
        ),
        false,
      );
      const edge: Chain = { ...drawn, segments: [{ kind: 'line' }, { kind: 'tangent' }, { kind: 'line' }] };
      const { held, of } = shapes(
        [edge],
        [
          say('level', [seg('e', 0)]),
          say('upright', [seg('e', 2)]),
          say('tangent', [seg('e', 1), seg('e', 2)]),
          say('radius', [seg('e', 1)], 12),
        ],
      );
      const [line, arc, up] = of('e').pieces;
      expect(held).toBe(true);
      if (line?.kind !== 'line' || arc?.kind !== 'arc' || up?.kind !== 'line') throw new Error('kinds');
      expect(arc.radius).toBeCloseTo(12, 8);
      expect(arc.centre[0]).toBeCloseTo(line.b[0], 8);
      expect(arc.centre[1]).toBeCloseTo(up.a[1], 8);
      expect(arc.centre[0] + 12).toBeCloseTo(up.a[0], 8);
    }),
    { seed: 4, numRuns: 25 },
  );
});

it('a profile is symmetric about its centre line, with a hole on it of a typed size, and equal spacing along it', () => {
  const outlines = [
    chain(
      'c',
      [
        [0.1, -10],
        [-0.2, 60],
      ],
      false,
    ),
    chain('p', [
      [-20.2, 0.1],
      [20.1, -0.2],
      [14.8, 40.1],
      [-15.3, 39.9],
    ]),
    hole('h', [0.2, 12.1], 4.1),
    hole('i', [-0.1, 20.3], 3.9),
    hole('k', [0.3, 28.2], 4),
  ];
  const centre = seg('c', 0);
  const relations = [
    say('upright', [centre]),
    say('symmetric', [{ outline: 'p', node: 'n0' }, { outline: 'p', node: 'n1' }, centre]),
    say('symmetric', [{ outline: 'p', node: 'n2' }, { outline: 'p', node: 'n3' }, centre]),
    say('on', [{ outline: 'h', node: 'centre' }, centre]),
    say('on', [{ outline: 'k', node: 'centre' }, centre]),
    say('radius', [{ outline: 'h' }], 4),
    say('equal-radius', [{ outline: 'h' }, { outline: 'i' }]),
    say('equal-radius', [{ outline: 'h' }, { outline: 'k' }]),
    say('equal-spacing', [
      { outline: 'h', node: 'centre' },
      { outline: 'i', node: 'centre' },
      { outline: 'k', node: 'centre' },
    ]),
  ];
  const { held, of } = shapes(outlines, relations);
  expect(held).toBe(true);
  const axis = of('c').nodes[0]![0];
  const [a, b, c, d] = of('p').nodes as [Vec, Vec, Vec, Vec];
  expect([a[0] + b[0], c[0] + d[0]]).toEqual([expect.closeTo(2 * axis, 8), expect.closeTo(2 * axis, 8)]);
  expect([a[1] - b[1], c[1] - d[1]]).toEqual([expect.closeTo(0, 8), expect.closeTo(0, 8)]);
  const holes = ['h', 'i', 'k'].map((id) => of(id).pieces[0]!);
  for (const it of holes)
    expect(it).toMatchObject({
      kind: 'arc',
      radius: expect.closeTo(4, 8),
      centre: [expect.closeTo(axis, 7), expect.anything()],
    });
});

it('what was typed while drawing stays exact beside what is related: a length, a displacement, a locked direction', () => {
  const rough = chain(
    'c',
    [
      [0, 0],
      [50, 0.4],
      [50, 30],
      [20, 34],
    ],
    false,
  );
  const at = (id: string) => ({ kind: 'node' as const, id });
  const typed: Chain = {
    ...rough,
    nodes: rough.nodes.map((it, i) => ({
      ...it,
      place: [
        it.place,
        { kind: 'reach' as const, from: at('n0'), length: 50, towards: pointed([49, 0.4]) },
        { kind: 'shifted' as const, from: at('n1'), by: [0, 30] as Vec, seen: [0, 0] as Vec },
        { kind: 'aligned' as const, from: at('n2'), angle: Math.PI, to: pointed([20, 34]) },
      ][i]!,
    })),
  };
  const [a, b, c, d] = shapes([typed], [say('level', [seg('c', 0)])]).of('c').nodes as [Vec, Vec, Vec, Vec];
  expect([b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1], d[1] - c[1]]).toEqual(
    [50, 0, 0, 30, 0].map((value) => expect.closeTo(value, 8)),
  );
  expect(d[0]).toBeCloseTo(20, 6);
});

it('the hand is not blamed for the scale: where the fit is in doubt, a typed length stretches what was traced with it', () => {
  // Scale known to 1 %, points to 0.02 mm: a traced 100 that is typed 101 says that the scale is off.
  const doubtful: RelatingPlane = { ...plane, freedoms: [([x, y]) => [x / 1000, -y / 1000]] };
  const outlines = [
    chain(
      'a',
      [
        [0, 0],
        [100, 0],
      ],
      false,
    ),
    chain(
      'b',
      [
        [0, 50],
        [100, 50],
      ],
      false,
    ),
  ].map((it) => ({
    ...it,
    nodes: it.nodes.map((n) => ({ ...n, place: { ...n.place, sigma: 0.2 } as Node['place'] })),
  }));
  const relations = [say('length', [seg('a', 0)], 101), say('level', [seg('b', 0)])];
  const width = (on: RelatingPlane) => {
    const [p, q] = shapes(outlines, relations, on).of('b').nodes as [Vec, Vec];
    return q[0] - p[0];
  };
  expect(width(doubtful)).toBeGreaterThan(100.9);
  expect(width(plane)).toBeCloseTo(100, 6);
});

it('plus-minus under relations is what comes of pointing again and again (Monte Carlo)', () => {
  let seed = 7;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  const normal = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
  const relations = [
    say('level', [seg('r', 0)]),
    say('upright', [seg('r', 1)]),
    say('level', [seg('r', 2)]),
    say('upright', [seg('r', 3)]),
  ];
  // The scale is known to half a per cent, which relations about shape leave as it is.
  const doubtful: RelatingPlane = { ...plane, freedoms: [([x, y]) => [x * 0.0005, -y * 0.0005]] };
  const scaledBy = (factor: number): RelatingPlane => ({
    ...plane,
    toPlane: ([x, y]) => [(factor * x) / 10, (-factor * y) / 10],
  });
  const trial = (on = scaledBy(1 + 0.005 * normal())) =>
    solveRelations(
      [
        chain(
          'r',
          (
            [
              [0, 0],
              [80, 0],
              [80, 30],
              [0, 30],
            ] as Vec[]
          ).map(([x, y]): Vec => [x + SIGMA * normal(), y + SIGMA * normal()]),
        ),
      ],
      relations,
      () => on,
    );
  const widthOf = (solved: ReturnType<typeof trial>, values = solved.solution.values) => {
    const [a, b] = shapeOf(outlineAt(solved.known.get('r')!, values), plane).nodes as [Vec, Vec];
    return b[0] - a[0];
  };
  const widths = Array.from({ length: 600 }, () => widthOf(trial()));
  const spread = Math.sqrt(widths.reduce((sum, width) => sum + (width - 80) ** 2, 0) / widths.length);
  const solved = trial(plane);
  const { matrix, x, valuesFrom } = spreadOf(solved, [...solved.known.values()], () => doubtful)!;
  const slope = x.map((_, i) => (widthOf(solved, valuesFrom(x.with(i, x[i]! + 1e-4))) - widthOf(solved)) / 1e-4);
  const said = Math.sqrt(
    slope.reduce((sum, a, i) => sum + slope.reduce((inner, b, k) => inner + a * b * matrix.get(i, k), 0), 0),
  );
  // Each side is the mean of two points, so the width is as good as one of them, and as the scale.
  expect(said).toBeCloseTo(Math.hypot(SIGMA, 0.005 * widthOf(solved)), 4);
  expect(Math.abs(spread / said - 1)).toBeLessThan(0.1);
});

/** A frame of n uprights and a base, with relations that repeat each other, and one that cannot be true when `wrong`. */
function randomSet(random: () => number, wrong: boolean) {
  const [w, h] = [40 + 60 * random(), 20 + 40 * random()];
  const outlines = [
    chain(
      'f',
      (
        [
          [0, 0],
          [w, 0],
          [w, h],
          [0, h],
        ] as Vec[]
      ).map(([x, y]): Vec => [x + 0.3 * (random() - 0.5), y + 0.3 * (random() - 0.5)]),
    ),
    hole('h', [w / 2, h / 2], 5),
    hole('i', [w / 3, h / 3], 5.1),
  ];
  const size = (value: number) => Math.round(value);
  const pool = [
    say('level', [seg('f', 0)]),
    say('level', [seg('f', 2)]),
    say('upright', [seg('f', 1)]),
    say('upright', [seg('f', 3)]),
    say('parallel', [seg('f', 0), seg('f', 2)]),
    say('square', [seg('f', 0), seg('f', 1)]),
    say('equal-length', [seg('f', 0), seg('f', 2)]),
    say('length', [seg('f', 0)], size(w)),
    say('length', [seg('f', 2)], size(w)),
    say('equal-radius', [{ outline: 'h' }, { outline: 'i' }]),
    say('radius', [{ outline: 'h' }], 5),
    say('radius', [{ outline: 'i' }], 5),
    say('distance', [seg('f', 0), { outline: 'f', node: 'n2' }], size(h)),
    say('length', [seg('f', 1)], size(h)),
  ];
  const lies = [
    say('length', [seg('f', 2)], size(w) + 3),
    say('radius', [{ outline: 'i' }], 7),
    say('direction', [seg('f', 0)], 0.3),
    say('distance', [seg('f', 0), { outline: 'f', node: 'n2' }], size(h) - 4),
  ];
  const lie = lies[Math.floor(random() * lies.length)]!;
  const mixed = pool
    .map((relation) => ({ relation, order: random() }))
    .sort((a, b) => a.order - b.order)
    .map(({ relation }) => relation);
  return { outlines, held: mixed, last: wrong ? lie : mixed.pop()! };
}

it('200 sets of relations that repeat or contradict each other get the right verdict, and what a wrong one fights cannot be made smaller', () => {
  let seed = 11;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  for (let i = 0; i < 200; i++) {
    const { outlines, held, last } = randomSet(random, i % 4 === 0);
    const verdict = judgeRelation(last, held, outlines, () => plane);
    expect({ i, kind: verdict.kind }).toEqual({ i, kind: i % 4 === 0 ? 'contradicts' : 'holds' });
    if (verdict.kind !== 'contradicts') continue;
    const fighting = held.filter(({ id }) => verdict.others.includes(id));
    expect(solveRelations(outlines, [...fighting, last], () => plane).holds).toBe(false);
    for (const one of fighting)
      expect(solveRelations(outlines, [...fighting.filter((other) => other !== one), last], () => plane).holds).toBe(
        true,
      );
  }
});

it('what cannot hold by itself, so far is it from what was drawn, fights nothing else', () => {
  const box = chain('f', [
    [0, 0],
    [80, 0],
    [80, 30],
    [0, 30],
  ]);
  expect(judgeRelation(say('level', [seg('f', 1)]), [say('level', [seg('f', 0)])], [box], () => plane)).toEqual({
    kind: 'contradicts',
    others: [],
  });
  expect(judgeRelation(say('tangent', [seg('f', 0), seg('f', 1)]), [], [box], () => plane)).toEqual({
    kind: 'meaningless',
  });
});

it('what pointing allows is proposed, and nothing else; what follows already is not proposed again', () => {
  const outlines = [
    chain('f', [
      [0, 0],
      [80, 0.25],
      [80.2, 30],
      [-0.1, 33],
    ]),
    hole('h', [20, 10], 4.05),
    hole('i', [60, 10], 3.98),
  ];
  const found = listProposals(outlines, [], () => plane).map(
    ({ kind, on }) => `${kind} ${on.map((end) => `${end.outline}${end.segment ?? ''}`).join(' ')}`,
  );
  expect(found.sort()).toEqual(['equal-radius h i', 'level fn0', 'upright fn1', 'upright fn3']);
  const held = [say('level', [seg('f', 0)]), say('upright', [seg('f', 1)])];
  expect(
    listProposals(outlines, held, () => plane)
      .map(({ kind }) => kind)
      .sort(),
  ).toEqual(['equal-radius', 'upright']);
});

it('places that mirror each other about a centre line are proposed, each with its own image; what is left of them is proposed no more once it holds', () => {
  const outlines = [
    {
      ...chain(
        'c',
        [
          [0, -10],
          [0, 60],
        ],
        false,
      ),
      aid: true,
    },
    chain('p', [
      [-20.2, 0.1],
      [20.1, -0.2],
      [14.8, 40.1],
      [-15.3, 39.9],
    ]),
    hole('h', [-6, 12.1], 2),
    hole('i', [6.1, 12], 2),
  ];
  const found = listProposals(outlines, [say('upright', [seg('c', 0)])], () => plane).filter(
    ({ kind }) => kind === 'symmetric',
  );
  expect(
    found
      .map(({ on }) =>
        on
          .slice(0, 2)
          .map(({ outline, node = '' }) => outline + node)
          .sort()
          .join(' '),
      )
      .sort(),
  ).toEqual(['h i', 'pn0 pn1', 'pn2 pn3']);
  const held = [say('upright', [seg('c', 0)]), ...found.map(({ kind, on }) => say(kind, on))];
  expect(shapes(outlines, held).held).toBe(true);
  expect(listProposals(outlines, held, () => plane).filter(({ kind }) => kind === 'symmetric')).toEqual([]);
});

it('what is left free is what nothing exact holds: a level line of a typed length moves as one, a fixed corner not at all', () => {
  const ways = (outlines: readonly Relatable[], relations: readonly Relation[]) =>
    listFreedoms(
      outlines,
      relations,
      () => plane,
      solveRelations(outlines, relations, () => plane).solution.values,
    ).map(
      ({ ways: count, along, grows }) =>
        `${count}${along ? ` ${along.map((v) => Math.abs(Number(v.toFixed(3)))).join(' ')}` : ''}${grows ? ' grows' : ''}`,
    );
  const box = chain('f', [
    [0, 0],
    [80, 0.2],
    [80, 30],
    [0, 30],
  ]);
  const frame = [
    say('level', [seg('f', 0)]),
    say('level', [seg('f', 2)]),
    say('upright', [seg('f', 1)]),
    say('upright', [seg('f', 3)]),
  ];
  expect(ways([box], frame)).toEqual(['2', '2', '2', '2']);
  const fixed = [
    ...frame,
    say('across', [{ outline: 'f', node: 'n0' }], 0),
    say('up', [{ outline: 'f', node: 'n0' }], 0),
  ];
  expect(ways([box], fixed)).toEqual(['0', '1 1 0', '2', '1 0 1']);
  expect(ways([box], [...fixed, say('length', [seg('f', 0)], 80), say('length', [seg('f', 2)], 80)])).toEqual([
    '0',
    '0',
    '1 0 1',
    '1 0 1',
  ]);
  expect(
    ways(
      [hole('h', [20, 10], 4), hole('i', [40, 10], 4)],
      [say('concentric', [{ outline: 'h' }, { outline: 'i' }]), say('radius', [{ outline: 'h' }], 4)],
    ),
  ).toEqual(['2', '2 grows']);
});

it('said in other axes everything stays where it is: level becomes upright, or a direction', () => {
  const quarter: Turn = {
    hand: 1,
    angle: (angle) => angle + Math.PI / 2,
    displacement: ([x, y]) => [-y, x],
    place: ([x, y]) => [-y + 3, x + 4],
  };
  const tilted = ([x, y]: Vec): Vec => [x * Math.cos(0.1) - y * Math.sin(0.1), x * Math.sin(0.1) + y * Math.cos(0.1)];
  const slight: Turn = { hand: 1, angle: (angle) => angle + 0.1, displacement: tilted, place: tilted };
  const level = say('level', [seg('f', 0)]);
  expect(findTurned(level, quarter)).toMatchObject({ kind: 'upright' });
  expect(findTurned(level, slight)).toMatchObject({ kind: 'direction', value: expect.closeTo(0.1, 9) });
  expect(findTurned(say('across', [{ outline: 'f', node: 'n0' }], 12), quarter)).toMatchObject({
    kind: 'up',
    value: 16,
  });
  expect(findTurned(say('across', [{ outline: 'f', node: 'n0' }], 0), quarter)).toMatchObject({ kind: 'up', value: 4 });
  expect(findTurned(say('across', [{ outline: 'f', node: 'n0' }], 12), slight)).toBeUndefined();
  // A line has no front, and an angle between two lines no sign.
  const frame = chain('f', [
    [0, 0],
    [80, 0],
    [80, 30],
    [0, 30],
  ]);
  expect(judgeRelation(say('direction', [seg('f', 2)], 0.02), [], [frame], () => plane).kind).toBe('holds');
  expect(judgeRelation(say('angle', [seg('f', 0), seg('f', 3)], 1.55), [], [frame], () => plane).kind).toBe('holds');
});

it('sizes near something round are named, in mm and in inches, and only where that says something', () => {
  expect(listNominals(8.03, 0.05)).toEqual([
    { value: 8, written: '8 mm' },
    { value: 7.9375, written: '5/16 in' },
  ]);
  expect(listNominals(411.7, 0.19)).toEqual([{ value: 412, written: '412 mm' }]);
  expect(listNominals(37.7, 0.1)).toEqual([]);
  // Clearance holes of ISO 273, medium series, from memory; tapping holes by common practice.
  expect(listNominals(6.63, 0.03, HOLES)).toEqual([{ value: 6.6, written: '6.6 mm', name: 'clearance for M6' }]);
  expect(listNominals(9.02, 0.03, HOLES)).toEqual([{ value: 9, written: '9 mm', name: 'clearance for M8' }]);
  expect(listNominals(17.5, 0.05, HOLES)[0]).toEqual({
    value: 17.5,
    written: '17.5 mm',
    name: 'clearance for M16, tapping for M20',
  });
  expect(listNominals(3.35, 0.1, HOLES)).toEqual(listNominals(3.35, 0.1));
  expect(listNominals(18.05, 0.05, SHEETS)).toEqual([{ value: 18, written: '18 mm', name: 'plywood' }]);
  // 12 in 12 is 45°, 3 in 12 is 14.036° (common practice).
  const degrees = Math.PI / 180;
  expect(listSlopes(14.1 * degrees, 0.1 * degrees)).toEqual([
    { value: 14 * degrees, written: '14°' },
    { value: expect.closeTo(14.036 * degrees, 4), written: '3 in 12' },
  ]);
  expect(listSlopes(-44.9 * degrees, 0.2 * degrees)).toEqual([
    { value: -45 * degrees, written: '-45°' },
    { value: expect.closeTo(-45 * degrees, 9), written: '12 in 12' },
  ]);
  expect(listSlopes(14.8 * degrees, 0.5 * degrees)).toEqual([
    { value: 15 * degrees, written: '15°' },
    { value: expect.closeTo(14.036 * degrees, 4), written: '3 in 12' },
  ]);
});
