import { BufferGeometry, Mesh, OrthographicCamera, Scene, ShaderMaterial, Texture, Vector2, Vector3, Vector4, WebGLRenderer, LinearFilter, ClampToEdgeWrapping, DoubleSide, NoColorSpace } from 'three';
import type { Vec } from '@/core/geometry';
import { TILE_SIZE } from '@/workers';
import { AIM_RADIUS } from './aim';
import { coarsestLevel, TileCache, type PictureSize, type Tile } from './tile-cache';
import type { Laying } from './laying';
import { TileLayings } from './tile-layings';
import { fromBench, toSheet, type Viewport } from './viewport';

/** How a picture is shown; its pixels stay as they are. Colours are red, green, blue from 0 to 1. */
export interface Look {
  readonly contrast: number;
  readonly grey: boolean;
  readonly invert: boolean;
  /** Darkness from which a place counts as ink; undefined shows the picture as it is. */
  readonly ink: number | undefined;
  readonly tint: readonly [number, number, number] | undefined;
  /** What lies where there is no ink. */
  readonly backing: readonly [number, number, number];
}

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

const VERTEX = 'varying vec2 at; void main() { at = uv; gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0); }';
const FRAGMENT = `
  uniform sampler2D picture; uniform float contrast; uniform float grey; uniform float invert; uniform float ink; uniform vec4 tint; uniform vec3 backing; uniform vec3 clip; uniform float opacity; varying vec2 at;
  float lightAt(vec2 place) { return dot(texture2D(picture, place).rgb, vec3(0.299, 0.587, 0.114)); }
  // The paper around a place: the lightest of what lies on two rings about it.
  float paperAround() {
    float paper = 0.0;
    for (int i = 0; i < 12; i++) {
      vec2 way = vec2(cos(float(i) * 0.5236), sin(float(i) * 0.5236)) / ${TILE_SIZE}.0;
      paper = max(paper, max(lightAt(at + 9.0 * way), lightAt(at + 24.0 * way)));
    }
    return paper;
  }
  void main() {
    if (clip.z > 0.0 && distance(gl_FragCoord.xy, clip.xy) > clip.z) discard;
    vec3 color = texture2D(picture, at).rgb;
    float light = dot(color, vec3(0.299, 0.587, 0.114));
    if (ink > 0.0) {
      float drawn = smoothstep(ink - 0.04, ink + 0.04, paperAround() - light);
      // Not clear: under a fine tile lies a coarse one, and its ink would show beside the lines.
      color = mix(backing, mix(color, tint.rgb, tint.a), drawn);
    } else {
      color = mix(color, vec3(light), grey);
      color = mix(color, 1.0 - color, invert);
      color = clamp((color - 0.5) * contrast + 0.5, 0.0, 1.0);
      // Dark becomes the tint, light stays light.
      color = mix(color, mix(tint.rgb, vec3(1.0), dot(color, vec3(0.299, 0.587, 0.114))), tint.a);
    }
    gl_FragColor = vec4(color, opacity);
  }`;

/**
 * Draws one picture from tiles with WebGL: the bench, and the magnified patch over it. Screen places are computed in double
 * precision on the way in. Call `draw` from the one animation frame that also moves the drawing.
 */
export class PictureLayer {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(0, 1, 0, 1, -1, 1);
  private readonly layings = new TileLayings();
  private readonly meshes = new Map<string, Mesh<BufferGeometry, ShaderMaterial>>();
  private readonly clip = { value: new Vector3(0, 0, 0) };
  private readonly contrast = { value: 1 };
  private readonly grey = { value: 0 };
  private readonly opacity = { value: 1 };
  private readonly invert = { value: 0 };
  private readonly ink = { value: 0 };
  private readonly tint = { value: new Vector4(0, 0, 0, 0) };
  private readonly backing = { value: new Vector3(1, 1, 1) };
  private cache: TileCache | undefined;

  constructor(canvas: HTMLCanvasElement, private readonly onTile: () => void) {
    // The buffer is kept, so that a frame that the page makes by itself (printing, a capture) still shows the picture.
    this.renderer = new WebGLRenderer({ canvas, alpha: true, antialias: false, preserveDrawingBuffer: true });
    this.renderer.autoClear = false;
    this.renderer.sortObjects = false;
  }

  show(picture: PictureSize | undefined, reopen: () => Promise<boolean>): void {
    if (this.cache?.picture.hash === picture?.hash) return;
    this.cache?.close();
    this.cache = picture && new TileCache(picture, this.onTile, reopen, (tile) => this.forget(tile));
  }

