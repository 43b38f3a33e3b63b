import { readFileSync } from 'node:fs';
import { readBundle } from '../src/core/formats';
import { expect, judgeDxf, test } from './helpers/desk';
import type { Px } from './helpers/hand';
import { pdfOf, stroke } from './helpers/pdf';

/** ISO 216: A4 is 210 × 297 mm. On it a line of 100 mm with ends, and a frame; the second page is a long strip. */
const A4 = [210, 297] as const;
const ENDS = [
  [50, 120],
  [150, 120],
] as const;
const plan = [
  stroke(...ENDS),
  stroke([50, 115], [50, 125]),
  stroke([150, 115], [150, 125]),
  stroke([20, 20], [190, 20]),
  stroke([190, 20], [190, 277]),
  stroke([190, 277], [20, 277]),
  stroke([20, 277], [20, 20]),
].join('\n');
const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/pdf', buffer });
const DPI = 300;
const onSheet = ([x, y]: readonly [number, number]): Px => [(x / 25.4) * DPI, ((A4[1] - y) / 25.4) * DPI];

test('a page of a PDF comes in at a chosen resolution and is to scale by its printed ratio @wide', async ({
  desk,
  page,
}) => {
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles(
      file(
        'bench.pdf',
        pdfOf([
          { mm: A4, content: plan },
          { mm: [4000, 900], content: stroke([0, 0], [4000, 900]) },
        ]),
      ),
    );
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
  // Only the picture: the printed ratio gives the scale.
  await desk.choose('keep-lines');
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
  // Locked: a password that nobody here knows (ISO 32000-1, section 7.6).
  const locked = pdfOf([{ mm: A4, content: plan }])
    .toString('latin1')
    .replace(
      '/Root 1 0 R',
      `/Root 1 0 R /Encrypt << /Filter /Standard /V 1 /R 2 /P -4 /O <${'4a'.repeat(32)}> /U <${'5b'.repeat(32)}> >> /ID [<${'0c'.repeat(16)}> <${'0c'.repeat(16)}>]`,
    );
  await input.setInputFiles(file('locked.pdf', Buffer.from(locked, 'latin1')));
  await expect(page.getByTestId('said').filter({ hasText: '“locked.pdf” is locked with a password' })).toBeVisible();
  await input.setInputFiles(file('half.pdf', pdfOf([{ mm: A4, content: plan }]).subarray(0, 120)));
  await expect(page.getByTestId('said')).toContainText('“half.pdf” begins like a PDF');
  await expect(page.getByRole('navigation', { name: 'Views' })).toHaveCount(0);
});

test('vector lines of a page come along in true paper size, where the picture has them; a part of a page comes in finer; a book is leafed through @wide', async ({
  desk,
  page,
}) => {
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  const input = page.getByTestId('picture-files');
  await input.setInputFiles(file('book.pdf', pdfOf(Array.from({ length: 500 }, () => ({ mm: A4, content: plan })))));
  await expect(page.getByTestId('pdf-chooser')).toContainText('Pages 1 to 24 of 500', { timeout: 30_000 });
  await desk.choose('pdf-later');
  await expect(page.getByTestId('pdf-page-25')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();

  await input.setInputFiles(file('plan.pdf', pdfOf([{ mm: A4, content: plan }])));
  await desk.choose('pdf-page-1');
  await page.getByRole('radio', { name: '300 dots an inch' }).click();
  await desk.choose('pdf-bring');
  await expect(page.getByRole('button', { name: /^plan, ±/ })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByTestId('reference-ink').first()).toBeAttached();
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.pointAt(onSheet(ENDS[0]), onSheet(ENDS[1]));
  await desk.choose('draw-finish');
  await desk.step('handover');
  // Caught by the line's own ends: 100 mm to a thousandth, and within half a pixel of where the picture has them.
  expect(judgeDxf(await desk.download('save-file')).width).toBeCloseTo(100, 3);
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  const [line] = bundle.value.job.outlines;
  const nodes =
    line?.shape === 'chain' ? line.nodes.map(({ place }) => (place.kind === 'pointed' ? place.at : [NaN, NaN])) : [];
  nodes.forEach((at, i) =>
    expect(Math.hypot(at[0]! - onSheet(ENDS[i]!)[0], at[1]! - onSheet(ENDS[i]!)[1])).toBeLessThan(0.5),
  );

  await desk.step('sources');
  await input.setInputFiles(file('plan.pdf', pdfOf([{ mm: A4, content: plan }])));
  await desk.choose('pdf-page-1');
  await desk.choose('frame-part');
  await page.getByRole('radio', { name: '1200 dots an inch' }).click();
  await expect(page.getByTestId('pdf-bring')).toBeDisabled();
  const whole = (await page.getByTestId('page-part').boundingBox())!;
  await page.mouse.move(whole.x + whole.width * 0.2, whole.y + whole.height * 0.5);
  await page.mouse.down();
  await page.mouse.move(whole.x + whole.width * 0.5, whole.y + whole.height * 0.7, { steps: 3 });
  await page.mouse.up();
  await desk.choose('pdf-bring');
  await expect(page.getByRole('navigation', { name: 'Views' }).getByRole('button')).toHaveCount(2, { timeout: 30_000 });
  await desk.step('sources');
  // 0.3 of 210 mm and 0.2 of 297 mm at 1200 dots an inch, to a pixel of the frame on the screen.
  const [, w, h] = /(\d+) × (\d+) px/.exec((await page.getByTestId('sheet-plan').last().textContent())!)!;
  expect(Math.abs(Number(w) / ((0.3 * 210 * 1200) / 25.4) - 1)).toBeLessThan(0.02);
  expect(Math.abs(Number(h) / ((0.2 * 297 * 1200) / 25.4) - 1)).toBeLessThan(0.02);
});
