import fc from 'fast-check';
import { distance, dot, endOf, pointAt, startOf, subtract, tangentAt, type Piece, type Vec } from '../geometry';
import {
  checkShapes,
  copiedOutline,
  draggedOutline,
  findClosed,
  findGuideLine,
  findPosition,
  findWithoutNode,
  joinedChains,
  listPointed,
  listSnaps,
  placingOf,
  reversedChain,
  shapeOf,
  shiftedOutline,
  withHandle,
  withNodeOn,
  withSmooth,
  type Chain,
  type Editing,
  type Node,
  type Place,
  type Placing,
  type Segment,
  type SegmentKind,
} from '.';

/** A sheet of 10 px/mm, y turned over, its zero at (0, 1000) px. */
const placing: Omit<Placing, 'nodeAt'> = { scaled: true, toPlane: ([x, y]) => [x / 10, (1000 - y) / 10] };
const toSheet = ([x, y]: Vec): Vec => [x * 10, 1000 - y * 10];
let count = 0;
const editing: Editing = { toSheet, newId: () => `new-${count++}`, sigma: 0.5 };

const pointed = (x: number, y: number): Place => ({ kind: 'pointed', at: toSheet([x, y]), sigma: 1 });
const node = (id: string, place: Place, smooth = true): Node => ({ id, place, smooth });

function chain(places: readonly (readonly [number, number])[], kinds: readonly SegmentKind[], closed = false): Chain {
  return {
    shape: 'chain',
    id: 'c',
    layer: 'l',
    plane: 'v',
    closed,
    nodes: places.map(([x, y], i) => node(`n${i}`, pointed(x, y))),
    segments: kinds.map((kind, i): Segment =>
      kind === 'arc'
        ? { kind, through: pointed((places[i]![0] + places[(i + 1) % places.length]![0]) / 2, places[i]![1] + 5) }
        : { kind },
    ),
  };
}

describe('places', () => {
  const withNodes = (nodes: readonly Node[], plain: Omit<Placing, 'nodeAt'> = placing) =>
    placingOf({ ...chain([], []), nodes }, plain);
  it('keep what was typed and follow what was pointed', () => {
    const a = node('a', pointed(10, 10));
    const typed: Place = { kind: 'shifted', from: { kind: 'node', id: 'a' }, by: [7.9375, 0], seen: [0, 0] };
    expect(findPosition(typed, withNodes([a]))).toEqual([17.9375, 10]);
    const doubled = withNodes([a], { ...placing, toPlane: ([x, y]) => [x / 5, (1000 - y) / 5] });
    expect(findPosition(typed, doubled)).toEqual([27.9375, 20]);
  });

  it('stand level and upright exactly, whatever was pointed', () => {
    const level: Place = {
      kind: 'aligned',
      from: pointed(3, 4),
      angle: 0,
      to: { kind: 'pointed', at: toSheet([20, 4.3]), sigma: 1 },
    };
    expect(findPosition(level, withNodes([]))).toEqual([20, 4]);
    const reach: Place = {
      kind: 'reach',
      from: pointed(0, 0),
      length: 5,
      towards: { kind: 'pointed', at: toSheet([30, 40]), sigma: 1 },
    };
    expect(distance(findPosition(reach, withNodes([]))!, [3, 4])).toBeLessThan(1e-12);
  });

  it('are drawn where they were seen while there is no scale', () => {
    const typed: Place = { kind: 'shifted', from: pointed(0, 0), by: [9, 9], seen: [50, 900] };
    expect(findPosition(typed, { ...withNodes([]), scaled: false })).toEqual([5, 10]);
  });

  it('come back undefined when they lean on themselves or on nothing', () => {
    const loop = node('a', { kind: 'shifted', from: { kind: 'node', id: 'a' }, by: [1, 0], seen: [0, 0] });
    expect(findPosition(loop.place, withNodes([loop]))).toBeUndefined();
    expect(findPosition({ kind: 'node', id: 'gone' }, withNodes([]))).toBeUndefined();
    // Half-way between itself and itself, from node to node: each is asked for once, not twice as often at every step.
    const halves = Array.from({ length: 60 }, (_, i): Node =>
      node(`n${i}`, {
        kind: 'middle',
        a: { kind: 'node', id: `n${(i + 1) % 60}` },
        b: { kind: 'node', id: `n${(i + 1) % 60}` },
      }),
    );
    expect(findPosition({ kind: 'node', id: 'n0' }, withNodes(halves))).toBeUndefined();
    expect(listPointed(halves[0]!.place, (id) => halves.find((other) => other.id === id)?.place, new Set())).toEqual(
      [],
    );
  });

  it('typed one after the other stand where they were typed, however many', () => {
    const typed = Array.from({ length: 5000 }, (_, i): Node =>
      node(
        `n${i}`,
        i === 0
          ? pointed(0, 0)
          : { kind: 'shifted', from: { kind: 'node', id: `n${i - 1}` }, by: [1, 0.5], seen: [0, 0] },
      ),
    );
    const { nodes, faults } = shapeOf(
      { ...chain([], []), nodes: typed, segments: typed.slice(1).map(() => ({ kind: 'line' })) },
      placing,
    );
    expect([faults, nodes.at(-1)]).toEqual([[], [4999, 2499.5]]);
  });
});

