/** Where several things could be meant, one chooses among them: what a point was caught by, and what lies under what was chosen. */
import { readFileSync } from 'node:fs';
import { createDeriver } from '../src/core/derive';
import { readBundle } from '../src/core/formats';
import { distance, pointAt, type Arc } from '../src/core/geometry';
import { expect, test, truth, type Desk } from './helpers/desk';
import { MouseHand } from './helpers/hand';

/** What else could be meant here: a key on the desk, a button beside the nudge arrows under a thumb. */
const another = (desk: Desk) =>
  desk.hand instanceof MouseHand ? desk.page.keyboard.press('n') : desk.page.getByTestId('catch-next').click();

test('a point that was set goes on to what else could have caught it, and at last to where the hand was @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  const [x, y] = truth.blade.holes[2]!.rimPx[0]!;
  // Two pixels beside where the bolt hole lies farthest out.
  await desk.hand.pointAt([x + 2, y], 1.5);
  const caught = page.getByTestId('readout-place');
  await expect(caught).toContainText('outermost point: across');
  const first = await caught.textContent();
  const words: string[] = [];
  for (let i = 0; i < 12; i++) {
    await another(desk);
    await expect(caught).not.toHaveText(words.at(-1) ?? first!);
    words.push((await caught.textContent())!);
    if (words.at(-1) === first) break;
  }
  expect(words.at(-1)).toBe(first);
  // Among them the place itself, caught by nothing.
  expect(words.some((word) => word.startsWith('across'))).toBe(true);
  expect(words.length).toBeGreaterThan(1);
});

test('outlines that lie over each other are gone through @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  // The first hole once more, from the picture.
  await desk.choose('tool-circle');
  await desk.closeCards();
  await desk.pointAt(truth.blade.holes[0]!.px);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 2');
  await desk.choose('tool-select');
  await desk.closeCards();
  await desk.pointAt(truth.blade.holes[0]!.rimPx[1]!);
  const chosen = page.locator('[data-testid^=selected-]');
  await expect(chosen).toHaveCount(1);
  const first = (await chosen.getAttribute('data-testid'))!;
  await desk.openCards();
  await desk.choose('edit-under');
  await expect(chosen).toHaveCount(1);
  await expect(chosen).not.toHaveAttribute('data-testid', first);
  await desk.choose('edit-under');
  await expect(chosen).toHaveAttribute('data-testid', first);
});

test('of two circles over each other, one line through both: the one that is meant is trimmed, and the other stays whole @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  const [x, y] = truth.blade.holes[0]!.px;
  const radius = Math.hypot(...[0, 1].map((axis) => truth.blade.holes[0]!.rimPx[0]![axis]! - [x, y][axis]!));
  await desk.choose('tool-circle');
  await desk.closeCards();
  await desk.pointAt([x, y]);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 2');
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt([x - 1.6 * radius, y], [x + 1.6 * radius, y]);
  await desk.openCards();
  await desk.choose('draw-finish');
  await desk.choose('tool-cut');
  await desk.closeCards();
  await desk.pointAt([x, y - radius]);
  await expect(page.getByTestId('hint')).toContainText('Several lie here');
  await desk.openCards();
  await desk.choose('edit-under');
  await desk.closeCards();
  await desk.pointAt([x, y - radius]);
  await expect(page.getByTestId('hint')).toContainText('Point at the outline that is cut');

  await desk.step('handover');
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error('not read');
  const { views, shapes } = createDeriver()(bundle.value.job);
  const { fit } = [...views.values()][0]!;
  const centre = fit.toPlane([x, y]);
  const round = [...shapes.values()]
    .flatMap(({ pieces }) => pieces)
    .filter((piece) => piece.kind === 'arc' && distance(piece.centre, centre) < 0.5);
  // One whole; of the other the top is gone, up to what crosses it on both sides: the line, or the one that lies over it.
  const turns = round.map((piece) => Math.abs((piece as Arc).sweep) / (2 * Math.PI)).sort();
  expect(turns).toEqual([expect.closeTo(0.7, 0), expect.closeTo(1, 9)]);
  const [left] = round.filter((piece) => Math.abs((piece as Arc).sweep) < 6);
  expect(pointAt(left!, 0.5)[1]).toBeLessThan(centre[1]);
});

test('a picture is kept only to look at, and used again; a size is compared with what is usual @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('nest-half');
  await desk.step('trace');
  await desk.choose('tool-dimension');
  await desk.closeCards();
  const [base] = await desk.page.evaluate(async () =>
    (
      (await (await fetch('/demo/nest-half.json')).json()) as {
        outlines: { id: string; nodes: { place: { at: [number, number] } }[] }[];
      }
    ).outlines
      .find(({ id }) => id === 'half')!
      .nodes.map(({ place }) => place.at),
  );
  await desk.pointAt([base![0] + 120, base![1]]);
  await desk.openCards();
  await desk.choose('keep-length');
  await desk.choose('usual-ask');
  await page.getByTestId('usual-find').fill('nest box');
  await page
    .getByTestId('usual-choice')
    .getByRole('button', { name: /^nest box, entrance for small birds, 26/ })
    .click();
  await expect(page.getByTestId('usual-verdict')).toContainText(
    'nest box, entrance for small birds: usually 26.00 mm to 34.00 mm. This is',
  );
  await expect(page.getByTestId('usual-verdict')).toContainText('more');

  // Nothing is measured on it as long as it is only looked at.
  await desk.step('sources');
  await desk.choose('panel-views');
  await desk.openCards();
  await desk.choose('look-only');
  await expect(page.getByTestId('notice')).toContainText('is locked');
  await page.getByTestId('notice').getByRole('button', { name: 'Unlock it' }).click();
  await desk.choose('look-only');
  await expect(page.getByTestId('view-fit')).toHaveText('only to look at');
  await desk.step('trace');
  await desk.choose('tool-line');
  await expect(page.getByTestId('notice')).toContainText('kept only to look at');
  await expect(page.getByTestId('tool-line')).not.toHaveAttribute('aria-pressed', 'true');
  await desk.step('fit');
  await desk.openCards();
  await desk.choose('measure-with');
  await expect(page.getByTestId('view-fit')).toContainText('±');
});