  setLook({ contrast, grey, invert, ink, tint, backing }: Look): void {
    this.backing.value.set(...backing);
    this.invert.value = invert ? 1 : 0;
    this.ink.value = ink ?? 0;
    this.tint.value.set(...(tint ?? [0, 0, 0]), tint ? 1 : 0);
    this.contrast.value = contrast;
    this.grey.value = grey ? 1 : 0;
  }

  draw(viewport: Viewport, { patch, ghost, ghostLaying, visible }: Shown): void {
    const ratio = window.devicePixelRatio || 1;
    const size = this.renderer.getSize(new Vector2());
    if (size.x !== viewport.width || size.y !== viewport.height || this.renderer.getPixelRatio() !== ratio) {
      this.renderer.setPixelRatio(ratio);
      this.renderer.setSize(viewport.width, viewport.height, false);
    }
    this.renderer.clear();
    if (!this.cache || !visible || viewport.width === 0) return;
    this.clip.value.set(0, 0, 0);
    this.drawPass(viewport, [0, 0], ratio);
    if (ghost > 0) this.drawPass({ ...viewport, laying: ghostLaying }, [0, 0], ratio, viewport, ghost);
    if (!patch) return;
    this.clip.value.set(patch.middle[0] * ratio, (viewport.height - patch.middle[1]) * ratio, AIM_RADIUS * ratio);
    const offset: Vec = [patch.middle[0] - patch.viewport.width / 2, patch.middle[1] - patch.viewport.height / 2];
    this.drawPass(patch.viewport, offset, ratio, viewport);
  }

  close(): void {
    this.cache?.close();
    this.layings.close();
    this.renderer.dispose();
  }

  private drawPass(viewport: Viewport, offset: Vec, ratio: number, frame = viewport, opacity = 1): void {
    const cache = this.cache!;
    const { min, max } = seenOf(viewport, cache.picture);
    const coarsest = coarsestLevel(cache.picture);
    const wanted = Math.min(coarsest, Math.max(0, Math.floor(Math.log2(1 / (viewport.zoom * ratio)))));
    const levels = Array.from({ length: coarsest - wanted + 1 }, (_, i) => coarsest - i);
    const tiles = levels.flatMap((level) => cache.list(level, min, max, level === wanted || level === coarsest));
    for (const mesh of this.meshes.values()) mesh.visible = false;
    this.opacity.value = opacity;
    tiles.forEach((tile, order) => this.place(tile, viewport, offset, order));
    Object.assign(this.camera, { left: 0, right: frame.width, top: 0, bottom: frame.height });
    this.camera.updateProjectionMatrix();
    this.renderer.render(this.scene, this.camera);
  }

  private place(tile: Tile, viewport: Viewport, offset: Vec, order: number): void {
    const mesh = this.meshOf(tile);
    const { geometry, origin } = this.layings.of(tile, viewport.laying);
    mesh.geometry = geometry;
    const [x, y] = fromBench(viewport, origin);
    mesh.visible = true;
    mesh.renderOrder = order;
    mesh.position.set(x + offset[0], y + offset[1], 0);
    mesh.scale.set(viewport.zoom, viewport.zoom, 1);
    // Later levels lie over earlier ones: the scene's own order is the painting order.
    this.scene.remove(mesh);
    this.scene.add(mesh);
  }

  private meshOf(tile: Tile): Mesh<BufferGeometry, ShaderMaterial> {
    const known = this.meshes.get(tile.key);
    if (known) return known;
    const texture = new Texture(tile.bitmap as unknown as HTMLImageElement);
    Object.assign(texture, { minFilter: LinearFilter, magFilter: LinearFilter, wrapS: ClampToEdgeWrapping, wrapT: ClampToEdgeWrapping, generateMipmaps: false, flipY: false, colorSpace: NoColorSpace, needsUpdate: true });
    const uniforms = { picture: { value: texture }, contrast: this.contrast, grey: this.grey, clip: this.clip, opacity: this.opacity, invert: this.invert, ink: this.ink, tint: this.tint, backing: this.backing };
    const material = new ShaderMaterial({ vertexShader: VERTEX, fragmentShader: FRAGMENT, uniforms, depthTest: false, depthWrite: false, side: DoubleSide, transparent: true });
    const mesh = new Mesh<BufferGeometry, ShaderMaterial>(new BufferGeometry(), material);
    mesh.frustumCulled = false;
    this.meshes.set(tile.key, mesh);
    return mesh;
  }

  private forget(tile: Tile): void {
    const mesh = this.meshes.get(tile.key);
    if (!mesh) return;
    (mesh.material.uniforms.picture!.value as Texture).dispose();
    mesh.material.dispose();
    this.layings.forget(tile);
    this.scene.remove(mesh);
    this.meshes.delete(tile.key);
  }
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
