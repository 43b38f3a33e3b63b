import fc from 'fast-check';
import { distance, enclosedArea, endOf, findUnion, pieceBounds, startOf, type Path, type Vec } from '../geometry';
import { fittingsOf } from './fitting';
import { countedFromOther, listSpans } from './opening';
import type { Chain } from './outline';
import { FITTING_SETS, type Fill, type Opening } from './recipe';

const SIDES = { left: 60, right: 40 };
const door: Fill = {
  kind: 'door',
  frame: 45,
  leaf: 38,
  leaves: 1,
  hung: { at: 'start', to: 'left', open: Math.PI / 2 },
};
const opening: Opening = { id: 'o', corner: 'n0', way: 'on', distance: 500, width: 900, fill: door };

/** A wall's line from a to b, and the opening in it. */
function spanIn(a: Vec, b: Vec, of: Opening, sides = SIDES) {
  const path: Path = { closed: false, pieces: [{ kind: 'line', a, b }] };
  const chain = {
    nodes: [{ id: 'n0' }, { id: 'n1' }],
    segments: [{ kind: 'line' }],
    closed: false,
  } as unknown as Chain;
  return listSpans(path, chain, [of], sides)[0]!;
}

/** Of loops that go around counter-clockwise: else what they hold together would be the less the more there are. */
const areas = (paths: readonly Path[]) => paths.map(({ pieces }) => enclosedArea(pieces));
const cornersOf = (paths: readonly Path[]) => paths.flatMap(({ pieces }) => pieces.map(startOf));

/** Whether the same places are named, in whatever order. */
function expectSame(a: readonly Vec[], b: readonly Vec[]): void {
  expect(a).toHaveLength(b.length);
  for (const place of a) expect(Math.min(...b.map((other) => distance(place, other)))).toBeLessThan(1e-6);
}

describe('a door', () => {
  const span = spanIn([0, 0], [4000, 0], opening);

  it('has a frame as deep as the wall, and a leaf between its jambs that stands out from its hinge', () => {
    expect(areas(fittingsOf(span, 'frames'))).toEqual([expect.closeTo(45 * 100, 6), expect.closeTo(45 * 100, 6)]);
    const box = findUnion(fittingsOf(span, 'leaves')[0]!.pieces.map(pieceBounds))!;
    expect([...box.min, ...box.max].map((value) => Math.round(value * 1e6) / 1e6)).toEqual([545, 60, 583, 60 + 810]);
  });

  it('shuts along the way that is drawn: from the far jamb in the face to the corner of the opened leaf', () => {
    const [way] = fittingsOf(span, 'swings').map(({ pieces }) => pieces[0]!);
    expect(distance(startOf(way!), [545 + 810, 60])).toBeLessThan(1e-9);
    expect(distance(endOf(way!), [545, 60 + 810])).toBeLessThan(1e-9);
    const shut = fittingsOf(
      { ...span, opening: { ...opening, fill: { ...door, hung: { ...door.hung!, open: 0 } } } },
      'leaves',
    )[0]!;
    expectSame(cornersOf([shut]), [
      [545, 60],
      [1355, 60],
      [1355, 22],
      [545, 22],
    ]);
  });

  it('is the same however its wall was drawn: from the other end, left is right and the start is the end', () => {
    const length = fc.double({ min: 200, max: 1500, noNaN: true });
    fc.assert(
      fc.property(
        length,
        length,
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.constantFrom('start', 'end'),
        fc.constantFrom('left', 'right'),
        fc.constantFrom(1, 2),
        fc.boolean(),
        (away, width, open, at, to, leaves, hangs) => {
          const fill: Fill = {
            ...door,
            leaves: leaves as 1 | 2,
            hung: hangs ? { at: at as 'start', to: to as 'left', open } : undefined,
          };
          const other: Fill = {
            ...fill,
            hung: fill.hung && { at: at === 'start' ? 'end' : 'start', to: to === 'left' ? 'right' : 'left', open },
          };
          const [a, b]: readonly [Vec, Vec] = [
            [100, -50],
            [3100, 2200],
          ];
          const there = spanIn(a, b, { ...opening, distance: away, width, fill });
          const back = spanIn(
            b,
            a,
            { ...opening, distance: away, width, corner: 'n1', way: 'back', fill: other },
            { left: SIDES.right, right: SIDES.left },
          );
          for (const set of FITTING_SETS)
            expectSame(cornersOf(fittingsOf(there, set)), cornersOf(fittingsOf(back, set)));
        },
      ),
    );
  });

  it('has two leaves that meet in the middle, one at each jamb', () => {
    const leaves = fittingsOf(
      { ...span, opening: { ...opening, fill: { ...door, leaves: 2, hung: { ...door.hung!, open: 0 } } } },
      'leaves',
    );
    expect(areas(leaves)).toEqual([expect.closeTo(405 * 38, 6), expect.closeTo(405 * 38, 6)]);
    const shared = cornersOf([leaves[0]!]).filter((place) =>
      cornersOf([leaves[1]!]).some((other) => distance(place, other) < 1e-9),
    );
    expect(shared).toHaveLength(2);
  });

  it('is not there where its frame takes all of its opening, nor in a gap', () => {
    for (const fill of [{ ...door, frame: 450 }, undefined])
      for (const set of FITTING_SETS) expect(fittingsOf({ ...span, opening: { ...opening, fill } }, set)).toEqual([]);
  });
});

