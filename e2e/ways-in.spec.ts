import { readFileSync } from 'node:fs';
import { readBundle } from '../src/core/formats';
import { scene } from '../demo/scenes/blade';
import { expect, test, truth } from './helpers/desk';

async function jobOf(desk: import('./helpers/desk').Desk) {
  await desk.step('handover');
  await desk.openCards();
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  return bundle.value.job;
}

test('a still of a film comes in at full size with its time; the good ones are found, not the blurred @wide', async ({
  desk,
  page,
}) => {
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
  expect(sheets[0]).toMatchObject({
    width: 960,
    height: 540,
    kind: 'photo',
    taken: { moment: expect.closeTo(times[0]!, 1) },
  });
});

test('where there is no camera the simulated one says so; a card in its picture tells how far away it is, and how fine a pixel @wide', async ({
  desk,
  page,
}) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no camera', 'NotFoundError'));
  });
  await page.goto('/');
  await desk.choose('new-job');
  await desk.choose('open-camera');
  const says = page.getByTestId('camera-says');
  await expect(says).toContainText('simulated');
  // The thing, the card and the rule take up most of the frame's width.
  await expect(says).not.toContainText('go back', { timeout: 10_000 });
  const { left, right } = truth.card as unknown as {
    left: readonly [number, number];
    right: readonly [number, number];
  };
  const live = (await page
    .getByRole('img', { name: /^Live picture/ })
    .locator('canvas')
    .boundingBox())!;
  await page.mouse.click(
    live.x + ((left[0] + right[0]) / 2 / truth.picture.width) * live.width,
    live.y + ((left[1] + right[1]) / 2 / truth.picture.height) * live.height,
  );
  await expect(says).toContainText('a pixel is');
  // The photo, 4032 px wide, is drawn 1640 px wide.
  const fine = 85.6 / (Math.hypot(right[0] - left[0], right[1] - left[1]) * (1640 / 4032));
  const [, away, pixel] = /About (\d+) cm away; a pixel is ([\d.]+) mm/.exec((await says.textContent())!)!;
  expect(Math.abs((Number(away) * 10) / scene.camera.place[2] - 1)).toBeLessThan(0.05);
  expect(Math.abs(Number(pixel) - fine)).toBeLessThan(0.008);
});

test('a photo keeps the tilt that the phone measured; a request brings sizes back as evidence; a film without a picture is refused @phone', async ({
  desk,
  page,
  context,
}) => {
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
  expect(views[0]).toMatchObject({
    lift: 3.175,
    evidence: [{ kind: 'length', name: 'its greatest length', said: { length: { value: 212 } }, plusMinus: 1 }],
  });
  expect(asked!.filter(({ answer }) => answer)).toHaveLength(2);

  await desk.step('sources');
  await desk.openCards();
  await desk.choose('panel-add');
  await desk.openCards();
  await page
    .getByTestId('picture-files')
    .setInputFiles({ name: 'walk.mp4', mimeType: 'video/mp4', buffer: Buffer.from('no film at all') });
  await expect(page.getByTestId('said')).toContainText('This browser cannot play “walk.mp4”.', { timeout: 20_000 });
});
