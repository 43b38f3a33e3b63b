import { ClampToEdgeWrapping, LinearFilter, Mesh, NoColorSpace, OrthographicCamera, Scene, Texture, Vector2, WebGLRenderer, type BufferGeometry, type ShaderMaterial } from 'three';
import type { Vec } from '@/core/geometry';
import { AIM_RADIUS } from './aim';
import { coarsestLevel, TileCache, type PictureSize, type Tile } from './tile-cache';
import type { Laying } from './laying';
import { PictureMaterials, type Look } from './picture-material';
import { TileLayings } from './tile-layings';
import { fromBench, toSheet, type Viewport } from './viewport';

/** The magnified patch: what it shows, and where its middle is on the bench. */
export interface Patch {
  readonly viewport: Viewport;
  readonly middle: Vec;
}

/** What a frame shows: the patch, how much of the picture as it was taken shines through, and whether there is a picture at all. */
export interface Shown {
  readonly patch: Patch | undefined;
  readonly ghost: number;
  /** How the picture lies that shines through. */
  readonly ghostLaying: Laying | undefined;
  readonly visible: boolean;
}

/** Canvas pixels a CSS pixel at most: a third of a phone's CSS pixel shows nothing more of a photo, and costs as much again. */
const FINEST_RATIO = 2;

/**
 * Draws one picture from tiles with WebGL: the bench, and the magnified patch over it. Screen places are computed in double
 * precision on the way in. Call `draw` from the one animation frame that also moves the drawing.
 */
export class PictureLayer {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(0, 1, 0, 1, -1, 1);
  private readonly layings = new TileLayings();
  private readonly materials = new PictureMaterials();
  private readonly meshes = new Map<string, TileMesh>();
  private cache: TileCache | undefined;

  constructor(canvas: HTMLCanvasElement, private readonly onTile: () => void) {
    // The buffer is kept, so that a frame that the page makes by itself (printing, a capture) still shows the picture.
    this.renderer = new WebGLRenderer({ canvas, alpha: true, antialias: false, preserveDrawingBuffer: true });
    this.renderer.autoClear = false;
    // Until something was drawn the renderer would clear to black, also where no picture comes.
    this.renderer.setClearColor(0x000000, 0);
    this.renderer.sortObjects = false;
  }

  show(picture: PictureSize | undefined, reopen: () => Promise<boolean>): void {
    if (this.cache?.picture.hash === picture?.hash) return;
    this.cache?.close();
    this.cache = picture && new TileCache(picture, this.onTile, reopen, (tile) => this.forget(tile));
  }

  setLook(look: Look): void {
    this.materials.setLook(look);
  }

  draw(viewport: Viewport, { patch, ghost, ghostLaying, visible }: Shown): void {
    const ratio = Math.min(window.devicePixelRatio || 1, FINEST_RATIO);
    const size = this.renderer.getSize(new Vector2());
    if (size.x !== viewport.width || size.y !== viewport.height || this.renderer.getPixelRatio() !== ratio) {
      this.renderer.setPixelRatio(ratio);
      this.renderer.setSize(viewport.width, viewport.height, false);
    }
    this.renderer.clear();
    if (!this.cache || !visible || viewport.width === 0) return;
    this.drawPass(viewport, [0, 0], ratio, viewport, this.materials.of(1, undefined));
    if (ghost > 0) this.drawPass({ ...viewport, laying: ghostLaying }, [0, 0], ratio, viewport, this.materials.of(ghost, undefined));
    if (!patch) return;
    const round = [patch.middle[0] * ratio, (viewport.height - patch.middle[1]) * ratio, AIM_RADIUS * ratio] as const;
    const offset: Vec = [patch.middle[0] - patch.viewport.width / 2, patch.middle[1] - patch.viewport.height / 2];
    this.drawPass(patch.viewport, offset, ratio, viewport, this.materials.of(1, round));
  }

  close(): void {
    this.cache?.close();
    this.layings.close();
    this.materials.close();
    this.renderer.dispose();
  }

  private drawPass(viewport: Viewport, offset: Vec, ratio: number, frame: Viewport, material: ShaderMaterial): void {
    for (const mesh of this.meshes.values()) mesh.visible = false;
    this.listTiles(viewport, ratio).forEach((tile) => this.place(tile, viewport, offset, material));
    Object.assign(this.camera, { left: 0, right: frame.width, top: 0, bottom: frame.height });
    this.camera.updateProjectionMatrix();
    this.renderer.render(this.scene, this.camera);
  }

  /** The tiles that a frame needs, in painting order: those of the level it shows, over coarser ones where a fine one is still on its way. */
  private listTiles(viewport: Viewport, ratio: number): readonly Tile[] {
    const cache = this.cache!;
    const { min, max } = seenOf(viewport, cache.picture);
    const coarsest = coarsestLevel(cache.picture);
    const wanted = Math.min(coarsest, Math.max(0, Math.floor(Math.log2(1 / (viewport.zoom * ratio)))));
    const levels = Array.from({ length: coarsest - wanted + 1 }, (_, i) => cache.list(wanted + i, min, max, i === 0 || wanted + i === coarsest));
    const whole = levels.findIndex((level) => level.complete);
    return levels.slice(0, whole < 0 ? levels.length : whole + 1).reverse().flatMap((level) => level.found);
  }

  private place(tile: Tile, viewport: Viewport, offset: Vec, material: ShaderMaterial): void {
    const mesh = this.meshOf(tile);
    const { geometry, origin } = this.layings.of(tile, viewport.laying);
    mesh.geometry = geometry;
    const [x, y] = fromBench(viewport, origin);
    mesh.visible = true;
    mesh.material = material;
    mesh.position.set(x + offset[0], y + offset[1], 0);
    mesh.scale.set(viewport.zoom, viewport.zoom, 1);
    // The scene's own order is the painting order.
    this.scene.remove(mesh);
    this.scene.add(mesh);
  }

  private meshOf(tile: Tile): TileMesh {
    const known = this.meshes.get(tile.key);
    if (known) return known;
    const texture = new Texture(tile.bitmap as unknown as HTMLImageElement);
    Object.assign(texture, { minFilter: LinearFilter, magFilter: LinearFilter, wrapS: ClampToEdgeWrapping, wrapT: ClampToEdgeWrapping, generateMipmaps: false, flipY: false, colorSpace: NoColorSpace, needsUpdate: true });
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
  const rim = RIM.flatMap((u) => RIM.map((v): Vec => toSheet(viewport, [u * viewport.width, v * viewport.height])));
  // Past the horizon there is no place: then all of it may be seen.
  if (!rim.every((place) => place.every(Number.isFinite))) return { min: [0, 0], max: [width, height] };
  const [xs, ys] = [rim.map((p) => p[0]), rim.map((p) => p[1])];
  return { min: [Math.min(...xs), Math.min(...ys)], max: [Math.max(...xs), Math.max(...ys)] };
}