describe('shapes', () => {
  it('join every piece to the next, with tangent arcs tangent', () => {
    const shape = shapeOf(
      chain(
        [
          [0, 0],
          [20, 0],
          [30, 10],
          [50, 10],
          [60, 30],
          [10, 40],
        ],
        ['line', 'tangent', 'curve', 'curve', 'arc', 'line'],
        true,
      ),
      placing,
    );
    shape.pieces.forEach((piece, i) =>
      expect(distance(endOf(piece), startOf(shape.pieces[(i + 1) % shape.pieces.length]!))).toBeLessThan(1e-9),
    );
    expect(dot(tangentAt(shape.pieces[0]!, 1), tangentAt(shape.pieces[1]!, 0))).toBeCloseTo(1, 12);
    expect(dot(tangentAt(shape.pieces[1]!, 1), tangentAt(shape.pieces[2]!, 0))).toBeCloseTo(1, 9);
    expect(dot(tangentAt(shape.pieces[2]!, 1), tangentAt(shape.pieces[3]!, 0))).toBeCloseTo(1, 12);
  });

  it('break at a corner and are smooth again when asked', () => {
    const curve = chain(
      [
        [0, 0],
        [20, 10],
        [40, 0],
      ],
      ['curve', 'curve'],
    );
    const turn = (of: Chain) => {
      const [a, b] = shapeOf(of, placing).pieces;
      return dot(tangentAt(a!, 1), tangentAt(b!, 0));
    };
    expect(turn(withSmooth(curve, 'n1', false))).toBeLessThan(0.9);
    expect(turn(withSmooth(withSmooth(curve, 'n1', false), 'n1', true))).toBeCloseTo(1, 12);
  });

  it('turn the other handle of a smooth node along and keep its length', () => {
    const curve = withHandle(
      chain(
        [
          [0, 0],
          [20, 10],
          [40, 0],
        ],
        ['curve', 'curve'],
      ),
      'n1',
      'out',
      [30, -40],
      [-20, 0],
    );
    const [a, b] = shapeOf(curve, placing).pieces;
    if (a?.kind !== 'cubic' || b?.kind !== 'cubic') throw new Error('kind');
    expect(subtract(b.b, b.a)).toEqual([3, 4]);
    expect(distance(a.c, a.d)).toBeCloseTo(2, 12);
    expect(dot(tangentAt(a, 1), tangentAt(b, 0))).toBeCloseTo(1, 12);
  });

  it('say what has no shape instead of drawing nonsense', () => {
    const straight: Chain = {
      ...chain(
        [
          [0, 0],
          [10, 0],
        ],
        ['line'],
      ),
      segments: [{ kind: 'arc', through: pointed(5, 0) }],
    };
    expect(shapeOf(straight, placing).faults).toEqual([{ segment: 0, fault: 'arc-in-a-line' }]);
    const same = {
      shape: 'circle' as const,
      id: 'k',
      layer: 'l',
      plane: 'v',
      by: { kind: 'rim' as const, centre: pointed(1, 1), rim: pointed(1, 1) },
    };
    expect(shapeOf(same, placing)).toMatchObject({ pieces: [], faults: [{ fault: 'circle-without-size' }] });
  });
});

