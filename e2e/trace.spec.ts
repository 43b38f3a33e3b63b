import { readFileSync } from 'node:fs';
import { readBundle } from '../src/core/formats';
import { shapeOf, type Chain } from '../src/core/outline';
import { createDeriver } from '../src/core/derive';
import { distance } from '../src/core/geometry';
import { expect, test, truth, type Desk } from './helpers/desk';
import type { MouseHand } from './helpers/hand';

/** The job as it is stored, read from a bundle. */
async function storedJob(desk: Desk) {
  await desk.step('handover');
  await expect(desk.page.getByTestId('aim-cross')).toHaveCount(0);
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  const { job } = bundle.value;
  const derived = createDeriver()(job);
  return { job, shape: (index: number) => derived.shapes.get(job.outlines[index]!.id)! };
}

async function scaleByCard(desk: Desk): Promise<void> {
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6');
}

test('an outline is traced before there is a scale, and takes its size when it comes @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await desk.step('trace');
  await desk.choose('tool-circle');
  const hole = truth.blade.holes[2]!;
  await desk.pointAt(hole.px);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  await desk.choose('tool-select');
  await desk.pointAt(hole.rimPx[1]!);
  await expect(page.getByTestId('figure-diameter')).toHaveText('no scale yet');
  await desk.step('handover');
  await expect(page.getByTestId('handover-says')).toContainText('no scale yet');
  await desk.step('fit');
  await scaleByCard(desk);
  await desk.step('trace');
  await desk.choose('tool-select');
  await desk.pointAt(hole.rimPx[1]!);
  await expect(page.getByTestId('figure-diameter')).toContainText(/^1[345](\.\d)? mm ±/);
});

test('typed sizes stay exact: a level line of 7 + 3 5/8 in, upright by 2 x 19.05 @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await scaleByCard(desk);
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.pointAt([900, 2400]);
  await desk.openCards();
  await page.getByTestId('segment-length').fill('7 + 3 5/8 in');
  await desk.type('segment-angle', '0');
  await page.getByTestId('segment-length').fill('2 x 19.05');
  await desk.type('segment-angle', '90');
  await desk.choose('draw-close');
  const { shape } = await storedJob(desk);
  const [a, b, c] = shape(0).nodes;
  expect(distance(a!, b!)).toBeCloseTo(269.875, 9);
  expect(b![1] - a![1]).toBeCloseTo(0, 9);
  expect(c![1] - b![1]).toBeCloseTo(38.1, 9);
});

test('lines that are locked straight are level and upright to the last digit @wide', async ({ desk }) => {
  await desk.openDemo('blade-start');
  await scaleByCard(desk);
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.openCards();
  await desk.choose('draw-lock');
  await desk.closeCards();
  await desk.pointAt([1000, 1000], [1600, 1009], [1611, 1500]);
  await desk.openCards();
  await desk.choose('draw-finish');
  const { shape } = await storedJob(desk);
  const [a, b, c] = shape(0).nodes;
  expect(b![1]).toBe(a![1]);
  expect(c![0]).toBeCloseTo(b![0], 12);
});

test('open ends are found, shown and closed with one tap @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await scaleByCard(desk);
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.pointAt([1000, 1000], [1600, 1000], [1600, 1400]);
  await desk.openCards();
  await desk.choose('draw-finish');
  await desk.choose('panel-check');
  await expect(page.getByTestId('check-count')).toContainText('2 things');
  await page.getByTestId('finding-open').first().getByText('Go there').click();
  await expect(page.getByTestId('beacon')).toBeAttached();
  await page.getByTestId('heal').first().click();
  await expect(page.getByTestId('check-count')).toHaveText('These outlines can be cut.');
  const { shape } = await storedJob(desk);
  expect(shape(0)).toMatchObject({ closed: true, pieces: { length: 3 } });
});

test('an open outline is carried on with another kind of segment, caught by its end @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await scaleByCard(desk);
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.pointAt([1000, 1000], [1600, 1000]);
  await desk.openCards();
  await desk.choose('draw-finish');
  await desk.closeCards();
  await desk.choose('tool-line');
  await desk.pointAt([1001, 1001]);
  await desk.choose('tool-tangent');
  await desk.pointAt([800, 1200]);
  await desk.openCards();
  await desk.choose('draw-finish');
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  const { job } = await storedJob(desk);
  expect((job.outlines[0] as Chain).segments.map((segment) => segment.kind)).toEqual(['line', 'tangent']);
});

