import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { expect, test, truth } from './helpers/desk';

/** Writes over what is stored under the names that end so, on the device itself; null takes it away. */
function spoil(page: Page, ending: string, text: string | null): Promise<number> {
  return page.evaluate(
    async ([end, value]) => {
      const [{ name }] = (await indexedDB.databases()) as [{ name: string }];
      const asked = <T>(request: IDBRequest<T>) =>
        new Promise<T>(
          (resolve, reject) => (
            (request.onsuccess = () => resolve(request.result)),
            (request.onerror = () => reject(request.error ?? new Error('storage')))
          ),
        );
      const database = await asked(indexedDB.open(name));
      const [table] = [...database.objectStoreNames] as [string];
      const records = database.transaction(table, 'readwrite').objectStore(table);
      const keys = (await asked(records.getAllKeys())).filter((key) => String(key).endsWith(end!));
      for (const key of keys) await (value === null ? asked(records.delete(key)) : asked(records.put(value, key)));
      database.close();
      return keys.length;
    },
    [ending, text],
  );
}

test('a job whose records are damaged is named so, what is stored of it can be saved, and the other jobs open @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-finished');
  await desk.saved();
  await page.goto('/');
  await desk.openDemo('blade-start');
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6');
  await desk.saved();
  const address = page.url();
  const id = address.split('/').at(-1)!;

  // A card that was cut off: the list stands, and the job opens.
  expect(await spoil(page, `job/${id}/card`, '{"id":"')).toBe(1);
  await page.goto('/');
  await expect(
    page.getByRole('button', { name: /^Open Pruner blade: finished|^Open Pruner blade/ }).first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Open Unnamed job' }).click();
  await expect(page.getByTestId('view-fit')).toContainText('±');

  // A change that is gone: shown as far as it goes, and said.
  await desk.saved();
  await page.goto('/');
  expect(await spoil(page, `job/${id}/entry/0`, null)).toBe(1);
  await page.goto(address);
  await expect(page.getByText('Some of the last changes to this job can no longer be read').first()).toBeVisible();
  await expect(page.getByTestId('view-fit')).toHaveText('no scale yet');

  // A head that makes no sense: named, not waited for.
  await page.goto('/');
  expect(await spoil(page, `job/${id}/head`, '{"cursor":')).toBe(1);
  await page.goto(address);
  await expect(page.getByText('What is stored of this job cannot be read.')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByTestId('save-raw').click();
  const raw = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as Record<string, string>;
  expect(JSON.parse(raw[`job/${id}/snapshot`]!)).toMatchObject({ id });
  await page.getByRole('button', { name: 'To the jobs' }).click();
  await expect(page.getByRole('button', { name: /^Open Pruner blade/ }).first()).toBeVisible();
});

test('an address where nothing is has a page of ours @wide', async ({ page }) => {
  await page.goto('/nowhere/at/all');
  await expect(page.getByText('There is nothing at this address.')).toBeVisible();
  await page.getByRole('button', { name: 'To the jobs' }).click();
  await expect(page.getByTestId('new-job')).toBeVisible();
});

test('a screen that fails is replaced by one that says so, and comes back @wide', async ({ desk, page, problems }) => {
  await desk.openDemo('blade-start');
  await desk.saved();
  // The list writes when a job changed: let that fail, as a fault of ours would.
  await page.addInitScript(() => {
    const fail = () => {
      if ((window as unknown as { mended?: boolean }).mended) return 'now';
      throw new Error('No such place');
    };
    Object.assign(Date.prototype, { toLocaleString: fail });
  });
  await page.goto('/');
  await expect(page.getByTestId('trouble')).toContainText('What was saved is safe on this device.');
  await page.evaluate(() => ((window as unknown as { mended: boolean }).mended = true));
  await page.getByRole('button', { name: 'Show it again' }).click();
  await expect(page.getByRole('button', { name: 'Open Pruner blade' })).toBeVisible();
  // That, and nothing else, was complained about.
  expect(problems.splice(0).every((problem) => problem.includes('No such place'))).toBe(true);
});
