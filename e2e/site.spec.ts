/** A shed set down on its plot: turned to the boundary, so far from it and along it, slid by hand, and checked against what has to be kept clear; judged by the file that leaves. */
import { readFileSync } from 'node:fs';
import { FROM_WALL, KEPT } from '../demo/jobs-orchard';
import { GLASSHOUSE } from '../demo/scenes/glasshouse';
import { ORCHARD, PIXEL } from '../demo/scenes/orchard';
import { readDxf } from '../src/core/formats';
import { distance, endOf, scale, startOf, subtract } from '../src/core/geometry';
import { axe } from './helpers/axe';
import { expect, judgeDxf, test, type Desk } from './helpers/desk';
import type { Px } from './helpers/hand';

type At = readonly [number, number];
const boundary = ORCHARD.boundary as unknown as readonly [At, At, At, At];
/** A place of the orchard (mm, x east, y north) in its aerial picture, and back. */
const onPicture = ([x, y]: At): Px => [
  (x - ORCHARD.picture.left) / (PIXEL * 1000),
  (ORCHARD.picture.top - y) / (PIXEL * 1000),
];
/** So far along the lane's boundary, and so far within. */
const LONG = Math.hypot(64_000, 6_000);
const beside = (along: number, within: number): At => [
  (64_000 * along - 6_000 * within) / LONG,
  (6_000 * along + 64_000 * within) / LONG,
];
const SHED = { width: 3600, depth: 2400 };

const say = (desk: Desk, name: string) =>
  desk.page.getByTestId('site-saying').getByRole('radio', { name, exact: true }).click();
/** Points at places of the site, close enough to tell its edges apart. */
async function pointThere(desk: Desk, ...places: readonly At[]): Promise<void> {
  await desk.closeCards();
  for (const place of places) await desk.hand.pointAt(onPicture(place), 5);
  await desk.openCards();
}
const saysOf = ({ page }: Desk) => page.getByTestId('siting-says');

async function openSite(desk: Desk): Promise<void> {
  await desk.step('arrange');
  await desk.choose('panel-site');
  await desk.openCards();
}

/** What is handed over, path by path. */
async function pathsInFile(desk: Desk) {
  await desk.step('handover');
  await desk.openCards();
  const file = await desk.download('save-file');
  const read = readDxf(readFileSync(file, 'utf8'));
  if (!read.ok) throw new Error(read.code);
  expect(judgeDxf(file).errors).toBe(0);
  return read.value.paths;
}

/** How the shed stands in the file: the least and the most of its corners along the lane's boundary, and within from it. mm */
async function standsInFile(desk: Desk) {
  const paths = await pathsInFile(desk);
  const ends = paths.map(({ pieces }) => pieces.flatMap((piece) => [startOf(piece), endOf(piece)]));
  const plot = ends.find(
    (places) =>
      places.length === 8 && Math.hypot(places[1]![0] - places[0]![0], places[1]![1] - places[0]![1]) > 20_000,
  )!;
  const shed = ends.filter((places) => places !== plot && places.length > 8).sort((a, b) => b.length - a.length)[0]!;
  // The lane's boundary is the longest of the plot's sides.
  const sides = [0, 2, 4, 6].map((i) => [plot[i]!, plot[i + 1]!] as const);
  const [a, b] = sides.find(([p, q]) => Math.abs(Math.hypot(q[0] - p[0], q[1] - p[1]) - LONG) < 100 && p[1] < 10_000)!;
  const [from, to] = b[0] > a[0] ? [a, b] : [b, a];
  const [dx, dy] = [(to[0] - from[0]) / LONG, (to[1] - from[1]) / LONG];
  const along = shed.map(([x, y]) => (x - from[0]) * dx + (y - from[1]) * dy);
  const within = shed.map(([x, y]) => (y - from[1]) * dx - (x - from[0]) * dy);
  return {
    along: [Math.min(...along), Math.max(...along)],
    within: [Math.min(...within), Math.max(...within)],
  } as const;
}

