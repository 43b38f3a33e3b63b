import { OrthographicCamera, Scene, Vector2, WebGLRenderer, type ShaderMaterial } from 'three';
import type { Vec } from '@/core/geometry';
import { AIM_RADIUS } from './aim';
import { LaidPicture } from './laid-picture';
import type { Laying } from './laying';
import { PictureMaterials, type PictureLook } from './picture-material';
import type { PictureSize } from './tile-cache';
import type { Viewport } from './viewport';

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
  /** What lies under it, faded. */
  readonly under: readonly Under[];
}

/** Canvas pixels a CSS pixel at most: a third of a phone's CSS pixel shows nothing more of a photo, and costs as much again. */
const FINEST_RATIO = 2;

/** A further picture that lies on the same plane. */
export interface Under {
  readonly picture: PictureSize;
  readonly laying: Laying;
  /** Brings it to hand again. */
  reopen(): Promise<boolean>;
}

/** How much those that lie under it cover, and how many tiles are kept of each: they are looked at from afar. */
const FADED = 0.5;
const KEPT_UNDER = 24;

/**
 * Draws a picture from tiles with WebGL: the bench, and the magnified patch over it; faded under it others of its plane. Screen places are computed in double
 * precision on the way in. Call `draw` from the one animation frame that also moves the drawing.
 */
export class PictureLayer {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(0, 1, 0, 1, -1, 1);
  private readonly materials = new PictureMaterials();
  private shown: LaidPicture | undefined;
  private readonly under = new Map<string, LaidPicture>();

  constructor(
    canvas: HTMLCanvasElement,
    private readonly onTile: () => void,
  ) {
    // The buffer is kept, so that a frame that the page makes by itself (printing, a capture) still shows the picture.
    this.renderer = new WebGLRenderer({ canvas, alpha: true, antialias: false, preserveDrawingBuffer: true });
    this.renderer.autoClear = false;
    // Until something was drawn the renderer would clear to black, also where no picture comes.
    this.renderer.setClearColor(0x000000, 0);
    this.renderer.sortObjects = false;
  }

  show(picture: PictureSize | undefined, reopen: () => Promise<boolean>): void {
    if (this.shown?.picture.hash === picture?.hash) return;
    this.shown?.close();
    this.shown = picture && new LaidPicture(picture, this.scene, this.onTile, reopen);
  }

  setLook(look: PictureLook): void {
    this.materials.setLook(look);
  }

  draw(viewport: Viewport, { patch, ghost, ghostLaying, visible, under }: Shown): void {
    const ratio = Math.min(window.devicePixelRatio || 1, FINEST_RATIO);
    const size = this.renderer.getSize(new Vector2());
    if (size.x !== viewport.width || size.y !== viewport.height || this.renderer.getPixelRatio() !== ratio) {
      this.renderer.setPixelRatio(ratio);
      this.renderer.setSize(viewport.width, viewport.height, false);
    }
    this.renderer.clear();
    if (viewport.width === 0) return;
    this.drawUnder(under, viewport, ratio);
    const { shown } = this;
    if (!shown || !visible) return;
    this.pass(shown, viewport, viewport, [0, 0], ratio, this.materials.of(1, undefined));
    if (ghost > 0)
      this.pass(
        shown,
        viewport,
        { ...viewport, laying: ghostLaying },
        [0, 0],
        ratio,
        this.materials.of(ghost, undefined),
      );
    if (!patch) return;
    const round = [patch.middle[0] * ratio, (viewport.height - patch.middle[1]) * ratio, AIM_RADIUS * ratio] as const;
    const offset: Vec = [patch.middle[0] - patch.viewport.width / 2, patch.middle[1] - patch.viewport.height / 2];
    this.pass(shown, viewport, patch.viewport, offset, ratio, this.materials.of(1, round));
  }

  close(): void {
    for (const picture of [...this.under.values(), this.shown]) picture?.close();
    this.materials.close();
    this.renderer.dispose();
  }

  private drawUnder(under: readonly Under[], viewport: Viewport, ratio: number): void {
    for (const [hash, picture] of this.under) {
      if (under.some((other) => other.picture.hash === hash)) continue;
      picture.close();
      this.under.delete(hash);
    }
    for (const { picture, laying, reopen } of under) {
      const laid =
        this.under.get(picture.hash) ?? new LaidPicture(picture, this.scene, this.onTile, reopen, KEPT_UNDER);
      this.under.set(picture.hash, laid);
      this.pass(laid, viewport, { ...viewport, laying }, [0, 0], ratio, this.materials.of(FADED, undefined));
    }
  }

  /** Draws one picture as a viewport of a frame shows it, over what was drawn before. */
  private pass(
    picture: LaidPicture,
    frame: Viewport,
    viewport: Viewport,
    offset: Vec,
    ratio: number,
    material: ShaderMaterial,
  ): void {
    for (const other of [...this.under.values(), this.shown]) other?.hide();
    picture.place(viewport, offset, ratio, material);
    Object.assign(this.camera, { left: 0, right: frame.width, top: 0, bottom: frame.height });
    this.camera.updateProjectionMatrix();
    this.renderer.render(this.scene, this.camera);
  }
}
