import fc from 'fast-check';
import type { FoldedView } from '@/core/derive';
import { UNMOVED, type Vec } from '@/core/geometry';
import { namesOf, type PlacedName } from './view-names';

const PHONE: Vec = [390, 320];
/** The ring along its foot. */
const FREE: Vec = [390, 258];

/** A picture on the screen, by its corner and its size. CSS px */
const viewAt = (name: string, [x, y]: Vec, [width, height]: Vec): FoldedView =>
  ({
    fitted: { source: { id: name, name } },
    look: UNMOVED,
    rim: [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ],
  }) as unknown as FoldedView;

const rims = ({ slip: { at, size } }: PlacedName) => ({
  left: at[0] - size[0] / 2,
  right: at[0] + size[0] / 2,
  top: at[1] - size[1] / 2,
  bottom: at[1] + size[1] / 2,
});
const isOver = (a: ReturnType<typeof rims>, b: ReturnType<typeof rims>) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

it('three views of a sheet have their names beside their pictures, and on none', () => {
  const boxes: readonly (readonly [string, Vec, Vec])[] = [
    ['Top', [130, 50], [90, 60]],
    ['Front', [130, 150], [90, 80]],
    ['Side', [240, 150], [60, 80]],
  ];
  const named = namesOf(
    boxes.map(([name, at, size]) => viewAt(name, at, size)),
    UNMOVED,
    PHONE,
  );
  expect(named.map(({ view }) => view.fitted.source.name)).toEqual(['Top', 'Front', 'Side']);
  for (const name of named)
    for (const [, [x, y], [width, height]] of boxes)
      expect(isOver(rims(name), { left: x, right: x + width, top: y, bottom: y + height })).toBe(false);
});

it('one that fills the room has its name in it', () => {
  const [name] = namesOf([viewAt('Front', [-900, -700], [3000, 2000])], UNMOVED, PHONE);
  expect(rims(name!)).toMatchObject({ left: 0, top: 0 });
});

it('however many there are and wherever they lie, no name is on another, and whatever can be on the bench is', () => {
  const place = fc.tuple(fc.integer({ min: 0, max: 330 }), fc.integer({ min: 0, max: 260 }));
  const size = fc.tuple(fc.integer({ min: 20, max: 120 }), fc.integer({ min: 20, max: 120 }));
  fc.assert(
    fc.property(fc.array(fc.tuple(place, size), { minLength: 1, maxLength: 40 }), (boxes) => {
      const named = namesOf(
        boxes.map(([at, of], i) => viewAt(`View ${i}`, at, of)),
        UNMOVED,
        PHONE,
      );
      named.forEach((name, i) => {
        for (const other of named.slice(i + 1)) expect(isOver(rims(name), rims(other))).toBe(false);
        const { left, right, top, bottom } = rims(name);
        expect([left >= 0, right <= FREE[0], top >= 0, bottom <= FREE[1]]).toEqual([true, true, true, true]);
      });
    }),
  );
});
