import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { readDxf } from '../../src/core/formats';
import type { Piece } from '../../src/core/geometry';
import type { truthOf } from '../../demo/truth';
import { MouseHand, TouchHand, type Hand, type Px } from './hand';

export type Truth = ReturnType<typeof truthOf>;
export const truth = JSON.parse(readFileSync('demo/truth/blade.json', 'utf8')) as Truth;

/** The desk of a practitioner: the app's page, a hand for this size, and the things one does again and again. */
export class Desk {
  readonly hand: Hand;
  /** Buttons that were pressed, and fields that were typed into. */
  readonly counted = { buttons: 0, fields: 0 };
  constructor(
    readonly page: Page,
    touch: boolean,
  ) {
    this.hand = touch ? new TouchHand(page) : new MouseHand(page);
  }

  async openDemo(
    name:
      | 'blade-start'
      | 'blade-finished'
      | 'blade-slanted'
      | 'blade-drawn'
      | 'nest-box'
      | 'nest-half'
      | 'hanger'
      | 'shed'
      | 'sources'
      | 'pond'
      | 'can'
      | 'bench-views'
      | 'trowel'
      | 'orchard'
      | 'glasshouse',
  ): Promise<void> {
    await this.page.goto('/');
    await this.page.getByTestId(`demo-${name}`).click();
    await this.page.getByTestId('bench').waitFor();
    // A job without a picture has nothing to draw on.
    if (name !== 'sources') await expect(this.page.locator('#bench-drawing')).toBeAttached();
  }

  /** A job from a bundle, as it was written to a file. */
  async openBundle(bundle: Uint8Array): Promise<void> {
    await this.page.goto('/');
    await this.page
      .getByTestId('bundle-file')
      .setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: Buffer.from(bundle) });
    await this.page.getByTestId('bench').waitFor();
    await expect(this.page.locator('#bench-drawing')).toBeAttached();
  }

  async step(name: 'sources' | 'fit' | 'arrange' | 'trace' | 'handover'): Promise<void> {
    this.counted.buttons++;
    await this.page.getByTestId(`step-${name}`).click();
  }

  /** A layer of the drawing; its name says how many outlines are on it. */
  layer(name: string): Locator {
    return this.page.locator('#bench-drawing').getByTestId(`layer-${name}`);
  }

  async choose(testId: string): Promise<void> {
    this.counted.buttons++;
    await this.page.getByTestId(testId).click();
  }

  async pointAt(...places: readonly Px[]): Promise<void> {
    for (const place of places) await this.hand.pointAt(place);
  }

  async type(testId: string, text: string): Promise<void> {
    this.counted.fields++;
    const field = this.page.getByTestId(testId);
    await field.fill(text);
    await field.press('Enter');
  }

  /** On a phone the cards are put away while one points. */
  async openCards(): Promise<void> {
    const toggle = this.page.getByTestId('toggle-cards');
    if ((await toggle.count()) > 0 && (await this.page.getByTestId('ledge-cards').count()) === 0) {
      this.counted.buttons++;
      await toggle.click();
    }
  }

  async closeCards(): Promise<void> {
    const toggle = this.page.getByTestId('toggle-cards');
    if ((await toggle.count()) > 0 && (await this.page.getByTestId('ledge-cards').count()) > 0) {
      this.counted.buttons++;
      await toggle.click();
    }
  }

  async saved(): Promise<void> {
    await expect(this.page.getByTestId('save-state')).toHaveText('saved', { timeout: 10_000 });
  }

  async download(testId: string): Promise<string> {
    this.counted.buttons++;
    const [file] = await Promise.all([this.page.waitForEvent('download'), this.page.getByTestId(testId).click()]);
    return file.path();
  }
}

export const test = base.extend<{ desk: Desk; problems: string[] }>({
  desk: async ({ page, hasTouch }, use) => use(new Desk(page, Boolean(hasTouch))),
  /** Every test fails when the page threw or asked for something that is not there. */
  problems: [
    async ({ page }, use) => {
      const problems: string[] = [];
      page.on('pageerror', (problem) => problems.push(problem.message));
      page.on('console', (message) => message.type() === 'error' && problems.push(message.text()));
      // What the page's policy refuses may be caught where it is tried: nothing is to be tried.
      await page.addInitScript(() =>
        document.addEventListener('securitypolicyviolation', ({ violatedDirective, blockedURI }) =>
          console.error(`policy: ${violatedDirective} ${blockedURI}`),
        ),
      );
      await use(problems);
      expect(problems).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** Red, green and blue of a pixel of the screen, CSS px. */
export async function pixelAt(page: Page, [x, y]: Px): Promise<readonly number[]> {
  const png = await page.screenshot({ clip: { x: Math.round(x), y: Math.round(y), width: 1, height: 1 } });
  return page.evaluate(async (text) => {
    const bitmap = await createImageBitmap(new Blob([Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0))]));
    const context = new OffscreenCanvas(1, 1).getContext('2d')!;
    context.drawImage(bitmap, 0, 0);
    return [...context.getImageData(0, 0, 1, 1).data].slice(0, 3);
  }, png.toString('base64'));
}

export interface DxfFacts {
  readonly errors: number;
  readonly insunits: number;
  readonly kinds: Readonly<Record<string, number>>;
  readonly circles: readonly { readonly centre: Px; readonly radius: number }[];
  readonly width: number;
  readonly height: number;
  /** The pieces of the layer Outline that are no circles, mm. */
  readonly outline: readonly Piece[];
}

/** What Debian's python3-ezdxf says of a DXF file, and the sizes as read by our own reader. */
export function judgeDxf(file: string): DxfFacts {
  const script = `
import sys, json, ezdxf
from ezdxf import bbox
doc = ezdxf.readfile(sys.argv[1]); audit = doc.audit(); kinds = {}
for e in doc.modelspace(): kinds[e.dxftype()] = kinds.get(e.dxftype(), 0) + 1
box = bbox.extents(doc.modelspace(), flatten=0.001)
circles = [dict(centre=[e.dxf.center.x, e.dxf.center.y], radius=e.dxf.radius) for e in doc.modelspace().query('CIRCLE')]
print(json.dumps(dict(errors=len(audit.errors) + len(audit.fixes), insunits=doc.header['$INSUNITS'], kinds=kinds, circles=circles, width=box.size.x, height=box.size.y)))`;
  const facts = JSON.parse(execFileSync('/usr/bin/python3', ['-c', script, file], { encoding: 'utf8' })) as Omit<
    DxfFacts,
    'outline'
  >;
  const own = readDxf(readFileSync(file, 'utf8'));
  if (!own.ok) throw new Error(own.code);
  const outline = own.value.paths
    .filter((drawn) => drawn.layer === 'Outline' && !(drawn.closed && drawn.pieces.length === 1))
    .flatMap((drawn) => drawn.pieces);
  return { ...facts, outline };
}
