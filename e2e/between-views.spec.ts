/** What is traced in two views of one thing is said to be at one height: it is so to the last digit in the file, and nothing is said that the views do not show. */
import { scanner } from '../demo/generator/scan';
import { BENCH_PLACES, benchViews } from '../demo/scenes/bench-set';
import { axe } from './helpers/axe';
import { expect, test, type Desk } from './helpers/desk';
import type { Px } from './helpers/hand';
import { judgeInSpace, lookAt, saveInSpace } from './helpers/in-space';

const { project } = scanner(benchViews);
const { side, top } = BENCH_PLACES;

const front = (across: number, up: number): Px => project([across, up]);
const right = (deep: number, up: number): Px => project([side + deep, up]);
const above = (across: number, deep: number): Px => project([across, top + deep]);

/** Draws a line in a view, a little off where it should be. */
async function drawIn(desk: Desk, view: string, from: Px, to: Px): Promise<void> {
  await lookAt(desk, view);
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt(from, to);
  await desk.openCards();
  await desk.choose('draw-finish');
}

async function chooseIn(desk: Desk, view: string, ...at: Px[]): Promise<void> {
  await lookAt(desk, view);
  await desk.closeCards();
  await desk.pointAt(...at);
  await desk.openCards();
}

test('edges of two views are put at one height, which their views show, and are so in the file @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('bench-views');
  await desk.step('trace');
  // Away from every line of the drawing, so that the hand's own errors stay: 12 mm apart.
  await drawIn(desk, 'Front', front(200, 300), front(1200, 306));
  await drawIn(desk, 'Side', right(150, 312), right(400, 318));
  await drawIn(desk, 'Top', above(200, 200), above(1200, 210));

  // An edge of the front and one of the plan lie equally far across, and no other way.
  await desk.choose('tool-relate');
  await chooseIn(desk, 'Top', above(200, 200));
  await chooseIn(desk, 'Front', front(200, 300));
  const chosen = page.getByTestId('chosen-card');
  await expect(chosen).toContainText('2 things chosen, 1 of them in Top');
  await expect(chosen.getByTestId('relate-one-across')).toHaveText('Equally far across');
  await expect(chosen.getByTestId(/^relate-(one-(up|deep)|coincident)$/)).toHaveCount(0);
  await desk.choose('relate-one-across');

  await chooseIn(desk, 'Side', right(275, 315));
  await chooseIn(desk, 'Front', front(700, 303));
  await axe(page);
  await desk.choose('relate-one-up');
  const held = page.getByTestId('held-card');
  await expect(held).toContainText('2 things hold');
  await expect(held).toContainText('one height, with Side');
  await expect(held).toContainText('as far across, with Top');
  await expect(page.getByTestId('moves')).toContainText(/moved is [1-9]/);
  await lookAt(desk, 'Side');
  await expect(held).toContainText('one height, with Front');

  // It is all there after the page was loaded anew.
  await desk.saved();
  await page.reload();
  await expect(page.locator('#bench-drawing')).toBeAttached();
  const file = await saveInSpace(desk);
  const [rail, board, plank] = ['Front', 'Side', 'Top'].map((view) => judgeInSpace(file, `Outline (${view})`));
  expect([rail!, board!, plank!].map(({ errors }) => errors)).toEqual([0, 0, 0]);
  for (const { size } of [rail!, board!]) expect(size[2]).toBeCloseTo(0, 6);
  expect(rail!.least[2]).toBeCloseTo(board!.least[2]!, 6);
  expect(rail!.least[0]).toBeCloseTo(plank!.least[0]!, 6);
  // Midway between what was traced in the two, as both were pointed alike.
  expect(Math.abs(rail!.least[2]! - 309)).toBeLessThan(4);
});

test('of a view that joins no other only lengths can be compared, which is said with what to do; what was said waits @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('bench-views');
  await desk.step('trace');
  await drawIn(desk, 'Front', front(200, 300), front(700, 306));
  await drawIn(desk, 'Side', right(150, 312), right(400, 318));
  await desk.choose('tool-relate');
  await chooseIn(desk, 'Side', right(150, 312));
  await chooseIn(desk, 'Front', front(200, 300));
  await desk.choose('relate-one-up');
  await expect(page.getByTestId('held-waits')).toHaveCount(0);
  // A height that cannot be is not called within what the views leave open.
  await chooseIn(desk, 'Side', right(150, 306));
  await desk.type('value-up', '400');
  await expect(page.getByTestId('stretched')).toContainText('more than its evidence allows');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('stretched')).toHaveCount(0);

  await lookAt(desk, 'Side');
  await desk.step('arrange');
  await desk.choose('panel-together');
  await desk.openCards();
  await page.getByTestId('stands-Side').getByTestId('leave').click();
  await desk.step('trace');
  await desk.choose('tool-relate');
  await desk.openCards();
  await expect(page.getByTestId('held-waits')).toContainText('1 of them waits');
  await chooseIn(desk, 'Side', right(150, 312));
  await chooseIn(desk, 'Front', front(200, 300));
  await expect(page.getByTestId('nothing-sayable')).toContainText('“Side” does not join the other views');
});
