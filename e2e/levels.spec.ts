/** A plan drawn on two levels, one read in the front and one typed: each outline leaves as high as its level lies, also when that is typed anew. */
import { scanner } from '../demo/generator/scan';
import { BENCH, BENCH_PLACES, benchViews } from '../demo/scenes/bench-set';
import { axe } from './helpers/axe';
import { expect, test, type Desk } from './helpers/desk';
import type { Px } from './helpers/hand';
import { drawOnLevel, judgeInSpace, lookAt, saveInSpace } from './helpers/in-space';

const { project } = scanner(benchViews);
const above = (across: number, deep: number): Px => project([across, BENCH_PLACES.top + deep]);

const cardOf = ({ page }: Desk, level: string) => page.getByTestId(`level-${level}`);

async function openLevels(desk: Desk): Promise<void> {
  await desk.step('arrange');
  await desk.choose('panel-levels');
  await desk.openCards();
}

test('what is drawn in a plan goes on the level that is chosen, and leaves as high as that lies @phone', async ({
  desk,
  page,
}) => {
  const { length: long, depth, seat } = BENCH;
  await desk.openDemo('bench-views');
  await openLevels(desk);
  await expect(page.getByTestId('levels-elsewhere')).toContainText('Choose a view from above');
  await lookAt(desk, 'Top');
  await openLevels(desk);
  await expect(page.getByTestId('levels-elsewhere')).toHaveCount(0);
  // What is no height is said, and makes no level.
  await page.getByTestId('new-level-name').fill('Loft');
  await page.getByTestId('new-level-height').fill('high');
  await expect(page.getByTestId('new-level')).toContainText('not a length');
  await expect(page.getByTestId('new-level-add')).toBeDisabled();
  await desk.type('new-level-height', '2.4 m');
  await expect(cardOf(desk, 'Loft').getByTestId('level-where')).toHaveText('up 2400.00 mm');
  await axe(page);
  // From the top down, as on a section.
  const levels = await page
    .getByTestId(/^level-(?!where|draw)/)
    .evaluateAll((cards) => cards.map((card) => card.getAttribute('data-testid')));
  expect(levels).toEqual(['level-Loft', 'level-Top of the back', 'level-Top of the seat', 'level-Base line']);

  await drawOnLevel(desk, 'Top of the seat', above(0, 0), above(long, depth));
  await drawOnLevel(desk, 'Loft', above(0, depth), above(long, 0));
  await desk.saved();
  await page.reload();
  await openLevels(desk);
  await expect(cardOf(desk, 'Loft').getByTestId('level-where')).toHaveText('up 2400.00 mm; layer “Loft” lies there');

  const file = await saveInSpace(desk);
  const [low, high] = ['Top of the seat (Top)', 'Loft (Top)'].map((layer) => judgeInSpace(file, layer));
  expect([low!.errors, high!.errors]).toEqual([0, 0]);
  expect(Math.abs(low!.least[2]! - seat)).toBeLessThan(6);
  expect(high!.least[2]).toBeCloseTo(2400, 6);
  for (const { size } of [low!, high!]) {
    expect([long, depth].every((mm, axis) => Math.abs(size[axis]! - mm) < 6)).toBe(true);
    expect(size[2]).toBeCloseTo(0, 6);
  }
  // A level that is typed anew takes along what lies at it, and nothing else.
  await openLevels(desk);
  const known = cardOf(desk, 'Loft').getByTestId('feature-up');
  await known.fill('2.75 m');
  await known.press('Enter');
  const again = await saveInSpace(desk);
  expect(judgeInSpace(again, 'Loft (Top)').least[2]).toBeCloseTo(2750, 6);
  expect(judgeInSpace(again, 'Top of the seat (Top)').least[2]).toBeCloseTo(low!.least[2]!, 6);
});
