/** A plan drawn on two levels, one read in the front and one typed: each outline leaves as high as its level lies, also when that is typed anew. */
import { readFileSync } from 'node:fs';
import { scanner } from '../demo/generator/scan';
import { BENCH, BENCH_PLACES, benchViews } from '../demo/scenes/bench-set';
import type { Job } from '../src/core/job';
import { axe } from './helpers/axe';
import { bundleOf } from './helpers/bundle';
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

  // From level to level: what rises to one that lies below is said, and leaves flat.
  await openLevels(desk);
  const rise = page.getByTestId('rise-Top of the seat');
  await rise.getByRole('radio', { name: 'Up to Base line' }).click();
  await expect(rise.getByTestId('rise-upside-down')).toContainText(
    '“Base line” lies no higher than “Top of the seat”, so nothing rises',
  );
  expect(judgeInSpace(await saveInSpace(desk), 'Top of the seat (Top)').size[2]).toBeCloseTo(0, 6);
  await openLevels(desk);
  await rise.getByRole('radio', { name: 'Up to Loft' }).click();
  await expect(rise.getByTestId('rise-high')).toContainText(/23\d\d\.?\d* mm ±/);
  await axe(page);
  const walls = judgeInSpace(await saveInSpace(desk), 'Top of the seat (Top)');
  expect([walls.errors, walls.uprights]).toEqual([0, 2]);
  expect(walls.least[2]! + walls.size[2]!).toBeCloseTo(2750, 6);
  expect(Math.abs(walls.size[2]! - (2750 - seat))).toBeLessThan(6);
});

/** The shed's plan, whose walls rise from the floor to eaves of 1.95 m. */
function shedWithEaves(): Buffer {
  const job = JSON.parse(readFileSync('public/demo/shed.json', 'utf8')) as Job;
  const level = (id: string, mm: number): Job['features'][number] => ({
    id,
    name: id,
    along: 'up',
    said: { up: { value: mm, written: String(mm) } },
    seen: [],
  });
  const layers = job.layers.map((layer) =>
    layer.id === 'outline' ? { ...layer, liesAt: 'Floor', risesTo: 'Eaves' } : layer,
  );
  const features = [level('Floor', 0), level('Eaves', 1950)];
  return bundleOf({ ...job, layers, features }, readFileSync('public/demo/shed-plan.jpg'));
}

test('a door that is taller than its wall, which rises from level to level, is told @wide', async ({ desk, page }) => {
  await desk.openBundle(shedWithEaves());
  await desk.step('trace');
  await desk.choose('tool-wall');
  await desk.choose('wall-openings');
  // Its head is at 2 m.
  await page.getByTestId('opening-row-D1').getByRole('button').click();
  await expect(page.getByTestId('opening-over-wall')).toContainText(
    'Its head lies 0.0500 m above “Eaves”, up to which its wall rises.',
  );
  await axe(page);
  await desk.type('opening-head', '1.9');
  await expect(page.getByTestId('opening-over-wall')).toHaveCount(0);
});
