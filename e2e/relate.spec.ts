import { readFileSync } from 'node:fs';
import { createDeriver } from '../src/core/derive';
import { readBundle } from '../src/core/formats';
import { createRandom } from '../src/core/calibrate/simulation';
import type { Job } from '../src/core/job';
import type { Chain } from '../src/core/outline';
import { cross, distance, dot, endOf, startOf, tangentAt } from '../src/core/geometry';
import { bundleOf } from './helpers/bundle';
import { expect, judgeDxf, test, truth } from './helpers/desk';

test('what was pointed roughly becomes tangent, parallel and of a nominal size to the last digit; what contradicts is refused with its reason @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-relate');
  await desk.openCards();
  await expect(page.getByTestId('proposed-tangent')).toContainText('joints are tangent');
  // One is left as it was drawn, which stays so until it is proposed again; one is taken by itself.
  await desk.choose('each-tangent');
  const each = page.getByTestId('proposed-one');
  const proposed = await each.count();
  await expect(each.first()).toContainText('Off by');
  await each.first().getByTestId('leave-one').click();
  await expect(each).toHaveCount(proposed - 1);
  await desk.choose('tool-line');
  await desk.choose('tool-relate');
  await desk.openCards();
  await expect(page.getByTestId('proposals')).toContainText('1 left as it was drawn');
  await desk.choose('propose-again');
  await desk.choose('each-tangent');
  await each.first().getByTestId('take-one').click();
  await expect(page.getByTestId('held-card')).toContainText('1 thing holds');
  // What taking all of it would move is said before it is taken, and comes true.
  const foreseen = await page.getByTestId('would-move').textContent();
  await desk.choose('take-all');
  await expect(page.getByTestId('proposals')).toHaveCount(0);
  await expect(page.getByTestId('moves')).toContainText('the picture allows it');
  expect(await page.getByTestId('moves').textContent()).toBe(
    foreseen!.replace('With all of it, the farthest any place would move is', 'The farthest any place moved is'),
  );

  // The first hole measures nearly 8 mm: that is what it is meant to be.
  const [hole] = truth.blade.holes;
  await desk.closeCards();
  await desk.hand.pointAt(hole!.rimPx[0]!, 2);
  await desk.openCards();
  await expect(page.getByTestId('chosen-card')).toContainText('1 thing chosen');
  await page.getByTestId('nominal').filter({ hasText: '8 mm' }).click();
  await expect(page.getByTestId('chosen-card')).toHaveCount(0);
  await expect(page.getByTestId('held-card')).toContainText('⌀ 8.00 mm');
  await expect(page.getByTestId('stretched')).toContainText(/scale this view by [+−]\d\.\d\d %/);
  const count = await page.getByTestId('held-card').textContent();

  await desk.closeCards();
  await desk.hand.pointAt(hole!.rimPx[0]!, 2);
  await desk.openCards();
  await desk.type('value-radius', '9');
  await expect(page.getByTestId('relation-refused')).toHaveText(
    '“⌀ 9.00 mm” cannot hold together with “⌀ 8.00 mm”. Take one of these away first. Nothing was changed.',
  );
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
  for (const {
    on: [a, b],
  } of relations.filter(({ kind }) => kind === 'equal-radius')) {
    const [first, second] = [a, b].map(
      (end) => dxf.circles[outlines.findIndex(({ id }) => id === end!.outline) - 1]!.radius,
    );
    expect(first).toBeCloseTo(second!, 9);
  }
  // The handle runs into its round end without a kink.
  const { outline } = dxf;
  const joints = outline
    .map((piece, i) => ({ piece, next: outline[(i + 1) % outline.length]! }))
    .filter(({ piece, next }) => piece.kind === 'line' || next.kind === 'line');
  const smooth = joints.filter(
    ({ piece, next }) =>
      distance(endOf(piece), startOf(next)) < 1e-6 && Math.abs(cross(tangentAt(piece, 1), tangentAt(next, 0))) < 1e-8,
  );
  expect(smooth.length).toBeGreaterThanOrEqual(3);
});

