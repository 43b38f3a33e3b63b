/** A device that is full, that keeps nothing, that lost a picture, and workers that die. Each test is marked @wide: it does not depend on the size. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { readBundle } from '../src/core/formats';
import { axe } from './helpers/axe';
import { expect, test, truth, type Desk } from './helpers/desk';

/** Gives the app so many bytes of storage, as a disk that is nearly full does; undefined: as many as there are. */
async function giveRoom(page: Page, quotaSize?: number): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Storage.overrideQuotaForOrigin', {
    origin: new URL(page.url()).origin,
    ...(quotaSize === undefined ? {} : { quotaSize }),
  });
}

/** Leaves no room: less than is taken already, so that nothing that the browser tidies up on its disk makes room again. It looks how much there is only when what it last saw is used up. */
async function takeAllRoom(page: Page): Promise<void> {
  await giveRoom(page, 1);
  await page.evaluate(async () => {
    const database = await new Promise<IDBDatabase>((resolve) => {
      const request = indexedDB.open('bryony');
      request.onsuccess = () => resolve(request.result);
    });
    const put = (size: number) =>
      new Promise<boolean>((resolve) => {
        const transaction = database.transaction('entries', 'readwrite');
        transaction.objectStore('entries').put('x'.repeat(size), `filler/${Math.random()}`);
        transaction.oncomplete = () => resolve(true);
        transaction.onabort = () => resolve(false);
      });
    for (const size of [1_000_000, 100_000, 10_000, 1000, 100]) while (await put(size));
    database.close();
  });
}

const savedBundle = async (desk: Desk) => {
  await desk.step('handover');
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  return bundle.value;
};

test('on a full device the job in hand says so and is saved as a bundle, an old one opens to be read, and nothing new hangs @wide', async ({
  desk,
  page,
}) => {
  await page.goto('/nowhere');
  await giveRoom(page, 6_000_000);
  await desk.openDemo('blade-start');
  await desk.saved();
  const address = page.url();
  await takeAllRoom(page);
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6');
  await expect(page.getByTestId('not-saved')).toContainText('no room left');
  expect((await savedBundle(desk)).job.views[0]!.evidence).toHaveLength(1);

  // An old job: it opens, says why it is only shown, and leaves as a bundle, with its picture.
  await page.goto('about:blank');
  await page.goto(address);
  await expect(page.getByTestId('read-only')).toContainText('no room left');
  expect((await savedBundle(desk)).pictures.size).toBe(1);

  // The list: new, copied, renamed and from a demo are refused with a sentence.
  await page.goto('/');
  const full = page.getByText('This device has no room left for it.');
  const refused = async (does: () => Promise<void>) => {
    await does();
    await expect(full).toBeVisible();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await expect(full).toHaveCount(0);
  };
  const more = async (action: string) => {
    await page.getByRole('button', { name: 'More for Pruner blade', exact: true }).click();
    await page.getByTestId('job-Pruner blade').getByRole('button', { name: action, exact: true }).click();
  };
  await refused(() => desk.choose('new-job'));
  await refused(() => more('Duplicate'));
  await refused(async () => {
    await more('Rename');
    await page.getByRole('textbox', { name: 'Name' }).fill('Another name');
    await page.getByRole('button', { name: 'Take this name' }).click();
  });
  await refused(() => page.getByTestId('demo-can').click());

  // With room again the job is written.
  await giveRoom(page);
  await page.getByRole('button', { name: 'Open Pruner blade' }).click();
  await expect(page.getByTestId('read-only')).toHaveCount(0);
  await desk.step('fit');
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6');
  await desk.saved();
});

test('where the browser stores nothing that is said at the start, and work goes on until its bundle @wide', async ({
  desk,
  page,
}) => {
  await page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { get: () => undefined }));
  await page.goto('/');
  await expect(page.getByTestId('nothing-kept')).toContainText('save your jobs as bundles');
  await page.getByTestId('demo-blade-start').click();
  await expect(page.locator('#bench-drawing')).toBeAttached();
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6');
  await expect(page.getByTestId('view-fit')).toContainText('±');
  const { job, pictures } = await savedBundle(desk);
  expect([job.views[0]!.evidence.length, pictures.size]).toEqual([1, 1]);
  await page.getByTestId('leave').click();
  await expect(page.getByTestId('job-Pruner blade')).toBeVisible();
});

/** As a browser does whose own files were damaged: without a word. */
async function throwAway(page: Page, storageTypes: string): Promise<void> {
  const { origin } = new URL(page.url());
  const session = await page.context().newCDPSession(page);
  await page.goto('about:blank');
  await session.send('Storage.clearDataForOrigin', { origin, storageTypes });
  await page.goto('/');
}

/** Whether the second copy is whole, and holds what is stored but for what windows say to each other. */
const isCopied = (page: Page) =>
  page.evaluate(async () => {
    const database = await new Promise<IDBDatabase>((resolve) => {
      const request = indexedDB.open('bryony');
      request.onsuccess = () => resolve(request.result);
    });
    const all = database.transaction('entries').objectStore('entries');
    const ask = <T>(request: IDBRequest<T>) =>
      new Promise<T>((resolve) => (request.onsuccess = () => resolve(request.result)));
    const [keys, texts] = await Promise.all([ask(all.getAllKeys()), ask(all.getAll())]);
    database.close();
    try {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('second-copy');
      for (const [i, key] of (keys as string[]).entries()) {
        if (/\/(lease|coming)$/.test(key)) continue;
        const file = await folder.getFileHandle(encodeURIComponent(key));
        if ((await (await file.getFile()).text()) !== texts[i]) return false;
      }
      return keys.includes('device/mark');
    } catch {
      return false;
    }
  });

