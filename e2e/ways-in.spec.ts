import { readFileSync } from 'node:fs';
import { readBundle } from '../src/core/formats';
import { expect, test } from './helpers/desk';

async function jobOf(desk: import('./helpers/desk').Desk) {
  await desk.step('handover');
  await desk.openCards();
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  return bundle.value.job;
}

test('a still of a film comes in at full size with its time; the good ones are found, not the blurred', async ({ desk, page }) => {
  await desk.openDemo('sources');
  await desk.openCards();
  await desk.choose('demo-file-nest-boxes.webm');
  await page.getByTestId('film').locator('video').waitFor({ timeout: 20_000 });
  await desk.choose('film-on');
  await expect(page.getByTestId('film-time')).not.toHaveText('0:00.00');
  await desk.choose('find-stills');
  const found = page.getByTestId('found-still');
  await expect(found).toHaveCount(6, { timeout: 60_000 });
  // The second second of the film is shaken.
  const times = (await found.allTextContents()).map((text) => Number(/0:(\d\d\.\d\d)/.exec(text)![1]));
  expect(times.filter((time) => time > 1.05 && time < 1.95)).toEqual([]);
  await found.first().click();
  await desk.choose('bring-stills');
  await expect(page.getByRole('button', { name: /^nest-boxes at .*no scale yet/ })).toBeVisible({ timeout: 20_000 });
  const { sheets } = await jobOf(desk);
  expect(sheets[0]).toMatchObject({ width: 960, height: 540, kind: 'photo', taken: { moment: expect.closeTo(times[0]!, 1) } });
});

test('a photo keeps the tilt that the phone measured; a request brings sizes back as evidence; a film without a picture is refused @phone', async ({ desk, page, context }) => {
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  const devtools = await context.newCDPSession(page);
  await desk.choose('open-camera');
  // The phone lies 2° over to the right, its top 1° up.
  await devtools.send('DeviceOrientation.setDeviceOrientationOverride', { alpha: 0, beta: 1, gamma: 2 });
  await expect(page.getByTestId('camera-says')).toContainText('2.2° out of square-on', { timeout: 15_000 });
  await page.getByRole('radio', { name: 'Lies flat' }).click();
  await desk.choose('take-photo');
  await expect(page.getByRole('button', { name: /^Photo .*no scale yet/ })).toBeVisible({ timeout: 20_000 });
  await desk.step('sources');
  await desk.openCards();
  await expect(page.getByTestId('tilt-offer')).toContainText('2.2° out of square-on');
  await desk.choose('trust-tilt');

  await desk.choose('panel-ask');
  await desk.openCards();
  await desk.choose('ask-usual');
  const rows = page.getByTestId('asked-row');
  await expect(rows).toHaveCount(5);
  const thickness = rows.filter({ hasText: 'its thickness' });
  await thickness.getByTestId('answer-field').fill('1/8 in');
  await thickness.getByTestId('answer-field').press('Enter');
  await thickness.getByTestId('use-answer').click();
  const longest = rows.filter({ hasText: 'its greatest length' });
  await longest.getByTestId('answer-field').fill('212 mm ± 1');
  await longest.getByTestId('answer-field').press('Enter');
  await longest.getByTestId('use-answer').click();
  await desk.closeCards();
  await desk.hand.pointAt([80, 120], 0.8);
  await desk.hand.pointAt([500, 130], 0.8);
  await expect(page.getByTestId('length-field')).toHaveValue('212 mm ± 1');
  await page.getByTestId('length-field').press('Enter');
  await expect(page.getByTestId('view-fit')).toContainText('±');
  const { sheets, views, asked } = await jobOf(desk);
  expect(sheets[0]).toMatchObject({ trustTilt: true, taken: { tilt: [-2, -1] } });
  expect(views[0]).toMatchObject({ lift: 3.175, evidence: [{ kind: 'length', name: 'its greatest length', said: { length: { value: 212 } }, plusMinus: 1 }] });
  expect(asked!.filter(({ answer }) => answer)).toHaveLength(2);

  await desk.step('sources');
  await desk.openCards();
  await desk.choose('panel-add');
  await desk.openCards();
  await page.getByTestId('picture-files').setInputFiles({ name: 'walk.mp4', mimeType: 'video/mp4', buffer: Buffer.from('no film at all') });
  await expect(page.getByTestId('said')).toContainText('This browser cannot play “walk.mp4”.', { timeout: 20_000 });
});
