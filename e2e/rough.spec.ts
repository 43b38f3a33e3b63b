import { readFileSync } from 'node:fs';
import { measuredLength } from '../src/core/calibrate';
import { createDeriver } from '../src/core/derive';
import { readBundle, readDxf } from '../src/core/formats';
import { distance, type Arc, type Line } from '../src/core/geometry';
import { encodeScan } from '../demo/generator/picture-file';
import { scan, scanner, type Drawing } from '../demo/generator/scan';
import type { Point } from '../demo/generator/profile';
import { expect, judgeDxf, test } from './helpers/desk';
import type { Px } from './helpers/hand';

/** A latch plate: 120 mm between the middles of its round ends, 30 mm high, two holes of 8 mm; in a frame of 180 by 60 mm. */
const PLATE = { between: 120, high: 30, hole: 8 } as const;
const FRAME = { left: -30, right: 150, bottom: -15, top: 45 } as const;
const half = PLATE.high / 2;
const round = (x: number, from: number): readonly Point[] =>
  Array.from({ length: 61 }, (_, i): Point => [
    x + half * Math.cos(from + (i * Math.PI) / 60),
    half + half * Math.sin(from + (i * Math.PI) / 60),
  ]);
const { left, right, bottom, top } = FRAME;
const frame = (
  [
    [left, bottom],
    [right, bottom],
    [right, top],
    [left, top],
  ] as const
).map((at, i, all): readonly [Point, Point] => [at, all[(i + 1) % 4]!]);
const rim = [...round(PLATE.between, -Math.PI / 2), ...round(0, Math.PI / 2)];
const plate: Drawing = {
  name: 'plate',
  paper: [230, 80],
  dpi: 300,
  ratio: 1,
  place: [55, 25],
  stretch: 1,
  askew: 0,
  dimensions: [],
  lines: [...rim.map((at, i) => [at, rim[(i + 1) % rim.length]!] as const), ...frame],
  circles: [0, PLATE.between].map((x) => ({ centre: [x, half] as const, diameter: PLATE.hole })),
};
const { project } = scanner(plate);
/** Where a place of the plate is found by its scan: mm from the sheet's lower left corner. */
const onSheet = ([x, y]: Point): Point => [x + plate.place[0], y + plate.place[1]];

/** A hand that is off by this, each time another way: CSS px of what it looks at. */
const OFF = 3;
const ZOOM = 1.5;

