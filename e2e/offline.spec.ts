import { spawn, type ChildProcess } from 'node:child_process';
import { expect, test } from './helpers/desk';

test.use({ serviceWorkers: 'allow' });

/** A server of this test's own, so that it can be stopped. */
async function serve(port: number): Promise<ChildProcess> {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts', '--port', String(port)], {
    stdio: 'ignore',
  });
  await expect
    .poll(
      () =>
        fetch(`http://localhost:${port}/`).then(
          ({ ok }) => ok,
          () => false,
        ),
      { timeout: 60_000 },
    )
    .toBe(true);
  return server;
}

test('after the first visit everything that needs no server works without one: old jobs, new pictures, files out @wide', async ({
  desk,
  page,
  problems,
}, { project }) => {
  const port = project.name === 'phone' ? 8722 : 8721;
  const server = await serve(port);
  try {
    await page.goto(`http://localhost:${port}/`);
    await page.getByTestId('demo-blade-finished').click();
    await page.getByTestId('bench').waitFor();
    await desk.saved();
    await expect
      .poll(() => page.evaluate(async () => Boolean((await navigator.serviceWorker.getRegistration())?.active)), {
        timeout: 120_000,
      })
      .toBe(true);
  } finally {
    server.kill();
    await new Promise((resolve) => server.once('exit', resolve));
  }
  await page.reload();
  await page.getByTestId('bench').waitFor();
  await expect(page.getByTestId('view-fit')).toContainText('±');
  await page.goto(`http://localhost:${port}/`);
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  await page.getByTestId('picture-files').setInputFiles(['public/demo/nest-box.jpg', 'public/demo/pond.dxf']);
  await expect(page.getByRole('button', { name: /^nest-box, no scale yet/ })).toBeVisible({ timeout: 30_000 });
  await desk.step('sources');
  await desk.openCards();
  await desk.choose('panel-add');
  await desk.openCards();
  // The parts that are fetched when they are first needed are on the device too.
  await page.getByTestId('picture-files').setInputFiles('public/demo/bench.pdf');
  await expect(page.getByTestId('pdf-page-1')).toHaveAccessibleName('Page 1, 420 × 297 mm, line work', {
    timeout: 30_000,
  });
  await page.getByRole('button', { name: 'Cancel' }).click();
  // What does need a server says so.
  await desk.choose('open-scanner');
  await expect(page.getByTestId('scanner-says')).toContainText('It does not answer.', { timeout: 30_000 });
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await desk.step('handover');
  await desk.openCards();
  expect(await desk.download('save-bundle')).toBeTruthy();
  // The scanner was looked for three times; nothing else was.
  expect(problems).toEqual(Array(3).fill('Failed to load resource: net::ERR_CONNECTION_REFUSED'));
  problems.length = 0;
});