test('a shed is set down on its plot, turned to the lane, so far from it and from a corner; what it keeps clear of is told with its plus-minus @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('shed');
  await desk.step('sources');
  await desk.choose('open-parcel');
  await page.getByTestId('parcel-address').fill('medlar');
  await desk.choose('find-parcel');
  await desk.choose('parcel-orchard');
  await expect(page.getByRole('button', { name: /^7 Medlar Lane, ±/ })).toBeVisible({ timeout: 20_000 });
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  for (const corner of [...boundary, boundary[0]]) await desk.hand.pointAt(onPicture(corner), 1.5);

  await openSite(desk);
  await desk.choose('set-down-Potting shed');
  await expect(saysOf(desk)).toHaveText('Nothing says yet which way it is turned. It can be moved anywhere.');
  // It was set down in the middle of the picture, as it lies in its plan.
  const middle: At = [
    ORCHARD.picture.left + (ORCHARD.picture.width * PIXEL * 1000) / 2,
    ORCHARD.picture.top - (ORCHARD.picture.height * PIXEL * 1000) / 2,
  ];
  const front: At = [middle[0] - 1200, middle[1] - SHED.depth / 2];
  await pointThere(desk, front, beside(30_000, 0));
  await expect(saysOf(desk)).toHaveText('It can be moved anywhere.');
  await say(desk, 'Distance');
  // It was turned about the middle of its front.
  const turned: At = [middle[0] - 1200, middle[1] - SHED.depth / 2 - 112];
  await pointThere(desk, turned, beside(30_000, 0));
  await desk.type('hold-length', '4 m');
  await expect(saysOf(desk)).toHaveText('It can still slide along one line.');
  await axe(page);
  // Slid by hand it goes along the lane alone, however far to the side it is drawn.
  const before = await standsInFile(desk);
  // Its walls stand on clicks of their own.
  expect(Math.abs(before.within[0] - 4000)).toBeLessThan(10);
  const corner = before.along[0];
  await openSite(desk);
  await say(desk, 'Move by hand');
  await pointThere(desk, beside(corner, 4000), beside(corner - 9000, 7000));
  const slid = await standsInFile(desk);
  expect(slid.within[0]).toBeCloseTo(before.within[0], 3);
  expect(Math.abs(slid.along[0] - (corner - 9000))).toBeLessThan(60);

  // From a corner of the plot, as the tape said it.
  await openSite(desk);
  await say(desk, 'Along an edge');
  await pointThere(desk, beside(slid.along[0], 4000), beside(3000, 0));
  const lengths = page.getByTestId('hold-along').getByTestId('hold-length');
  await lengths.fill('20 m ± 4 cm');
  await lengths.press('Enter');
  await expect(saysOf(desk)).toHaveText('It stands fast.');
  await say(desk, 'Move by hand');
  await pointThere(desk, beside(20_000, 4000), beside(26_000, 4000));
  await expect(page.getByTestId('notice')).toContainText('It stands fast');

  // Clear of the western boundary, and over where more is asked.
  await say(desk, 'Keep clear');
  await pointThere(desk, [-1250, 12_500]);
  await desk.type('setback-length', '15 m');
  const says = page.getByTestId('clearance-says');
  await expect(says).toContainText('Potting shed is clear by ');
  const [, clear, plusMinus] = /clear by ([\d.]+) m ±(\d+\.\d+)/.exec((await says.textContent())!)!;
  // The western boundary runs from the plot's south-western corner; the shed's nearest corner is its lower or its upper left one.
  const [west, south] = [boundary[3], boundary[0]];
  const tall = Math.hypot(south[0] - west[0], south[1] - west[1]);
  const away = ([x, y]: At) => ((south[0] - west[0]) * (y - west[1]) - (south[1] - west[1]) * (x - west[0])) / tall;
  const nearest = Math.min(away(beside(20_000, 4000)), away(beside(20_000, 4000 + SHED.depth)));
  expect(Math.abs(Number(clear) - (nearest - 15_000) / 1000)).toBeLessThan(Number(plusMinus));
  expect(Number(plusMinus)).toBeGreaterThan(0.039);
  expect(Number(plusMinus)).toBeLessThan(0.15);
  await desk.type('siting-overhang', '25 cm');
  await desk.type('setback-length', '22 m');
  await expect(says).toContainText('Potting shed is over by ');
  const [, over] = /over by ([\d.]+) m/.exec((await says.textContent())!)!;
  expect(Math.abs(Number(over) - (22_250 - nearest) / 1000)).toBeLessThan(Number(plusMinus));

  // What disagrees is said, and taken back; after a reload all of it is there.
  await say(desk, 'Distance');
  await pointThere(desk, beside(20_000 + SHED.width / 2, 4000 + SHED.depth), beside(40_000, 0));
  const further = page.getByTestId('hold-off').nth(1).getByTestId('hold-length');
  await further.fill('7 m');
  await further.press('Enter');
  await expect(saysOf(desk)).toContainText('What is said of it disagrees by 0.30');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(saysOf(desk)).toHaveText('It stands fast.');
  await desk.saved();
  await page.reload();
  const after = await standsInFile(desk);
  expect(Math.abs(after.along[0] - 20_000)).toBeLessThan(10);
  expect(after.within[0]).toBeCloseTo(before.within[0], 3);
});