describe('editing', () => {
  const mixed = chain(
    [
      [0, 0],
      [20, 0],
      [30, 10],
      [50, 12],
      [70, 0],
    ],
    ['line', 'tangent', 'curve', 'arc'],
  );
  const samples = (of: Chain) => shapeOf(of, placing).pieces;

  it.each([0, 1, 2, 3])('puts a node on segment %i without changing its shape', (index) => {
    const before = samples(mixed)[index]!;
    const after = samples(withNodeOn(mixed, shapeOf(mixed, placing), index, 0.4, editing));
    expect(after).toHaveLength(5);
    expect(distance(endOf(after[index]!), startOf(after[index + 1]!))).toBeLessThan(1e-9);
    for (const [piece, t] of [
      [after[index]!, 0.5],
      [after[index + 1]!, 0.5],
    ] as const) {
      const place =
        piece.kind === 'line' ? ([(piece.a[0] + piece.b[0]) / 2, (piece.a[1] + piece.b[1]) / 2] as const) : undefined;
      expect(piece.kind).toBe(before.kind);
      if (piece.kind === 'arc' && before.kind === 'arc')
        expect(distance(piece.centre, before.centre)).toBeLessThan(1e-6);
      if (place) expect(t).toBe(0.5);
    }
  });

  it('takes nodes out down to two, and references go with their place', () => {
    const leaning: Chain = {
      ...mixed,
      nodes: mixed.nodes.map((n) =>
        n.id === 'n2'
          ? { ...n, place: { kind: 'shifted', from: { kind: 'node', id: 'n1' }, by: [10, 10], seen: [0, 0] } }
          : n,
      ),
    };
    const rest = findWithoutNode(leaning, 'n1')!;
    expect(shapeOf(rest, placing).nodes[1]).toEqual([30, 10]);
    expect(
      findWithoutNode(
        chain(
          [
            [0, 0],
            [1, 1],
          ],
          ['line'],
        ),
        'n0',
      ),
    ).toBeUndefined();
  });

  it('runs a chain from its other end with the same pieces', () => {
    const forth = samples(mixed);
    const back = samples(reversedChain(mixed, shapeOf(mixed, placing), editing));
    back.forEach((piece, i) => {
      const other = forth[forth.length - 1 - i]!;
      expect(distance(startOf(piece), endOf(other))).toBeLessThan(1e-9);
      if (piece.kind === 'arc' && other.kind === 'arc') expect(piece.radius).toBeCloseTo(other.radius, 6);
    });
  });

  it('closes near ends into one node, far ends with a line, and too little not at all', () => {
    const near = chain(
      [
        [0, 0],
        [10, 0],
        [10, 10],
        [0.001, 0],
      ],
      ['line', 'line', 'line'],
    );
    expect(findClosed(near, shapeOf(near, placing), 0.01)).toMatchObject({
      closed: true,
      nodes: { length: 3 },
      segments: { length: 3 },
    });
    const far = chain(
      [
        [0, 0],
        [10, 0],
        [10, 10],
      ],
      ['line', 'line'],
    );
    expect(findClosed(far, shapeOf(far, placing), 0.01)).toMatchObject({ closed: true, segments: { length: 3 } });
    const two = chain(
      [
        [0, 0],
        [10, 0],
      ],
      ['line'],
    );
    expect(findClosed(two, shapeOf(two, placing), 0.01)).toBeUndefined();
  });

  it('joins two chains at their meeting ends', () => {
    const a = chain(
      [
        [0, 0],
        [10, 0],
      ],
      ['line'],
    );
    const b: Chain = {
      ...chain(
        [
          [10, 0],
          [10, 10],
          [0, 10],
        ],
        ['line', 'line'],
      ),
      nodes: [node('m0', pointed(10, 0)), node('m1', pointed(10, 10)), node('m2', pointed(0, 10))],
    };
    expect(shapeOf(joinedChains(a, b, 0, 0.01), placing).nodes).toEqual([
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ]);
    expect(joinedChains(a, b, 3, 0.01).segments).toHaveLength(4);
  });

  it('moves by typed amounts exactly once, by hand without losing what was typed', () => {
    const typed: Chain = {
      ...mixed,
      nodes: mixed.nodes.map((n) =>
        n.id === 'n1'
          ? { ...n, place: { kind: 'shifted', from: { kind: 'node', id: 'n0' }, by: [25.4, 0], seen: [0, 0] } }
          : n,
      ),
    };
    const moved = shapeOf(
      shiftedOutline(
        shiftedOutline(typed, [1, 2], () => [0, 0]),
        [0.5, 0],
        () => [0, 0],
      ),
      placing,
    );
    expect(moved.nodes[0]).toEqual([1.5, 2]);
    expect(moved.nodes[1]![0]).toBeCloseTo(26.9, 12);
    const dragged = shapeOf(draggedOutline(typed, [10, 0]), placing);
    expect(distance(dragged.nodes[0]!, dragged.nodes[1]!)).toBeCloseTo(25.4, 12);
  });

  it('copies with ids of its own', () => {
    const copy = copiedOutline(mixed, editing.newId) as Chain;
    expect(copy.nodes.map((n) => n.id)).not.toEqual(mixed.nodes.map((n) => n.id));
    expect(shapeOf(copy, placing).pieces).toEqual(samples(mixed));
  });
});