test('outlines are moved by typed amounts, duplicated, put on a layer and deleted @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.pointAt(truth.blade.holes[2]!.rimPx[1]!);
  await expect(page.getByTestId('figure-diameter')).toContainText('mm ±');
  await desk.choose('edit-duplicate');
  await page.getByTestId('move-across').fill('1 in');
  await desk.type('move-up', '-5');
  const moved = await storedJob(desk);
  const [from, to] = [moved.shape(3).nodes[0]!, moved.shape(5).nodes[0]!];
  expect([to[0] - from[0], to[1] - from[1]].map((v) => Number(v.toFixed(9)))).toEqual([25.4, -5]);
  await desk.step('trace');
  await desk.choose('panel-layers');
  await desk.openCards();
  await desk.choose('add-layer');
  await page.getByRole('button', { name: 'Lock Holes' }).click();
  await desk.choose('tool-select');
  await desk.closeCards();
  await desk.pointAt(truth.blade.holes[0]!.rimPx[1]!);
  await expect(page.getByTestId('figure-diameter')).toHaveCount(0);
});

test('guides stand aside by what was typed, are caught, and never leave in a file @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-guide');
  await desk.pointAt([1000, 2200]);
  await desk.openCards();
  await desk.type('guide-offset', '10');
  await desk.closeCards();
  await expect(page.locator('[data-testid^="guide-"]').first()).toBeAttached();
  await desk.step('handover');
  await expect(page.getByTestId('read-back-closed')).toHaveText('5');
  await expect(page.getByTestId('read-back-open')).toHaveText('0');
});

test('units are switched at any time, fractions included @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.pointAt(truth.blade.holes[2]!.rimPx[1]!);
  await desk.choose('more');
  await page.getByRole('radio', { name: 'Inches, fractions' }).click();
  await page.getByRole('radio', { name: '1/64' }).click();
  await desk.choose('settings-done');
  await expect(page.getByTestId('figure-diameter')).toContainText(/^(9\/16|35\/64|17\/32|37\/64)" ±0\.0\d+"$/);
});

test('a measured distance carries its plus-minus and holds the truth @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-measure');
  const [first, , third] = truth.blade.holes;
  await desk.pointAt(first!.px, third!.px);
  await expect(async () => {
    const [, value, plusMinus] = /^([\d.]+) mm ±([\d.]+)$/.exec(await page.getByTestId('measured').innerText())!;
    expect(Math.abs(Number(value) - distance(first!.centre, third!.centre))).toBeLessThan(Number(plusMinus));
  }).toPass();
});

test.describe('with a mouse @wide', () => {
  test('a node is dragged, nudged, smoothed, deleted, and a point is added', async ({ desk, page }) => {
    await desk.openDemo('blade-start');
    await desk.step('trace');
    await desk.choose('tool-curve');
    await desk.pointAt([1000, 1000], [1400, 900], [1800, 1000]);
    await desk.choose('draw-finish');
    await desk.choose('tool-select');
    await desk.pointAt([1400, 900]);
    await expect(page.locator('[data-testid^="selected-"]')).toBeAttached();
    await (desk.hand as MouseHand).drag([1400, 900], [1420, 860]);
    await desk.choose('edit-smooth');
    const node = async () => {
      const { job } = await storedJob(desk);
      await desk.step('trace');
      return (job.outlines[0] as Chain).nodes[1]!;
    };
    const dragged = await node();
    expect(dragged.smooth).toBe(false);
    expect(dragged.place.kind === 'pointed' && distance(dragged.place.at, [1420, 860])).toBeLessThan(2);
    await desk.pointAt([1420, 860], [1420, 860]);
    await page.keyboard.press('Alt+ArrowRight');
    const nudged = await node();
    expect(
      nudged.place.kind === 'pointed' && dragged.place.kind === 'pointed' && nudged.place.at[0] - dragged.place.at[0],
    ).toBeGreaterThan(0.1);
    await desk.pointAt([1420, 860], [1420, 860]);
    await desk.choose('edit-delete');
    const { job, shape } = await storedJob(desk);
    expect((job.outlines[0] as Chain).nodes).toHaveLength(2);
    expect(shapeOf(job.outlines[0] as Chain, { scaled: true, toPlane: (p) => p }).pieces).toHaveLength(1);
    expect(shape(0).closed).toBe(false);
  });
});
