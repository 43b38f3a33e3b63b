import { pictureWorker, TILE_SIZE } from '@/workers';

export interface PictureSize {
  readonly hash: string;
  readonly width: number;
  readonly height: number;
}

/** A tile and the part of the sheet that it shows (px of the sheet). */
export interface Tile {
  readonly key: string;
  readonly level: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly bitmap: ImageBitmap;
}

/** Tiles kept: at 512 × 512 px and four bytes, about 190 MB. */
const KEPT = 180;
const IN_FLIGHT = 6;

/** Width and height of a level as the worker makes it: halved and rounded up, level by level. */
function levelSize({ width, height }: PictureSize, level: number): readonly [number, number] {
  let [w, h] = [width, height];
  for (let i = 0; i < level; i++) [w, h] = [Math.max(1, Math.ceil(w / 2)), Math.max(1, Math.ceil(h / 2))];
  return [w, h];
}

/** The coarsest level: the whole picture in one tile. */
export function coarsestLevel({ width, height }: Pick<PictureSize, 'width' | 'height'>): number {
  return Math.max(0, Math.ceil(Math.log2(Math.max(width, height) / TILE_SIZE)));
}

/** Fetches tiles of one picture from the picture worker and keeps those used last. */
export class TileCache {
  private readonly tiles = new Map<string, Tile>();
  private readonly asked = new Set<string>();
  private wanted: readonly (readonly [number, number, number])[] = [];
  private closed = false;

  constructor(
    readonly picture: PictureSize,
    private readonly onTile: () => void,
    /** Brings the picture into the worker again after the worker let go of it. */
    private readonly reopen: () => Promise<boolean>,
    private readonly onDropped: (tile: Tile) => void,
    private readonly most = KEPT,
  ) {}

  /** The tiles of a level that show a box of the sheet: those that are there, and whether they are all; the others are asked for. */
  list(
    level: number,
    min: readonly [number, number],
    max: readonly [number, number],
    ask: boolean,
  ): { readonly found: readonly Tile[]; readonly complete: boolean } {
    const [w, h] = levelSize(this.picture, level);
    const [sx, sy] = [this.picture.width / w, this.picture.height / h];
    const range = (lo: number, hi: number, scale: number, size: number) =>
      [
        Math.max(0, Math.floor(lo / scale / TILE_SIZE)),
        Math.min(Math.ceil(size / TILE_SIZE) - 1, Math.floor(hi / scale / TILE_SIZE)),
      ] as const;
    const [c0, c1] = range(min[0], max[0], sx, w);
    const [r0, r1] = range(min[1], max[1], sy, h);
    const found: Tile[] = [];
    const missing: (readonly [number, number, number])[] = [];
    for (let row = r0; row <= r1; row++) {
      for (let column = c0; column <= c1; column++) {
        const tile = this.find(`${level}/${column}/${row}`);
        if (tile) found.push(tile);
        else missing.push([level, column, row]);
      }
    }
    if (ask && missing.length > 0) this.ask(missing, [sx, sy]);
    return { found, complete: missing.length === 0 };
  }

  close(): void {
    this.closed = true;
    for (const tile of this.tiles.values()) this.drop(tile);
    this.tiles.clear();
  }

  private find(key: string): Tile | undefined {
    const tile = this.tiles.get(key);
    if (tile) {
      this.tiles.delete(key);
      this.tiles.set(key, tile);
    }
    return tile;
  }

  private drop(tile: Tile): void {
    this.onDropped(tile);
    tile.bitmap.close();
  }

  private ask(missing: readonly (readonly [number, number, number])[], scale: readonly [number, number]): void {
    this.wanted = missing;
    for (const [level, column, row] of this.wanted) {
      if (this.asked.size >= IN_FLIGHT) return;
      const key = `${level}/${column}/${row}`;
      if (this.asked.has(key)) continue;
      this.asked.add(key);
      void this.fetch(level, column, row).then((bitmap) => {
        this.asked.delete(key);
        if (!bitmap || this.closed) return bitmap?.close();
        this.keep({
          key,
          level,
          x: column * TILE_SIZE * scale[0],
          y: row * TILE_SIZE * scale[1],
          width: bitmap.width * scale[0],
          height: bitmap.height * scale[1],
          bitmap,
        });
        this.onTile();
      });
    }
  }

  private async fetch(level: number, column: number, row: number): Promise<ImageBitmap | undefined> {
    const request = { hash: this.picture.hash, level, column, row };
    const first = await pictureWorker.call('tile', request);
    if (first.kind === 'done' && first.value) return first.value;
    if (this.closed || !(await this.reopen())) return undefined;
    const second = await pictureWorker.call('tile', request);
    return second.kind === 'done' ? second.value : undefined;
  }

  private keep(tile: Tile): void {
    this.tiles.set(tile.key, tile);
    const coarsest = coarsestLevel(this.picture);
    for (const [key, old] of this.tiles) {
      if (this.tiles.size <= this.most) return;
      if (old.level === coarsest) continue;
      this.tiles.delete(key);
      this.drop(old);
    }
  }
}
