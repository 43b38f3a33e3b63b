import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { findNearest, type Piece } from '../src/core/geometry';
import { toPolygon } from '../demo/generator/profile';
import { blade } from '../demo/scenes/blade';
import { expect, test, truth } from './helpers/desk';

/** A figure as it is written, and its plus-minus. */
function figureIn(text: string | null): { readonly value: number; readonly plusMinus: number } {
  const [, value, plusMinus] = /([\d.]+) mm ±([\d.]+)/.exec(text ?? '')!;
  return { value: Number(value), plusMinus: Number(plusMinus) };
}

test('a blade is a named part that stands three times; its list, the sizes between its holes and the wall beside one agree with the truth @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-select');
  await desk.openCards();
  await desk.choose('select-all');
  await desk.type('part-name', 'Blade, left');
  await desk.type('part-material', 'Tool steel');
  await desk.type('part-thickness', '3');
  await expect(page.getByTestId('part-count')).toContainText('1');
  await desk.choose('make-rows');
  await expect(page.getByTestId('recipe-card')).toBeVisible();

  // From one hole to the next, across and up: two sides of the way between them.
  const [hole, other] = truth.blade.holes;
  const sides: { readonly value: number; readonly plusMinus: number }[] = [];
  for (const way of ['across', 'up']) {
    await desk.choose('tool-dimension');
    await desk.openCards();
    await desk.choose('dimension-several');
    await desk.closeCards();
    await desk.pointAt(hole!.rimPx[1]!, other!.rimPx[1]!);
    await desk.openCards();
    await desk.choose(`keep-row-${way}-before`);
    sides.push(figureIn(await page.getByTestId('sizes').getByTestId('size-measured').last().textContent()));
  }
  const spacing = Math.hypot(other!.centre[0] - hole!.centre[0], other!.centre[1] - hole!.centre[1]);
  expect(Math.abs(Math.hypot(sides[0]!.value, sides[1]!.value) - spacing)).toBeLessThan(
    Math.hypot(sides[0]!.plusMinus, sides[1]!.plusMinus),
  );

  await desk.closeCards();
  await desk.pointAt(hole!.rimPx[1]!, truth.blade.strokes.at(-1)!.through!.px as readonly [number, number]);
  await desk.openCards();
  await desk.choose('keep-gap');
  const gap = page.getByTestId('sizes').getByTestId('size-measured').last();
  const polygon = toPolygon(blade.outer);
  const rim: Piece = { kind: 'arc', centre: hole!.centre, radius: hole!.diameter / 2, start: 0, sweep: 2 * Math.PI };
  const wall = findNearest(
    [rim],
    polygon.map((a, i): Piece => ({ kind: 'line', a, b: polygon[(i + 1) % polygon.length]! })),
  )!.value;
  const measured = figureIn(await gap.textContent());
  expect(Math.abs(measured.value - wall)).toBeLessThan(measured.plusMinus + 0.05);
  await page
    .getByTestId('size-should')
    .last()
    .fill(String(Math.floor(wall - 2)));
  await page.getByTestId('size-should').last().press('Enter');
  await expect(page.getByTestId('size-verdict').last()).toContainText('to spare');
  await page
    .getByTestId('size-should')
    .last()
    .fill(String(Math.ceil(wall + 3)));
  await page.getByTestId('size-should').last().press('Enter');
  await expect(page.getByTestId('size-verdict').last()).toContainText('Too near by');

  await desk.step('handover');
  await desk.openCards();
  await expect(page.getByTestId('parts-card')).toContainText('3 × Blade, left · Tool steel, 3.00 mm thick');
  const table = Papa.parse<Record<string, string>>(readFileSync(await desk.download('save-parts'), 'utf8'), {
    header: true,
    skipEmptyLines: true,
  });
  expect(table.errors).toEqual([]);
  const [row] = table.data;
  expect(row).toMatchObject({
    part: 'Blade, left',
    count: '3',
    'of them mirrored': '0',
    material: 'Tool steel',
    'thickness mm': '3',
  });
  expect(
    Math.abs(
      Number(row!['area mm²']) -
        truth.blade.area +
        truth.blade.holes.reduce((sum, { diameter }) => sum + (Math.PI * diameter ** 2) / 4, 0),
    ),
  ).toBeLessThan(0.03 * truth.blade.area);
});
