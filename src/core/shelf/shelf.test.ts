import { findOnShelf, SHELF, sigmaOfTolerance } from '.';

it('holds at least sixty things, each once, with a size, a tolerance and a source', () => {
  expect(SHELF.length).toBeGreaterThanOrEqual(60);
  expect(new Set(SHELF.map(({ id }) => id)).size).toBe(SHELF.length);
  for (const { shape, tolerance, source } of SHELF) {
    const sizes = shape.kind === 'length' ? [shape.mm] : shape.kind === 'circle' ? [shape.diameter] : [shape.width, shape.height];
    sizes.forEach((size) => expect(size).toBeGreaterThan(tolerance));
    expect(tolerance).toBeGreaterThan(0);
    expect(source).not.toBe('');
  }
});

// Published: ISO/IEC 7810 ID-1, ISO 216, EN 13698-1, IEC 60297.
it.each([['bank card', 85.6, 53.98], ['A4 sheet', 210, 297], ['pallet 1200 × 800', 1200, 800]])('has the published size of a %s', (name, width, height) => {
  expect(SHELF.find((entry) => entry.name === name)!.shape).toEqual({ kind: 'rectangle', width, height });
});
it('has the published rack unit', () => expect(SHELF.find(({ name }) => name === 'rack unit')!.shape).toEqual({ kind: 'length', mm: 44.45 }));

it('is searched by every word that was typed', () => {
  expect(findOnShelf(SHELF, 'door germany').map(({ name }) => name)).toEqual(['door leaf, Germany']);
  expect(findOnShelf(SHELF, 'unheard of')).toEqual([]);
  expect(findOnShelf(SHELF, '')).toHaveLength(SHELF.length);
});

it('takes published limits as evenly likely', () => expect(sigmaOfTolerance(0.12)).toBeCloseTo(0.0693, 4));
