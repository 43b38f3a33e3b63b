import type { CDPSession, Page } from '@playwright/test';

/** A place on the sheet, px. */
export type Px = readonly [number, number];

interface Shown {
  readonly zoom: number;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly box: { readonly x: number; readonly y: number };
  /** Where the sheet's zero and its first pixels across and down lie on the bench. */
  readonly laid: readonly number[];
}

/** A place of the sheet on the screen. */
function seenAt({ zoom, left, top, box, laid: [x0, y0, x1, y1, x2, y2] }: Shown, [x, y]: Px): Px {
  const bench: Px = [x0! + x * (x1! - x0!) + y * (x2! - x0!), y0! + x * (y1! - y0!) + y * (y2! - y0!)];
  return [left + bench[0] * zoom + box.x, top + bench[1] * zoom + box.y];
}

/** Whether a place of the sheet is seen on the bench, so far from its sides and its foot at least. CSS px */
function isWithin(shown: Shown, px: Px, sides: number, foot: number): boolean {
  const [x, y] = seenAt(shown, px);
  const [across, down] = [x - shown.box.x, y - shown.box.y];
  return across > sides && across < shown.width - sides && down > sides && down < shown.height - foot;
}

/**
 * A practitioner's hand on the bench, by mouse or by finger. It zooms in before it points, as people do, and points at whole
 * CSS pixels, as hands and screens do. The aim stands 96 px above the fingertip.
 */
export abstract class Hand {
  constructor(protected readonly page: Page) {}

  /** How long it rests before it sets a point, so that the picture around can be looked at for edges. ms */
  rest = 0;
  /** What it takes: places pointed at, and times that it zoomed or moved the picture. */
  readonly counted = { points: 0, zooms: 0 };
  /** How close it comes before it points, and by how much it misses: CSS px across and down. */
  zoom = 1.5;
  miss: () => Px = () => [0, 0];

  /** Zooms to at least `zoom` about a place and sets a point there. */
  async pointAt(px: Px, zoom = this.zoom): Promise<void> {
    const [x, y] = seenAt(await this.zoomTo(px, zoom), px);
    const [dx, dy] = this.miss();
    this.counted.points++;
    await this.set([Math.round(x + dx), Math.round(y + dy)]);
  }

  /** What is shown once it is at rest: a bench that changes its size or its view moves for a frame or two. */
  async shown(): Promise<Shown> {
    return this.page.evaluate(async () => {
      const read = () => {
        const matrix = (document.querySelector('#bench-drawing') as SVGGElement).transform.baseVal.consolidate()!
          .matrix;
        const box = document.querySelector('[data-testid=bench]')!.getBoundingClientRect();
        return {
          zoom: matrix.a,
          left: matrix.e,
          top: matrix.f,
          width: box.width,
          height: box.height,
          box: { x: box.x, y: box.y },
          laid: (document.querySelector('[data-laying]') as SVGElement).dataset.laying!.split(' ').map(Number),
        };
      };
      for (let before = read(), i = 0; ; i++) {
        await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
        const now = read();
        if (JSON.stringify(now) === JSON.stringify(before) || i > 60) return now;
        before = now;
      }
    });
  }

  async screenOf(px: Px): Promise<Px> {
    return seenAt(await this.shown(), px);
  }

  /** Shows the whole picture, then comes closer about a place until it is shown at `zoom` and far enough from the edges. Gives back what is shown then. */
  async zoomTo(px: Px, zoom: number): Promise<Shown> {
    let now = await this.shown();
    if (now.zoom >= zoom && isWithin(now, px, 90, 190)) return now;
    // What comes to lie over the bench meanwhile moves the picture: who looks sees it, and comes closer again.
    for (let i = 0; i < 3; i++) {
      this.counted.zooms++;
      await this.page.getByTestId('zoom-all').click();
      await this.comeCloser(px, zoom);
      now = await this.shown();
      if (isWithin(now, px, 10, 10)) break;
    }
    return now;
  }

  protected abstract set(screen: Px): Promise<void>;
  protected abstract comeCloser(px: Px, zoom: number): Promise<void>;
}

export class MouseHand extends Hand {
  protected async set([x, y]: Px): Promise<void> {
    await this.page.mouse.move(x, y);
    await this.page.waitForTimeout(this.rest);
    await this.page.mouse.down();
    await this.page.mouse.up();
  }