test('pointed badly, by 3 px each time, a plate is true to its scan within 0.1 mm: level, tangent, its holes 8 mm @wide', async ({
  desk,
  page,
  hasTouch,
}) => {
  desk.hand.rest = 400;
  let turn = 0;
  const rough = (at: Point): Px => {
    const [[x, y], angle, by] = [project(at), (turn += 2.4), OFF / (hasTouch ? 5 * ZOOM : ZOOM)];
    return [x + by * Math.cos(angle), y + by * Math.sin(angle)];
  };
  const pointAt = async (...places: readonly Point[]) => {
    for (const place of places) await desk.hand.pointAt(rough(place), ZOOM);
  };

  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'plate.jpg',
      mimeType: 'image/jpeg',
      buffer: Buffer.from(encodeScan(scan(plate), plate.dpi, 92)),
    });
  await expect(page.getByRole('button', { name: /^plate, no scale yet/ })).toBeVisible({ timeout: 20_000 });
  await desk.step('sources');
  await desk.openCards();
  await page.getByTestId('sheet-plate').getByRole('radio', { name: 'Scan' }).click();
  await desk.step('fit');
  for (const [from, to, size] of [
    [[left, half], [right, half], 180],
    [[left, -10], [right, -10], 180],
    [[-20, bottom], [-20, top], 60],
    [[140, bottom], [140, top], 60],
    [[left, bottom], [right, top], Math.hypot(180, 60).toFixed(3)],
  ] as const) {
    await desk.choose('tool-length');
    await desk.closeCards();
    await pointAt(from, to);
    await desk.type('length-field', `${size} ± 0.01`);
  }

  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  await pointAt([0, 0], [PLATE.between, 0]);
  await desk.choose('tool-arc');
  await desk.closeCards();
  await pointAt([PLATE.between + half, half], [PLATE.between, PLATE.high]);
  await desk.choose('tool-line');
  await desk.closeCards();
  await pointAt([0, PLATE.high]);
  await desk.choose('tool-arc');
  await desk.closeCards();
  await pointAt([-half, half], [0, 0]);
  await desk.choose('tool-circle');
  await desk.openCards();
  await page.getByRole('radio', { name: 'Three on the rim' }).click();
  await desk.closeCards();
  for (const x of [0, PLATE.between])
    await pointAt(
      ...[0.5, 2.6, 4.5].map((angle): Point => [
        x + (PLATE.hole / 2) * Math.cos(angle),
        half + (PLATE.hole / 2) * Math.sin(angle),
      ]),
    );

  await desk.choose('tool-relate');
  await desk.openCards();
  await desk.choose('take-all');
  await expect(page.getByTestId('moves')).toContainText('the picture allows it');
  await desk.closeCards();
  await desk.hand.pointAt(project([PLATE.hole / 2, half]) as Px, 2);
  await desk.openCards();
  await page.getByTestId('nominal').filter({ hasText: '8 mm' }).click();
  await expect(page.getByTestId('held-card')).toContainText('⌀ 8.00 mm');
  await desk.choose('show-free');
  await expect(page.getByTestId('free-says')).toContainText('places');

  await desk.step('handover');
  await expect(page.getByTestId('handover-says')).toHaveText('The file agrees with the job.');
  const file = await desk.download('save-file');
  const [read, bundle] = [
    readDxf(readFileSync(file, 'utf8')),
    readBundle(readFileSync(await desk.download('save-bundle'))),
  ];
  if (!read.ok || !bundle.ok) throw new Error('not read');
  expect(judgeDxf(file).errors).toBe(0);

  // What the view's evidence says of every length between corners of the plate: two sigma.
  const { fit } = [...createDeriver()(bundle.value.job).views.values()][0]!;
  const corners = (
    [
      [0, 0],
      [PLATE.between, 0],
      [0, PLATE.high],
      [PLATE.between, PLATE.high],
    ] as const
  ).map((at) => project(at) as Px);
  const bounds = corners.flatMap((a) =>
    corners.filter((b) => b !== a).map((b) => 2 * measuredLength(fit, { at: a, sigma: 0 }, { at: b, sigma: 0 }).sigma),
  );
  expect(Math.max(...bounds)).toBeLessThan(0.04);
  const pieces = read.value.paths.flatMap((path) => path.pieces);
  const lines = pieces.filter((piece): piece is Line => piece.kind === 'line');
  const arcs = pieces.filter((piece): piece is Arc => piece.kind === 'arc');
  const [ends, holes] = [
    arcs.filter(({ radius }) => radius > half / 2),
    arcs.filter(({ radius }) => radius < half / 2),
  ];
  expect([lines.length, ends.length, holes.length]).toEqual([2, 2, 2]);
  for (const { a, b } of lines) expect(Math.abs(a[1] - b[1])).toBeLessThan(1e-9);
  for (const { radius } of holes) expect(radius).toBeCloseTo(PLATE.hole / 2, 9);
  for (const { centre, radius } of ends)
    for (const { a } of lines) expect(Math.abs(Math.abs(centre[1] - a[1]) - radius)).toBeLessThan(1e-8);
  const off = (at: Point, truth: readonly Point[]) => Math.min(...truth.map((place) => distance(at, onSheet(place))));
  for (const { centre } of [...ends, ...holes])
    expect(
      off(centre, [
        [0, half],
        [PLATE.between, half],
      ]),
    ).toBeLessThan(0.1);
  for (const { radius } of ends) expect(Math.abs(radius - half)).toBeLessThan(0.1);
  for (const { a, b } of lines)
    for (const at of [a, b])
      expect(
        off(at, [
          [0, 0],
          [PLATE.between, 0],
          [0, PLATE.high],
          [PLATE.between, PLATE.high],
        ]),
      ).toBeLessThan(0.1);
});
