/** Six views of 12 MP of one thing, folded up around it: what a frame of that takes. */
import jpeg from 'jpeg-js';
import type { Browser, Page } from 'playwright-core';
import type { Drawn } from '../src/core/arrange/simulated';
import { ALL, drawn, joining, NOISELESS, sharedBy, shown, sized, zero } from '../src/core/derive/bench-for-tests';
import { writeBundle } from '../src/core/formats';
import type { Job } from '../src/core/job';
import { jobOf } from '../src/core/job/for-tests';
import { sha256Hex } from '../src/core/pictures';
import { workOf, type Work } from './work';

const [WIDTH, HEIGHT] = [4000, 3000];
const SIX: readonly Drawn[] = [
  ...ALL,
  drawn('back', 'back', { zero: [2700, 2100] }),
  drawn('left', 'left', { zero: [1900, 2000] }),
  drawn('below', 'bottom', { zero: [300, 300] }),
];

/** Paper with bands across, another for each view. */
function pictureOf(view: number): Uint8Array {
  const data = Buffer.alloc(WIDTH * HEIGHT * 4);
  for (let row = 0; row < HEIGHT; row++) {
    const level = 200 + ((row >> (3 + view)) & 31);
    data.fill(level, 4 * row * WIDTH, 4 * (row + 1) * WIDTH);
  }
  return jpeg.encode({ width: WIDTH, height: HEIGHT, data }, 60).data;
}

function sixViews(): Buffer {
  const pictures = SIX.map((_, i) => pictureOf(i));
  const job = jobOf([
    ...SIX.flatMap(shown),
    sized(ALL[0]!, 'foot', 'end', 1, NOISELESS),
    sharedBy(SIX, 'base', ['foot', 'end'], NOISELESS, 'up', { said: { up: zero } }),
    sharedBy(SIX, 'A', ['foot'], NOISELESS, undefined, { said: { across: zero, deep: zero } }),
    sharedBy(SIX, 'B', ['back'], NOISELESS),
    sharedBy(SIX, 'C', ['end'], NOISELESS),
    ...joining(...SIX),
  ]);
  const sheets = job.sheets.map((sheet, i): Job['sheets'][number] => ({
    ...sheet,
    picture: sha256Hex(pictures[i]!),
    bytes: pictures[i]!.length,
    mediaType: 'image/jpeg',
    width: WIDTH,
    height: HEIGHT,
  }));
  const named = new Map(pictures.map((picture) => [sha256Hex(picture), picture]));
  return Buffer.from(writeBundle({ job: { ...job, sheets }, pictures: named }));
}

/** Script and main thread of one frame while the views are folded up and down again. */
export async function foldingWork(browser: Browser, home: string, moves: number): Promise<Work> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(home);
  const file = { name: 'six.zip', mimeType: 'application/zip', buffer: sixViews() };
  await page.getByTestId('bundle-file').setInputFiles(file);
  await page.locator('#bench-drawing').waitFor({ state: 'attached', timeout: 120_000 });
  await page.getByTestId('step-arrange').click();
  await page.getByTestId('panel-look-together').click();
  await page
    .getByTestId('folded-look')
    .locator('img')
    .nth(SIX.length - 1)
    .waitFor({ timeout: 120_000 });
  await page.waitForTimeout(2000);
  const work = await folded(page, moves);
  await page.close();
  return work;
}

async function folded(page: Page, moves: number): Promise<Work> {
  const slider = page.getByRole('slider', { name: 'Folded up' });
  await slider.focus();
  return workOf(page, moves, (i) => page.keyboard.press(i % 40 < 20 ? 'ArrowLeft' : 'ArrowRight'));
}