  /** Turns the wheel over the place, then drags it towards the middle with the middle button. */
  protected async comeCloser(px: Px, zoom: number): Promise<void> {
    const shown = await this.shown();
    const [x, y] = seenAt(shown, px);
    await this.page.mouse.move(x, y);
    this.counted.zooms++;
    await this.page.mouse.wheel(0, -Math.log(zoom / shown.zoom) / 0.0016);
    await this.page.waitForTimeout(60);
    await this.dragTo(px);
  }

  private async dragTo(px: Px): Promise<void> {
    const shown = await this.shown();
    const [x, y] = seenAt(shown, px);
    const { box, width, height } = shown;
    await this.page.mouse.move(x, y);
    await this.page.mouse.down({ button: 'middle' });
    await this.page.mouse.move(box.x + width / 2, box.y + height / 2, { steps: 3 });
    await this.page.mouse.up({ button: 'middle' });
    await this.page.waitForTimeout(60);
  }

  /** Drags from one place of the sheet to another, as with a node or a handle. */
  async drag(from: Px, to: Px): Promise<void> {
    const [a, b] = [await this.screenOf(from), await this.screenOf(to)];
    await this.page.mouse.move(a[0], a[1]);
    await this.page.mouse.down();
    await this.page.mouse.move(b[0], b[1], { steps: 5 });
    await this.page.mouse.up();
  }
}

export class TouchHand extends Hand {
  private session: CDPSession | undefined;

  private async touch(type: 'touchStart' | 'touchMove' | 'touchEnd', points: readonly Px[]): Promise<void> {
    this.session ??= await this.page.context().newCDPSession(this.page);
    await this.session.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: points.map(([x, y], id) => ({ x, y, id })),
    });
  }

  protected async set([x, y]: Px): Promise<void> {
    const finger: Px = [x, y + 96];
    await this.touch('touchStart', [finger]);
    await this.page.waitForTimeout(40 + this.rest);
    await this.touch('touchEnd', []);
    await this.page.waitForTimeout(60);
  }

  /** Puts a finger down and keeps it there: the aim is shown. `lift` sets the point. */
  async hold(px: Px): Promise<void> {
    await this.holdAt(await this.screenOf(px));
  }

  /** Likewise, with the aim at a place of the screen. */
  async holdAt([x, y]: Px): Promise<void> {
    await this.touch('touchStart', [[Math.round(x), Math.round(y) + 96]]);
    await this.page.waitForTimeout(250);
  }

  async lift(): Promise<void> {
    await this.touch('touchEnd', []);
    await this.page.waitForTimeout(60);
  }

  /**
   * Spreads two fingers about the place while moving it to the upper middle of the bench. A place at the rim, where there are buttons and
   * no room for two fingers, is brought in first.
   */
  protected async comeCloser(px: Px, zoom: number): Promise<void> {
    for (let i = 0; i < 12; i++) {
      const shown = await this.shown();
      const { zoom: now, box, width, height } = shown;
      if (now >= zoom) return;
      const [x, y] = seenAt(shown, px);
      const middle: Px = [box.x + width / 2, box.y + height * 0.42];
      const away: Px = [middle[0] - x, middle[1] - y];
      const hasRoom = x - box.x > 40 && box.x + width - x > 110 && y - box.y > 20 && box.y + height - y > 20;
      if (hasRoom) await this.twoFingers([x, y], away, Math.min(zoom / now, 7) * 1.02);
      else await this.twoFingers(middle, [clamped(away[0], 140), clamped(away[1], 180)], 1);
    }
  }

  /** Moves the picture so that what is at one place of the screen comes to another. */
  async move([x, y]: Px, to: Px): Promise<void> {
    await this.twoFingers([x, y], [to[0] - x, to[1] - y], 1);
  }

  /** Two fingers about a place of the screen, moved and spread. */
  private async twoFingers([x, y]: Px, [dx, dy]: Px, spread: number): Promise<void> {
    const gap = 17;
    this.counted.zooms++;
    const at = (t: number): Px[] =>
      [-1, 1].map((side): Px => [x + dx * t + side * gap * (1 + (spread - 1) * t), y + dy * t]);
    await this.touch('touchStart', at(0));
    for (const t of [0.4, 1]) await this.touch('touchMove', at(t));
    await this.touch('touchEnd', []);
    await this.page.waitForTimeout(60);
  }
}

const clamped = (value: number, most: number) => Math.max(-most, Math.min(most, value));