describe('snaps', () => {
  const square = shapeOf(
    chain(
      [
        [0, 0],
        [10, 0],
        [10, 10],
        [0, 10],
      ],
      ['line', 'line', 'line', 'line'],
      true,
    ),
    placing,
  ).pieces.map((piece) => ({ piece, guide: false }));
  const kindAt = (aim: Vec) =>
    listSnaps(
      aim,
      [
        ...square,
        { piece: { kind: 'line', a: [-50, 5], b: [50, 5] }, guide: true },
        { piece: { kind: 'arc', centre: [5, 5], radius: 3, start: 0, sweep: 2 * Math.PI }, guide: false },
      ],
      0.6,
    )[0]?.kind;
  it.each([
    [[0.2, 0.1], 'end'],
    [[5.1, 0.2], 'middle'],
    [[9.8, 5.2], 'crossing'],
    [[5.1, 4.8], 'centre'],
    [[5, 8.2], 'outermost'],
    [[2.7, 0.3], 'nearest'],
    [[20, 5.2], 'guide'],
    [[20, 20], undefined],
  ] as const)('at %p catch on the %s', (aim, kind) => expect(kindAt(aim)).toBe(kind));

  it('catch where a free curve lies lowest, highest or farthest out, where a level or upright line only touches it', () => {
    const coordinate = fc.integer({ min: -100_000, max: 100_000 }).map((thousandths) => thousandths / 1000);
    const some = fc
      .tuple(...Array.from({ length: 8 }, () => coordinate))
      .map(([x0, y0, x1, y1, x2, y2, x3, y3]): Piece => ({
        kind: 'cubic',
        a: [x0!, y0!],
        b: [x1!, y1!],
        c: [x2!, y2!],
        d: [x3!, y3!],
      }));
    let reached = 0;
    fc.assert(
      fc.property(some, fc.constantFrom(0, 1), (piece, axis) => {
        const samples = Array.from({ length: 2001 }, (_, i) => pointAt(piece, i / 2000));
        const lowest = samples.reduce((best, at) => (at[axis]! < best[axis]! ? at : best));
        // At an end it is caught by that.
        if (lowest === samples[0] || lowest === samples.at(-1)) return;
        reached++;
        const caught = listSnaps(lowest, [{ piece, guide: false }], 1).find(({ kind }) => kind === 'outermost')!;
        expect(distance(caught.point, lowest)).toBeLessThan(0.5);
        samples.forEach((at) => expect(at[axis]!).toBeGreaterThanOrEqual(caught.point[axis]! - 1e-9));
      }),
    );
    expect(reached).toBeGreaterThan(20);
  });

  it('catch where lines would cross, straight on beyond an end, and on the grid, in that order', () => {
    const lines = (
      [
        [
          [0, 0],
          [10, 0],
        ],
        [
          [20, 5],
          [20, 20],
        ],
      ] as const
    ).map(([a, b]) => ({ piece: { kind: 'line' as const, a, b }, guide: false }));
    const caught = (aim: Vec) => listSnaps(aim, [], 0.6, { beyond: lines, grid: 4 });
    const near = (...at: Vec) => at.map((value) => expect.closeTo(value, 9));
    expect(caught([20.1, 0.2])).toMatchObject([
      { kind: 'would-cross', point: near(20, 0) },
      { kind: 'straight-on', point: near(20, 0.2) },
      { kind: 'straight-on', point: near(20.1, 0) },
      { kind: 'grid', point: near(20, 0) },
    ]);
    expect(caught([14, 0.3])).toMatchObject([{ kind: 'straight-on', point: [14, 0] }]);
    expect(caught([5, 0.3])).toEqual([]);
    expect(listSnaps([20.1, 10], lines, 0.6, { beyond: lines })).toMatchObject([{ kind: 'nearest' }]);
  });
});

