/**
 * Opens a job again and again, then brings ten photos into one, and prints what the browser holds after each. Run by hand: the app is served (npm run demo), then
 *
 *   node --import tsx e2e/memory.ts [openings] [address]
 */
import { readdirSync, readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { chromium, type CDPSession, type Page } from '@playwright/test';

const [openings, address] = [Number(process.argv[2] ?? 30), process.argv[3] ?? 'http://localhost:8080'];
const PICTURES = 10;
const MEGABYTE = 1024;

/** Everything that a process and those it started hold, in megabytes: what they share is counted once (Linux). */
function heldBy(root: string): number {
  const parents = new Map(
    readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .map((id) => [id, findIn(id, 'status', /^PPid:\s+(\d+)/m)]),
  );
  const isOfRoot = (id: string | undefined): boolean => id !== undefined && (id === root || isOfRoot(parents.get(id)));
  const shares = [...parents.keys()]
    .filter(isOfRoot)
    .map((id) => Number(findIn(id, 'smaps_rollup', /^Pss:\s+(\d+)/m) ?? 0));
  return Math.round(shares.reduce((sum, share) => sum + share, 0) / MEGABYTE);
}

/** What is said of a process; undefined where it has ended meanwhile. */
function findIn(id: string, file: string, pattern: RegExp): string | undefined {
  try {
    return pattern.exec(readFileSync(`/proc/${id}/${file}`, 'utf8'))?.[1];
  } catch {
    return undefined;
  }
}

/** Prints the page's heap after everything that nobody holds is gone, and what all processes hold. */
async function print(what: string, session: CDPSession): Promise<void> {
  await wait(500);
  await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  console.log(
    `${what.padEnd(14)} heap ${(usedSize / 1e6).toFixed(1)} MB, all processes ${heldBy(String(process.pid))} MB`,
  );
}

async function openAndLeave(page: Page): Promise<void> {
  await page.locator('[data-testid^=job-]:not([data-testid=job-search])').first().click();
  await page.locator('#bench-drawing').waitFor({ state: 'attached' });
  await wait(1000);
  await page.goBack();
  await page.getByTestId('jobs').waitFor();
}

async function main(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--enable-unsafe-swiftshader'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const session = await page.context().newCDPSession(page);
  await page.goto(address);
  await page.getByTestId('demo-blade-finished').click();
  await page.locator('#bench-drawing').waitFor({ state: 'attached' });
  await page.goBack();
  await page.getByTestId('jobs').waitFor();
  for (let i = 1; i <= openings; i++) {
    await openAndLeave(page);
    if (i % 5 === 0 || i === 1) await print(`opened ${i}`, session);
  }
  const photo = readFileSync('public/demo/blade.jpg');
  await page.getByTestId('new-job').click();
  await page.getByTestId('bench').waitFor();
  for (let i = 1; i <= PICTURES; i++) {
    await page.getByTestId('step-sources').click();
    await page.getByTestId('panel-add').click();
    // A byte behind its end makes it another file.
    const buffer = Buffer.concat([photo, Buffer.from([i])]);
    await page.getByTestId('picture-files').setInputFiles({ name: `${i}.jpg`, mimeType: 'image/jpeg', buffer });
    // A picture that came in is fitted next.
    await page.getByTestId('toggle-lock').waitFor();
    await print(`pictures: ${i}`, session);
  }
  await browser.close();
}

void main();