test('a rectangle of typed sides stands at a typed offset, its corners are rounded, and rounded otherwise later @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-shape');
  await desk.pointAt([400, 2400]);
  await page.getByTestId('rectangle-width').fill('2 in');
  await page.getByTestId('rectangle-height').fill('30');
  await page.getByTestId('rectangle-across').fill('5 1/4 in');
  await desk.type('rectangle-up', '10');
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 2');

  // Its lower side is found where it was typed: what was pointed at, and the offset.
  const save = async () => {
    await desk.step('handover');
    const facts = judgeDxf(await desk.download('save-file'));
    await desk.step('trace');
    return facts.outline.slice(-8);
  };
  const sharp = (await save()).slice(-4);
  const [bottom, right] = sharp as [(typeof sharp)[number], (typeof sharp)[number]];
  expect(distance(startOf(bottom), endOf(bottom))).toBeCloseTo(50.8, 8);
  expect(startOf(bottom)[1]).toBeCloseTo(endOf(bottom)[1], 9);
  expect(distance(startOf(right), endOf(right))).toBeCloseTo(30, 8);

  await desk.choose('tool-select');
  const bundle = async () => {
    await desk.step('handover');
    const read = readBundle(readFileSync(await desk.download('save-bundle')));
    if (!read.ok) throw new Error(read.code);
    await desk.step('trace');
    return read.value.job;
  };
  const { fit } = [...createDeriver()(await bundle()).views.values()][0]!;
  await desk.choose('tool-select');
  await desk.pointAt(fit.toSheet([startOf(bottom)[0] + 20, startOf(bottom)[1]]));
  const radii = async () => (await save()).flatMap((piece) => (piece.kind === 'arc' ? [piece.radius] : []));
  for (const radius of [4, 6]) {
    await desk.openCards();
    await desk.type('corner-size', String(radius));
    expect(await radii()).toEqual([radius, radius, radius, radius].map((mm) => expect.closeTo(mm, 8)));
    await desk.choose('tool-select');
    await desk.pointAt(fit.toSheet([startOf(bottom)[0] + 20, startOf(bottom)[1]]));
  }
  // A side that was typed is typed anew where it is listed.
  await desk.choose('tool-relate');
  await page.getByRole('button', { name: 'Change 50.80 mm' }).click();
  await desk.type('held-value', '508');
  await expect(page.getByTestId('held-value-slip')).toContainText(
    'It is 50.80 mm now. Did you mean a point one place over?',
  );
  await desk.type('held-value', '60');
  expect(
    (await save()).flatMap((piece) => (piece.kind === 'line' ? [distance(startOf(piece), endOf(piece))] : [])),
  ).toContainEqual(expect.closeTo(60 - 12, 8));

  // Larger than there is room for: said, and cut sharp.
  await desk.choose('tool-select');
  await desk.pointAt(fit.toSheet([startOf(bottom)[0] + 20, startOf(bottom)[1]]));
  await desk.openCards();
  await desk.type('corner-size', '16');
  await desk.choose('panel-check');
  await expect(page.getByTestId('finding-fault').first()).toContainText(
    'Left sharp: the corner is larger than its sides have room for',
  );
});

/** The blade's photo with sixteen boxes on it, pointed at by a hand that misses by 1 px. */
function boxesBundle(): Buffer {
  const job = JSON.parse(readFileSync('public/demo/blade-finished.json', 'utf8')) as Job;
  const photo = readFileSync('public/demo/blade.jpg');
  const { normal } = createRandom(4);
  const outlines = Array.from({ length: 16 }, (_, i): Chain => {
    const [column, row] = [i % 6, Math.floor(i / 6)];
    const [x, y] = [500 + 540 * column + 31 * row, 400 + 700 * row + 43 * column];
    const corners = [
      [x, y + 300],
      [x + 250 + 10 * i, y + 300],
      [x + 250 + 10 * i, y],
      [x, y],
    ] as const;
    return {
      shape: 'chain',
      id: `box${i}`,
      layer: job.layers[0]!.id,
      plane: job.views[0]!.plane,
      closed: true,
      segments: corners.map(() => ({ kind: 'line' })),
      nodes: corners.map(([u, v], n) => ({
        id: `n${n}`,
        smooth: false,
        place: { kind: 'pointed', at: [u + normal(), v + normal()], sigma: 1 },
      })),
    };
  });
  const views = job.views.map((view) => ({ ...view, locked: false }));
  const bare = { ...job, views, outlines, relations: [], dimensions: [], regions: [], parts: [] };
  return bundleOf(bare, photo);
}

