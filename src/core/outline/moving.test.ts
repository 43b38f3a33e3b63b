/** What is turned, scaled, mirrored, made to stand by itself, or caught. */
import fc from 'fast-check';
import {
  angleOf,
  applied,
  cross,
  distance,
  dot,
  enclosedArea,
  moved,
  nearestOn,
  pieceLength,
  pointAt,
  subtract,
  tangentAt,
  type Piece,
  type Vec,
} from '../geometry';
import { combine } from '../planar';
import { betweenOpenings } from './opening';
import {
  createSnapSearch,
  findGuideLine,
  listAlignment,
  listSnaps,
  listSpacing,
  makeShape,
  mapOf,
  movedOutline,
  placingOf,
  shapeOf,
  standingAlone,
  stretchedOutline,
  type Chain,
  type Editing,
  type Guide,
  type MadeOutline,
  type Node,
  type Place,
  type Recipe,
  type Segment,
} from '.';

const toSheet = ([x, y]: Vec): Vec => [x * 10, -y * 10];
const placing = { scaled: true, toPlane: ([x, y]: Vec): Vec => [x / 10, -y / 10] };
const pointed = (at: Vec): Place => ({ kind: 'pointed', at: toSheet(at), sigma: 1 });
let count = 0;
const editing: Editing = { toSheet, newId: () => `new${count++}`, sigma: 0.5 };
const chainOf = (at: readonly Vec[], segments: readonly Segment[], closed = false): Chain => ({
  shape: 'chain',
  id: 'c',
  layer: 'l',
  plane: 'v',
  closed,
  nodes: at.map((place, i): Node => ({ id: `n${i}`, place: pointed(place), smooth: true })),
  segments,
});
const mixed = chainOf(
  [
    [0, 0],
    [20, 0],
    [30, 12],
    [10, 25],
    [-8, 14],
  ],
  [
    { kind: 'line' },
    { kind: 'tangent' },
    { kind: 'curve' },
    { kind: 'arc', through: pointed([-2, 22]) },
    { kind: 'curve' },
  ],
  true,
);
/** Curves that bend evenly, leave in a direction of their own, and are tight at their end. */
const swinging: Chain = {
  ...mixed,
  even: true,
  closed: false,
  nodes: mixed.nodes.map((node, i) =>
    i === 0 ? { ...node, direction: 2 } : i === 4 ? { ...node, tension: 0.6 } : node,
  ),
  segments: mixed.segments.slice(1).map(() => ({ kind: 'curve' })),
};

it('a turned, scaled and mirrored outline is the turned, scaled and mirrored shape', () => {
  const number = (min: number, max: number) =>
    fc.integer({ min: min * 1000, max: max * 1000 }).map((value) => value / 1000);
  fc.assert(
    fc.property(
      number(-3, 3),
      number(0.2, 4),
      fc.boolean(),
      number(-20, 20),
      number(-20, 20),
      (turn, scale, mirrored, x, y) => {
        const moving = { about: [x, y] as const, turn, scale: [scale, scale] as const, mirrored };
        for (const chain of [mixed, swinging]) {
          const after = shapeOf(movedOutline(chain, moving, placingOf(chain, placing), editing), placing);
          const wanted = shapeOf(chain, placing).pieces.map((piece) => moved(piece, mapOf(moving)));
          expect(after.faults).toEqual([]);
          after.pieces.forEach((piece, i) =>
            [0, 0.3, 0.7, 1].forEach((t) =>
              expect(distance(pointAt(piece, t), pointAt(wanted[i]!, t))).toBeLessThan(1e-6),
            ),
          );
        }
      },
    ),
    { numRuns: 100, seed: 31 },
  );
});

it('scaled differently across and up, what is round becomes elliptic and the area grows by both', () => {
  const number = fc.integer({ min: 200, max: 4000 }).map((value) => value / 1000);
  fc.assert(
    fc.property(number, number, (across, up) => {
      const moving = { about: [3, 4] as const, turn: 0, scale: [across, up] as const, mirrored: false };
      for (const outline of [
        mixed,
        {
          shape: 'circle',
          id: 'o',
          layer: 'l',
          plane: 'v',
          by: { kind: 'rim', centre: pointed([3, 3]), rim: pointed([9, 3]) },
        } as const,
      ]) {
        const [before, after] = [
          shapeOf(outline, placing),
          shapeOf(movedOutline(outline, moving, placingOf(mixed, placing), editing), placing),
        ];
        expect([after.id, after.faults]).toEqual([outline.id, []]);
        expect(enclosedArea(after.finished) / (across * up * enclosedArea(before.finished))).toBeCloseTo(1, 9);
        for (const piece of before.finished)
          for (const t of [0, 0.4, 0.9])
            expect(
              Math.min(
                ...after.finished.map((other) => nearestOn(other, applied(mapOf(moving), pointAt(piece, t))).distance),
              ),
            ).toBeLessThan(1e-6);
      }
    }),
    { numRuns: 60, seed: 5 },
  );
});

