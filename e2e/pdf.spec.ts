import { expect, test } from './helpers/desk';
import type { Px } from './helpers/hand';
import { pdfOf, stroke } from './helpers/pdf';

/** ISO 216: A4 is 210 × 297 mm. On it a line of 100 mm with ends, and a frame; the second page is a long strip. */
const A4 = [210, 297] as const;
const ENDS = [[50, 120], [150, 120]] as const;
const plan = [stroke(...ENDS), stroke([50, 115], [50, 125]), stroke([150, 115], [150, 125]), stroke([20, 20], [190, 20]), stroke([190, 20], [190, 277]), stroke([190, 277], [20, 277]), stroke([20, 277], [20, 20])].join('\n');
const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/pdf', buffer });
const DPI = 300;
const onSheet = ([x, y]: readonly [number, number]): Px => [(x / 25.4) * DPI, ((A4[1] - y) / 25.4) * DPI];

test('a page of a PDF comes in at a chosen resolution and is to scale by its printed ratio', async ({ desk, page }) => {
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  await page.locator('input[type=file]').first().setInputFiles(file('bench.pdf', pdfOf([{ mm: A4, content: plan }, { mm: [4000, 900], content: stroke([0, 0], [4000, 900]) }])));
  await expect(page.getByTestId('pdf-page-1')).toHaveAccessibleName('Page 1, 210 × 297 mm, line work');
  // A page that would be too large says so, and what to do.
  await desk.choose('pdf-page-2');
  await page.getByRole('radio', { name: '600 dots an inch' }).click();
  await expect(page.getByTestId('pdf-size')).toHaveText('At 600 dots an inch page 2 is too large. Take fewer.');
  await expect(page.getByTestId('pdf-bring')).toBeDisabled();
  await desk.choose('pdf-page-2');
  await desk.choose('pdf-page-1');
  await page.getByRole('radio', { name: '300 dots an inch' }).click();
  await expect(page.getByTestId('pdf-size')).toContainText('One page, 8.7 megapixels');
  await desk.choose('pdf-bring');
  await expect(page.getByRole('button', { name: /^bench, page 1, no scale yet/ })).toBeVisible({ timeout: 30_000 });

  await desk.openCards();
  await desk.choose('offer-resolution');
  await page.getByTestId('ratio-field').fill('1:10');
  await desk.choose('use-resolution');
  await desk.choose('tool-check');
  await desk.closeCards();
  await desk.pointAt(onSheet(ENDS[0]), onSheet(ENDS[1]));
  await desk.type('length-field', '1000');
  await desk.openCards();
  const says = page.getByTestId('check-card').getByTestId('evidence-says');
  await expect(says).toContainText('agrees');
  const [, length] = /Comes to ([\d.]+) mm/.exec((await says.textContent())!)!;
  expect(Math.abs(Number(length) - 1000)).toBeLessThan(3);
  // It stays to scale after the page was loaded anew.
  await desk.saved();
  await page.reload();
  await expect(page.getByTestId('view-fit')).toContainText('±');
});

test('what is no PDF inside, or half of one, is answered, and nothing comes in @wide', async ({ desk, page }) => {
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  const input = page.locator('input[type=file]').first();
  await input.setInputFiles(file('broken.pdf', Buffer.from('%PDF-1.7\nthere is nothing here')));
  await expect(page.getByTestId('said')).toContainText('begins like a PDF but cannot be read');
  await input.setInputFiles(file('half.pdf', pdfOf([{ mm: A4, content: plan }]).subarray(0, 120)));
  await expect(page.getByTestId('said')).toContainText('“half.pdf” begins like a PDF');
  await expect(page.getByRole('navigation', { name: 'Views' })).toHaveCount(0);
});