test('the glasshouse of the orchard hangs over what is kept clear of the wall; pushed off it is clear, laid along the wall the work lies level, also after a reload @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('orchard');
  await openSite(desk);
  await expect(saysOf(desk)).toHaveText('It stands fast.');
  const says = page.getByTestId('clearance-says');
  const { gutter } = GLASSHOUSE;
  const stated = async () => {
    const [, way, by, plusMinus] = /(over|clear) by ([\d.]+) m ±(\d+\.\d+)/.exec((await says.textContent())!)!;
    return { mm: 1000 * Number(by) * (way === 'over' ? -1 : 1), plusMinus: 1000 * Number(plusMinus) };
  };
  const over = await stated();
  expect(Math.abs(over.mm - (FROM_WALL - gutter - KEPT))).toBeLessThanOrEqual(over.plusMinus + 5);
  expect(over.plusMinus).toBeLessThan(60);
  // Pushed off the wall it is clear, by what the hand typed.
  const away = page.getByTestId('hold-off').getByTestId('hold-length');
  await away.fill('1.9 m ± 1 cm');
  await away.press('Enter');
  await expect(says).toContainText('is clear by');
  const clear = await stated();
  expect(Math.abs(clear.mm - (1900 - gutter - KEPT))).toBeLessThanOrEqual(clear.plusMinus + 5);

  // Typed far along the wall while one looks closely, it is gone after.
  const [from, to] = ORCHARD.wall as unknown as readonly [At, At];
  const [dx, dy] = scale(subtract(to, from), 1 / distance(from, to));
  const stands = (along: number): At => [
    from[0] + along * dx + (1900 + 1500) * dy,
    from[1] + along * dy - (1900 + 1500) * dx,
  ];
  const isSeen = async (along: number) => {
    const [x, y] = await desk.hand.screenOf(onPicture(stands(along)));
    const bench = (await page.getByTestId('bench').boundingBox())!;
    return x > bench.x && x < bench.x + bench.width && y > bench.y && y < bench.y + bench.height;
  };
  await desk.hand.zoomTo(onPicture(stands(7700)), 6);
  expect([await isSeen(7700), await isSeen(19_500)]).toEqual([true, false]);
  const along = page.getByTestId('hold-along').getByTestId('hold-length');
  await along.fill('17 m');
  await along.press('Enter');
  await expect.poll(() => isSeen(19_500)).toBe(true);
  expect(await isSeen(7700)).toBe(false);
  // So is what is taken back.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(() => isSeen(7700)).toBe(true);

  // Laid along the wall, it lies level on the bench; the file keeps the axes of the map.
  await say(desk, 'Work along an edge');
  const middle: At = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
  await pointThere(desk, middle);
  await expect(page.getByTestId('work-along')).toContainText('turned by');
  await desk.closeCards();
  const [p, q] = [await desk.hand.screenOf(onPicture(from)), await desk.hand.screenOf(onPicture(to))];
  expect(Math.abs((q[1] - p[1]) / (q[0] - p[0]))).toBeLessThan(0.01);
  await desk.saved();
  await page.reload();
  const paths = await pathsInFile(desk);
  const corners = (layer: string) =>
    paths.filter((path) => path.layer === layer).map(({ pieces }) => pieces.map(startOf));
  const [wall] = corners('Boundary').filter((places) => places.length === 1);
  const eave = corners('Gutter')[0]!;
  const slope = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const beyond = eave.map(([x, y]) => (x - wall![0]![0]) * Math.sin(slope) - (y - wall![0]![1]) * Math.cos(slope));
  expect(Math.abs(Math.min(...beyond) - (1900 - gutter))).toBeLessThan(60);
  await openSite(desk);
  await desk.choose('work-along-back');
  await expect(page.getByTestId('work-along')).toHaveCount(0);
});
