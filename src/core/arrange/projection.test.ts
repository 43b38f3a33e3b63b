/** Sides from how views lie on a sheet: the six principal views as ISO 128-3 lays them out (from memory of the standard). */
import * as fc from 'fast-check';
import { PROJECTION_METHODS, proposeSides, type LaidView, type ProjectionMethod } from './projection';

/** A thing of 90 by 50 by 70: what each side takes up, and where its middle stands, in columns and rows of the sheet. */
const SIZES = {
  front: [90, 70],
  back: [90, 70],
  left: [50, 70],
  right: [50, 70],
  top: [90, 50],
  bottom: [90, 50],
} as const;
type Drawn = keyof typeof SIZES;
const LAID: Readonly<Record<ProjectionMethod, Readonly<Record<Drawn, readonly [number, number]>>>> = {
  third: { front: [1, 1], top: [1, 0], bottom: [1, 2], left: [0, 1], right: [2, 1], back: [3, 1] },
  first: { front: [1, 1], top: [1, 2], bottom: [1, 0], left: [2, 1], right: [0, 1], back: [3, 1] },
};
const sheet = (
  projection: ProjectionMethod,
  sides: readonly Drawn[],
  off: (side: Drawn, axis: number) => number = () => 0,
): LaidView[] =>
  sides.map((side) => {
    const [column, row] = LAID[projection][side];
    const [width, height] = SIZES[side];
    const [x, y] = [200 + 140 * column + off(side, 0), 200 + 120 * row + off(side, 1)];
    return { id: side, min: [x - width / 2, y - height / 2], max: [x + width / 2, y + height / 2] };
  });

it.each(PROJECTION_METHODS)('all six views in %s angle', (projection) => {
  const proposed = proposeSides(sheet(projection, ['back', 'top', 'right', 'bottom', 'left', 'front']), projection);
  expect(Object.fromEntries(proposed.map(({ view, side }) => [view, side]))).toEqual(
    Object.fromEntries(Object.keys(SIZES).map((side) => [side, side])),
  );
});

it('front, top and a side, drawn a little out of line, whichever comes first', () => {
  const trios: readonly (readonly Drawn[])[] = [
    ['front', 'top', 'right'],
    ['front', 'top', 'left'],
    ['front', 'bottom', 'right'],
  ];
  const near = fc.integer({ min: -12, max: 12 });
  fc.assert(
    fc.property(
      fc.constantFrom(...PROJECTION_METHODS),
      fc.constantFrom(...trios),
      fc.shuffledSubarray([0, 1, 2], { minLength: 3 }),
      fc.array(near, { minLength: 6, maxLength: 6 }),
      (projection, trio, order, offs) => {
        const views = sheet(projection, trio, (side, axis) => offs[2 * trio.indexOf(side) + axis]!);
        const proposed = proposeSides(
          order.map((i) => views[i]!),
          projection,
        );
        expect(proposed.map(({ view, side }) => [view, side]).sort()).toEqual(trio.map((side) => [side, side]).sort());
      },
    ),
  );
});

it('the other angle takes the same sheet for the opposite sides', () => {
  const views = sheet('third', ['front', 'top', 'right']);
  expect(proposeSides(views, 'first').map(({ view, side, lies }) => [view, side, lies])).toEqual([
    ['front', 'front', undefined],
    ['top', 'bottom', 'above'],
    ['right', 'left', 'right'],
  ]);
});

it('what stands in no line gets no side, and what lies over another none', () => {
  const stray: LaidView = { id: 'note', min: [800, 900], max: [900, 950] };
  expect(proposeSides([...sheet('third', ['front', 'right']), stray], 'third').map(({ view }) => view)).toEqual([
    'front',
    'right',
  ]);
  expect(proposeSides([stray], 'third')).toEqual([]);
  const over: LaidView = { id: 'detail', min: [330, 310], max: [350, 330] };
  expect(proposeSides([...sheet('third', ['front']), over], 'third')).toEqual([]);
});
