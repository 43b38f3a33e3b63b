/** The first screen: a picture becomes a job in one tap, wherever it comes from; jobs come before demos; many are looked for. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './helpers/desk';

/** Drops or pastes a file anywhere on the page, as a browser does. */
async function give(page: Page, how: 'drop' | 'paste', file: string, name: string, type: string): Promise<void> {
  const bytes = readFileSync(file).toString('base64');
  await page.evaluate(
    ([way, text, called, kind]) => {
      const files = new DataTransfer();
      files.items.add(
        new File([Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0))], called, {
          type: kind,
          lastModified: Date.UTC(2026, 4, 14, 10),
        }),
      );
      window.dispatchEvent(
        way === 'drop'
          ? new DragEvent('drop', { dataTransfer: files, cancelable: true })
          : new ClipboardEvent('paste', { clipboardData: files }),
      );
    },
    [how, bytes, name, type] as const,
  );
}

/** Back to the first screen, and there. */
async function leave(page: Page): Promise<void> {
  await page.getByTestId('leave').click();
  await page.getByTestId('jobs').waitFor();
}

/** The picture is on the bench of a job of its own, ready for its scale. */
async function isOnBench(page: Page, name: string | RegExp): Promise<void> {
  await expect(page).toHaveURL(/\/job\//);
  await expect(page.locator('#bench-drawing')).toBeAttached({ timeout: 30_000 });
  await expect(page.getByRole('button', { name: /^Name and units of/ })).toHaveText(name);
  await expect(page.getByTestId('tool-length')).toBeVisible();
  await expect(page.getByTestId('save-state')).toHaveText('saved', { timeout: 10_000 });
}

test('a picture that is chosen, dropped or pasted is a job on the bench, called after it or after when it was taken @wide', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByTestId('begin-files').setInputFiles('public/demo/hanger.jpg');
  await isOnBench(page, 'hanger');

  await leave(page);
  await expect(page.getByTestId('job-hanger')).toContainText('1 picture');
  await give(page, 'drop', 'public/demo/can-front.jpg', 'IMG_0042.jpg', 'image/jpeg');
  await isOnBench(page, /^Picture of .*14/);

  await leave(page);
  await give(page, 'paste', 'public/demo/can-top.jpg', 'watering can.jpg', 'image/jpeg');
  await isOnBench(page, 'watering can');
  await page.reload();
  await isOnBench(page, 'watering can');
});

test('what is dropped and cannot be read begins no job, and a bundle that is none is said where it was dropped @phone', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByTestId('demo-blade-start').waitFor();
  await give(page, 'drop', 'package.json', 'trowel.jpg', 'image/jpeg');
  await expect(page.getByText(/trowel\.jpg.* is not a picture/)).toBeVisible();
  await expect(page).toHaveURL(/\/$/);
  await expect(page.getByRole('button', { name: /^Open trowel/ })).toHaveCount(0);
  await give(page, 'drop', 'package.json', 'old.bryony', 'application/zip');
  await expect(page.getByText('This file is not a bundle of Bryony.')).toBeVisible({ timeout: 30_000 });
  await expect(page).toHaveURL(/\/$/);
});

test('with jobs there the demos step back; many jobs are looked for and put in order', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByText('A worn blade beside a card and a rule.')).toBeVisible();
  await expect(page.getByTestId('job-search')).toHaveCount(0);
  await page.getByTestId('demo-blade-start').click();
  await page.getByTestId('bench').waitFor();
  await page.goto('/');
  const cards = page.getByTestId('jobs').getByRole('button', { name: /^Open / });
  await expect(cards).toHaveCount(1);
  await expect(page.getByText('A worn blade beside a card and a rule.')).toHaveCount(0);
  await expect(page.getByTestId('demo-blade-start')).toBeVisible();
  await expect(page.getByTestId('room-taken')).toContainText(/Bryony takes \d+ MB of this device/);

  for (let i = 1; i <= 12; i++) {
    await page
      .getByRole('button', { name: /^More for / })
      .first()
      .click();
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await expect(cards).toHaveCount(i + 1);
  }
  await page
    .getByRole('button', { name: /^More for / })
    .last()
    .click();
  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Arbour gate');
  await page.getByRole('button', { name: 'Take this name' }).click();
  await expect(page.getByTestId('job-Arbour gate')).toBeVisible();
  await page.getByTestId('job-search').fill('gate arb');
  await expect(cards).toHaveCount(1);
  await page.getByTestId('job-search').fill('trowel');
  await expect(page.getByText('No job is called “trowel”.')).toBeVisible();
  await page.getByTestId('job-search').fill('');
  await page.getByRole('radio', { name: 'By name' }).click();
  await expect(cards.first()).toHaveAccessibleName(/^Open Arbour gate/);
});