it('stretching moves what lies in the box and lets the rest stay', () => {
  const slot = chainOf(
    [
      [0, 0],
      [40, 0],
      [40, 10],
      [0, 10],
    ],
    [
      { kind: 'line' },
      { kind: 'arc', through: pointed([45, 5]) },
      { kind: 'line' },
      { kind: 'arc', through: pointed([-5, 5]) },
    ],
    true,
  );
  const stretched = stretchedOutline(slot, ([x]) => x > 20, [15, 0], placingOf(slot, placing), toSheet);
  const shape = shapeOf(stretched, placing);
  expect(shape.nodes.map(([x]) => x)).toEqual([0, 55, 55, 0]);
  expect(shape.pieces[1]).toMatchObject({
    kind: 'arc',
    radius: expect.closeTo(5, 9),
    centre: [expect.closeTo(55, 9), expect.closeTo(5, 9)],
  });
  expect(stretchedOutline(slot, ([x]) => x > 80, [15, 0], placingOf(slot, placing), toSheet)).toBe(slot);
});

it('lines up with the first, and spaces evenly between the outermost', () => {
  const boxes = [
    [0, 0, 10, 4],
    [30, 2, 34, 12],
    [12, 20, 20, 22],
  ].map(([a, b, c, d]) => ({ min: [a!, b!] as const, max: [c!, d!] as const }));
  expect(listAlignment(boxes, 'left')).toEqual([
    [0, 0],
    [-30, 0],
    [-12, 0],
  ]);
  expect(listAlignment(boxes, 'middle')).toEqual([
    [0, 0],
    [0, -5],
    [0, -19],
  ]);
  expect(listAlignment(boxes, 'top')).toEqual([
    [0, 0],
    [0, -8],
    [0, -18],
  ]);
  expect(listSpacing(boxes, 0)).toEqual([
    [0, 0],
    [0, 0],
    [2.5, 0],
  ]);
});

it('what stands by itself is what it was made as: lines, arcs, curves, whole circles and ellipses, and parts of them', () => {
  const ellipse: Piece = { kind: 'ellipse', centre: [3, 4], major: [12, 5], ratio: 0.4, start: 0, sweep: 2 * Math.PI };
  const circle: Piece = { kind: 'arc', centre: [8, 6], radius: 7, start: 0, sweep: 2 * Math.PI };
  const cut = combine([[{ closed: true, pieces: [ellipse] }], [{ closed: true, pieces: [circle] }]], 'united', 1e-6);
  if (!cut.ok) throw new Error(cut.code);
  const paths = [
    ...cut.value,
    { closed: true, pieces: [ellipse] },
    { closed: true, pieces: [circle] },
    ...shapeOf(mixed, placing).paths,
  ];
  standingAlone(paths, { layer: 'l', plane: 'v' }, editing).forEach((outline, i) => {
    const shape = shapeOf(outline, placing);
    expect(shape.faults).toEqual([]);
    expect(enclosedArea(shape.pieces)).toBeCloseTo(
      Math.abs(enclosedArea(paths[i]!.pieces)) * Math.sign(enclosedArea(shape.pieces)),
      6,
    );
    for (const at of shape.pieces.flatMap((piece) => [0.2, 0.8].map((t) => pointAt(piece, t))))
      expect(Math.min(...paths[i]!.pieces.map((piece) => nearestOn(piece, at).distance))).toBeLessThan(1e-6);
  });
});

