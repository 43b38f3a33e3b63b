import { readFileSync } from 'node:fs';
import { readBundle } from '../src/core/formats';
import { distance, type Vec } from '../src/core/geometry';
import { expect, judgeDxf, test, truth } from './helpers/desk';
import type { Px } from './helpers/hand';
import { stated } from './helpers/stated';

const marks = new Map(truth.rule.marks.map(({ mark, px }) => [mark, px]));
const { card } = truth;

/** A known length: point at both ends, type it. */
const LENGTHS: readonly (readonly [Px, Px, string])[] = [
  [card.left, card.right, '85.6'], [card.bottom, card.top, '53.98'], [marks.get(20)!, marks.get(260)!, '240'], [marks.get(0)!, marks.get(300)!, '300'],
];

test('a wrong length among several is named, corrected, and the spacing of two holes is true', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  for (const [i, [from, to, mm]] of LENGTHS.entries()) {
    await desk.choose('tool-length');
    await desk.pointAt(from, to);
    await desk.type('length-field', i === 2 ? '252' : mm);
  }
  // 252 instead of 240: the fit of the others says so.
  await desk.openCards();
  const wrong = page.getByTestId('length-card').nth(2);
  await expect(wrong.getByTestId('evidence-says')).toContainText('does not belong');
  await expect(wrong.getByTestId('evidence-says')).toContainText('you said 252');
  const field = wrong.getByTestId('evidence-length-field');
  await field.fill('240');
  await field.press('Enter');
  await expect(wrong.getByTestId('evidence-says')).not.toContainText('does not belong');
  await expect(page.getByTestId('fit-summary')).toContainText('is good to ±');
  await desk.closeCards();

  await desk.choose('toggle-accuracy');
  await expect(page.getByTestId('accuracy-map')).toBeVisible();
  await desk.choose('toggle-accuracy');

  await desk.step('trace');
  await desk.choose('tool-circle');
  await desk.openCards();
  await page.getByRole('radio', { name: 'Across' }).click();
  await desk.closeCards();
  for (const hole of truth.blade.holes.slice(0, 2)) await desk.pointAt(hole.rimPx[0]!, hole.rimPx[2]!);
  await expect(page.getByTestId('readout-place')).toContainText('±');
  await desk.step('handover');
  const facts = judgeDxf(await desk.download('save-file'));
  expect(facts.errors).toBe(0);
  const [a, b] = facts.circles.map(({ centre }) => centre) as [Vec, Vec];
  const spacing = distance(truth.blade.holes[0]!.centre as Vec, truth.blade.holes[1]!.centre as Vec);
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  expect(Math.abs(distance(a, b) - spacing)).toBeLessThan(stated(bundle.value.job).spacing(0, 1));
});

test('a thing from the shelf is pointed at by its sides and found again by name', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await desk.choose('panel-shelf');
  await desk.openCards();
  await page.getByTestId('shelf-find').fill('bank');
  await page.getByTestId('shelf-cards-and-paper/bank-card').click();
  await desk.closeCards();
  const corner = (from: Px, to: Px, share: number): Px => [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share];
  const middle: Px = corner(card.left, card.right, 0.5);
  const half = (end: Px): Px => [end[0] - middle[0], end[1] - middle[1]];
  const [right, top] = [half(card.right), half(card.top)];
  const at = (u: number, v: number): Px => [middle[0] + u * right[0] + v * top[0], middle[1] + u * right[1] + v * top[1]];
  // Round the card: upper side, right, lower, left; two places on each, clear of the rounded corners.
  await desk.pointAt(at(-0.7, 1), at(0.7, 1), at(1, 0.6), at(1, -0.6), at(0.7, -1), at(-0.7, -1), at(-1, -0.6), at(-1, 0.6));
  await expect(page.getByTestId('width-field')).toHaveValue('85.6 mm');
  await desk.choose('set-length');
  await desk.openCards();
  await expect(page.getByTestId('rectangle-card')).toContainText('bank card');
  await expect(page.getByTestId('rectangle-card').getByTestId('evidence-says')).toContainText('85.6');
  await expect(page.getByTestId('fit-summary')).toContainText('is good to ±');
});
