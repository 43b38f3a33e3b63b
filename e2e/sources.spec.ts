import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { expect, pixelAt, test } from './helpers/desk';

/** Gives the demo photo to the page the way a drop or a paste does. */
async function hand(page: import('@playwright/test').Page, way: 'drop' | 'paste', name: string): Promise<void> {
  await page.evaluate(
    async ([kind, fileName]) => {
      const blob = await (await fetch('/demo/blade.jpg')).blob();
      const data = new DataTransfer();
      data.items.add(new File([blob], fileName!, { type: 'image/jpeg' }));
      window.dispatchEvent(
        kind === 'drop'
          ? new DragEvent('drop', { dataTransfer: data, cancelable: true })
          : new ClipboardEvent('paste', { clipboardData: data }),
      );
    },
    [way, name] as const,
  );
}

test('pictures come in by dropping and by pasting, with what their tags say @wide', async ({ desk, page }) => {
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  await hand(page, 'drop', 'dropped.jpg');
  await expect(page.getByRole('button', { name: /^dropped, no scale yet/ })).toBeVisible({ timeout: 20_000 });
  await hand(page, 'paste', 'pasted.jpg');
  await expect(page.getByRole('button', { name: /^pasted, no scale yet/ })).toBeVisible({ timeout: 20_000 });
  await desk.step('sources');
  await expect(page.getByTestId('sheet-dropped')).toContainText('4032 × 3024 px');
  await expect(page.getByTestId('sheet-dropped')).toContainText('pocket camera, 9.2 mm lens, as 52 mm on 35 mm film');
  await expect(page.getByTestId('sheet-dropped').getByRole('radio', { name: 'Photo by hand' })).toBeChecked();
  // What is no picture is answered where it is seen, also while cards lie over the lower half of a phone.
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('this is text') });
  const said = page.getByTestId('said');
  await expect(said).toContainText('“notes.jpg” is not a picture');
  expect(
    await said.evaluate((slip) => {
      const { left, top, width, height } = slip.getBoundingClientRect();
      return slip.contains(document.elementFromPoint(left + width / 3, top + height / 2));
    }),
  ).toBe(true);
  await desk.saved();
});

/** Made by Debian's python3-pil and heif-enc: red rises to the right, green downwards, blue stays. */
function makeFiles(folder: string): void {
  const script = `
from PIL import Image
w, h, out = 320, 200, '${folder}'
color = Image.new('RGB', (w, h)); color.putdata([(20 + (200 * x) // w, 20 + (200 * y) // h, 120) for y in range(h) for x in range(w)])
color.save(f'{out}/plain.png')
tags = Image.Exif(); tags[274] = 6
color.save(f'{out}/turned.tif', exif=tags, compression='tiff_lzw')
color.save(f'{out}/pages.tif', save_all=True, append_images=[color.rotate(180)], dpi=(300, 300))`;
  execFileSync('/usr/bin/python3', ['-c', script]);
  execFileSync('/usr/bin/heif-enc', ['-q', '95', `${folder}/plain.png`, '-o', `${folder}/phone.heic`], {
    stdio: 'ignore',
  });
}

test('TIFF comes in upright and page by page, HEIC through its own library @wide', async ({ desk, page }, info) => {
  const folder = info.outputPath();
  mkdirSync(folder, { recursive: true });
  makeFiles(folder);
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  const input = page.locator('input[type=file]').first();
  const strip = page.getByRole('navigation', { name: 'Views' }).getByRole('button');
  /** The colour of a place of the picture on the bench, as shares of its width and height. */
  const seen = async (u: number, v: number) => {
    await page.getByTestId('zoom-all').click();
    await expect(page.getByTestId('bench').locator('canvas')).toBeVisible();
    const [width, height] = (
      await page
        .getByTestId('bench')
        .evaluate((bench) => bench.querySelector('svg[data-sheet]')!.getAttribute('data-sheet')!)
    )
      .split(' ')
      .map(Number) as [number, number];
    const [x, y] = await desk.hand.screenOf([u * width, v * height]);
    return pixelAt(page, [x, y]);
  };
  /** A picture is decoded and laid on the bench in its own time: it is looked at until it is there. */
  const shows = (was: readonly number[]) =>
    expect(async () => {
      const is = await seen(0.75, 0.25);
      is.forEach((value, i) => expect(Math.abs(value - was[i]!)).toBeLessThan(8));
    }).toPass({ timeout: 30_000 });

  await input.setInputFiles(`${folder}/phone.heic`);
  await expect(strip).toHaveCount(1, { timeout: 20_000 });
  await shows([170, 70, 120]);

  await desk.step('sources');
  await input.setInputFiles(`${folder}/pages.tif`);
  await expect(strip).toHaveCount(3, { timeout: 20_000 });
  await shows([170, 70, 120]);
  await strip.nth(2).click();
  await shows([70, 170, 120]);
  await expect(strip.nth(2)).toContainText('pages, page 2');

  // Orientation 6: the file's left is the top.
  await desk.step('sources');
  await input.setInputFiles(`${folder}/turned.tif`);
  await expect(strip).toHaveCount(4, { timeout: 20_000 });
  await shows([70, 70, 120]);

  // A page is found again after the page was loaded anew: the file is kept, with the page's number.
  await desk.saved();
  await page.reload();
  await strip.nth(2).click();
  await shows([70, 170, 120]);
});
