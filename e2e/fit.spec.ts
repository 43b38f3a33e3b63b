import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { createDeriver } from '../src/core/derive';
import { readBundle } from '../src/core/formats';
import { distance, type Vec } from '../src/core/geometry';
import { expect, judgeDxf, test, truth, type Truth } from './helpers/desk';
import type { Px } from './helpers/hand';
import { stated } from './helpers/stated';

/** Photographed from aside, slanted by 35°, through a lens that bows. */
const slanted = JSON.parse(readFileSync('demo/truth/blade-slanted.json', 'utf8')) as Truth;
const marks = new Map(slanted.rule.marks.map(({ mark, px }) => [mark, px]));
const holes = slanted.blade.holes;
const { card } = truth;

/** A known length: point at both ends, type it. Two along the rule, and one from the customer's message: it is 132.38 in truth. */
const LENGTHS: readonly (readonly [Px, Px, string])[] = [
  [marks.get(20)!, marks.get(260)!, '240'],
  [holes[0]!.px, holes[3]!.px, '137'],
];

/** Red, green and blue of some pixels of a PNG, as the browser reads it. */
function coloursOf(page: Page, png: string, pixels: readonly Px[]): Promise<number[][]> {
  return page.evaluate(
    async ([text, places]) => {
      const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
      const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
      const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
      context.drawImage(bitmap, 0, 0);
      return places.map(([x, y]) => [...context.getImageData(x, y, 1, 1).data].slice(0, 3));
    },
    [png, pixels] as const,
  );
}