describe('recipes', () => {
  const wall = chainOf(
    [
      [0, 0],
      [4000, 0],
      [4000, 3000],
    ],
    [{ kind: 'line' }, { kind: 'line' }],
  );
  const make = (recipe: Recipe, guide?: Guide) =>
    makeShape({ shape: 'made', id: 'm', layer: 'l', plane: 'v', recipe } satisfies MadeOutline, {
      placing,
      findShape: (id) => (id === 'c' ? shapeOf(wall, placing) : undefined),
      findOutline: () => wall,
      findGuide: () => guide && findGuideLine(guide, placing, 1e5),
      findSited: () => undefined,
    });
  const strip = { kind: 'strip', of: ['c'], width: 100, justified: 'right', ends: 'flat', corners: 'mitre' } as const;

  it('walls have openings as wide and as far from their corners as is said; rooms see them shut', () => {
    const shape = make({
      ...strip,
      openings: [
        { id: 'a', corner: 'n0', way: 'on', distance: 500, width: 900 },
        { id: 'b', corner: 'n2', way: 'back', distance: 200, width: 1200 },
      ],
    });
    const areas = shape.paths.map(({ pieces }) => Math.round(enclosedArea(pieces)));
    // Outer wall of 4000 + 3000 with its corner outside: 4000 × 100 + 3000 × 100 + the corner, less the openings.
    expect(areas.reduce((sum, area) => sum + area, 0)).toBe(100 * (4000 + 3000 + 100 - 900 - 1200));
    expect(shape.paths).toHaveLength(3);
    expect(Math.round(enclosedArea(shape.shut!.flatMap(({ pieces }) => pieces)))).toBe(100 * 7100);
  });

  it('openings in bent walls are as wide along the bend', () => {
    const bent = chainOf(
      [
        [0, 0],
        [4000, 800],
      ],
      [{ kind: 'curve' }],
    );
    const pulledBent: Chain = {
      ...bent,
      nodes: bent.nodes.map((node, i) => (i === 0 ? { ...node, handleOut: [9000, 26000] } : node)),
    };
    const path = shapeOf(pulledBent, placing).paths[0]!;
    const [before, after] = betweenOpenings(path, pulledBent, [
      { id: 'a', corner: 'n1', way: 'back', distance: 300, width: 900 },
    ]);
    const whole = pieceLength(path.pieces[0]!);
    expect(pieceLength(after!.pieces[0]!)).toBeCloseTo(300, 6);
    expect(pieceLength(before!.pieces[0]!)).toBeCloseTo(whole - 1200, 6);
  });

  it('a part stands where it was put, turned and mirrored before that', () => {
    const { pieces } = make({
      kind: 'placed',
      of: ['c'],
      from: pointed([4000, 0]),
      to: pointed([100, 50]),
      turn: Math.PI / 2,
      mirrored: true,
    });
    expect(pieces.map((piece) => pointAt(piece, 1))).toEqual([
      [expect.closeTo(100, 8), expect.closeTo(50, 8)],
      [expect.closeTo(-2900, 8), expect.closeTo(50, 8)],
    ]);
    expect(pieceLength(pieces[0]!)).toBeCloseTo(4000, 8);
  });

  it('says what is wrong: no scale, no guide, an open outline combined, a shape that shrank away, a source that is gone', () => {
    const faultOf = (recipe: Recipe) => make(recipe).faults[0]?.fault;
    expect(faultOf({ kind: 'mirrored', of: ['c'], guide: 'g', joined: false })).toBe('guide-lost');
    expect(faultOf({ kind: 'combined', of: ['c', 'c'], how: 'united' })).toBe('combine-open');
    expect(faultOf({ ...strip, of: ['gone'] })).toBe('source-lost');
    const square = chainOf(
      [
        [0, 0],
        [10, 0],
        [10, 10],
        [0, 10],
      ],
      [0, 1, 2, 3].map(() => ({ kind: 'line' })),
      true,
    );
    const shrunk = (scaled: boolean) =>
      makeShape(
        {
          shape: 'made',
          id: 'm',
          layer: 'l',
          plane: 'v',
          recipe: { kind: 'offset', of: ['c'], by: -6, both: false, corners: 'round' },
        },
        {
          placing: { ...placing, scaled },
          findShape: () => shapeOf(square, placing),
          findOutline: () => square,
          findGuide: () => undefined,
          findSited: () => undefined,
        },
      );
    expect([shrunk(true), shrunk(false)].map(({ faults }) => faults[0]?.fault)).toEqual([
      'made-nothing',
      'made-without-scale',
    ]);
  });

  it('a guide half-way between two places is square to the way between them', () => {
    const line = findGuideLine(
      {
        id: 'g',
        plane: 'v',
        through: { kind: 'middle', a: pointed([2, 3]), b: pointed([8, 11]) },
        towards: pointed([8, 11]),
        angle: 0,
        offset: 0,
        square: true,
      },
      placing,
      100,
    )!;
    expect(dot(subtract(line.b, line.a), [6, 8])).toBeCloseTo(0, 9);
    expect(nearestOn(line, [5, 7]).distance).toBeLessThan(1e-9);
  });
});

it('a line from outside touches a circle where the spoke is square to it, and meets a line squarely at its foot', () => {
  const circle: Piece = { kind: 'arc', centre: [10, 0], radius: 4, start: 0, sweep: 2 * Math.PI };
  const line: Piece = { kind: 'line', a: [0, 10], b: [20, 14] };
  const search = createSnapSearch([
    { piece: circle, guide: false },
    { piece: line, guide: false },
  ]);
  const from: Vec = [6, -10];
  const all = [
    [8, -3.8],
    [2, 10],
  ].flatMap((aim) => listSnaps(aim as unknown as Vec, search(aim as unknown as Vec, 9), 9, { from }));
  const tangents = all.filter(({ kind }) => kind === 'tangent');
  expect(tangents.length).toBeGreaterThanOrEqual(2);
  for (const { point } of tangents) expect(dot(subtract(point, from), subtract(point, [10, 0]))).toBeCloseTo(0, 9);
  const square = all.find(({ kind, point }) => kind === 'square' && nearestOn(line, point).distance < 1e-9)!;
  expect(
    Math.abs(
      cross(tangentAt(line, 0), [
        Math.cos(angleOf(subtract(square.point, from))),
        Math.sin(angleOf(subtract(square.point, from))),
      ]),
    ),
  ).toBeCloseTo(1, 9);
});
