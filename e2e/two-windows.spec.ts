/** Two windows of one browser on the same jobs: what one called saved, no other takes away. Each test is marked @wide: it does not depend on the size. */
import type { BrowserContext, Page } from '@playwright/test';
import { Desk, expect, test, truth } from './helpers/desk';

/** Another window on the same device, with a hand of its own. */
async function anotherWindow(context: BrowserContext, address: string): Promise<Desk> {
  const page = await context.newPage();
  await page.goto(address);
  return new Desk(page, false);
}

async function drawHoles(desk: Desk, ...holes: readonly number[]): Promise<void> {
  // A window behind another one is drawn once a second.
  await desk.page.bringToFront();
  await desk.step('trace');
  await desk.choose('tool-circle');
  for (const hole of holes) {
    const before = await countOf(desk);
    await desk.pointAt(truth.blade.holes[hole]!.px);
    await expect.poll(() => countOf(desk)).toBe(before + 1);
  }
}

const countOf = async (desk: Desk) =>
  (await desk.layer('Outline').count()) === 0
    ? 0
    : Number((await desk.layer('Outline').getAttribute('aria-label'))!.split(' ')[1]);

/** Stops all that a window does, as the browser does with one that was not looked at for long: it waits for an answer that comes when it is to wake. */
async function putToSleep(page: Page): Promise<() => Promise<void>> {
  let wake = () => undefined as void;
  const woken = new Promise<void>((resolve) => (wake = resolve));
  await page.route('**/sleeping', async (route) => {
    await woken;
    await route.fulfill({ body: '' });
  });
  const asleep = page.evaluate(() => {
    const request = new XMLHttpRequest();
    request.open('GET', '/sleeping', false);
    request.send();
  });
  await page.waitForRequest('**/sleeping');
  return () => (wake(), asleep);
}

async function fromList(list: Page, name: string, action: string): Promise<void> {
  await list.getByRole('button', { name: `More for ${name}`, exact: true }).click();
  await list.getByTestId(`job-${name}`).getByRole('button', { name: action, exact: true }).click();
}

test('renamed and copied in the list while it is open: the window that has it open does it, and nothing is drawn twice @wide', async ({
  desk,
  page,
  context,
}) => {
  await desk.openDemo('blade-start');
  await drawHoles(desk, 0, 1);
  const { page: list } = await anotherWindow(context, '/');
  await fromList(list, 'Pruner blade', 'Rename');
  await list.getByRole('textbox', { name: 'Name' }).fill('Second blade');
  await list.getByRole('button', { name: 'Take this name' }).click();
  await expect(list.getByTestId('job-Second blade')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Name and units of Second blade' })).toBeVisible();
  await drawHoles(desk, 2);
  await fromList(list, 'Second blade', 'Duplicate');
  await expect(list.getByTestId('job-Second blade (copy)')).toContainText('3 outlines');
  await desk.saved();
  await page.reload();
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 3');
  await page.getByTestId('undo').click();
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 2');
});

test('deleted in the list while it is open: the list says where it is open, and it stays @wide', async ({
  desk,
  page,
  context,
}) => {
  await desk.openDemo('blade-start');
  await drawHoles(desk, 0);
  await desk.saved();
  const { page: list } = await anotherWindow(context, '/');
  await fromList(list, 'Pruner blade', 'Delete');
  await expect(list.getByText('Bring it back')).toBeVisible();
  // Until then it could be brought back.
  await expect(list.getByText('That job is open in another window.')).toBeVisible({ timeout: 20_000 });
  await expect(list.getByTestId('job-Pruner blade')).toBeVisible();
  await drawHoles(desk, 1);
  await desk.saved();
  await page.reload();
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 2');
});

test('a window that slept does not write over the one that took over @wide', async ({ desk, page, context }) => {
  await desk.openDemo('blade-start');
  await drawHoles(desk, 0);
  await desk.saved();
  const wake = await putToSleep(page);
  const second = await anotherWindow(context, page.url());
  await expect(second.page.getByTestId('read-only')).toHaveCount(0);
  await drawHoles(second, 1, 2);
  await second.saved();
  await wake();
  await expect(page.getByTestId('read-only')).toContainText('took this job over');
  await second.page.reload();
  await expect(second.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 3');
});

test('taking over brings along what was drawn a moment ago, and the first window only shows it @wide', async ({
  desk,
  page,
  context,
}) => {
  await desk.openDemo('blade-start');
  const second = await anotherWindow(context, page.url());
  await expect(second.page.getByTestId('read-only')).toBeVisible();
  await drawHoles(desk, 0);
  await second.page.getByTestId('take-over').click();
  await expect(second.page.getByTestId('read-only')).toHaveCount(0);
  await expect(second.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  await expect(page.getByTestId('read-only')).toContainText('took this job over');
  await drawHoles(second, 1);
  await second.saved();
  // And back again.
  await page.getByTestId('take-over').click();
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 2');
  await expect(second.page.getByTestId('read-only')).toBeVisible();
});

test('opened in two windows at the same moment, it can be written in one @wide', async ({ desk, page, context }) => {
  await desk.openDemo('blade-start');
  await desk.saved();
  const address = page.url();
  await page.goto('about:blank');
  for (let i = 0; i < 6; i++) {
    const windows = await Promise.all([context.newPage(), context.newPage()]);
    await Promise.all(windows.map((window) => window.goto(address)));
    for (const window of windows) await expect(window.getByTestId('view-fit')).toBeVisible();
    await expect
      .poll(async () =>
        (await Promise.all(windows.map((window) => window.getByTestId('read-only').count()))).reduce(
          (sum, count) => sum + count,
          0,
        ),
      )
      .toBe(1);
    await Promise.all(windows.map((window) => window.close()));
  }
});