test('a slanted photo: card by one tap, a wrong length named and corrected, holes by one tap, their spacing true', async ({
  desk,
  page,
}, { project }) => {
  const isPhone = project.name === 'phone';
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  await page.locator('input[type=file]').first().setInputFiles('public/demo/blade-slanted.jpg');
  await expect(page.getByRole('button', { name: /^blade-slanted, no scale yet/ })).toBeVisible({ timeout: 20_000 });

  // The card: one tap on it, its sizes are on the shelf.
  await desk.choose('panel-shelf');
  await desk.openCards();
  await page.getByTestId('shelf-find').fill('bank');
  await page.getByTestId('shelf-cards-and-paper/bank-card').click();
  await desk.closeCards();
  const [left, right] = [slanted.card.left, slanted.card.right];
  await desk.pointAt([0.55 * left[0] + 0.45 * right[0], 0.55 * left[1] + 0.45 * right[1]]);
  await expect(page.getByTestId('width-field')).toHaveValue('85.6 mm', { timeout: 30_000 });
  await desk.choose('set-length');

  // The rule's upper edge, which is straight in truth: it tells how the lens bows.
  await desk.choose('panel-kinds');
  await desk.openCards();
  await page.getByTestId('kind-straight').click();
  // On a phone the picture offers it; else by one tap on it, from which it is followed from end to end.
  if (isPhone) await desk.openCards();
  if (isPhone) await desk.choose('propose-straight');
  else await desk.pointAt(slanted.rule.upperEdgePx[2]!);
  await expect(page.getByText('Use it, or set more points along it.').first()).toBeVisible({ timeout: 20_000 });
  await desk.openCards();
  await desk.choose('set-length');

  // The picture offers no edge that is known already, and no grain of the wood: it says so, and a tap is still welcome.
  await desk.choose('panel-kinds');
  await desk.openCards();
  await page.getByTestId('kind-straight').click();
  await desk.openCards();
  await desk.choose('propose-straight');
  await expect(page.getByText('No other straight edge stands out in this picture.').first()).toBeVisible({
    timeout: 20_000,
  });

  for (const [from, to, mm] of LENGTHS) {
    await desk.closeCards();
    await desk.choose('tool-length');
    await desk.pointAt(from, to);
    await desk.type('length-field', mm);
  }
  await desk.openCards();
  const wrong = page.getByTestId('length-card').nth(1);
  await expect(wrong.getByTestId('evidence-says')).toContainText('does not belong');
  await expect(page.getByTestId('rectangle-card').getByTestId('evidence-says')).not.toContainText('does not belong');
  const field = wrong.getByTestId('evidence-length-field');
  // It was measured on the blade itself, which stands higher than card and rule.
  await wrong.getByRole('radio', { name: 'On the traced face' }).click();
  await field.fill('132.4');
  await field.press('Enter');
  await expect(wrong.getByTestId('evidence-says')).not.toContainText('does not belong');
  await expect(page.getByTestId('fit-summary')).toContainText(/slanted by 3[456]°/);
  await desk.choose('panel-height');
  await desk.openCards();
  await desk.type('height-field', '2.7 - 0.76 mm');
  await desk.closeCards();

  await desk.choose('toggle-accuracy');
  await expect(page.getByTestId('accuracy-map')).toBeVisible();
  await desk.choose('toggle-accuracy');

  // Traced as it lies squared up or as it was taken: the places are the same. One tap a hole.
  await desk.step('trace');
  await desk.choose('tool-circle');
  await desk.closeCards();
  for (const [i, hole] of holes.slice(0, 2).entries()) {
    await desk.pointAt(hole.px);
    await expect(desk.layer('Outline')).toHaveAttribute('aria-label', `Outline: ${i + 1}`);
  }
  await expect(page.getByTestId('readout-place')).toContainText('±');
  await desk.step('handover');
  const facts = judgeDxf(await desk.download('save-file'));
  expect(facts.errors).toBe(0);
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  const said = stated(bundle.value.job);
  const [a, b] = facts.circles.map(({ centre }) => centre) as [Vec, Vec];
  const spacing = distance(holes[0]!.centre as Vec, holes[1]!.centre as Vec);
  expect(Math.abs(distance(a, b) - spacing)).toBeLessThan(said.spacing(0, 1));
  expect(said.spacing(0, 1)).toBeLessThan(0.8);
  expect(Math.abs(2 * facts.circles[0]!.radius - holes[0]!.diameter)).toBeLessThan(said.diameter(0));

  // The picture squared up: where the world file says that card, blade and bench lie, there they are.
  const files = unzipSync(readFileSync(await desk.download('save-picture')));
  const [png, world] = ['.png', '.pgw'].map((end) => files[Object.keys(files).find((name) => name.endsWith(end))!]!);
  const [across, , , down, x0, y0] = strFromU8(world!).trim().split('\n').map(Number) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const fit = [...createDeriver()(bundle.value.job).views.values()][0]!.fit;
  const pixelOf = (sheet: Px): Px => {
    const [x, y] = fit.toPlane(sheet);
    return [Math.round((x - x0) / across), Math.round((y - y0) / down)];
  };
  const colours = await coloursOf(page, Buffer.from(png!).toString('base64'), [
    pixelOf([1340, 960]),
    pixelOf([2150, 1330]),
    pixelOf([2000, 500]),
  ]);
  const [paper, steel, wood] = colours as [number[], number[], number[]];
  expect(Math.min(...paper)).toBeGreaterThan(180);
  expect(Math.max(...steel) - Math.min(...steel)).toBeLessThan(25);
  expect(wood[0]! - wood[2]!).toBeGreaterThan(40);
});

/** Places on the card of the blade's photo: 1 and -1 are its sides. */
function onCard(u: number, v: number): Px {
  const middle: Px = [(card.left[0] + card.right[0]) / 2, (card.left[1] + card.right[1]) / 2];
  const half = (end: Px): Px => [end[0] - middle[0], end[1] - middle[1]];
  const [right, top] = [half(card.right), half(card.top)];
  return [middle[0] + u * right[0] + v * top[0], middle[1] + u * right[1] + v * top[1]];
}

