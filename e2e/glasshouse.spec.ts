/** A glasshouse from its plan and four sides: the side that was scanned from behind is found, the one without a size takes it from the others, heights go from the sides into the plan, and all of it leaves in space. */
import { SEEN } from '../demo/jobs-glasshouse';
import { GLASSHOUSE } from '../demo/scenes/glasshouse';
import { axe } from './helpers/axe';
import { expect, test, type Desk } from './helpers/desk';
import { drawOnLevel, judgeInSpace, lookAt, saveInSpace } from './helpers/in-space';

const { length: long, width: wide, eaves, ridge, gutter, hatch } = GLASSHOUSE;
/** Of sheets of which a pixel is 3 to 4 mm; and of a sketch, which is drawn off by centimetres. mm */
const [NEAR, SKETCHED] = [10, 60];

const isNear = (found: readonly number[], truly: readonly number[], within = NEAR) =>
  found.forEach((mm, axis) => expect(Math.abs(mm - truly[axis]!)).toBeLessThan(within));

async function traceBack(desk: Desk): Promise<void> {
  await lookAt(desk, 'Back');
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt(SEEN.back(0, 0), SEEN.back(long, 0), SEEN.back(long, ridge), SEEN.back(0, ridge));
  await desk.openCards();
  await desk.choose('draw-close');
}

test('a plan and four sides become one glasshouse in space, the side that was scanned from behind and all', async ({
  desk,
  page,
}) => {
  await desk.openDemo('glasshouse');
  await desk.step('arrange');
  await desk.choose('panel-together');
  await desk.openCards();
  const found = page.getByTestId('turned-round-Right');
  await expect(found).toContainText(
    'Everything agrees once Right is seen from the opposite side (left), or mirrored.',
    {
      timeout: 60_000,
    },
  );
  // The others stand without it.
  const together = page.getByTestId('together');
  await expect(together).toContainText('All that is known of the other views is one fit.');
  await expect(together).toContainText('What Right shows fits none of the others: it is left out');
  await axe(page);
  await found.getByTestId('turn-mirror').click();
  await expect(found).toHaveCount(0);
  await expect(together).toHaveText('All that is known of these views is one fit.', { timeout: 30_000 });

  // The window is closed in the middle of it.
  await desk.saved();
  await page.reload();
  await page.getByTestId('bench').waitFor();
  await expect(page.locator('#bench-drawing')).toBeAttached();

  await lookAt(desk, 'Plan');
  await drawOnLevel(desk, 'Ridge', SEEN.above(0, wide / 2), SEEN.above(long, wide / 2));
  await traceBack(desk);
  const file = await saveInSpace(desk);
  const all = judgeInSpace(file);
  expect(all.errors).toBe(0);
  isNear(all.size, [long, wide + 2 * gutter, ridge], SKETCHED);

  // Heights of the sides are in the plan.
  const [gutters, ridgeLine] = ['Gutter (Plan)', 'Ridge (Plan)'].map((layer) => judgeInSpace(file, layer));
  isNear([...gutters!.least, ...gutters!.size], [0, -gutter, eaves, long, wide + 2 * gutter, 0]);
  isNear([...ridgeLine!.least, ...ridgeLine!.size], [0, wide / 2, ridge, long, 0, 0]);
  // What is in the right gable stands where it does in the plan, as high as it was drawn.
  const opening = judgeInSpace(file, 'Openings (Right)');
  isNear([...opening.least, ...opening.size], [long, hatch.from, 0, 0, hatch.width, hatch.height]);
  // The back has its size from the others.
  const back = judgeInSpace(file, 'Outline (Back)');
  isNear([...back.least, ...back.size], [0, wide, 0, long, 0, ridge], SKETCHED);
});
