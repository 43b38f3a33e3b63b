import { readFileSync } from 'node:fs';
import { createDeriver, measureOutline } from '../src/core/derive';
import { readBundle } from '../src/core/formats';
import { distance } from '../src/core/geometry';
import { scanner as optics } from '../demo/generator/scan';
import { benchDetails } from '../demo/scenes/bench-set';
import { expect, judgeDxf, pixelAt, test } from './helpers/desk';
import type { Px } from './helpers/hand';
import { bringPage } from './helpers/pdf';
import { stated } from './helpers/stated';

const box = JSON.parse(readFileSync('demo/truth/nest-box.json', 'utf8')) as {
  askew: number;
  sizes: readonly { name: string; mm: number; from: Px; to: Px }[];
  hole: { diameter: number; px: Px };
};
const size = (name: string) => box.sizes.find((other) => other.name === name)!;

/** Where a place of the details lies on the scanned page, px. */
const onPage = (at: Px): Px => optics(benchDetails).project(at) as Px;

test('a page of a PDF is straightened, its three drawings are cut out, one is scaled by a printed size, the others share it and hand over a true size @wide', async ({
  desk,
  page,
}) => {
  await bringPage(desk, 2);
  const strip = page.getByRole('navigation', { name: 'Views' }).getByRole('button');
  await expect(strip).toHaveCount(1, { timeout: 40_000 });

  await desk.step('sources');
  await desk.choose('straighten');
  const notice = page.getByTestId('notice');
  await expect(notice).toContainText('Turned to the', { timeout: 60_000 });
  const [, degrees, plusMinus] = /by (\d+\.\d+)° ±(\d+\.\d+)/.exec((await notice.textContent())!)!;
  expect(Math.abs(Number(degrees) - Math.abs(benchDetails.askew))).toBeLessThan(Number(plusMinus) + 0.01);

  await desk.choose('find-drawings');
  await expect(page.getByTestId('suggested')).toHaveCount(3, { timeout: 60_000 });
  await desk.openCards();
  await desk.choose('cut-all');
  await expect(strip).toHaveCount(4);

  // One is scaled by the width printed on it; the others get their scale from that.
  await strip.nth(1).click();
  await desk.step('fit');
  await desk.closeCards();
  await desk.choose('tool-length');
  await desk.pointAt(onPage([0, 0]), onPage([220, 0]));
  await desk.type('length-field', '220');
  await expect(strip.nth(1)).toContainText('±');
  await expect(strip.nth(2)).toContainText('±');
  await expect(strip.nth(3)).toContainText('±');

  await strip.nth(3).click();
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt(onPage([330, 40]), onPage([510, 40]));
  await desk.openCards();
  await desk.choose('draw-finish');
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  await desk.step('handover');
  const facts = judgeDxf(await desk.download('save-file'));
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  const { job } = bundle.value;
  const derived = createDeriver()(job);
  const [outline] = job.outlines;
  const said =
    2 * measureOutline(outline!, { job, derived }, (shape) => distance(shape.nodes[0]!, shape.nodes[1]!)).sigma;
  const [line] = facts.outline;
  const length = line?.kind === 'line' ? distance(line.a, line.b) : NaN;
  expect(facts.errors).toBe(0);
  expect(Math.abs(length - 180)).toBeLessThan(said);
  expect(said).toBeLessThan(2.5);
  // Straightened by the sheet, the line leaves as level as it was drawn.
  expect(line?.kind === 'line' && Math.abs(line.a[1] - line.b[1]) / length).toBeLessThan(0.004);

  // Taking the whole sheet away leaves the cut views with what is known.
  await desk.step('sources');
  await desk.choose('panel-views');
  await desk.openCards();
  await page.getByRole('button', { name: `Remove ${job.views[0]!.name}`, exact: true }).click();
  await expect(strip).toHaveCount(3);
  await expect(strip.nth(1)).toContainText('±');
});

test('a view is cropped, turned and mirrored, keeps what is on it, and everything is undone again @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('nest-box');
  await desk.step('sources');
  await desk.choose('tool-crop');
  await desk.pointAt([500, 350], [1650, 2100]);
  await desk.openCards();
  await desk.choose('use-frame');
  await expect(page.getByTestId('frame-cover')).toBeAttached();
  const reading = page.getByTestId('view-fit');
  const before = await reading.textContent();
  await desk.choose('turn-right');
  await desk.choose('mirror');
  await expect(reading).toHaveText(before!);
  await desk.choose('tool-level');
  await desk.pointAt(size('width').from, size('width').to);
  await desk.openCards();
  await desk.choose('edge-level');
  const { from, to } = size('width');
  const [[, y0], [, y1]] = [await desk.hand.screenOf(from), await desk.hand.screenOf(to)];
  expect(Math.abs(y0 - y1)).toBeLessThan(1);
  for (let i = 0; i < 4; i++) await page.getByTestId('undo').click();
  await expect(page.getByTestId('frame-cover')).toHaveCount(0);
  await expect(page.getByTestId('undo')).toBeDisabled();
});

