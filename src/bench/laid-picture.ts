import {
  ClampToEdgeWrapping,
  LinearFilter,
  Mesh,
  NoColorSpace,
  Texture,
  type BufferGeometry,
  type Scene,
  type ShaderMaterial,
} from 'three';
import type { Vec } from '@/core/geometry';
import { coarsestLevel, TileCache, type PictureSize, type Tile } from './tile-cache';
import { TileLayings } from './tile-layings';
import { fromBench, sheetUnder, type Viewport } from './viewport';

/** One picture in a scene: its tiles, and how they lie. */
export class LaidPicture {
  private readonly layings = new TileLayings();
  private readonly meshes = new Map<string, TileMesh>();
  private readonly cache: TileCache;

  /** `reopen` brings the picture to hand again; `most` tiles are kept of it. */
  constructor(
    readonly picture: PictureSize,
    private readonly scene: Scene,
    onTile: () => void,
    reopen: () => Promise<boolean>,
    most?: number,
  ) {
    this.cache = new TileCache(picture, onTile, reopen, (tile) => this.forget(tile), most);
  }

  hide(): void {
    for (const mesh of this.meshes.values()) mesh.visible = false;
  }

  /** Puts what a viewport shows of it into the scene, over what was put there before; false while tiles of it are on their way. */
  place(viewport: Viewport, offset: Vec, ratio: number, material: ShaderMaterial): boolean {
    const { tiles, isWhole } = this.listTiles(viewport, ratio);
    for (const tile of tiles) {
      const mesh = this.meshOf(tile);
      const { geometry, origin } = this.layings.of(tile, viewport.laid);
      const [x, y] = fromBench(viewport, origin);
      Object.assign(mesh, { geometry, material, visible: true });
      mesh.position.set(x + offset[0], y + offset[1], 0);
      mesh.scale.set(viewport.zoom, viewport.zoom, 1);
      // The scene's own order is the painting order.
      this.scene.remove(mesh);
      this.scene.add(mesh);
    }
    return isWhole;
  }

  close(): void {
    this.cache.close();
    this.layings.close();
  }

  /** The tiles that a frame needs, in painting order: those of the level it shows, over coarser ones where a fine one is still on its way. */
  private listTiles(viewport: Viewport, ratio: number): { readonly tiles: readonly Tile[]; readonly isWhole: boolean } {
    const { min, max } = seenOf(viewport, this.picture);
    const coarsest = coarsestLevel(this.picture);
    const wanted = Math.min(coarsest, Math.max(0, Math.floor(Math.log2(1 / (viewport.zoom * ratio)))));
    const levels = Array.from({ length: coarsest - wanted + 1 }, (_, i) =>
      this.cache.list(wanted + i, min, max, i === 0 || wanted + i === coarsest),
    );
    const whole = levels.findIndex((level) => level.complete);
    const tiles = levels
      .slice(0, whole < 0 ? levels.length : whole + 1)
      .reverse()
      .flatMap((level) => level.found);
    return { tiles, isWhole: whole === 0 };
  }

  private meshOf(tile: Tile): TileMesh {
    const known = this.meshes.get(tile.key);
    if (known) return known;
    const texture = new Texture(tile.bitmap as unknown as HTMLImageElement);
    Object.assign(texture, {
      minFilter: LinearFilter,
      magFilter: LinearFilter,
      wrapS: ClampToEdgeWrapping,
      wrapT: ClampToEdgeWrapping,
      generateMipmaps: false,
      flipY: false,
      colorSpace: NoColorSpace,
      needsUpdate: true,
    });
    const mesh = new TileMesh(texture);
    this.meshes.set(tile.key, mesh);
    return mesh;
  }

  private forget(tile: Tile): void {
    const mesh = this.meshes.get(tile.key);
    if (!mesh) return;
    mesh.texture.dispose();
    this.layings.forget(tile);
    this.scene.remove(mesh);
    this.meshes.delete(tile.key);
  }
}

/** A tile as it is drawn: all share the material of the pass, and each brings its own picture to it. */
class TileMesh extends Mesh<BufferGeometry, ShaderMaterial> {
  constructor(readonly texture: Texture) {
    super();
    this.frustumCulled = false;
  }

  override onBeforeRender = (): void => {
    this.material.uniforms.picture!.value = this.texture;
    this.material.uniformsNeedUpdate = true;
  };
}

/** Places along the screen's rim at which it is looked how far the sheet is seen. */
const RIM = [0, 0.25, 0.5, 0.75, 1];

/** The box of the sheet that a viewport shows. */
function seenOf(viewport: Viewport, { width, height }: PictureSize): { readonly min: Vec; readonly max: Vec } {
  const rim = RIM.flatMap((u) => RIM.map((v): Vec => sheetUnder(viewport, [u * viewport.width, v * viewport.height])));
  // Past the horizon there is no place: then all of it may be seen.
  if (!rim.every((place) => place.every(Number.isFinite))) return { min: [0, 0], max: [width, height] };
  const [xs, ys] = [rim.map((p) => p[0]), rim.map((p) => p[1])];
  return { min: [Math.min(...xs), Math.min(...ys)], max: [Math.max(...xs), Math.max(...ys)] };
}
