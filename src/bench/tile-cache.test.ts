/** Tiles of every level cover their sheet, each place once, whatever its size; those that are not looked at make room. */
import fc from 'fast-check';
import { TILE_SIZE } from '@/workers/picture-operations';
import { coarsestLevel, TileCache, type PictureSize, type Tile } from './tile-cache';

const mockAnswers: { tile: (asked: { level: number; column: number; row: number }) => unknown } = {
  tile: () => undefined,
};
jest.mock('@/workers', () => ({
  ...jest.requireActual<object>('@/workers/picture-operations'),
  pictureWorker: {
    call: async (_: 'tile', asked: { level: number; column: number; row: number }) => ({
      kind: 'done',
      value: mockAnswers.tile(asked),
    }),
  },
}));

/** A level as the worker makes it: half as wide and high as the one before, rounded up. */
const halved = (size: number, level: number): number =>
  level === 0 ? size : Math.max(1, Math.ceil(halved(size, level - 1) / 2));

let open = 0;
function answerFor({ width, height }: PictureSize): void {
  open = 0;
  mockAnswers.tile = ({ level, column, row }) => {
    const [w, h] = [halved(width, level), halved(height, level)].map((size, i) =>
      Math.min(TILE_SIZE, size - TILE_SIZE * [column, row][i]!),
    ) as [number, number];
    if (w <= 0 || h <= 0) throw new Error('no such tile');
    open++;
    return { width: w, height: h, close: () => void open-- };
  };
}

async function wholeLevel(cache: TileCache, { width, height }: PictureSize, level: number): Promise<readonly Tile[]> {
  for (let round = 0; round < 200; round++) {
    const { found, complete } = cache.list(level, [0, 0], [width, height], true);
    if (complete) return found;
    await new Promise((resolve) => setImmediate(resolve));
  }
  throw new Error('never complete');
}

const newCache = (picture: PictureSize, most?: number) =>
  new TileCache(
    picture,
    () => undefined,
    async () => false,
    () => undefined,
    most,
  );

const sizes = fc.record({
  hash: fc.constant('h'),
  width: fc.integer({ min: 1, max: 4100 }),
  height: fc.integer({ min: 1, max: 3100 }),
});

it('every level covers the sheet once: no place without a tile, and none with two', async () => {
  await fc.assert(
    fc.asyncProperty(sizes, fc.double({ min: 0, max: 1, noNaN: true }), async (picture, share) => {
      answerFor(picture);
      const cache = newCache(picture);
      const level = Math.round(share * coarsestLevel(picture));
      const tiles = await wholeLevel(cache, picture, level);
      const ends = (from: (tile: Tile) => number, size: (tile: Tile) => number) =>
        tiles.map((tile) => from(tile) + size(tile));
      expect(
        Math.max(
          ...ends(
            ({ x }) => x,
            ({ width }) => width,
          ),
        ),
      ).toBeCloseTo(picture.width, 6);
      expect(
        Math.max(
          ...ends(
            ({ y }) => y,
            ({ height }) => height,
          ),
        ),
      ).toBeCloseTo(picture.height, 6);
      expect(
        tiles.reduce((area, { width, height }) => area + width * height, 0) / (picture.width * picture.height),
      ).toBeCloseTo(1, 9);
      // Of the same area as the sheet, within it, and none over another: so they cover it.
      const over = tiles.flatMap((a, i) =>
        tiles
          .slice(i + 1)
          .filter(
            (b) =>
              Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x) > 1e-6 &&
              Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y) > 1e-6,
          ),
      );
      expect(over).toEqual([]);
      cache.close();
      expect(open).toBe(0);
    }),
    { seed: 6, numRuns: 60 },
  );
});

it('the coarsest level is one tile, and stays when others go', async () => {
  const picture = { hash: 'h', width: 4000, height: 3000 };
  answerFor(picture);
  const cache = newCache(picture, 10);
  const coarsest = coarsestLevel(picture);
  expect(await wholeLevel(cache, picture, coarsest)).toHaveLength(1);
  for (let step = 0; step < 40; step++) {
    cache.list(0, [0, 0], [4000, 3000], true);
    await new Promise((resolve) => setImmediate(resolve));
  }
  expect(open).toBeLessThanOrEqual(10);
  expect(cache.list(coarsest, [0, 0], [4000, 3000], false).complete).toBe(true);
});

it('a part of the sheet asks for the tiles that show it, and no others', async () => {
  const picture = { hash: 'h', width: 4000, height: 3000 };
  answerFor(picture);
  const cache = newCache(picture);
  const part = () => cache.list(0, [1100, 600], [1500, 1000], true);
  part();
  await new Promise((resolve) => setImmediate(resolve));
  expect(part()).toMatchObject({ complete: true, found: [{ key: '0/2/1' }] });
  expect(open).toBe(1);
});