test('a print that was scanned gets its scale from its dots an inch and its ratio, with the doubt that a printer deserves @wide', async ({
  desk,
  page,
}) => {
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  await page.locator('input[type=file]').first().setInputFiles('public/demo/nest-box.jpg');
  await expect(page.getByRole('button', { name: /^nest-box, no scale yet/ })).toBeVisible({ timeout: 20_000 });
  await desk.step('sources');
  await desk.openCards();
  await page.getByTestId('sheet-nest-box').getByRole('radio', { name: 'Copy or print' }).click();
  await desk.step('fit');
  await desk.openCards();
  await desk.choose('offer-resolution');
  await page.getByTestId('ratio-field').fill('1:banana');
  await page.getByTestId('ratio-field').press('Enter');
  await expect(page.getByTestId('ratio-field-problem')).toContainText('is not a ratio');
  await page.getByTestId('ratio-field').fill('1:2');
  await desk.choose('use-resolution');
  await expect(page.getByTestId('view-fit')).toContainText('±');
  await desk.choose('tool-check');
  await desk.closeCards();
  const front = size('front');
  await desk.pointAt(front.from, front.to);
  await desk.type('length-field', '250');
  await desk.openCards();
  await expect(page.getByTestId('check-card').getByTestId('evidence-says')).toContainText('agrees');
  await expect(page.getByTestId('rectangle-card')).toContainText('300 dots an inch, drawn 1:2');

  // The hole by one tap: what was drawn is the middle of its line.
  await desk.step('trace');
  await desk.choose('tool-circle');
  await desk.closeCards();
  await desk.pointAt([box.hole.px[0] + 15, box.hole.px[1] - 8]);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  await desk.step('handover');
  const { errors, circles } = judgeDxf(await desk.download('save-file'));
  expect(errors).toBe(0);
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  const said = stated(bundle.value.job).diameter(0);
  expect(said).toBeLessThan(0.5);
  expect(Math.abs(2 * circles[0]!.radius - box.hole.diameter)).toBeLessThan(said);
});

test('line work is shown alone, in a colour, on white or dark, and as it was again @wide', async ({ desk, page }) => {
  await desk.openDemo('nest-box');
  await desk.step('fit');
  await desk.choose('panel-look');
  // The upper line of the roof, away from marks, and paper beside it.
  const [a, b]: readonly Px[] = [
    [505, 455],
    [1600, 430],
  ];
  await desk.hand.zoomTo([900, 446], 2);
  const across = async () => {
    await page.waitForTimeout(300);
    const [x, y] = await desk.hand.screenOf([(a![0] + b![0]) / 2 - 150, (a![1] + b![1]) / 2]);
    return Promise.all([-60, -40, -20, 0, 20, 40, 60].map((by) => pixelAt(page, [x, y + by])));
  };
  /** As it is once finer tiles have come: they differ by a level or two from what they replace. */
  const settled = async () => {
    let seen = await across();
    await expect
      .poll(async () => {
        const last = seen;
        seen = await across();
        return JSON.stringify(seen) === JSON.stringify(last);
      })
      .toBe(true);
    return seen;
  };
  const dark = (pixel: readonly number[]) => Math.max(...pixel) < 120;
  const before = await settled();
  await page.getByRole('switch', { name: 'Ink only' }).click();
  await page.getByRole('radio', { name: 'White' }).click();
  const alone = await across();
  expect(alone.filter((pixel) => pixel.every((value) => value === 255)).length).toBeGreaterThan(3);
  await page.getByRole('radio', { name: 'Dark' }).click();
  await page.getByRole('radio', { name: 'Blue' }).click();
  expect((await across()).filter(dark).length).toBeGreaterThan(3);
  for (let i = 0; i < 4; i++) if (await page.getByTestId('undo').isEnabled()) await page.getByTestId('undo').click();
  await expect
    .poll(async () =>
      Math.max(...(await across()).flatMap((pixel, i) => pixel.map((value, c) => Math.abs(value - before[i]![c]!)))),
    )
    .toBeLessThan(3);
});
