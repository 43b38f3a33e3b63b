import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { readDxf } from '../src/core/formats';
import { enclosedArea, pieceLength, type Piece } from '../src/core/geometry';
import type { truthOfDrawn } from '../demo/truth';
import { axe } from './helpers/axe';
import { expect, judgeDxf, test, type Desk } from './helpers/desk';
import type { Px } from './helpers/hand';

const { shed } = JSON.parse(readFileSync('demo/truth/drawn.json', 'utf8')) as ReturnType<typeof truthOfDrawn>;
const [a, b, c, d] = shed.cornersPx as unknown as readonly [Px, Px, Px, Px];
/** Millimetres of the shed in one pixel of its scan. */
const SCALE = shed.width / Math.hypot(b[0] - a[0], b[1] - a[1]);

/** A place in a wall: a share of the way along its outer line, and so many millimetres inwards from there. */
function inWall(from: Px, to: Px, share: number, inwards: number): Px {
  const [x, y] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(x, y);
  // The outline runs around against the clock as the sheet is read, its inside to the left.
  return [
    from[0] + x * share + (y / length) * (inwards / SCALE),
    from[1] + y * share - (x / length) * (inwards / SCALE),
  ];
}

/** What is handed over, by its layer. */
async function layersOf(
  desk: Desk,
): Promise<ReadonlyMap<string, readonly { readonly closed: boolean; readonly pieces: readonly Piece[] }[]>> {
  const file = await desk.download('save-file');
  const read = readDxf(readFileSync(file, 'utf8'));
  if (!read.ok) throw new Error(read.code);
  expect(judgeDxf(file).errors).toBe(0);
  const layers = new Map<string, { readonly closed: boolean; readonly pieces: readonly Piece[] }[]>();
  for (const path of read.value.paths) layers.set(path.layer, [...(layers.get(path.layer) ?? []), path]);
  return layers;
}

test('a door and a window are put into walls, typed and turned over; frames, leaves and swings leave on layers of their own, and a list says what to order @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('shed');
  await desk.step('trace');
  await desk.choose('tool-wall');
  await desk.openCards();
  await desk.choose('wall-openings');
  await desk.closeCards();
  await desk.hand.pointAt(inWall(b, c, 0.6, shed.wall * 0.3));
  await desk.openCards();
  await expect(page.getByTestId('opening-row-D2')).toContainText('0.9000 m');
  await desk.type('opening-width', '0.78');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('opening-width')).toHaveValue('0.9000 m');
  await desk.type('opening-width', '0.78');
  await desk.type('opening-distance', '0.4');
  const away = async () => Number.parseFloat(await page.getByTestId('opening-distance').inputValue());
  await desk.choose('opening-other-corner');
  expect(Math.abs((await away()) - (shed.depth / 1000 - 0.4 - 0.78))).toBeLessThan(0.02);
  await desk.choose('opening-other-corner');
  expect(await away()).toBeCloseTo(0.4, 6);
  await desk.type('fill-frame', '0.035');
  await desk.type('fill-leaf', '0.045');
  await expect(page.getByTestId('fill-clear')).toHaveText('0.7100 m');
  const before = await page.getByTestId('fill-hand').textContent();
  await desk.choose('fill-side');
  await desk.choose('fill-hinge');
  // Turned over both ways a door has the same hand.
  await expect(page.getByTestId('fill-hand')).toHaveText(before!);
  await desk.choose('fill-hinge');
  await expect(page.getByTestId('fill-hand')).not.toHaveText(before!);
  await desk.type('opening-head', '0');
  await expect(page.getByTestId('opening-head-problem')).toBeVisible();
  await desk.type('opening-head', '1.98');
  await expect(page.getByTestId('opening-height')).toHaveText('1.9800 m');

  await axe(page);
  // A second one, in the wall on the other side, and one that is not in a wall at all.
  await page.getByTestId('opening-list').getByRole('radio', { name: 'Window' }).click();
  await desk.closeCards();
  await desk.hand.pointAt(inWall(d, a, 0.5, shed.wall / 2));
  await desk.openCards();
  await desk.type('opening-name', 'Hatch');
  await desk.type('opening-width', '0.6');
  await desk.closeCards();
  await desk.hand.pointAt([(a[0] + c[0]) / 2 - 40, (a[1] + c[1]) / 2]);
  await expect(page.getByTestId('notice')).toContainText('There is no wall here');

  await desk.step('handover');
  await desk.openCards();
  const layers = await layersOf(desk);
  await expect(page.getByTestId('handover-says')).toHaveText(
    'The file agrees with the job. What is open are swings and sills.',
  );
  const areas = (layer: string) =>
    (layers.get(layer) ?? []).map(({ pieces }) => Math.abs(enclosedArea(pieces))).sort((x, y) => x - y);
  expect(areas('Frames')).toHaveLength(8);
  expect(
    areas('Frames')
      .slice(0, 2)
      .map((area) => Math.round(area)),
  ).toEqual([35 * shed.wall, 35 * shed.wall]);
  expect(areas('Leaves').map((area) => Math.round(area))).toContain(710 * 45);
  const ways = layers
    .get('Swings and sills')!
    .filter(({ pieces }) => pieces[0]!.kind === 'arc')
    .map(({ pieces }) => Math.round(pieceLength(pieces[0]!)));
  expect(ways).toContain(Math.round((710 * Math.PI) / 2));

  const table = Papa.parse<Record<string, string>>(readFileSync(await desk.download('save-openings'), 'utf8'), {
    header: true,
    skipEmptyLines: true,
  });
  expect(
    table.data.map(({ mark, what, 'width mm': width, 'height mm': height, 'clear width mm': clear }) => [
      mark,
      what,
      width,
      height,
      clear,
    ]),
  ).toEqual([
    ['D1', 'door', String(shed.door.width), '2000', String(shed.door.width - 80)],
    ['W1', 'window', String(shed.window.width), '800', String(shed.window.width - 100)],
    ['D2', 'door', '780', '1980', '710'],
    ['Hatch', 'window', '600', '1200', '500'],
  ]);

  // What is hidden stays out of the file; rooms are as large as before.
  await desk.step('trace');
  await desk.choose('panel-layers');
  await desk.openCards();
  await page.getByRole('button', { name: 'Hide Swings and sills' }).click();
  await desk.choose('panel-check');
  await desk.openCards();
  await expect(page.getByTestId('check-count')).toHaveText('These outlines can be cut.');
  await desk.choose('tool-region');
  await desk.openCards();
  await expect(page.getByTestId('region-list')).toContainText('regions, smallest first');
  await desk.step('handover');
  await desk.openCards();
  expect([...(await layersOf(desk)).keys()].sort()).toEqual(['Frames', 'Leaves', 'Outline']);
});
