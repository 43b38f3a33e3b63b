import type { FittedView } from '@/core/derive';
import { type View } from '@/core/job';
import { pictureKey } from '@/core/pictures';
import { openShown, repository, shownPicture, type JobStore, type ShownPicture } from '@/store';
import type { Palette } from '@/ui/palette';
import { turned, type Laid } from './laying';
import { laidUnder, listOthers, type OtherView } from './others';
import { benchTransform } from './overlay/selection';
import { patchOf } from './patch';
import type { PictureLayer, Under } from './picture-layer';
import type { Session } from './session';
import type { Viewport } from './viewport';

/** What lies behind a picture that lets it through. */
const BACKINGS = { paper: '#ffffff', dark: '#1b1f1a' } as const;

/** Red, green and blue of "#rrggbb", 0 to 1. */
function lightsOf(color: string): [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(color.slice(at, at + 2), 16) / 255) as [number, number, number];
}

/** What is painted on. */
export interface Ground {
  readonly canvas: HTMLCanvasElement;
  /** The group that the drawing hangs on; it comes and goes with the view. */
  findDrawing(): SVGGElement | null;
}

/** Paints the picture and moves the drawing with it, in one animation frame; a new fit lays the picture anew. */
export class Painter {
  private layer: PictureLayer | undefined;
  private frame = 0;
  private isClosed = false;
  private picture: ShownPicture | undefined;
  private readonly under = new Map<string, { readonly of: readonly unknown[]; readonly laid: Laid }>();
  private readonly stops: readonly (() => void)[];

  constructor(
    private readonly ground: Ground,
    private readonly session: Session,
    private readonly jobs: JobStore,
    private palette: Palette,
  ) {
    void import('./picture-layer').then(({ PictureLayer: Layer }) => {
      if (this.isClosed) return;
      this.layer = new Layer(ground.canvas, this.ask);
      this.ask();
    });
    // Zooming the page changes the device's pixels under the same CSS size.
    window.addEventListener('resize', this.ask);
    this.stops = [
      session.store.subscribe(this.ask),
      jobs.subscribe(this.ask),
      this.layWithFit(jobs),
      () => window.removeEventListener('resize', this.ask),
    ];
  }

  show(picture: ShownPicture | undefined, palette: Palette): void {
    this.picture = picture;
    this.palette = palette;
    this.ask();
  }

  close(): void {
    this.isClosed = true;
    this.stops.forEach((stop) => stop());
    cancelAnimationFrame(this.frame);
    this.layer?.close();
  }

  private readonly ask = (): void => void (this.frame ||= requestAnimationFrame(() => this.paint()));

  private layWithFit(jobs: JobStore): () => void {
    let fit = this.session.findFitted()?.fit;
    return jobs.subscribe(() => {
      const now = this.session.findFitted()?.fit;
      if (now !== fit) this.session.layAgain();
      fit = now;
    });
  }

  private paint(): void {
    this.frame = 0;
    const state = this.session.getState();
    this.ground.findDrawing()?.setAttribute('transform', benchTransform(state.viewport));
    const fitted = this.session.findFitted();
    if (!this.layer || !fitted) return;
    const isThere = this.showPicture(this.layer, fitted);
    this.setLook(this.layer, fitted.view.look);
    this.layer.draw(state.viewport, {
      patch: patchOf(state),
      ghost: state.straight ? state.ghost : 0,
      ghostLaid: turned(fitted),
      visible: isThere && !fitted.view.hidden,
      under: state.others ? this.listUnder(fitted, state.viewport) : [],
    });
  }

  private listUnder(fitted: FittedView, viewport: Viewport): readonly Under[] {
    return listOthers(this.jobs.getState().derived, fitted)
      .filter(({ fitted: { sheet } }) => sheet.bytes > 0)
      .map((other) => {
        const { view, sheet } = other.fitted;
        const picture = shownPicture(view, sheet);
        const { width, height } = sheet;
        return {
          picture: { hash: picture.key, width, height },
          laid: this.laidUnder(other, fitted, viewport),
          reopen: () => openShown(picture, repository),
        };
      });
  }

  /** The same for as long as both fits and how this picture lies are the same: tiles are laid out anew for another one. */
  private laidUnder(other: OtherView, fitted: FittedView, viewport: Viewport): Laid {
    const { id } = other.fitted.view;
    const of = [other.fitted.fit, fitted.fit, viewport.laid, other.onto.join(' ')] as const;
    const known = this.under.get(id);
    if (known && known.of.every((part, i) => part === of[i])) return known.laid;
    const laid = laidUnder(other, fitted, viewport);
    this.under.set(id, { of, laid });
    return laid;
  }

  /** False while the picture is not at hand: that of the view that was looked at before may be there for a moment longer. */
  private showPicture(layer: PictureLayer, { sheet }: FittedView): boolean {
    const { picture } = this;
    if (picture?.source !== pictureKey(sheet)) return false;
    layer.show({ hash: picture.key, width: sheet.width, height: sheet.height }, () => openShown(picture, repository));
    return true;
  }

  private setLook(layer: PictureLayer, look: View['look']): void {
    const { canvas } = this.ground;
    const backing =
      look.backing === undefined || look.backing === 'bench' ? this.palette.bench : BACKINGS[look.backing];
    layer.setLook({
      ...look,
      invert: look.invert ?? false,
      ink: look.ink,
      tint: look.tint && lightsOf(this.palette[look.tint]),
      backing: lightsOf(backing),
    });
    canvas.style.background = backing;
    canvas.style.opacity = String(look.opacity);
  }
}
