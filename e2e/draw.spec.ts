import { readFileSync } from 'node:fs';
import { createDeriver, measureOutline } from '../src/core/derive';
import { readBundle, readDxf } from '../src/core/formats';
import { distance, enclosedArea, endOf, pieceBounds, startOf, type Piece } from '../src/core/geometry';
import type { Job } from '../src/core/job';
import type { Chain } from '../src/core/outline';
import type { truthOfDrawn, truthOfNestBox } from '../demo/truth';
import { expect, judgeDxf, test, type Desk } from './helpers/desk';
import type { Px } from './helpers/hand';

const { shed, hanger } = JSON.parse(readFileSync('demo/truth/drawn.json', 'utf8')) as ReturnType<typeof truthOfDrawn>;
const nestBox = JSON.parse(readFileSync('demo/truth/nest-box.json', 'utf8')) as ReturnType<typeof truthOfNestBox>;

/** The file and the job as they are handed over now; back to tracing. */
async function handedOver(desk: Desk): Promise<{
  readonly dxf: ReturnType<typeof judgeDxf>;
  readonly paths: readonly { readonly layer: string; readonly closed: boolean; readonly pieces: readonly Piece[] }[];
  readonly job: Job;
}> {
  await desk.step('handover');
  const file = await desk.download('save-file');
  const read = readDxf(readFileSync(file, 'utf8'));
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!read.ok || !bundle.ok) throw new Error('not read');
  await desk.step('trace');
  return { dxf: judgeDxf(file), paths: read.value.paths, job: bundle.value.job };
}

test('a curve is trimmed by a line, the line by the curve, and all ends are joined to one closed outline @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-curve');
  await desk.pointAt([1600, 700], [1900, 300], [2300, 700]);
  await desk.openCards();
  await desk.choose('draw-finish');
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt([1500, 600], [2450, 600]);
  await desk.openCards();
  await desk.choose('draw-finish');
  await desk.choose('tool-cut');
  await desk.closeCards();
  await desk.pointAt([1601, 695], [2298, 697], [1510, 600], [2440, 600]);

  await desk.choose('panel-check');
  await desk.openCards();
  await desk.choose('heal-all');
  await expect(page.getByTestId('check-count')).toHaveText('These outlines can be cut.');
  const { dxf, job } = await handedOver(desk);
  const made = job.outlines.at(-1) as Chain;
  expect([dxf.errors, made.closed, made.segments.map(({ kind }) => kind)]).toEqual([
    0,
    true,
    expect.arrayContaining(['curve', 'line']),
  ]);
  // What is left of the curve is where it was: its top still passes where it was pointed.
  const shape = createDeriver()(job).shapes.get(made.id)!;
  const { fit } = [...createDeriver()(job).views.values()][0]!;
  const top = fit.toPlane([1900, 300]);
  expect(Math.min(...shape.nodes.map((node) => distance(node, top)))).toBeLessThan(1);
  expect(
    shape.pieces.every(
      (piece, i) => distance(endOf(piece), startOf(shape.pieces[(i + 1) % shape.pieces.length]!)) < 1e-6,
    ),
  ).toBe(true);
});

test('a strip along a tightly bent line keeps its thickness when that is typed anew, until its bend closes up @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('hanger');
  await desk.step('trace');
  await desk.choose('tool-select');
  const [foot, bend] = hanger.linePx as unknown as readonly [Px, Px];
  const pick = async () => {
    await desk.closeCards();
    await desk.pointAt([foot[0] - 2 * 11.811, (foot[1] + bend[1]) / 2]);
    await desk.openCards();
  };
  await pick();
  await expect(page.getByTestId('strip-width')).toHaveValue('4.00 mm');
  for (const thick of [6, 30]) {
    await desk.type('strip-width', String(thick));
    const { dxf, paths } = await handedOver(desk);
    expect(dxf.errors).toBe(0);
    expect(paths.map(({ closed }) => closed)).toEqual([true]);
    const radii = paths[0]!.pieces
      .flatMap((piece) => (piece.kind === 'arc' ? [piece.radius] : []))
      .sort((a, b) => b - a);
    expect(radii[0]! - radii.at(-1)!).toBeCloseTo(thick, 6);
    await desk.choose('tool-select');
    await desk.closeCards();
    await desk.pointAt([foot[0] - (thick / 2) * 11.811, (foot[1] + bend[1]) / 2]);
    await desk.openCards();
  }
  // Thicker than the bend is wide, its legs touch: one outline still, its crossing parts gone.
  await desk.type('strip-width', '40');
  const { dxf, paths } = await handedOver(desk);
  expect(dxf.errors).toBe(0);
  expect(paths.filter(({ closed }) => closed)).toHaveLength(paths.length);
  const box = paths.flatMap(({ pieces }) => pieces.map(pieceBounds));
  expect(Math.max(...box.map(({ max }) => max[0])) - Math.min(...box.map(({ min }) => min[0]))).toBeCloseTo(
    2 * hanger.hook + 40,
    0,
  );
});