it('stands a guide aside by its typed offset, to the left of its direction', () => {
  const line = findGuideLine({ id: 'g', plane: 'v', through: pointed(0, 0), angle: 0, offset: 12.7 }, placing, 100)!;
  expect([line.a, line.b]).toEqual([
    [-100, 12.7],
    [100, 12.7],
  ]);
});

describe('the check', () => {
  const limits = { shortest: 0.2, touching: 0.001 };
  const kinds = (...chains: Chain[]) =>
    checkShapes(
      chains.map((c, i) => ({ ...shapeOf(c, placing), id: String(i) })),
      limits,
    ).map((finding) => finding.kind);
  it('finds nothing on a clean closed outline', () =>
    expect(
      kinds(
        chain(
          [
            [0, 0],
            [10, 0],
            [10, 10],
            [0, 10],
          ],
          ['line', 'line', 'line', 'line'],
          true,
        ),
      ),
    ).toEqual([]));
  it('finds a crossing where an outline meets itself', () => {
    const eight = shapeOf(
      chain(
        [
          [0, 0],
          [10, 10],
          [10, 0],
          [0, 10],
        ],
        ['line', 'line', 'line', 'line'],
        true,
      ),
      placing,
    );
    expect(checkShapes([eight], limits)).toEqual([{ kind: 'crossing', outline: 'c', at: [5, 5], pieces: [0, 2] }]);
  });
  it('measures the gap of open ends', () => {
    const open = shapeOf(
      chain(
        [
          [0, 0],
          [10, 0],
          [10, 10],
          [0, 0.3],
        ],
        ['line', 'line', 'line'],
      ),
      placing,
    );
    const findings = checkShapes([open], limits);
    expect(findings).toHaveLength(2);
    expect(findings[0]).toMatchObject({ kind: 'open', end: 'start', partner: { end: 'end' } });
    expect(findings[0]!.kind === 'open' && findings[0]!.gap).toBeCloseTo(0.3, 9);
  });
  it('finds doubled pieces and pieces that are too short', () => {
    expect(
      kinds(
        chain(
          [
            [0, 0],
            [10, 0],
          ],
          ['line'],
        ),
        chain(
          [
            [10, 0],
            [0, 0],
          ],
          ['line'],
        ),
      ).filter((kind) => kind === 'doubled'),
    ).toHaveLength(1);
    expect(
      kinds(
        chain(
          [
            [0, 0],
            [0.1, 0],
            [5, 5],
          ],
          ['line', 'line', 'line'],
          true,
        ),
      ),
    ).toEqual(['short', 'sliver']);
  });
});
