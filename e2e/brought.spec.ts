/** A part of one job is brought into another: its views with what is drawn on them, standing by what both jobs name; it leaves as it left there. */
import { readFileSync } from 'node:fs';
import { axe } from './helpers/axe';
import { expect, test, type Desk } from './helpers/desk';
import { lookAt } from './helpers/in-space';

/** The file of the view that is looked at, as text. */
async function fileOf(desk: Desk): Promise<string> {
  await desk.step('handover');
  await desk.openCards();
  return readFileSync(await desk.download('save-file'), 'utf8');
}

/** Names the level line of a job as the other one does. */
async function nameBase(desk: Desk, from: string, to: string): Promise<void> {
  await desk.step('arrange');
  await desk.choose('share-level');
  await desk.openCards();
  const name = desk.page.getByTestId(`feature-${from}`).getByTestId('feature-name');
  await name.fill(to);
  await name.press('Enter');
}

const openOther = async (desk: Desk, name: RegExp): Promise<void> => {
  await desk.step('sources');
  await desk.choose('panel-add');
  await desk.openCards();
  await desk.choose('open-from-job');
  await desk.page.getByTestId('from-job-dialog').getByRole('button', { name }).click();
};
const stands = ({ page }: Desk) => page.getByTestId('from-job-matching');

test('views of another job come in whole, stand by what both name, and leave as they left there @wide', async ({
  desk,
  page,
}) => {
  const fronts = page.getByRole('button', { name: /^Front, / });
  await desk.openDemo('trowel');
  await desk.openDemo('blade-finished');
  const before = await fileOf(desk);
  await desk.openDemo('bench-views');
  // What shows nothing shared comes in by itself, and is worked on at once.
  await openOther(desk, /blade, finished/);
  await expect(stands(desk)).toHaveText('It shows no shared line or place yet: it comes in by itself.');
  await axe(page);
  await desk.choose('from-job-bring');
  await expect(page.getByRole('button', { name: /^Pruner blade, / })).toBeVisible();
  expect(await fileOf(desk)).toBe(before);

  await lookAt(desk, 'Front');
  await nameBase(desk, 'Base line', 'Bench');
  await openOther(desk, /trowel/);
  await expect(stands(desk)).toHaveText('It stands here by what both jobs name: Bench.');
  await page.getByRole('button', { name: 'Top comes in' }).click();
  await desk.choose('from-job-bring');
  await expect(fronts).toHaveCount(2);
  await expect(page.getByRole('button', { name: /^Top, / })).toHaveCount(1);
  await desk.saved();
  await page.reload();
  await desk.step('arrange');
  await desk.choose('panel-together');
  await desk.openCards();
  await expect(page.getByTestId('stands-Front, Hand trowel')).toContainText('What it shows lies within');
  await lookAt(desk, 'Pruner blade');
  expect(await fileOf(desk)).toBe(before);
  // One step of the history.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(fronts).toHaveCount(1);
});
