/**
 * Kills the browser again and again while a job changes, at any moment, and looks afterwards whether all is there that was called saved. Now and then the browser's database is gone as well when it starts again, as browsers do to
 * damaged ones: what was saved a moment before has to come back from its second copy. Run by hand, since it takes an hour: the app is served (npm run demo), then
 *
 *   node --import tsx e2e/kills.ts [kills] [address]
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { chromium, type Browser, type Page } from '@playwright/test';

const [kills, address] = [Number(process.argv[2] ?? 1000), process.argv[3] ?? 'http://localhost:8080'];
const ARGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--enable-unsafe-swiftshader',
  '--remote-debugging-port=0',
  '--window-size=1280,800',
];

/** How often jobs came back from their second copy. */
let putBack = 0;

interface Running {
  readonly process: ChildProcess;
  readonly browser: Browser;
  readonly page: Page;
}

async function start(profile: string): Promise<Running> {
  const port = path.join(profile, 'DevToolsActivePort');
  rmSync(port, { force: true });
  const child = spawn('/usr/bin/chromium', [...ARGS, `--user-data-dir=${profile}`, 'about:blank'], {
    stdio: 'ignore',
    detached: true,
  });
  for (let tries = 0; tries < 200; tries++) {
    await wait(50);
    try {
      const [number] = readFileSync(port, 'utf8').split('\n');
      const browser = await chromium.connectOverCDP(`http://127.0.0.1:${number}`);
      const context = browser.contexts()[0]!;
      return { process: child, browser, page: context.pages()[0] ?? (await context.newPage()) };
    } catch {
      // It is not up yet.
    }
  }
  throw new Error('the browser does not start');
}

/** The whole group at once, as when the power goes. */
function kill({ process: child }: Running): Promise<void> {
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  process.kill(-child.pid!, 'SIGKILL');
  return ended;
}

/** Every so many kills the database is gone, after half a second in which nothing was changed. */
const DATABASE_GONE_EVERY = 25;

const layersIn = (page: Page) => page.locator('[data-testid^="layer-card-"]').count();

/** Opens the job and its layers: how many there are now; undefined where the browser itself threw the storage away, which the first screen says. */
async function open(page: Page, job: string): Promise<number | undefined> {
  await page.goto(address);
  await page.getByTestId('begin-picture').waitFor({ timeout: 30_000 });
  await page.getByTestId('jobs').or(page.getByTestId('thrown-away')).first().waitFor({ timeout: 30_000 });
  await wait(200);
  if ((await page.getByTestId('thrown-away').count()) > 0) return undefined;
  if ((await page.getByTestId('put-back').count()) > 0) putBack++;
  await page.goto(job);
  await page.getByTestId('step-trace').click({ timeout: 30_000 });
  await page.getByTestId('panel-layers').click();
  await page.getByTestId('add-layer').waitFor();
  return layersIn(page);
}

/** Takes the browser's database away, as it does itself with a damaged one. */
function loseDatabase(profile: string): void {
  rmSync(path.join(profile, 'Default', 'IndexedDB'), { recursive: true });
}

/** Adds layers without a pause until the browser is gone; the most that were there when it said "saved". */
async function changeUntilKilled(page: Page, saved: { layers: number }, steps = Infinity): Promise<void> {
  try {
    for (let i = 0; i < steps; i++) {
      await page.getByTestId('add-layer').click();
      if (i % 3 === 2) await wait(150 + 500 * Math.random());
      const [state, layers] = await page.evaluate(
        () =>
          [
            document.querySelector('[data-testid="save-state"]')?.textContent,
            document.querySelectorAll('[data-testid^="layer-card-"]').length,
          ] as const,
      );
      if (state === 'saved') saved.layers = Math.max(saved.layers, layers);
      if (layers > 60) {
        // From here on fewer are right.
        saved.layers = 0;
        for (let back = 0; back < 40; back++) await page.getByTestId('undo').click();
      }
    }
  } catch {
    // It was killed.
  }
}

/** A new job in a browser that is killed then: its address. */
async function begin(profile: string): Promise<string> {
  const running = await start(profile);
  const { page } = running;
  await page.goto(address);
  if ((await page.getByTestId('thrown-away').count()) > 0) await page.getByTestId('loss-read').click();
  await page.getByTestId('demo-blade-start').click();
  await page.getByTestId('bench').waitFor();
  const job = page.url();
  await wait(1500);
  await kill(running);
  return job;
}

async function main(): Promise<void> {
  const profile = mkdtempSync(path.join(tmpdir(), 'kills-'));
  let job = await begin(profile);
  let [lost, thrownAway] = [0, 0];
  const saved = { layers: 0 };
  for (let i = 1; i <= kills; i++) {
    const running = await start(profile);
    const found = await open(running.page, job);
    if (found === undefined) {
      console.log(`kill ${i - 1}: the browser threw its storage away, and the app said so (${++thrownAway})`);
      await kill(running);
      job = await begin(profile);
      saved.layers = 0;
      continue;
    }
    if (found < saved.layers)
      console.log(`kill ${i - 1}: ${saved.layers} layers were saved, ${found} are there (lost so far: ${++lost})`);
    saved.layers = 0;
    const isGone = i % DATABASE_GONE_EVERY === 0;
    const changing = changeUntilKilled(running.page, saved, isGone ? 6 : Infinity);
    await (isGone ? changing.then(() => wait(500)) : wait(300 + 2500 * Math.random()));
    await kill(running);
    await changing;
    if (isGone) loseDatabase(profile);
    await running.browser.close().catch(() => undefined);
    if (i % 20 === 0) console.log(`${i} kills, ${lost} lost, ${putBack} times put back`);
  }
  rmSync(profile, { recursive: true, force: true });
  process.exitCode = lost === 0 ? 0 : 1;
}

void main();
