import fc from 'fast-check';
import { distance, mix, type Vec } from '@/core/geometry';
import {
  isCrossed,
  MARK_SIZE,
  placeLabels,
  placesAlong,
  placesAround,
  type LabelLine,
  type LabelWish,
  type PlacedLabel,
} from './place-labels';

const BENCH: Vec = [1280, 560];
const somePlace = fc.tuple(fc.double({ min: 0, max: 1280, noNaN: true }), fc.double({ min: 0, max: 560, noNaN: true }));
const someSize = fc.integer({ min: 3, max: 26 }).map((letters): Vec => [letters * 7.6 + 14, 22]);
interface Drawn {
  readonly wishes: readonly LabelWish[];
  readonly lines: readonly LabelLine[];
}
const someDimension = fc.record({ from: somePlace, to: somePlace, size: someSize });
const someWord = fc.record({ at: somePlace, size: someSize });
const join = (
  dimensions: readonly { from: Vec; to: Vec; size: Vec }[],
  words: readonly { at: Vec; size: Vec }[],
): Drawn => ({
  lines: dimensions.map(({ from, to }, i) => ({ of: `d${i}`, from, to })),
  wishes: [
    ...dimensions.map(({ from, to, size }, i) => ({ key: `d${i}`, size, places: placesAlong(from, to, size, BENCH) })),
    ...words.map(({ at, size }, i) => ({ key: `w${i}`, size, places: placesAround(at, size) })),
  ],
});
const someDrawing = fc
  .tuple(fc.array(someDimension, { maxLength: 60 }), fc.array(someWord, { maxLength: 40 }))
  .map(([dimensions, words]) => join(dimensions, words));

const sizeOf = ({ wishes }: Drawn, { key, isFolded }: PlacedLabel) =>
  isFolded ? MARK_SIZE : wishes.find((wish) => wish.key === key)!.size;
const boxOf = (drawn: Drawn, label: PlacedLabel) => ({ at: label.at, size: sizeOf(drawn, label) });
const overlap = (a: ReturnType<typeof boxOf>, b: ReturnType<typeof boxOf>) =>
  [0, 1].every((axis) => Math.abs(a.at[axis]! - b.at[axis]!) < (a.size[axis]! + b.size[axis]!) / 2);

/** Whether a line comes into a box, told by walking along it. */
function isWalkedInto({ at, size }: { at: Vec; size: Vec }, { from, to }: Pick<LabelLine, 'from' | 'to'>): boolean {
  const STEPS = 4000;
  return Array.from({ length: STEPS + 1 }, (_, i) => mix(from, to, i / STEPS)).some(
    ([x, y]) => Math.abs(x - at[0]) < size[0] / 2 - 0.5 && Math.abs(y - at[1]) < size[1] / 2 - 0.5,
  );
}

const isWithinBench = ([x, y]: Vec, [width, height]: Vec) =>
  x >= width / 2 && x <= BENCH[0] - width / 2 && y >= height / 2 && y <= BENCH[1] - height / 2;

