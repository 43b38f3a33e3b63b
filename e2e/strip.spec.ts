import { readFileSync } from 'node:fs';
import { readBundle, writeBundle } from '../src/core/formats';
import { inspectPicture, sha256Hex } from '../src/core/pictures';
import { createJob, createView, type Sheet } from '../src/core/job';
import { expect, test } from './helpers/desk';
import type { Px } from './helpers/hand';

const picture = readFileSync('public/demo/nest-box.jpg');
const file = inspectPicture(picture);
if (!file.ok) throw new Error(file.code);
const sheet: Sheet = {
  id: 's',
  name: 'Sheet',
  picture: sha256Hex(picture),
  mediaType: 'image/jpeg',
  bytes: picture.length,
  width: file.value.width,
  height: file.value.height,
  kind: 'scan',
  taken: {},
};
const views = Array.from({ length: 40 }, (_, i) => ({
  ...createView(`v${i}`, sheet),
  name: `Part ${i + 1}`,
  frame: [
    [80 * i, 200],
    [80 * i + 260, 200],
    [80 * i + 260, 900],
    [80 * i, 900],
  ] as Px[],
}));
const bundle = writeBundle({
  job: {
    ...createJob('many', 'Forty views', new Date(0)),
    sheets: [sheet],
    views,
    planes: views.map(({ plane }) => ({ id: plane })),
  },
  pictures: new Map([[sheet.picture, picture]]),
});

test('forty views on a strip: one is dragged to the front, one cropped around its drawing, and each keeps what is its own @wide', async ({
  desk,
  page,
}) => {
  await desk.openBundle(Buffer.from(bundle));
  const strip = page.getByTestId('strip-view');
  await expect(strip).toHaveCount(40, { timeout: 60_000 });
  await strip.nth(5).dragTo(strip.nth(0));
  await expect(strip.first()).toContainText('Part 6');
  await strip.first().getByRole('button').click();
  await desk.step('sources');
  await desk.choose('tool-crop');
  await page.getByRole('radio', { name: 'Around it' }).click();
  const around: readonly Px[] = [
    [420, 250],
    [640, 230],
    [650, 820],
    [430, 860],
  ];
  for (const corner of around) await desk.hand.pointAt(corner, 0.5);
  await desk.choose('use-frame');
  await desk.choose('panel-views');
  await page.getByTestId('view-card-Part 6').getByRole('button', { name: 'Hide Part 6' }).click();
  await desk.saved();
  await page.reload();
  await expect(strip.first()).toContainText('Part 6');
  await desk.step('handover');
  const read = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!read.ok) throw new Error(read.code);
  const [first, ...others] = read.value.job.views;
  expect(first).toMatchObject({ id: 'v5', hidden: true });
  first!.frame!.forEach((corner, i) =>
    expect(Math.hypot(corner[0] - around[i]![0], corner[1] - around[i]![1])).toBeLessThan(3),
  );
  expect(others).toEqual(views.filter(({ id }) => id !== 'v5'));
});
