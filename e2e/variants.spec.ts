/** Two drawings of one side as variants: over and beside each other at a typed gap, one at a time, measured against each other, moved out of the way; and a door leaf stood there to judge by eye. */
import { readFileSync } from 'node:fs';
import { scanner } from '../demo/generator/scan';
import { BENCH, BENCH_PLACES, benchViews } from '../demo/scenes/bench-set';
import type { Job } from '../src/core/job';
import { axe } from './helpers/axe';
import { expect, judgeDxf, test, type Desk } from './helpers/desk';
import type { Px } from './helpers/hand';
import { lookAt } from './helpers/in-space';

const { project } = scanner(benchViews);
const front = (across: number, up: number): Px => project([across, up]);
const side = (deep: number, up: number): Px => project([BENCH_PLACES.side + deep, up]);

async function trace(desk: Desk, view: string, places: readonly Px[]): Promise<void> {
  await desk.step('trace');
  await lookAt(desk, view);
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt(...places, places[0]!);
}

async function lookTogether(desk: Desk): Promise<void> {
  await desk.step('arrange');
  await desk.choose('panel-look-together');
  await desk.openCards();
}

/** How much of the thing's width the picture of the front shows, mm. */
const { frame = [] } = (JSON.parse(readFileSync('public/demo/bench-views.json', 'utf8')) as Job).views[0]!;
const across = frame.map(([x]) => x);
const frontWide = ((Math.max(...across) - Math.min(...across)) * 25.4) / benchViews.dpi / benchViews.ratio;

/** Where a view's picture lies on the screen. */
const pictureOf = async ({ page }: Desk, view: string) =>
  (await page.getByTestId(`folded-picture-${view}`).boundingBox())!;
const compared = ({ page }: Desk) => page.getByTestId('variants-compared');

test('two drawings of one side lie over or beside each other, are shown one at a time, and measured against each other @phone', async ({
  desk,
  page,
}) => {
  const { length: long, depth, seat } = BENCH;
  await desk.openDemo('bench-views');
  await desk.step('arrange');
  await desk.choose('panel-sides');
  await desk.openCards();
  await page
    .getByRole('radiogroup', { name: 'Side that Side shows' })
    .getByRole('radio', { name: 'Front', exact: true })
    .click();
  await trace(desk, 'Front', [front(0, 0), front(long, 0), front(long, seat), front(0, seat)]);
  await trace(desk, 'Side', [side(0, 0), side(depth, 0), side(depth, seat), side(0, seat)]);

  await lookTogether(desk);
  await expect(page.getByTestId('variants-front')).toContainText('2 variants, front');
  // Over each other on their base line: their left edges are where their zeros are.
  await page.getByTestId('variants-front').getByRole('radio', { name: 'Side by side' }).click();
  await desk.type('variants-gap', '300');
  await expect(async () => {
    const [its, other] = [await pictureOf(desk, 'Front'), await pictureOf(desk, 'Side')];
    const perMm = its.width / frontWide;
    expect(Math.abs((other.x - its.x - its.width) / perMm - 300)).toBeLessThan(15);
  }).toPass();
  await axe(page);

  // Measured against each other, within what is said of it.
  const says = await compared(desk).textContent();
  const [, narrower, , doubt] = /Side is ([\d.]+) mm (±)([\d.]+) narrower/.exec(says!)!;
  expect(Math.abs(Number(narrower) - (long - depth))).toBeLessThan(1.5 * Number(doubt));
  expect(Number(doubt)).toBeLessThan(8);
  expect(says).toContain('as high as far as can be told');

  // One at a time, one after the other, and all again.
  await desk.choose('variant-alone');
  await expect(page.getByTestId('folded-ink-Side')).toHaveCount(0);
  await desk.choose('variant-alone');
  await expect(page.getByTestId('folded-ink-Front')).toHaveCount(0);
  await expect(page.getByTestId('folded-ink-Side')).toHaveCount(1);
  await desk.saved();
  await page.reload();
  await lookTogether(desk);
  await expect(page.getByTestId('folded-ink-Front')).toHaveCount(0);
  await desk.choose('variants-all');
  await expect(page.getByTestId('folded-ink-Front')).toHaveCount(1);
  await expect(compared(desk)).toHaveText(says!);

  // Moved out of the way, and back; the file knows nothing of it.
  await page
    .getByRole('radiogroup', { name: 'View that is moved out of the way' })
    .getByRole('radio', { name: 'Side' })
    .click();
  const before = await pictureOf(desk, 'Side');
  await desk.type('stand-off-up', '-700');
  await expect(async () => expect((await pictureOf(desk, 'Side')).y).toBeGreaterThan(before.y + 20)).toPass();
  await lookAt(desk, 'Side');
  // Worked in, the other lies under it, drawn faint.
  await desk.step('fit');
  await desk.choose('toggle-others');
  await expect(page.getByTestId('others-ink').locator('[data-view="Front"]')).toHaveCount(1);
  await desk.step('handover');
  await desk.openCards();
  const file = judgeDxf(await desk.download('save-file'));
  expect([file.errors, file.kinds]).toEqual([0, { LWPOLYLINE: 1 }]);
  expect(Math.abs(file.width - depth)).toBeLessThan(5);
  await lookTogether(desk);
  await desk.choose('stand-off-back');
  await expect(page.getByTestId('stand-off-back')).toHaveCount(0);
});

test('a door leaf stands in a plan and beside a front at true size, is judged by eye, and never leaves @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('bench-views');
  await desk.step('fit');
  await lookAt(desk, 'Front');
  await desk.choose('panel-by-eye');
  await desk.openCards();
  await page.getByTestId('by-eye').getByRole('radio', { name: 'Chair' }).click();
  await desk.closeCards();
  await desk.hand.pointAt(front(700, 0));
  const chair = page.getByTestId('by-eye-chair');
  await expect(chair).toHaveCount(1);
  await expect(page.getByTestId('labels')).toContainText('Chair, about 850 mm ±80');
  await desk.openCards();
  await axe(page);
  // 850 mm beside a seat of 440 mm: read off the screen.
  const height = async () => (await chair.boundingBox())!.height;
  const tall = await height();
  await desk.type('by-eye-turn', '90');
  await expect(async () => expect((await chair.boundingBox())!.width / tall).toBeCloseTo(1, 1)).toPass();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(async () => expect(await height()).toBeCloseTo(tall, 0)).toPass();
  await desk.saved();
  await page.reload();
  await expect(chair).toHaveCount(1);
  await desk.step('handover');
  await desk.openCards();
  const bundle = readFileSync(await desk.download('save-bundle'));
  expect(bundle.length).toBeGreaterThan(1000);
  await desk.step('fit');
  await desk.choose('panel-by-eye');
  await desk.openCards();
  await page.getByTestId('stood-chair').getByRole('button', { name: 'Choose it' }).click();
  await desk.choose('by-eye-remove');
  await expect(chair).toHaveCount(0);
});