test('rooms of a plan have the areas that they have, within their plus-minus; a wall thickness that is typed changes them @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('shed');
  await desk.step('trace');
  await desk.choose('tool-region');
  const areaAt = async (place: Px) => {
    await desk.closeCards();
    await desk.hand.pointAt(place, 0.3);
    await desk.openCards();
    const text = await page.getByTestId('region-area').textContent();
    const [, value, margin] = /^([\d.]+) m² ±([\d.]+)/.exec(text!)!;
    return { value: Number(value), margin: Number(margin) };
  };
  const [a, , c] = shed.cornersPx as unknown as readonly [Px, Px, Px];
  const at = (across: number, up: number): Px => [a[0] + across * (c[0] - a[0]), a[1] + up * (c[1] - a[1])];
  for (const [place, truth] of [
    [at(0.3, 0.5), shed.rooms[0]!],
    [at(0.85, 0.5), shed.rooms[1]!],
  ] as const) {
    const { value, margin } = await areaAt(place);
    expect(Math.abs(value - truth / 1e6)).toBeLessThan(margin + 0.005);
    expect(margin).toBeLessThan(0.1);
  }
  await desk.type('region-name', 'Store');
  await page.getByRole('radio', { name: 'Room' }).click();
  await desk.type('region-height', '2.3');
  await expect(page.getByTestId('region-volume')).toHaveText(/^5\.\d+ m³ ±0\.\d+$/);
  await expect(page.getByTestId('labels')).toContainText('Store');
  await expect(page.getByTestId('region-list')).toContainText('Store (room)');
  // A door is a gap in the walls that are handed over, and none between rooms.
  const { dxf, paths } = await handedOver(desk);
  expect(dxf.errors).toBe(0);
  const drawn = paths.filter(({ layer }) => layer === 'Outline');
  expect(drawn.every(({ closed }) => closed)).toBe(true);
  const material = Math.abs(drawn.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0)) / 1e6;
  const walls =
    (shed.width * shed.depth - (shed.rooms[0]! + shed.rooms[1]!) - shed.wall * (shed.door.width + shed.window.width)) /
    1e6;
  expect(Math.abs(material - walls)).toBeLessThan(0.03);
});

test('half a front is whole about its centre line: even on both sides to the last digit, as wide as it is within its plus-minus @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('nest-half');
  await desk.step('trace');
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 3');
  const { dxf, paths, job } = await handedOver(desk);
  expect(dxf.errors).toBe(0);
  const front = paths.find(({ closed, pieces }) => closed && pieces.length > 1)!;
  const xs = front.pieces.map((piece) => startOf(piece)[0]);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const derived = createDeriver()(job);
  const width = measureOutline(
    job.outlines.find(({ id }) => id === 'front')!,
    { job, derived },
    ({ pieces }) => {
      const all = pieces.map((piece) => startOf(piece)[0]);
      return Math.max(...all) - Math.min(...all);
    },
  );
  expect(right - left).toBeCloseTo(width.value, 6);
  expect(Math.abs(width.value - nestBox.sizes[0]!.mm)).toBeLessThan(2 * width.sigma + 0.2);
  const axis = (left + right) / 2;
  for (const x of xs) expect(Math.min(...xs.map((other) => Math.abs(other - (2 * axis - x))))).toBeLessThan(1e-6);

  // Moving what is half moves the whole; letting it go leaves an outline of its own.
  await desk.choose('tool-select');
  const [base] = nestBox.sizes;
  await desk.closeCards();
  await desk.pointAt([(base!.from[0] * 3 + base!.to[0]) / 4, (base!.from[1] * 3 + base!.to[1]) / 4]);
  await desk.openCards();
  await expect(page.getByTestId('recipe-card')).toContainText('Mirrored');
  await desk.choose('make-let-go');
  const after = await handedOver(desk);
  expect(after.job.outlines.map(({ shape }) => shape).sort()).toEqual(['chain', 'chain', 'circle']);
  expect(after.paths.find(({ pieces }) => pieces.length > 1)!.closed).toBe(true);
});

test('a shed keeps its distance from the edge of its plot, and oversteps when more is asked @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('shed');
  await desk.step('trace');
  const corners = shed.cornersPx as unknown as readonly [Px, Px, Px, Px];
  const [left, right] = [Math.min(...corners.map(([x]) => x)), Math.max(...corners.map(([x]) => x))];
  const [top, bottom] = [Math.min(...corners.map(([, y]) => y)), Math.max(...corners.map(([, y]) => y))];
  // The plot, about a quarter of a metre away on the left, more on the other sides.
  await desk.choose('tool-shape');
  await desk.closeCards();
  const plot = [
    [left - 100, top - 200],
    [right + 180, bottom + 140],
  ] as const;
  await desk.hand.pointAt(plot[0], 0.3);
  await desk.hand.pointAt(plot[1], 0.3);
  await desk.choose('tool-dimension');
  await desk.closeCards();
  const wall: Px = [(corners[0][0] + corners[3][0]) / 2, (corners[0][1] + corners[3][1]) / 2];
  await desk.hand.pointAt(wall, 0.6);
  // Its edges are level and upright on the plan, which lies askew: near the corner they are where that was pointed.
  await desk.hand.pointAt([plot[0][0], plot[0][1] + 40], 0.6);
  await desk.openCards();
  await desk.choose('keep-gap');
  const measured = page.getByTestId('size-measured').last();
  const [, value, margin] = /([\d.]+) m ±([\d.]+)/.exec((await measured.textContent())!)!;
  // Askew by 0.6°, the wall's nearest corner is what counts. A pixel is so many metres of the shed.
  const metres = shed.width / 1000 / Math.hypot(corners[1][0] - corners[0][0], corners[1][1] - corners[0][1]);
  expect(Math.abs(Number(value) - 100 * metres)).toBeLessThan(Number(margin) + 4 * metres);
  await desk.type('size-should', '0.2');
  await expect(page.getByTestId('size-verdict').last()).toContainText('to spare');
  await desk.type('size-should', '0.4');
  await expect(page.getByTestId('size-verdict').last()).toContainText('Too near by');
});
