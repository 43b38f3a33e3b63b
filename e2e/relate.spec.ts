import { readFileSync } from 'node:fs';
import { readBundle } from '../src/core/formats';
import { cross, distance, endOf, startOf, tangentAt } from '../src/core/geometry';
import { expect, judgeDxf, test, truth } from './helpers/desk';

test('what was pointed roughly becomes tangent, parallel and of a nominal size to the last digit; what contradicts is refused with its reason', async ({ desk, page }) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-relate');
  await desk.openCards();
  await expect(page.getByTestId('proposed-tangent')).toContainText('joints are tangent');
  await desk.choose('take-all');
  await expect(page.getByTestId('proposals')).toHaveCount(0);
  await expect(page.getByTestId('moves')).toContainText('which the picture allows');

  // The first hole measures nearly 8 mm: that is what it is meant to be.
  const [hole] = truth.blade.holes;
  await desk.closeCards();
  await desk.hand.pointAt(hole!.rimPx[0]!, 2);
  await desk.openCards();
  await expect(page.getByTestId('chosen-card')).toContainText('1 thing chosen');
  await page.getByTestId('nominal').filter({ hasText: '8 mm' }).click();
  await expect(page.getByTestId('chosen-card')).toHaveCount(0);
  await expect(page.getByTestId('held-card')).toContainText('⌀ 8.00 mm');
  const count = await page.getByTestId('held-card').textContent();

  await desk.closeCards();
  await desk.hand.pointAt(hole!.rimPx[0]!, 2);
  await desk.openCards();
  await desk.type('value-radius', '9');
  await expect(page.getByTestId('relation-refused')).toHaveText('“⌀ 9.00 mm” cannot hold together with “⌀ 8.00 mm”. Take one of these away first. Nothing was changed.');
  expect(await page.getByTestId('held-card').textContent()).toBe(count);

  // It is all there after the page was loaded anew, and leaves exactly.
  await desk.saved();
  await page.reload();
  await expect(page.locator('#bench-drawing')).toBeAttached();
  await desk.step('handover');
  await expect(page.getByTestId('handover-says')).toHaveText('The file agrees with the job.');
  const dxf = judgeDxf(await desk.download('save-file'));
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  const { relations, outlines } = bundle.value.job;
  expect(dxf.errors).toBe(0);
  expect(dxf.circles[0]!.radius).toBeCloseTo(4, 9);
  for (const { on: [a, b] } of relations.filter(({ kind }) => kind === 'equal-radius')) {
    const [first, second] = [a, b].map((end) => dxf.circles[outlines.findIndex(({ id }) => id === end!.outline) - 1]!.radius);
    expect(first).toBeCloseTo(second!, 9);
  }
  // The handle runs into its round end without a kink.
  const { outline } = dxf;
  const joints = outline.map((piece, i) => ({ piece, next: outline[(i + 1) % outline.length]! })).filter(({ piece, next }) => piece.kind === 'line' || next.kind === 'line');
  const smooth = joints.filter(({ piece, next }) => distance(endOf(piece), startOf(next)) < 1e-6 && Math.abs(cross(tangentAt(piece, 1), tangentAt(next, 0))) < 1e-8);
  expect(smooth.length).toBeGreaterThanOrEqual(3);
});
