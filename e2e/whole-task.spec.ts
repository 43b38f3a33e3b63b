import { readFileSync } from 'node:fs';
import { readBundle, readSvg, summarize } from '../src/core/formats';
import { angleOf, distance, dot, pointAt, polar, subtract, type Piece, type Vec } from '../src/core/geometry';
import { expect, judgeDxf, test, truth, type Desk } from './helpers/desk';
import { stated } from './helpers/stated';
import { traceBlade } from './helpers/trace-blade';

const marks = new Map(truth.rule.marks.map(({ mark, px }) => [mark, px]));

/** Scale across the card in the middle of its short sides, check on the rule. */
async function setScale(desk: Desk): Promise<void> {
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6 ± 0.1');
  await desk.pointAt(marks.get(20)!, marks.get(260)!);
  await desk.type('length-field', '240');
}

async function traceHoles(desk: Desk): Promise<void> {
  await desk.closeCards();
  await desk.choose('tool-circle');
  await desk.openCards();
  await desk.page.getByRole('radio', { name: 'Across' }).click();
  await desk.closeCards();
  for (const hole of truth.blade.holes) await desk.pointAt(hole.rimPx[0]!, hole.rimPx[2]!);
}

/** The extent of pieces along and across a direction, by dense sampling. mm. */
function boxAlong(pieces: readonly Piece[], angle: number): { across: number; up: number } {
  const places = pieces.flatMap((piece) => Array.from({ length: 201 }, (_, i) => pointAt(piece, i / 200)));
  const extent = (direction: Vec) => {
    const values = places.map((place) => dot(place, direction));
    return Math.max(...values) - Math.min(...values);
  };
  return { across: extent(polar(1, angle)), up: extent(polar(1, angle + Math.PI / 2)) };
}

test('a photo becomes a file that cuts', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await setScale(desk);
  await desk.openCards();
  await expect(page.getByTestId('check-card').getByTestId('evidence-says')).toContainText('agrees');
  await desk.step('trace');
  await traceBlade(desk, 4);
  await desk.saved();
  await page.reload();
  await expect(page.locator('#bench-drawing')).toBeAttached();
  await desk.step('trace');
  await traceHoles(desk);
  await desk.saved();

  await desk.step('handover');
  await expect(page.getByTestId('handover-says')).toHaveText('The file agrees with the job.');
  await expect(page.getByTestId('read-back-closed')).toHaveText('5');
  const dxf = judgeDxf(await desk.download('save-file'));
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  const { figure, spacing, diameter } = stated(bundle.value.job);

  expect(dxf.errors).toBe(0);
  expect(dxf.insunits).toBe(4);
  expect(dxf.kinds).toEqual({ LWPOLYLINE: 2, SPLINE: 1, CIRCLE: 4 });
  const holes = truth.blade.holes;
  dxf.circles.forEach((circle, i) =>
    expect(Math.abs(2 * circle.radius - holes[i]!.diameter)).toBeLessThan(diameter(i + 1)),
  );
  for (let i = 1; i < holes.length; i++) {
    const said = distance(dxf.circles[0]!.centre, dxf.circles[i]!.centre);
    const true_ = distance(holes[0]!.centre, holes[i]!.centre);
    expect(Math.abs(said - true_)).toBeLessThan(spacing(1, i + 1));
  }
  // Three of the holes lie on the blade's own axis: turned onto it, the file's box is the blade's overall size.
  const axis = angleOf(subtract(dxf.circles[2]!.centre, dxf.circles[0]!.centre));
  const box = boxAlong(dxf.outline, axis);
  const [across, up] = [
    figure(0, (shape) => boxAlong(shape.pieces, axis).across),
    figure(0, (shape) => boxAlong(shape.pieces, axis).up),
  ];
  expect(Math.abs(box.across - truth.blade.width)).toBeLessThan(across);
  expect(Math.abs(box.up - truth.blade.depth)).toBeLessThan(up);
  // And the plus-minus says something: one card on a photo by hand is good to a few per cent, not to anything.
  expect(across / truth.blade.width).toBeLessThan(0.06);

  await page.getByRole('radio', { name: 'SVG' }).click();
  await expect(page.getByTestId('save-file')).toHaveText('Save SVG');
  await expect(page.getByTestId('handover-says')).toHaveText('The file agrees with the job.');
  const text = readFileSync(await desk.download('save-file'), 'utf8');
  const svg = readSvg(text);
  if (!svg.ok) throw new Error(svg.code);
  expect(summarize(svg.value)).toMatchObject({ unit: 'mm', closed: 5, openEnds: 0 });
  // The browser, which reads SVG without us, has the drawing where the read-back says: from zero, y turned over, a unit a millimetre.
  const drawn = await desk.page.evaluate((svgText) => {
    const place = document.body.appendChild(document.createElement('div'));
    place.innerHTML = svgText.slice(svgText.indexOf('<svg'));
    const root = place.querySelector('svg')!;
    const { x, y, width, height } = root.getBBox();
    const unit = root.width.baseVal.value / root.viewBox.baseVal.width;
    place.remove();
    return { across: x, up: -(y + height), width, unit };
  }, text);
  const readBack = async (row: string) =>
    Number((await desk.page.getByTestId(`read-back-${row}`).textContent())!.replace('−', '-').replace(' mm', ''));
  for (const row of ['across', 'up', 'width'] as const)
    expect(Math.abs(drawn[row] - (await readBack(row)))).toBeLessThan(0.006);
  expect(drawn.unit).toBeCloseTo(96 / 25.4, 4);
  expect(summarize(svg.value).width).toBeCloseTo(dxf.width, 2);
});

test('everything can be undone and done again, also after a reload @wide', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await setScale(desk);
  await desk.step('trace');
  await desk.choose('tool-circle');
  await desk.pointAt(truth.blade.holes[2]!.px);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  await desk.saved();
  await page.reload();
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  for (let i = 0; i < 3; i++) await desk.choose('undo');
  await expect(page.getByTestId('undo')).toBeDisabled();
  await expect(page.getByTestId('view-fit')).toHaveText('no scale yet');
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 0');
  await desk.saved();
  await page.reload();
  for (let i = 0; i < 3; i++) await desk.choose('redo');
  await expect(page.getByTestId('redo')).toBeDisabled();
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  await expect(page.getByTestId('view-fit')).not.toHaveText('no scale yet');
});

test('a bundle carries the whole job to an empty device @wide', async ({ desk, page, browser }) => {
  await desk.openDemo('blade-finished');
  await desk.step('handover');
  const file = await desk.download('save-bundle');
  const before = readBundle(readFileSync(file));
  const context = await browser.newContext();
  const other = await context.newPage();
  await other.goto(page.url().replace(/\/job\/.*/, '/'));
  await other.getByTestId('bundle-file').setInputFiles(file);
  await other.getByTestId('step-handover').click();
  const [again] = await Promise.all([other.waitForEvent('download'), other.getByTestId('save-bundle').click()]);
  const after = readBundle(readFileSync(await again.path()));
  if (!before.ok || !after.ok) throw new Error('bundle');
  expect(after.value.job).toEqual(before.value.job);
  expect([...after.value.pictures]).toEqual([...before.value.pictures]);
  await context.close();
});
