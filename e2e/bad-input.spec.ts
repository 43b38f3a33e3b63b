import { createHash, randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import jpeg from 'jpeg-js';
import { writeBundle } from '../src/core/formats';
import { addSheet, createJob, createView, runCommand, startHistory, type Sheet } from '../src/core/job';
import { expect, test, truth, type Desk } from './helpers/desk';

const photo = readFileSync('public/demo/blade.jpg');

/** A PNG header that claims a size: enough to be judged by, not enough to be decoded. */
function pngClaiming(width: number, height: number): Buffer {
  const bytes = Buffer.alloc(33);
  Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]).copy(bytes);
  bytes.writeUInt32BE(width, 16);
  bytes.writeUInt32BE(height, 20);
  return bytes;
}

/** Two 8 × 8 frames with one colour each: the smallest animated GIF a browser decodes. */
const frame = [0x2c, 0, 0, 0, 0, 8, 0, 8, 0, 0, 2, 7, 0x84, 0x8f, 0xa9, 0xcb, 0xed, 0x0f, 0x63, 0];
const animated = Buffer.from([
  ...Buffer.from('GIF89a'),
  8,
  0,
  8,
  0,
  0x80,
  0,
  0,
  200,
  30,
  60,
  255,
  255,
  255,
  ...frame,
  ...frame,
  0x3b,
]);
const grey = (width: number, height: number) =>
  jpeg.encode({ width, height, data: Buffer.alloc(width * height * 4, 140) }, 60).data;

async function newJob(desk: Desk): Promise<void> {
  await desk.page.goto('/');
  await desk.choose('new-job');
  await desk.page.getByTestId('choose-pictures').waitFor();
}

const give = (desk: Desk, name: string, buffer: Buffer) =>
  desk.page.getByTestId('picture-files').setInputFiles({ name, mimeType: 'image/jpeg', buffer });

test('every bad picture gets its sentence and leaves the job as it was @wide', async ({ desk, page }) => {
  await newJob(desk);
  const refusals: readonly (readonly [string, Buffer, string])[] = [
    ['empty.jpg', Buffer.alloc(0), 'is empty'],
    ['words.jpg', Buffer.from('These are words, not a picture.'), 'is not a picture'],
    ['dot.png', pngClaiming(1, 1), 'too little to point at'],
    ['wall.png', pngClaiming(12000, 10000), '120 megapixels'],
    ['broken.png', pngClaiming(640, 480), 'cannot be read'],
  ];
  for (const [name, buffer, says] of refusals) {
    await give(desk, name, buffer);
    await expect(page.getByTestId('said')).toContainText(says);
    await expect(page.getByTestId('bench')).toHaveAttribute('aria-label', 'Bench');
  }
  await expect(page.locator('body')).not.toContainText(/error|invalid/i);
});

test('a job is not begun with what cannot be read: that is said where something else can be chosen @phone', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByTestId('begin-files').setInputFiles([
    { name: 'broken.png', mimeType: 'image/png', buffer: pngClaiming(640, 480) },
    { name: 'words.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('These are words, not a picture.') },
  ]);
  const said = page.getByText(/broken\.png.* cannot be read.*words\.jpg.* is not a picture/);
  await expect(said).toBeVisible();
  await expect(page.getByTestId('begin-picture')).toBeVisible();
  await expect(page.getByTestId('jobs')).toHaveCount(0);
  // One of several that can be read is a job, and what became of the other is said in it.
  await page.getByTestId('begin-files').setInputFiles([
    { name: 'broken.png', mimeType: 'image/png', buffer: pngClaiming(640, 480) },
    { name: 'plain.jpg', mimeType: 'image/jpeg', buffer: Buffer.from(grey(900, 600)) },
  ]);
  await expect(page.getByTestId('bench')).toHaveAttribute('aria-label', /plain/);
  await expect(page.getByTestId('said')).toContainText('cannot be read');
  await page.goto('/');
  await expect(page.getByTestId('jobs')).toBeVisible();
});

