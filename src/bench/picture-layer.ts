import { OrthographicCamera, Scene, Vector2, WebGLRenderer } from 'three';
import { shallow } from 'zustand/shallow';
import type { Vec } from '@/core/geometry';
import { AIM_RADIUS } from './aim';
import { LaidPicture } from './laid-picture';
import type { Laid } from './laying';
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
  readonly ghostLaid: Laid | undefined;
  readonly visible: boolean;
  /** What lies under it, faded. */
  readonly under: readonly Under[];
}

/** Canvas pixels a CSS pixel at most: a third of a phone's CSS pixel shows nothing more of a photo, and costs as much again. */
const FINEST_RATIO = 2;

/** A further picture that lies on the same plane. */
export interface Under {
  readonly picture: PictureSize;
  readonly laid: Laid;
  /** Brings it to hand again. */
  reopen(): Promise<boolean>;
}

/** How much those that lie under it cover, and how many tiles are kept of each: they are looked at from afar. */
const FADED = 0.5;
const KEPT_UNDER = 24;

/** One picture as a viewport shows it: moved on the canvas, covering so much, within a round part of it (middle and radius, canvas pixels). */
interface Pass {
  readonly picture: LaidPicture;
  readonly viewport: Viewport;
  readonly offset?: Vec;
  readonly opacity: number;
  readonly round?: readonly [number, number, number];
}

/**
 * Draws a picture from tiles with WebGL: the bench, and the magnified patch over it; faded under it others of its plane. Screen places are computed in double
 * precision on the way in. Call `draw` from the one animation frame that also moves the drawing: what would look as it does already is not drawn again.
 */
export class PictureLayer {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(0, 1, 0, 1, -1, 1);
  private readonly materials = new PictureMaterials();
  private shown: LaidPicture | undefined;
  private readonly under = new Map<string, LaidPicture>();
  private look: PictureLook | undefined;
  /** What the canvas shows; undefined while it has to be drawn whatever is asked, as when tiles of it are missing. */
  private drawn: readonly unknown[] | undefined;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly ask: () => void,
  ) {
    // The buffer is kept, so that a frame that the page makes by itself (printing, a capture) still shows the picture.
    this.renderer = new WebGLRenderer({ canvas, alpha: true, antialias: false, preserveDrawingBuffer: true });
    this.renderer.autoClear = false;
    // Until something was drawn the renderer would clear to black, also where no picture comes.
    this.renderer.setClearColor(0x000000, 0);
    this.renderer.sortObjects = false;
    // A graphics card that was taken away comes back empty.
    canvas.addEventListener('webglcontextrestored', this.drawAll);
  }

  private readonly drawAll = (): void => {
    this.drawn = undefined;
    this.ask();
  };

  show(picture: PictureSize | undefined, reopen: () => Promise<boolean>): void {
    if (this.shown?.picture.hash === picture?.hash) return;
    this.shown?.close();
    this.shown = picture && new LaidPicture(picture, this.scene, this.ask, reopen);
  }

  setLook(look: PictureLook): void {
    this.look = look;
    this.materials.setLook(look);
  }

  draw(viewport: Viewport, frame: Shown): void {
    const ratio = Math.min(window.devicePixelRatio || 1, FINEST_RATIO);
    const wanted = [ratio, this.shown, JSON.stringify(this.look), ...placeOf(viewport), ...contentOf(frame)];
    if (this.drawn && shallow(this.drawn, wanted)) return;
    this.drawn = this.drawAnew(viewport, frame, ratio) ? wanted : undefined;
  }

  /** Gives back whether all that the frame wants of its pictures was there. */
  private drawAnew(viewport: Viewport, frame: Shown, ratio: number): boolean {
    const size = this.renderer.getSize(new Vector2());
    if (size.x !== viewport.width || size.y !== viewport.height || this.renderer.getPixelRatio() !== ratio) {
      this.renderer.setPixelRatio(ratio);
      this.renderer.setSize(viewport.width, viewport.height, false);
    }
    this.renderer.clear();
    if (viewport.width === 0) return true;
    const passes = [...this.listUnder(viewport, frame), ...this.listOfShown(viewport, frame, ratio)];
    return passes.map((pass) => this.draws(pass, viewport, ratio)).every(Boolean);
  }

  close(): void {
    for (const picture of [...this.under.values(), this.shown]) picture?.close();
    this.canvas.removeEventListener('webglcontextrestored', this.drawAll);
    this.materials.close();
    this.renderer.dispose();
  }

  private listUnder(viewport: Viewport, { under }: Shown): readonly Pass[] {
    for (const [hash, picture] of this.under) {
      if (under.some((other) => other.picture.hash === hash)) continue;
      picture.close();
      this.under.delete(hash);
    }
    return under.map(({ picture, laid: lies, reopen }) => {
      const laid = this.under.get(picture.hash) ?? new LaidPicture(picture, this.scene, this.ask, reopen, KEPT_UNDER);
      this.under.set(picture.hash, laid);
      return { picture: laid, viewport: { ...viewport, laid: lies }, opacity: FADED };
    });
  }

  private listOfShown(viewport: Viewport, { patch, ghost, ghostLaid, visible }: Shown, ratio: number): readonly Pass[] {
    const { shown: picture } = this;
    if (!picture || !visible) return [];
    const passes: Pass[] = [{ picture, viewport, opacity: 1 }];
    if (ghost > 0) passes.push({ picture, viewport: { ...viewport, laid: ghostLaid }, opacity: ghost });
    if (patch) {
      const [x, y] = patch.middle;
      passes.push({
        picture,
        viewport: patch.viewport,
        offset: [x - patch.viewport.width / 2, y - patch.viewport.height / 2],
        opacity: 1,
        round: [x * ratio, (viewport.height - y) * ratio, AIM_RADIUS * ratio],
      });
    }
    return passes;
  }

  /** Draws one picture over what was drawn before; false when something of it was not at hand. */
  private draws({ picture, viewport, offset = [0, 0], opacity, round }: Pass, frame: Viewport, ratio: number): boolean {
    for (const other of [...this.under.values(), this.shown]) other?.hide();
    const isWhole = picture.place(viewport, offset, ratio, this.materials.of(opacity, round));
    Object.assign(this.camera, { left: 0, right: frame.width, top: 0, bottom: frame.height });
    this.camera.updateProjectionMatrix();
    this.renderer.render(this.scene, this.camera);
    return isWhole;
  }
}

/** All that tells one viewport from another, part by part. */
const placeOf = ({ width, height, insets, zoom, centre, laid }: Viewport): readonly unknown[] => [
  width,
  height,
  ...(insets ? [insets.top, insets.bottom, insets.right] : []),
  zoom,
  ...centre,
  laid,
];

const contentOf = ({ patch, ghost, ghostLaid, visible, under }: Shown): readonly unknown[] => [
  visible,
  ghost,
  ghost > 0 && ghostLaid,
  ...under.flatMap(({ picture, laid }) => [picture.hash, laid]),
  ...(patch ? [...placeOf(patch.viewport), ...patch.middle] : []),
];
