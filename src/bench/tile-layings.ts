import { BufferAttribute, BufferGeometry } from 'three';
import type { Vec } from '@/core/geometry';
import { layingBy, type Laid, type Laying } from './laying';
import type { Tile } from './tile-cache';

/** A tile's mesh as it lies: bench pixels from `origin`, so that single precision is enough. */
export interface LaidTile {
  readonly geometry: BufferGeometry;
  readonly origin: Vec;
}

/** Meshes of a squared-up tile have so many cells a side: between them the picture is drawn affinely, off by less than 0.1 px. */
const CELLS = 16;

/** The meshes of tiles, remembered for as long as the picture lies as it does. */
export class TileLayings {
  private readonly taken = new Map<string, LaidTile>();
  private readonly straight = new Map<string, LaidTile>();
  private laid: Laid | undefined;

  of(tile: Tile, laid: Laid | undefined): LaidTile {
    if (laid && laid !== this.laid) {
      dispose(this.straight);
      this.laid = laid;
    }
    const known = laid ? this.straight : this.taken;
    const before = known.get(tile.key);
    if (before) return before;
    const laying = laid && layingBy(laid);
    const mesh = meshOf(tile, laying?.straight ? CELLS : 1, laying);
    known.set(tile.key, mesh);
    return mesh;
  }

  forget(tile: Tile): void {
    for (const known of [this.taken, this.straight]) {
      known.get(tile.key)?.geometry.dispose();
      known.delete(tile.key);
    }
  }

  close(): void {
    dispose(this.taken);
    dispose(this.straight);
  }
}

function dispose(known: Map<string, LaidTile>): void {
  for (const { geometry } of known.values()) geometry.dispose();
  known.clear();
}

function meshOf({ x, y, width, height }: Tile, cells: number, laying: Laying | undefined): LaidTile {
  const side = cells + 1;
  const origin = laying?.canLay([x, y]) ? laying.toBench([x, y]) : ([x, y] as Vec);
  const [positions, places] = [new Float32Array(3 * side * side), new Float32Array(2 * side * side)];
  const laid: boolean[] = [];
  for (let row = 0, i = 0; row < side; row++) {
    for (let column = 0; column < side; column++, i++) {
      const [u, v] = [column / cells, row / cells];
      const sheet: Vec = [x + u * width, y + v * height];
      laid.push(laying?.canLay(sheet) ?? true);
      const bench = laid[i] ? (laying?.toBench(sheet) ?? sheet) : origin;
      positions.set([bench[0] - origin[0], bench[1] - origin[1], 0], 3 * i);
      places.set([u, v], 2 * i);
    }
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setAttribute('uv', new BufferAttribute(places, 2));
  geometry.setIndex(listTriangles(cells, laid));
  return { geometry, origin };
}

/** Two triangles a cell, where all its corners can be laid. */
function listTriangles(cells: number, laid: readonly boolean[]): number[] {
  const side = cells + 1;
  return Array.from({ length: cells * cells }, (_, cell) => Math.floor(cell / cells) * side + (cell % cells)).flatMap(
    (a) => {
      const [b, c, d] = [a + 1, a + side, a + side + 1];
      return [a, b, c, d].every((corner) => laid[corner]) ? [a, b, c, b, d, c] : [];
    },
  );
}