test('a box is pointed at by what the thing stands on and touches, and named by what it spans @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-start');
  await desk.choose('panel-kinds');
  await desk.openCards();
  await desk.choose('kind-box');
  await desk.closeCards();
  await desk.pointAt(onCard(-0.7, -1), onCard(0.7, -1), onCard(1, 0.2), onCard(0.1, 1), onCard(-1, -0.3));
  await desk.openCards();
  await page.getByRole('radio', { name: 'Over the body' }).click();
  await page.getByTestId('width-field').fill('85.6');
  await desk.type('height-field', '53.98');
  await desk.openCards();
  const box = page.getByTestId('rectangle-card');
  await expect(box).toContainText('over the body');
  await expect(box.getByTestId('evidence-says')).toContainText(/85\.\d+ mm.* by 5[34]\.\d+ mm/);
  await box.getByTestId('name-piece').click();
  await desk.type('piece-name', 'over the guard');
  await expect(box).toContainText('over the guard');
});

test('a thing from the shelf is pointed at by its sides and found again by name @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await desk.choose('panel-shelf');
  await desk.openCards();
  await page.getByTestId('shelf-find').fill('bank');
  await page.getByTestId('shelf-cards-and-paper/bank-card').click();
  await desk.closeCards();
  // Round the card: upper side, right, lower, left; two places on each, clear of the rounded corners.
  await desk.pointAt(
    onCard(-0.7, 1),
    onCard(0.7, 1),
    onCard(1, 0.6),
    onCard(1, -0.6),
    onCard(0.7, -1),
    onCard(-0.7, -1),
    onCard(-1, -0.6),
    onCard(-1, 0.6),
  );
  await expect(page.getByTestId('width-field')).toHaveValue('85.6 mm');
  await desk.choose('set-length');
  await desk.openCards();
  await expect(page.getByTestId('rectangle-card')).toContainText('bank card');
  await expect(page.getByTestId('rectangle-card').getByTestId('evidence-says')).toContainText(/85\.[56]/);
  await expect(page.getByTestId('fit-summary')).toContainText('is good to ±');
});

test('a size pointed at again is averaged with its marks hidden, and a thing of one’s own stands on the shelf the next time @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-start');
  const ends = [card.left, card.right] as const;
  await desk.pointAt(...ends);
  await desk.type('length-field', '85.6 ± 0.1');
  await desk.openCards();
  await desk.choose('point-again');
  await desk.closeCards();
  const mark = page
    .locator('#bench-drawing')
    .locator('xpath=..')
    .getByTestId(/^evidence-/);
  await expect(mark).toHaveCount(0);
  // Not where it was: said, and not taken. Then both ends, the other one first, a little beside.
  await desk.pointAt([2000, 2400]);
  await expect(page.getByText('That is not where you pointed before.')).toBeVisible();
  await desk.pointAt([ends[1][0] + 2, ends[1][1] + 1], [ends[0][0] - 1, ends[0][1] + 2]);
  await desk.openCards();
  await desk.choose('average');
  await desk.openCards();
  await expect(page.getByTestId('fit-summary')).toContainText('Places that you pointed at again');
  await expect(mark).toHaveCount(1);
  await page.getByTestId('undo').click();
  await expect(page.getByTestId('fit-summary')).not.toContainText('Places that you pointed at again');

  // Twice a card each way: what one tap finds has to be of its proportion.
  await desk.choose('panel-shelf');
  await desk.openCards();
  await desk.choose('own-add');
  await page.getByTestId('own-name').fill('Setting block');
  await page.getByTestId('own-width').fill('171.2 ± 0.05');
  await page.getByTestId('own-height').fill('107.96');
  await desk.choose('own-keep');
  await page.reload();
  await desk.step('fit');
  await desk.choose('panel-shelf');
  await desk.openCards();
  await page.getByTestId('shelf-find').fill('setting');
  const row = page.getByRole('button', { name: /^Setting block 171.20 mm × 107.96 mm/ });
  await expect(row).toBeVisible({ timeout: 15_000 });
  await page.getByRole('button', { name: 'Take Setting block off the shelf' }).click();
  await expect(row).toHaveCount(0);
  await desk.choose('own-back');
  await row.click();
  await desk.closeCards();
  await desk.pointAt([(ends[0][0] + ends[1][0]) / 2, (ends[0][1] + ends[1][1]) / 2]);
  await desk.openCards();
  await expect(page.getByTestId('width-field')).toHaveValue('171.2 mm');
});