describe('where an opening is', () => {
  const nodes = ['n0', 'n1', 'n2'].map((id) => ({ id }));
  const line = { nodes, segments: [{ kind: 'line' }, { kind: 'line' }], closed: false } as unknown as Chain;
  const places: readonly Vec[] = [
    [0, 0],
    [4000, 0],
    [4000, 3000],
  ];
  const pathOf = (corners: readonly Vec[]): Path => ({
    closed: false,
    pieces: corners.slice(1).map((b, i) => ({ kind: 'line', a: corners[i]!, b })),
  });

  it('is the same, counted from the other corner', () => {
    const other = countedFromOther(opening, line, 4000);
    expect(other).toMatchObject({ corner: 'n1', way: 'back', distance: 2600 });
    const [here, there] = [opening, other].map((one) => listSpans(pathOf(places), line, [one], SIDES)[0]!);
    expectSame([here!.start, here!.end], [there!.start, there!.end]);
    expect(countedFromOther(other, line, 4000)).toEqual(opening);
  });

  it('stays as far from its corner when its wall gets another point', () => {
    const back: Opening = { ...opening, corner: 'n1', way: 'back', distance: 200 };
    const halved = {
      ...line,
      nodes: [nodes[0]!, { id: 'new' }, ...nodes.slice(1)],
      segments: [...line.segments, { kind: 'line' }],
    } as unknown as Chain;
    const ends = (chain: Chain, corners: readonly Vec[]) =>
      listSpans(pathOf(corners), chain, [back], SIDES).map(({ start, end }) => [start, end]);
    expect(ends(halved, [places[0]!, [1500, 0], ...places.slice(1)])).toEqual(ends(line, places));
  });

  it('is nowhere once its corner is gone', () => {
    expect(
      listSpans(
        pathOf(places),
        line,
        [
          { ...opening, corner: 'gone' },
          { ...opening, corner: 'n0', way: 'back' },
          { ...opening, corner: 'n2', way: 'on' },
        ],
        SIDES,
      ),
    ).toEqual([]);
  });
});

it('a window stays shut in the middle of its wall, with the edges of its sill in both faces', () => {
  const span = spanIn([0, 0], [4000, 0], { ...opening, fill: { kind: 'window', frame: 50, leaf: 40, leaves: 1 } });
  expectSame(cornersOf(fittingsOf(span, 'leaves')), [
    [550, -10],
    [1350, -10],
    [1350, 30],
    [550, 30],
  ]);
  const halves = fittingsOf(
    { ...span, opening: { ...span.opening, fill: { ...span.opening.fill!, leaves: 2 } } },
    'leaves',
  );
  expect(areas(halves)).toEqual([expect.closeTo(400 * 40, 6), expect.closeTo(400 * 40, 6)]);
  expect(fittingsOf(span, 'swings').map(({ pieces }) => [startOf(pieces[0]!), endOf(pieces[0]!)])).toEqual([
    [
      [550, 60],
      [1350, 60],
    ],
    [
      [550, -40],
      [1350, -40],
    ],
  ]);
});

it('in a bent wall jambs stand square to it, and a leaf goes straight from one to the other', () => {
  const path: Path = { closed: false, pieces: [{ kind: 'arc', centre: [0, 0], radius: 3000, start: 0, sweep: 2 }] };
  const span = listSpans(
    path,
    { nodes: [{ id: 'n0' }, { id: 'n1' }], segments: [{ kind: 'arc' }], closed: false } as unknown as Chain,
    [{ ...opening, fill: { ...door, hung: undefined } }],
    SIDES,
  )[0]!;
  const [near, far] = fittingsOf(span, 'frames');
  // Radial: the corners at the ends of the opening lie in line with the arc's centre.
  for (const [jamb, at] of [
    [near!, span.start],
    [far!, span.end],
  ] as const) {
    const inLine = cornersOf([jamb]).filter(([x, y]) => Math.abs(at[0] * y - at[1] * x) < 1e-6);
    expect(inLine).toHaveLength(2);
    const [a, b] = inLine.map(([x, y]) => Math.hypot(x, y)) as [number, number];
    expect(Math.abs(a - b)).toBeCloseTo(100, 6);
  }
  expect(areas(fittingsOf(span, 'leaves'))[0]).toBeGreaterThan(0);
});