describe('labels on a drawing', () => {
  it('lie on no other label, and no mark lies on one', () => {
    fc.assert(
      fc.property(someDrawing, (drawn) => {
        const placed = placeLabels(drawn.wishes, drawn.lines, BENCH);
        expect(placed.map(({ key }) => key)).toEqual(drawn.wishes.map(({ key }) => key));
        placed.forEach((label, i) =>
          placed.slice(i + 1).forEach((other) => {
            if (!(label.isFolded && other.isFolded))
              expect(overlap(boxOf(drawn, label), boxOf(drawn, other))).toBe(false);
          }),
        );
      }),
      { numRuns: 150 },
    );
  });

  it('hide no line of others, neither a dimension nor what leads to another label', () => {
    fc.assert(
      fc.property(someDrawing, (drawn) => {
        const placed = placeLabels(drawn.wishes, drawn.lines, BENCH);
        const leads = placed.flatMap(({ key, from, at }) => (from ? [{ of: key, from, to: at }] : []));
        for (const label of placed.filter(({ isFolded }) => !isFolded)) {
          const others = [...drawn.lines, ...leads].filter(({ of }) => of !== label.key);
          expect(others.filter((line) => isCrossed(boxOf(drawn, label), line))).toEqual([]);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('stand wholly on the bench if they can', () => {
    const isOn = ({ at, size }: { at: Vec; size: Vec }) =>
      [0, 1].every((axis) => at[axis]! >= size[axis]! / 2 && at[axis]! <= BENCH[axis]! - size[axis]! / 2);
    fc.assert(
      fc.property(someDrawing, (drawn) => {
        for (const label of placeLabels(drawn.wishes, drawn.lines, BENCH).filter(({ isFolded }) => !isFolded)) {
          const { size, places } = drawn.wishes.find(({ key }) => key === label.key)!;
          expect(isOn({ at: label.at, size })).toBe(places.some(({ at }) => isOn({ at, size })));
        }
      }),
      { numRuns: 150 },
    );
  });

  it('all have room where the drawing has', () => {
    const rows = Array.from({ length: 20 }, (_, i) => ({
      from: [60, 15 + 27 * i] as const,
      to: [760, 15 + 27 * i] as const,
      size: [90, 22] as const,
    }));
    const drawn = join(rows, []);
    expect(placeLabels(drawn.wishes, drawn.lines, BENCH).filter(({ isFolded }) => isFolded)).toEqual([]);
  });

  it('stand beyond the end of what they would hide, and lead back to it', () => {
    const [first] = placesAlong([100, 100], [130, 100], [90, 22], BENCH);
    expect(first!.from).toEqual([130, 100]);
    expect(first!.at[0] - 45).toBeGreaterThan(130);
  });

  it('stand on what is seen of a line that goes on beyond the bench', () => {
    const far = fc.double({ min: 300, max: 6000, noNaN: true });
    const inside = fc.tuple(
      fc.double({ min: 200, max: 1080, noNaN: true }),
      fc.double({ min: 50, max: 510, noNaN: true }),
    );
    const turn = fc.double({ min: 0, max: 2 * Math.PI, noNaN: true });
    fc.assert(
      fc.property(inside, turn, far, far, someSize, ([x, y], angle, before, after, size) => {
        const [from, to] = [-before, after].map((by): Vec => [x + by * Math.cos(angle), y + by * Math.sin(angle)]) as [
          Vec,
          Vec,
        ];
        const [label] = placeLabels([{ key: 'd', size, places: placesAlong(from, to, size, BENCH) }], [], BENCH);
        expect(isWithinBench(label!.at, size)).toBe(true);
        // On its line, or beside it where an end is seen.
        expect(label!.isFolded).toBe(false);
      }),
    );
  });

  it('where nothing has room, marks stay near what they stand for', () => {
    const heap = Array.from({ length: 60 }, (_, i) => ({
      at: [300 + (i % 3), 300] as const,
      size: [120, 22] as const,
    }));
    const drawn = join([], heap);
    const folded = placeLabels(drawn.wishes, drawn.lines, BENCH).filter(({ isFolded }) => isFolded);
    expect(folded.length).toBeGreaterThan(40);
    folded.forEach(({ at }) => expect(distance(at, [301, 300])).toBeLessThan(150));
  });
});

it('a line is told to go through a slip by its sides, as it is by walking along it', () => {
  fc.assert(
    fc.property(somePlace, someSize, somePlace, somePlace, (at, size, from, to) => {
      const line = { from, to };
      if (isWalkedInto({ at, size }, line)) expect(isCrossed({ at, size }, line)).toBe(true);
      if (isCrossed({ at, size: [size[0] - 3, size[1] - 3] }, line))
        expect(isWalkedInto({ at, size }, line)).toBe(true);
    }),
  );
});
