import { NEST_BOX, nestBox } from '../demo/scenes/nest-box';
import { scanner as optics } from '../demo/generator/scan';
import { TRUTH } from '../server/stand-ins/scanner';
import { expect, test } from './helpers/desk';
import type { Px } from './helpers/hand';

/** Where a place of the drawing lies on a scan of this resolution, px. */
const onScan = (at: Px, dpi: number): Px =>
  optics({ ...nestBox, dpi, stretch: TRUTH.across, stretchUp: TRUTH.up, askew: TRUTH.askew }).project(at) as Px;

test('a scan arrives to scale with the doubt of its scanner; the caliper writes into the field that waits @wide', async ({
  desk,
  page,
}) => {
  await page.goto('/');
  await desk.choose('new-job');
  const hand = (change: object) =>
    page.evaluate(
      (body) =>
        fetch('/service/scanner/hand', {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(body),
        }).then(() => undefined),
      change,
    );
  await desk.choose('open-scanner');
  const says = page.getByTestId('scanner-says');
  await page.getByRole('radio', { name: '150 dots an inch' }).click();
  // One scanner serves both sizes of this test at once: it may be busy with the other's scan.
  await expect(async () => {
    await desk.choose('scan');
    await expect(page.getByRole('button', { name: /^Scan at 150, ±/ })).toBeVisible({ timeout: 12_000 });
  }).toPass({ timeout: 60_000 });
  await expect(says).toHaveCount(0);

  // Half size on paper: 150 wide is 75 mm of the scan. The scanner is 0.16 % off, which its own plus-minus covers.
  await desk.choose('tool-check');
  await desk.closeCards();
  await desk.pointAt(onScan([0, 0], 150), onScan([NEST_BOX.width, 0], 150));
  await page.getByTestId('more').click();
  await page.getByRole('switch', { name: /caliper/ }).click();
  await desk.choose('settings-done');
  await desk.openCards();
  await page.getByTestId('length-field').click();
  const display = page.getByTestId('caliper-reading');
  await expect(display).toContainText(/mm|in/);
  await page.evaluate(() =>
    fetch('/service/caliper/hand', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"mm":75.02,"unit":"mm","hold":false}',
    }).then(() => undefined),
  );
  await expect(display).toHaveText('75.02 mm');
  await page.getByRole('button', { name: 'Send the reading' }).click();
  await expect(page.getByTestId('length-field')).toHaveValue('75.02 mm ± 0.03');
  // One that works as a keyboard types its digits where the caret stands, and ends with Enter.
  await page.getByTestId('length-field').fill('');
  await page.keyboard.type('75.01 mm');
  await expect(page.getByTestId('length-field')).toHaveValue('75.01 mm');
  await page.keyboard.press('Enter');
  await desk.openCards();
  await expect(page.getByTestId('check-card').getByTestId('evidence-says')).toContainText('agrees');
  const [, comesTo, plusMinus] = /Comes to ([\d.]+) mm ±([\d.]+)/.exec(
    (await page.getByTestId('check-card').getByTestId('evidence-says').textContent())!,
  )!;
  expect(Math.abs(Number(comesTo) - 75)).toBeLessThan(Number(plusMinus) + 0.05);
  await hand({ lid: 'closed', jam: false });
});

test('a scanner that is open or jams, a register that is slow or talks nonsense, and services that are away are said and block nothing @wide', async ({
  desk,
  page,
  problems,
}) => {
  await page.goto('/');
  await desk.choose('new-job');
  // Answers of services on a bad day, put in between so that other tests keep theirs.
  let scan = { status: 409, body: { code: 'scanner-lid-open' } as object };
  await page.route('**/service/scanner/scans', (route) => route.fulfill({ status: scan.status, json: scan.body }));
  await page.route('**/service/scanner/scans/*', (route) =>
    route.fulfill({ json: { state: 'failed', code: 'scanner-jam' } }),
  );
  await desk.choose('open-scanner');
  await desk.choose('scan');
  const says = page.getByTestId('scanner-says');
  await expect(says).toHaveText('The lid of the scanner is open. Close it and scan again.');
  scan = { status: 202, body: { id: 'x', seconds: 1 } };
  await desk.choose('scan');
  await expect(says).toHaveText('The scanner is jammed and stopped. Clear it and scan again; nothing came in.');
  scan = { status: 503, body: {} };
  await desk.choose('scan');
  await expect(says).toContainText('It does not answer.');
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  await desk.choose('open-parcel');
  const search = async (address: string) => {
    await page.getByTestId('parcel-address').fill(address);
    await desk.choose('find-parcel');
  };
  await search('nowhere');
  await expect(page.getByTestId('parcel-says')).toContainText('No parcel has that address.');
  await search('riddle');
  await desk.choose('parcel-nonsense');
  await expect(page.getByTestId('parcel-says')).toContainText('It answered something that makes no sense.');
  await search('medlar');
  await desk.choose('parcel-orchard');
  // The boundary lies on the picture: both are laid flat about the same place, from two ways of saying where they are.
  await expect(page.getByRole('button', { name: /^7 Medlar Lane, ±/ })).toBeVisible({ timeout: 20_000 });
  await expect(page.getByTestId('reference-ink').first()).toBeAttached();
  // The orchard's south-western corner lies 6 m from the picture's left rim and 36 m below its upper one, at 5 cm to a pixel.
  await desk.choose('tool-check');
  await desk.hand.pointAt([120, 720], 0.5);
  await desk.hand.pointAt([120 + 64_000 / 50, 720 - 6_000 / 50], 0.5);
  await desk.type('length-field', `${Math.hypot(64, 6)} m`);
  await expect(page.getByTestId('check-card').getByTestId('evidence-says')).toContainText('agrees');
  problems.splice(0, problems.length, ...problems.filter((text) => !/status of (409|503)/.test(text)));
});
