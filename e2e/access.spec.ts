import { networkInterfaces } from 'node:os';
import type { Page } from '@playwright/test';
import { axe } from './helpers/axe';
import { expect, judgeDxf, test, truth } from './helpers/desk';
import type { Px } from './helpers/hand';

for (const colorScheme of ['light', 'dark'] as const) {
  // Colours do not depend on the size: the dark ones are looked at wide.
  test.describe(colorScheme === 'dark' ? 'dark @wide' : colorScheme, () => {
    test.use({ colorScheme });
    test('axe finds nothing serious on any main view', async ({ desk, page }) => {
      await page.goto('/');
      await axe(page);
      await desk.openDemo('blade-finished');
      for (const step of ['sources', 'fit', 'trace', 'handover'] as const) {
        await desk.step(step);
        await desk.openCards();
        await page.waitForTimeout(300);
        await axe(page);
      }
      // Colours come from one palette: the dark one is looked at on the main views.
      if (colorScheme === 'dark') return;
      await desk.step('fit');
      for (const panel of ['panel-kinds', 'panel-shelf', 'panel-height', 'panel-model', 'panel-look']) {
        await desk.choose(panel);
        await desk.openCards();
        if (panel === 'panel-shelf') await desk.choose('own-add');
        await axe(page);
      }
      await desk.choose('panel-match');
      await desk.openCards();
      await axe(page);
      await desk.step('sources');
      for (const panel of ['panel-clean', 'panel-ask']) {
        await desk.choose(panel);
        await desk.openCards();
        await axe(page);
      }
      await desk.choose('panel-add');
      await desk.openCards();
      for (const dialog of ['scanner', 'camera', 'parcel']) {
        await desk.choose(`open-${dialog}`);
        await page.getByTestId(`${dialog}-dialog`).waitFor();
        await page.waitForTimeout(400);
        await axe(page);
        await page.keyboard.press('Escape');
        await page.getByTestId(`${dialog}-dialog`).waitFor({ state: 'detached' });
      }
      await desk.step('trace');
      for (const tool of [
        'tool-line',
        'tool-circle',
        'tool-shape',
        'tool-guide',
        'tool-measure',
        'panel-layers',
        'panel-check',
        'tool-wall',
        'tool-cut',
        'tool-dimension',
        'tool-region',
        'tool-relate',
      ]) {
        await desk.choose(tool);
        await desk.openCards();
        await axe(page);
      }
      await desk.choose('take-all');
      await page.getByTestId('held-card').waitFor();
      await desk.choose('show-free');
      await axe(page);
      await desk.choose('tool-select');
      await desk.openCards();
      await desk.choose('select-all');
      await desk.type('part-name', 'Blade');
      await page.getByTestId('part-count').waitFor();
      await axe(page);
      await desk.choose('make-offset');
      await page.getByTestId('recipe-card').waitFor();
      await axe(page);
      await page.goto('/');
      await page.getByTestId('jobs').waitFor();
      await axe(page);
    });
  });
}

test('a phone that opens the desk over plain http on the network can do the work @phone', async ({
  page,
  baseURL,
  desk,
}) => {
  const address = Object.values(networkInterfaces())
    .flat()
    .find((one) => one && one.family === 'IPv4' && !one.internal)?.address;
  const host = address ?? '127.0.0.2';
  await page.goto(`http://${host}:${new URL(baseURL!).port}/`);
  expect(await page.evaluate(() => window.isSecureContext)).toBe(address === undefined);
  await page.getByTestId('demo-blade-start').click();
  await page.getByTestId('bench').waitFor();
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6');
  await expect(page.getByTestId('view-fit')).toContainText('±');
  await desk.saved();
});

test.describe('by keyboard alone @wide', () => {
  /** Moves the aim to a place with arrow keys and sets it; zooms in first, as the keys allow. */
  async function setByKeys(page: Page, px: Px): Promise<void> {
    const bench = page.getByTestId('bench');
    await bench.focus();
    for (let i = 0; i < 120; i++) {
      const [x, y] = await aimAway(page, px);
      if (Math.hypot(x, y) < 0.75) break;
      const [across, down] = [x > 0 ? 'ArrowRight' : 'ArrowLeft', y > 0 ? 'ArrowDown' : 'ArrowUp'];
      const key = Math.abs(x) > Math.abs(y) ? across : down;
      await page.keyboard.press(Math.max(Math.abs(x), Math.abs(y)) >= 10 ? `Shift+${key}` : key);
    }
    await page.keyboard.press('Enter');
  }

  /** How far the aim is from a place, CSS px; from the middle of the bench while there is no aim. */
  async function aimAway(page: Page, px: Px): Promise<Px> {
    return page.evaluate(([x, y]) => {
      const matrix = (document.querySelector('#bench-drawing') as SVGGElement).transform.baseVal.consolidate()!.matrix;
      const cross = document.querySelector('[data-testid=aim-cross]');
      const box = document.querySelector('[data-testid=bench]')!.getBoundingClientRect();
      const at = cross
        ? [Number(cross.getAttribute('data-x')), Number(cross.getAttribute('data-y'))]
        : [box.width / 2, box.height / 2];
      return [x * matrix.a + matrix.e - at[0]!, y * matrix.a + matrix.f - at[1]!] as const;
    }, px);
  }

  test('a scale, an outline and a file', async ({ desk, page }) => {
    await desk.openDemo('blade-start');
    await setByKeys(page, truth.card.left);
    await setByKeys(page, truth.card.right);
    // A point may wait a moment for the picture around it before its size is asked for.
    await expect(page.getByTestId('length-field')).toBeFocused();
    await page.keyboard.type('85.6');
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('view-fit')).toContainText('±');
    await page.getByTestId('step-trace').focus();
    await page.keyboard.press('Enter');
    await page.getByTestId('tool-line').focus();
    await page.keyboard.press('Enter');
    for (const px of [
      [1000, 1000],
      [2000, 1000],
      [2000, 1600],
    ] as const)
      await setByKeys(page, px);
    await page.getByTestId('draw-close').focus();
    await page.keyboard.press('Enter');
    await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
    await page.getByTestId('step-handover').focus();
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('handover-says')).toHaveText('The file agrees with the job.');
    await page.getByTestId('save-file').focus();
    const [file] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
    expect(judgeDxf(await file.path())).toMatchObject({ errors: 0, kinds: { LWPOLYLINE: 1 } });
  });
});