test('of much that is drawn, what may be meant and what can hold is found while the hand goes on @wide', async ({
  desk,
  page,
}) => {
  await desk.openBundle(boxesBundle());
  await desk.step('trace');
  await desk.choose('tool-relate');
  await expect(page.getByTestId('proposals-seeking')).toBeVisible();
  // Nothing waits for that.
  await desk.choose('tool-select');
  await desk.choose('tool-relate');
  await expect(page.getByTestId('would-move')).toBeVisible({ timeout: 60_000 });
  await desk.choose('take-all');
  await expect(page.getByTestId('moves')).toContainText('the picture allows it', { timeout: 60_000 });

  // What cannot hold is said with its reason, by what it has to do with, and changes nothing.
  const holds = page.getByTestId('held-card').getByText(/^\d+ things hold$/);
  await desk.pointAt([625, 700]);
  await desk.type('value-length', '25');
  await expect(page.getByTestId('held-card')).toContainText('25.00 mm', { timeout: 60_000 });
  const held = await holds.textContent();
  await desk.pointAt([625, 400]);
  await desk.type('value-length', '30');
  await expect(page.getByTestId('relation-refused')).toHaveText(
    /^“30\.00 mm” cannot hold together with .*“25\.00 mm”.* Nothing was changed\.$/,
    { timeout: 60_000 },
  );
  expect(await holds.textContent()).toBe(held);

  await desk.step('handover');
  const dxf = judgeDxf(await desk.download('save-file'));
  expect(dxf.errors).toBe(0);
  expect(dxf.outline).toHaveLength(64);
  const along = tangentAt(dxf.outline[0]!, 0);
  for (const piece of dxf.outline) {
    const own = tangentAt(piece, 0);
    expect(Math.min(Math.abs(cross(along, own)), Math.abs(dot(along, own)))).toBeLessThan(1e-8);
  }
  const [first] = dxf.outline;
  expect(distance(startOf(first!), endOf(first!))).toBeCloseTo(25, 8);
});

test('where a worker stops, or the drawing changes meanwhile, nothing is said, and it can be said again @wide', async ({
  desk,
  page,
}) => {
  let come: 'stops' | 'late' | 'runs' = 'stops';
  let hurry = () => {};
  await page.context().route('**/fit-*.js', async (route) => {
    if (come === 'stops') return route.abort();
    if (come === 'late') await new Promise<void>((resolve) => (hurry = resolve));
    return route.continue();
  });
  await desk.openBundle(boxesBundle());
  await desk.step('trace');
  await desk.choose('tool-relate');
  await expect(page.getByTestId('proposals-stopped')).toContainText('Nothing was changed.');

  // A size is said while that is how it is: nothing holds, and it says why.
  const notice = page.getByTestId('notice');
  await desk.pointAt([625, 700]);
  await desk.type('value-length', '25');
  await expect(notice).toContainText('To find out whether this can hold took more than this device has.');
  await expect(page.getByTestId('held-card')).toHaveCount(0);

  // Both are asked again and take their time, and the picture is laid otherwise before it is known.
  come = 'late';
  await page.getByRole('button', { name: 'Look again' }).click();
  await expect(page.getByTestId('proposals-seeking')).toBeVisible();
  await desk.type('value-length', '25');
  await expect(page.getByTestId('saying-working')).toBeVisible();
  await page.getByRole('button', { name: 'Lay level along it' }).click();
  hurry();
  await expect(notice).toContainText('The drawing was changed before it was known whether this can hold');
  await expect(page.getByTestId('saying-working')).toHaveCount(0);
  await expect(page.getByTestId('held-card')).toHaveCount(0);

  // Left to itself it holds, and what may be meant is there.
  come = 'runs';
  await desk.type('value-length', '25');
  await expect(page.getByTestId('held-card')).toContainText('25.00 mm', { timeout: 60_000 });
  await expect(page.getByTestId('would-move')).toBeVisible({ timeout: 60_000 });
});
