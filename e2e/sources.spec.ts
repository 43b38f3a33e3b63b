import { expect, test } from './helpers/desk';

/** Gives the demo photo to the page the way a drop or a paste does. */
async function hand(page: import('@playwright/test').Page, way: 'drop' | 'paste', name: string): Promise<void> {
  await page.evaluate(async ([kind, fileName]) => {
    const blob = await (await fetch('/demo/blade.jpg')).blob();
    const data = new DataTransfer();
    data.items.add(new File([blob], fileName!, { type: 'image/jpeg' }));
    window.dispatchEvent(kind === 'drop' ? new DragEvent('drop', { dataTransfer: data, cancelable: true }) : new ClipboardEvent('paste', { clipboardData: data }));
  }, [way, name] as const);
}

test('pictures come in by dropping and by pasting, with what their tags say', async ({ desk, page }) => {
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
  await desk.saved();
});