test('a job that the browser threw away is put back from its second copy, with its picture and its steps @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-drawn');
  await desk.saved();
  await expect.poll(() => isCopied(page)).toBe(true);
  // What comes after the copy was made follows it.
  await desk.step('trace');
  await desk.choose('panel-layers');
  await desk.choose('add-layer');
  await desk.saved();
  const before = await savedBundle(desk);
  await expect.poll(() => isCopied(page)).toBe(true);

  await throwAway(page, 'indexeddb');
  await expect(page.getByTestId('put-back')).toContainText('put them back');
  await axe(page);
  await page.getByTestId('loss-read').click();
  await expect(page.getByTestId('put-back')).toHaveCount(0);
  await page.getByRole('button', { name: 'Open Pruner blade, drawn' }).click();
  await page.getByTestId('bench').waitFor();
  const after = await savedBundle(desk);
  expect(after.job).toEqual(before.job);
  expect([...after.pictures.keys()]).toEqual([...before.pictures.keys()]);
  await page.getByTestId('undo').click();
  await desk.saved();
  expect((await savedBundle(desk)).job.layers).toHaveLength(before.job.layers.length - 1);
});

test('a browser that threw away what was stored is found out, and what was saved as a bundle opens again @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-drawn');
  await desk.saved();
  await expect.poll(() => page.evaluate(() => localStorage.getItem('device/mark') !== null)).toBe(true);
  await desk.step('handover');
  const bundle = readFileSync(await desk.download('save-bundle'));
  await page.goto('/');
  await expect(page.getByTestId('jobs')).toBeVisible();
  await expect(page.getByTestId('thrown-away')).toHaveCount(0);
  await expect.poll(() => page.evaluate(() => localStorage.getItem('device/mark') !== null)).toBe(true);

  await throwAway(page, 'indexeddb,file_systems');
  await expect(page.getByTestId('thrown-away')).toContainText('thrown away the jobs');
  await axe(page);
  await page.getByTestId('bundle-file').setInputFiles({ name: 'b.zip', mimeType: 'application/zip', buffer: bundle });
  await page.getByTestId('bench').waitFor();
  await page.goto('/');
  // Said until it was read, and never again.
  await page.getByTestId('loss-read').click();
  await expect(page.getByTestId('thrown-away')).toHaveCount(0);
  await expect.poll(() => page.evaluate(() => localStorage.getItem('device/mark') !== null)).toBe(true);
  await page.goto('/');
  await expect(page.getByTestId('jobs')).toBeVisible();
  await expect(page.getByTestId('thrown-away')).toHaveCount(0);
});

test('a lost picture is named, what was drawn stays, and the file brings it back @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-finished');
  await desk.saved();
  await page.evaluate(async () => {
    const asked = <T>(request: IDBRequest<T>) =>
      new Promise<T>((resolve) => (request.onsuccess = () => resolve(request.result)));
    const database = await asked(indexedDB.open('bryony'));
    const records = database.transaction('entries', 'readwrite').objectStore('entries');
    for (const key of await asked(records.getAllKeys()))
      if (/^picture\/[0-9a-f]{64}\/0$/.test(String(key))) await asked(records.delete(key));
    database.close();
  });
  await page.reload();
  const lost = page.getByTestId('lost-picture');
  await expect(lost).toContainText('not on this device any more');
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  const bundle = await savedBundle(desk);
  expect([bundle.job.outlines.length, bundle.pictures.size]).toEqual([5, 0]);
  await expect(page.getByText('not on this device any more, so the bundle does not hold it')).toBeVisible();
  await page.getByTestId('lost-file').setInputFiles('public/demo/blade-slanted.jpg');
  await expect(lost).toContainText('is another file than the one that was here');
  await page.getByTestId('lost-file').setInputFiles('public/demo/blade.jpg');
  await expect(lost).toHaveCount(0);
  expect((await savedBundle(desk)).pictures.size).toBe(1);
  await page.reload();
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  await expect(lost).toHaveCount(0);
});

test('a worker that dies is noticed at once: another takes its place, and no picture is called gone @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-start');
  await desk.saved();
  const killAll = () =>
    Promise.all(page.workers().map((worker) => worker.evaluate(() => self.close()).catch(() => undefined)));
  await killAll();
  await desk.step('trace');
  await desk.choose('tool-circle');
  await desk.pointAt(truth.blade.holes[0]!.px);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1', { timeout: 15_000 });
  await killAll();
  await page.getByTestId('zoom-in').click();
  await expect(page.getByTestId('lost-picture')).toHaveCount(0);
  expect((await savedBundle(desk)).pictures.size).toBe(1);
  // Killed while it works: what was asked fails at once, or is asked again; the desk goes on.
  await desk.step('trace');
  await desk.choose('tool-circle');
  await desk.pointAt(truth.blade.holes[1]!.px);
  await killAll();
  await desk.pointAt(truth.blade.holes[2]!.px);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', /Outline: [23]/, { timeout: 15_000 });
});
