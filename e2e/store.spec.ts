import { expect, test, truth } from './helpers/desk';

test('a second window is told, and may take over @wide', async ({ desk, page, context }) => {
  await desk.openDemo('blade-start');
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6');
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByTestId('read-only')).toBeVisible();
  await expect(second.getByTestId('view-fit')).toContainText('±');
  await second.getByTestId('take-over').click();
  await expect(second.getByTestId('read-only')).toHaveCount(0);
  await expect(page.getByTestId('read-only')).toBeVisible();
  await second.getByTestId('undo').click();
  await expect(second.getByTestId('view-fit')).toHaveText('no scale yet');
});

test('what is being drawn comes back after the page died @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.pointAt(truth.blade.start.px, truth.blade.strokes[0]!.to.px);
  await desk.saved();
  await page.goto('about:blank');
  await page.goBack();
  await expect(page.getByTestId('hint')).toContainText('next corner');
  await desk.openCards();
  await desk.choose('draw-finish');
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
});

test('jobs are renamed, duplicated, deleted and brought back @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await desk.saved();
  await page.getByTestId('leave').click();
  const choose = async (name: string, action: string) => {
    await page.getByRole('button', { name: `More for ${name}`, exact: true }).click();
    await page.getByTestId(`job-${name}`).getByRole('button', { name: action, exact: true }).click();
  };
  await choose('Pruner blade', 'Duplicate');
  await expect(page.getByTestId('job-Pruner blade (copy)')).toBeVisible();
  await choose('Pruner blade (copy)', 'Rename');
  await page.getByRole('textbox', { name: 'Name' }).fill('Second blade');
  await page.getByRole('button', { name: 'Take this name' }).click();
  await expect(page.getByTestId('job-Second blade')).toBeVisible();
  await choose('Second blade', 'Delete');
  await expect(page.getByTestId('job-Second blade')).toHaveCount(0);
  await page.getByText('Bring it back').click();
  await expect(page.getByTestId('job-Second blade')).toBeVisible();
});

test('storage that is full is said before anything is lost @wide', async ({ desk, page }) => {
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (...args: Parameters<typeof put>) {
      if ((window as unknown as { full?: boolean }).full)
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      return put.apply(this, args);
    };
  });
  await desk.openDemo('blade-start');
  await desk.saved();
  await page.evaluate(() => ((window as unknown as { full: boolean }).full = true));
  await desk.pointAt(truth.card.left);
  await expect(page.getByTestId('not-saved')).toContainText('no room left');
  await desk.pointAt(truth.card.right);
  await desk.type('length-field', '85.6');
  await expect(page.getByTestId('not-saved')).toContainText('save the job as a bundle');
  await desk.step('handover');
  await desk.download('save-bundle');
  await page.evaluate(() => ((window as unknown as { full: boolean }).full = false));
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByTestId('not-saved')).toHaveCount(0);
});
