import fc from 'fast-check';
import { againstUsual, findOnShelf, listUsual, SHELF, sigmaOfTolerance } from '.';

it('holds at least sixty things, each once, with a size, a tolerance and a source', () => {
  expect(SHELF.length).toBeGreaterThanOrEqual(60);
  expect(new Set(SHELF.map(({ id }) => id)).size).toBe(SHELF.length);
  for (const { shape, tolerance, source } of SHELF) {
    const sizes =
      shape.kind === 'length' ? [shape.mm] : shape.kind === 'circle' ? [shape.diameter] : [shape.width, shape.height];
    sizes.forEach((size) => expect(size).toBeGreaterThan(tolerance));
    expect(tolerance).toBeGreaterThan(0);
    expect(source).not.toBe('');
  }
});

// Published: ISO/IEC 7810 ID-1, ISO 216, EN 13698-1, IEC 60297.
it.each([
  ['bank card', 85.6, 53.98],
  ['A4 sheet', 210, 297],
  ['pallet 1200 × 800', 1200, 800],
])('has the published size of a %s', (name, width, height) => {
  expect(SHELF.find((entry) => entry.name === name)!.shape).toEqual({ kind: 'rectangle', width, height });
});
it('has the published rack unit', () =>
  expect(SHELF.find(({ name }) => name === 'rack unit')!.shape).toEqual({ kind: 'length', mm: 44.45 }));

it('is searched by every word that was typed', () => {
  expect(findOnShelf(SHELF, 'door germany').map(({ name }) => name)).toEqual(['door leaf, Germany']);
  expect(findOnShelf(SHELF, 'unheard of')).toEqual([]);
  expect(findOnShelf(SHELF, '')).toHaveLength(SHELF.length);
});

it('takes published limits as evenly likely', () => expect(sigmaOfTolerance(0.12)).toBeCloseTo(0.0693, 4));

describe('what is usual', () => {
  it('is offered the nearest first, by any word, each side of what has two', () => {
    expect(listUsual(SHELF, 452, 'seat')[0]).toEqual({ name: 'seat, height', least: 425, most: 475 });
    expect(listUsual(SHELF, 1985, 'door leaf germany').map(({ name }) => name)).toEqual([
      'door leaf, Germany, height',
      'door leaf, Germany, width',
    ]);
    const away = listUsual(SHELF, 300).map(({ least, most }) => Math.abs(Math.log(600 / (least + most))));
    expect(away).toEqual([...away].sort((a, b) => a - b));
    expect(listUsual(SHELF, 300, 'no such thing')).toEqual([]);
  });

  it('says how far a size lies outside, and leaves open what its doubt does', () => {
    const seat = { name: 'seat, height', least: 425, most: 475 };
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 2000, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (value, sigma) => {
          const { outside, isOpen } = againstUsual({ value, sigma }, seat);
          // Taken off, it is within; and a size that is as much nearer by its doubt is on the other side.
          expect(value - outside).toBeGreaterThanOrEqual(425 - 1e-9);
          expect(value - outside).toBeLessThanOrEqual(475 + 1e-9);
          expect(outside === 0).toBe(value >= 425 && value <= 475);
          const sides = [-2, 2].map((by) => {
            const at = value + by * sigma;
            return at < 425 ? -1 : at > 475 ? 1 : 0;
          });
          if (!isOpen) expect(sides[0]).toBe(sides[1]);
        },
      ),
    );
  });
});
