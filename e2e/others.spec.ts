/** A view is looked at alone, or with the others of its plane faded under it. */
import { Buffer } from 'node:buffer';
import { readFileSync } from 'node:fs';
import { expect, pixelAt, test, truth } from './helpers/desk';

const world = (across: number, up: number) =>
  Buffer.from(['0.02', '0', '0', '-0.02', String(across), String(up)].join('\n'));

test('two pictures of one ground: the other lies where it is, faded, when it is asked for, and what is drawn on it @wide', async ({
  desk,
  page,
}) => {
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  const input = page.locator('input[type=file]').first();
  const bring = async (name: string, file: string, map: Buffer) => {
    await input.setInputFiles([
      { name: `${name}.jpg`, mimeType: 'image/jpeg', buffer: readFileSync(file) },
      { name: `${name}.jgw`, mimeType: 'text/plain', buffer: map },
    ]);
    await expect(page.getByRole('button', { name: new RegExp(`^${name}, ±`) })).toBeVisible({ timeout: 30_000 });
    await desk.step('sources');
  };
  await bring('bench', 'public/demo/blade.jpg', world(0, 0));
  await desk.step('trace');
  await desk.choose('tool-circle');
  await desk.closeCards();
  await desk.pointAt(truth.blade.holes[2]!.px);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  // The second one lies beside it: its left rim on the first one's right one, 4032 px of 2 cm away.
  await desk.step('sources');
  await bring('stones', 'public/demo/stones.jpg', world(4032 * 0.02, 0));

  await desk.step('fit');
  await desk.closeCards();
  await page.getByTestId('zoom-out').click();
  // 150 px left of the second one's rim: wood of the first one.
  const beside = async () => pixelAt(page, await desk.hand.screenOf([-150, 500]));
  const alone = await beside();
  await expect(page.getByTestId('others-ink')).toHaveCount(0);
  await desk.choose('toggle-others');
  const away = (colour: readonly number[]) => Math.hypot(...colour.map((value, i) => value - alone[i]!));
  await expect.poll(async () => away(await beside()), { timeout: 20_000 }).toBeGreaterThan(25);
  const [red, , blue] = await beside();
  expect(red!).toBeGreaterThan(blue! + 15);
  await expect(page.locator('[data-view=bench]').first()).toHaveAttribute('d', /^M/);
  await desk.choose('toggle-others');
  await expect.poll(async () => away(await beside())).toBeLessThan(3);
  await expect(page.getByTestId('others-ink')).toHaveCount(0);
});
