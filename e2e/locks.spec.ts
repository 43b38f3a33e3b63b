/** A locked view keeps its fit, its zero and its picture, whichever way they are asked for; what is drawn on it goes on. */
import { expect, test, truth, type Desk } from './helpers/desk';
import { MouseHand } from './helpers/hand';

/** The fit and the axes of the blade, as its cards and the drawing show them. */
async function shownOf(desk: Desk) {
  const transform = await desk.page.locator('#bench-drawing').getByTestId('layer-Outline').getAttribute('d');
  return { transform, pieces: await desk.page.getByTestId('evidence-says').allTextContents() };
}

const notice = (desk: Desk) => desk.page.getByTestId('notice');

async function isRefused(desk: Desk, what: () => Promise<void>): Promise<void> {
  await what();
  await expect(notice(desk)).toContainText('is locked, so that its fit, its zero and its picture stay as they are.');
  await expect(notice(desk).getByRole('button', { name: 'Unlock it' })).toBeVisible();
}

test('whatever is asked of a locked view is not done, says so, and is done once it is unlocked @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-finished');
  await desk.step('fit');
  await desk.openCards();
  const before = await shownOf(desk);

  for (const tool of ['tool-length', 'tool-check', 'tool-datum']) {
    await isRefused(desk, () => desk.choose(tool));
    await expect(page.getByTestId(tool)).not.toHaveAttribute('aria-pressed', 'true');
  }
  await desk.openCards();
  await isRefused(desk, () =>
    page
      .getByTestId('length-card')
      .first()
      .getByRole('button', { name: /^Remove / })
      .click(),
  );
  await isRefused(desk, () => page.getByTestId('next-role').first().click());
  await desk.closeCards();
  const { hand } = desk;
  if (hand instanceof MouseHand)
    await isRefused(desk, () => hand.drag(truth.card.left, [truth.card.left[0] + 40, truth.card.left[1]]));

  await desk.step('sources');
  for (const tool of ['turn-left', 'turn-right', 'mirror', 'tool-crop']) await isRefused(desk, () => desk.choose(tool));

  await desk.step('fit');
  await desk.openCards();
  expect(await shownOf(desk)).toEqual(before);

  // What is drawn goes on.
  await desk.step('trace');
  await desk.choose('tool-circle');
  await desk.closeCards();
  await desk.pointAt(truth.blade.holes[0]!.px);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', /Outline: [2-9]/);

  await desk.step('sources');
  await desk.choose('turn-left');
  await notice(desk).getByRole('button', { name: 'Unlock it' }).click();
  await desk.choose('turn-left');
  await desk.step('fit');
  await desk.choose('tool-datum');
  await expect(page.getByTestId('tool-datum')).toHaveAttribute('aria-pressed', 'true');
});
