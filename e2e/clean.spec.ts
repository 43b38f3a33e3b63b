import { expect, pixelAt, test } from './helpers/desk';
import type { Px } from './helpers/hand';

/** The dusty scan of the demo: page 2 of its PDF, 420 × 297 mm. */
const DPI = 150;
const onSheet = ([x, y]: readonly [number, number]): Px => [(x / 25.4) * DPI, ((297 - y) / 25.4) * DPI];

test('a dusty scan is made even, its specks counted and taken away, a stroke rubbed out; each step is switched and undone @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('sources');
  await desk.openCards();
  await desk.choose('demo-file-bench.pdf');
  await desk.choose('pdf-page-2');
  await page.getByRole('radio', { name: '150 dots an inch' }).click();
  await desk.choose('pdf-bring');
  const strip = page.getByRole('navigation', { name: 'Views' }).getByRole('button');
  await expect(strip).toHaveCount(1, { timeout: 30_000 });
  await desk.step('sources');
  await desk.choose('panel-clean');
  await desk.openCards();
  await desk.choose('even-out');
  await expect(page.getByTestId('cleaning-steps')).toContainText('Paper evened out');
  await page.getByTestId('specks-field').fill('6 px');
  await expect(page.getByTestId('specks-count')).toHaveText(/^\d+ would go\.$/, { timeout: 30_000 });
  const count = Number(/\d+/.exec((await page.getByTestId('specks-count').textContent())!)![0]);
  // 900 were strewn, some on the strokes and on one another; figures are strokes and stay.
  expect(count).toBeGreaterThan(700);
  expect(count).toBeLessThan(960);
  await desk.choose('remove-specks');
  await expect(page.getByTestId('cleaning-steps')).toContainText('What was done', { timeout: 30_000 });
  await page.getByTestId('specks-field').fill('6 px');
  await expect(page.getByTestId('specks-count')).toHaveText(/^(There are none of that size|[1-9] would go)\.$/, {
    timeout: 30_000,
  });
  await page.getByTestId('specks-field').fill('');

  // The details' sill, 45 mm of the thing above the door at half size, is rubbed out where the brush goes.
  await desk.choose('brush-rub');
  await desk.closeCards();
  const sill = onSheet([70 + 60 * 0.5, 60 + 300 * 0.5]);
  const turned = ([x, y]: Px): Px => {
    const [a, cx, cy] = [(1.4 * Math.PI) / 180, (420 / 2 / 25.4) * DPI, (297 / 2 / 25.4) * DPI];
    return [cx + Math.cos(a) * (x - cx) - Math.sin(a) * (y - cy), cy + Math.sin(a) * (x - cx) + Math.cos(a) * (y - cy)];
  };
  await desk.hand.zoomTo(turned(sill), 2);
  const at = await desk.hand.screenOf(turned(sill));
  // Beside the aim, whose cross would be seen otherwise.
  const darkest = async () =>
    Math.min(
      ...(await Promise.all(
        [-4, -3, -2, -1, 0, 1, 2, 3, 4].map(async (dy) => (await pixelAt(page, [at[0] + 26, at[1] + dy]))[0]!),
      )),
    );
  expect(await darkest()).toBeLessThan(150);
  await desk.hand.pointAt(turned(sill), 2);
  await page.mouse.move(2, 2);
  await expect.poll(darkest, { timeout: 30_000 }).toBeGreaterThan(220);
  await desk.choose('undo');
  await expect.poll(darkest, { timeout: 30_000 }).toBeLessThan(150);
  await desk.choose('undo');
  await desk.openCards();
  await expect(page.getByTestId('cleaning-steps')).not.toContainText('Specks');
  await page.getByRole('switch', { name: 'Paper evened out' }).click();
  await expect(page.getByRole('switch', { name: 'Paper evened out' })).not.toBeChecked();
  await desk.saved();
});