test('a job is kept where another picture is on its way behind one that cannot be read @wide', async ({
  desk,
  page,
}) => {
  // So that there is time to choose another.
  await page.addInitScript(() => {
    const read = File.prototype.arrayBuffer;
    File.prototype.arrayBuffer = async function (this: File) {
      if (this.name.startsWith('slow')) await new Promise((resolve) => setTimeout(resolve, 5000));
      return read.call(this);
    };
  });
  await page.goto('/');
  await page.getByTestId('begin-files').setInputFiles({
    name: 'slow.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from('These are words, not a picture.'),
  });
  await page.getByTestId('choose-pictures').waitFor();
  await give(desk, 'plain.jpg', Buffer.from(grey(900, 600)));
  await expect(page.getByTestId('bench')).toHaveAttribute('aria-label', /plain/);
  await expect(page).toHaveURL(/\/job\//);
});

test('a picture that ends half-way, or moves, is taken with a word @wide', async ({ desk, page }) => {
  await newJob(desk);
  await give(desk, 'half.jpg', photo.subarray(0, photo.length * 0.6));
  await expect(page.getByTestId('said')).toContainText('ends before the picture does');
  await desk.step('sources');
  await expect(page.getByTestId('sheet-half')).toBeVisible();
  await give(desk, 'moving.gif', animated);
  await expect(page.getByTestId('said')).toContainText('several frames');
});

test('a turned photo comes in upright with its true proportions @wide', async ({ desk, page }) => {
  await newJob(desk);
  // Orientation 6 (turn a quarter clockwise) written into the tags of a 160 × 80 picture.
  const plain = grey(160, 80);
  const exif = Buffer.from([
    0xff,
    0xe1,
    0,
    34,
    ...Buffer.from('Exif\0\0MM\0*'),
    0,
    0,
    0,
    8,
    0,
    1,
    0x01,
    0x12,
    0,
    3,
    0,
    0,
    0,
    1,
    0,
    6,
    0,
    0,
    0,
    0,
    0,
    0,
  ]);
  await give(desk, 'turned.jpg', Buffer.concat([plain.subarray(0, 2), exif, plain.subarray(2)]));
  await expect(page.getByTestId('view-fit')).toHaveText('no scale yet');
  await desk.step('sources');
  await expect(page.getByTestId('sheet-turned')).toContainText('80 × 160 px');
});

test('closing the tab while a picture comes in leaves the job empty, and it can be brought in again @wide', async ({
  desk,
  page,
}) => {
  await newJob(desk);
  await give(desk, 'blade.jpg', photo);
  await page.reload();
  await page.getByTestId('choose-pictures').waitFor();
  const sheets = page.locator('[data-testid^="sheet-"]');
  if ((await sheets.count()) === 0) await give(desk, 'blade.jpg', photo);
  await expect(page.getByTestId('view-fit')).toHaveText('no scale yet', { timeout: 20_000 });
});

/** A drawing of so many lines beside one another, each 10 long. */
function dxfOf(lines: number): Buffer {
  const line = (x: number) => `0\nLINE\n8\n0\n10\n${x}\n20\n0\n11\n${x}\n21\n10\n`;
  return Buffer.from(
    `0\nSECTION\n2\nENTITIES\n${Array.from({ length: lines }, (_, x) => line(x)).join('')}0\nENDSEC\n0\nEOF\n`,
  );
}

test('a long drawing is stopped while it is read, and what was chosen meanwhile comes in after another @wide', async ({
  desk,
  page,
}) => {
  await page.goto('/');
  await page.getByTestId('new-job').click();
  const choose = (name: string, lines: number) =>
    page.getByTestId('picture-files').setInputFiles({ name, mimeType: 'image/vnd.dxf', buffer: dxfOf(lines) });
  await choose('long.dxf', 300_000);
  await page.getByTestId('doing').getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Stopped. Nothing was changed.')).toBeVisible();
  await expect(page.getByTestId('doing')).toHaveCount(0);
  // Both at once: neither is lost, whichever is longer.
  await choose('middling.dxf', 20_000);
  await choose('short.dxf', 3);
  for (const name of ['middling', 'short']) await expect(page.getByTestId(`reference-${name}`)).toBeVisible();
  await expect(page.getByTestId('reference-long')).toHaveCount(0);
  await desk.saved();
});

test('a large bundle is given up while it is opened, and nothing of it stays @wide', async ({ page }) => {
  const picture = randomBytes(40_000_000);
  const hash = createHash('sha256').update(picture).digest('hex');
  const made = createJob('large', 'Large', new Date(0));
  const sheet: Sheet = {
    id: 's',
    name: 's',
    picture: hash,
    mediaType: 'image/jpeg',
    bytes: picture.length,
    width: 4000,
    height: 3000,
    kind: 'photo',
    taken: {},
  };
  const { job } = runCommand(startHistory(made), addSheet(sheet, createView('v', sheet)));
  const bundle = Buffer.from(writeBundle({ job, pictures: new Map([[hash, picture]]) }));
  await page.goto('/');
  await page
    .getByTestId('bundle-file')
    .setInputFiles({ name: 'large.zip', mimeType: 'application/zip', buffer: bundle });
  await page.getByTestId('stop-opening').click();
  await expect(page.getByText('Stopped. Nothing was changed.')).toBeVisible();
  await expect(page.getByTestId('open-bundle')).toBeVisible();
  await expect(page.locator('[data-testid^="job-"]')).toHaveCount(0);
  await expect(page).toHaveURL(/\/$/);
});

test('points, sizes and outlines that make no sense are answered, and nothing is lost @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-start');
  await desk.pointAt(truth.card.left, truth.card.left);
  await expect(page.getByTestId('notice')).toContainText('same place');
  await desk.pointAt(truth.card.right);
  for (const [text, says] of [
    ['0', 'larger than zero'],
    ['-5', 'larger than zero'],
    ['1,250', 'two ways'],
    ['forty', 'not a length'],
  ] as const) {
    await page.getByTestId('length-field').fill(text);
    await expect(page.getByTestId('length-field-problem')).toContainText(says);
    await expect(page.getByTestId('length-field')).toHaveValue(text);
    await expect(page.getByTestId('set-length')).toBeDisabled();
  }
  await desk.type('length-field', '85.6');
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.pointAt(truth.blade.start.px);
  await desk.openCards();
  await desk.choose('draw-close');
  await expect(page.getByTestId('notice')).toContainText('at least two points');
  await desk.closeCards();
  await desk.choose('tool-arc');
  const [x, y] = truth.blade.start.px;
  await desk.pointAt([x + 100, y], [x + 200, y]);
  await expect(page.getByTestId('notice')).toContainText('lie in a line');
  await desk.choose('tool-tangent');
  await desk.pointAt([x + 150, y - 80]);
  await expect(page.getByTestId('notice')).toContainText('leans on the segment before');
});

test('bundles that are not what they say are refused whole @wide', async ({ desk, page }) => {
  await page.goto('/');
  const file = page.getByTestId('bundle-file');
  await file.setInputFiles({
    name: 'a.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from('PK\u0003\u0004 half a zip'),
  });
  await expect(page.getByText('This bundle is damaged')).toBeVisible();
  await page.getByText('Close', { exact: true }).click();
  await file.setInputFiles({ name: 'b.zip', mimeType: 'application/zip', buffer: Buffer.from('hello') });
  await expect(page.getByText('not a bundle of Bryony')).toBeVisible();
  await expect(page.getByText('Try it on a demo')).toBeVisible();
  await expect(desk.page.locator('[data-testid^="job-"]')).toHaveCount(0);
});
