/** Three views of one bench on one sheet: their sides, what they share, a wrong size named, one fit of all, folded up and looked at, and a part of true size from a view that has no size of its own. */
import { readFileSync } from 'node:fs';
import { scanner } from '../demo/generator/scan';
import { BENCH, BENCH_PLACES, benchSet, benchViews, WRONG_DEPTH } from '../demo/scenes/bench-set';
import { readBundle } from '../src/core/formats';
import type { Job } from '../src/core/job';
import { axe } from './helpers/axe';
import { bundleOf } from './helpers/bundle';
import { expect, judgeDxf, test, type Desk } from './helpers/desk';
import type { Px } from './helpers/hand';
import { bringPage } from './helpers/pdf';
import { judgeInSpace, lookAt, saveInSpace } from './helpers/in-space';

/** Where places of the bench are on a sheet of it, px: across and up in the front, deep and up in the side, across and deep in the top. */
const seenOn = ({ project }: ReturnType<typeof scanner>) => ({
  front: (across: number, up: number): Px => project([across, up]),
  side: (deep: number, up: number): Px => project([BENCH_PLACES.side + deep, up]),
  above: (across: number, deep: number): Px => project([across, BENCH_PLACES.top + deep]),
});
const onScan = seenOn(scanner(benchViews));
const { front, side, above } = onScan;
/** On its page of the PDF, brought in at 150 dots an inch. */
const onPage = seenOn(scanner({ ...benchSet, dpi: 150 }));

/** The sheet cut into its three views, with its printed length, and nothing said of how they belong together. */
function cutSheet(): Buffer {
  const job = JSON.parse(readFileSync('public/demo/bench-views.json', 'utf8')) as Job;
  const scan = readFileSync('public/demo/bench-views.jpg');
  const views = job.views.map(({ side: _side, joins: _joins, ...view }) => ({
    ...view,
    evidence: view.evidence.filter(({ id }) => id === 'length'),
    points: view.points.filter(({ id }) => id.startsWith('length')),
  }));
  const { projection: _projection, ...rest } = job;
  return bundleOf({ ...rest, views, features: [], spans: [] }, scan);
}

/** The page of the PDF, cut into its three views by hand, with its printed length; they share its fit. */
async function bringInPage(desk: Desk): Promise<void> {
  const { page } = desk;
  const { length: long } = BENCH;
  await bringPage(desk, 1);
  await expect(page.getByTestId('reference-ink').first()).toBeAttached({ timeout: 40_000 });
  await page.getByTestId('said').getByRole('button').click();
  // What is printed is ten times as long as it is on the page.
  await desk.choose('tool-length');
  await desk.pointAt(onPage.front(0, 0), onPage.front(long, 0));
  await page.getByTestId('length-field').fill(String(long));
  await expect(page.getByTestId('size-question')).toContainText('Set it, if it is drawn at 1:10.');
  await page.getByTestId('length-field').press('Enter');
  await expect(page.getByTestId('drawn-at')).toContainText(
    /^1500.*is said where the sheet itself has 150.0 mm ±0.4: it seems to be drawn at 1:10\./,
  );
  await axe(page);
  await desk.choose('drawn-at-take');
  await expect(page.getByTestId('drawn-at')).toHaveCount(0);

  await desk.step('sources');
  await desk.choose('tool-cut');
  for (const [name, from, to] of [
    ['Front', onPage.front(-330, -230), onPage.front(long + 190, 930)],
    ['Side', onPage.side(-120, -230), onPage.side(720, 930)],
    ['Top', onPage.above(-120, -90), onPage.above(long + 120, 670)],
  ] as const) {
    await expect(page.getByTestId('hint')).toHaveText('Point at one corner of the frame.');
    await desk.pointAt(from);
    await expect(page.getByTestId('hint')).toHaveText('Point at the corner across.');
    await desk.pointAt(to);
    await page.getByTestId('cut-name').fill(name);
    await desk.choose('use-frame');
    await expect(page.getByRole('button', { name: new RegExp(`^${name}, `) })).toBeVisible();
  }
  await desk.choose('panel-views');
  await page.getByRole('button', { name: 'Remove bench, page 1', exact: true }).click();

  // Zero of each, and what is level in it.
  await desk.step('fit');
  for (const [name, from, to] of [
    ['Front', onPage.front(0, 0), onPage.front(long, 0)],
    ['Side', onPage.side(0, 0), onPage.side(BENCH.depth, 0)],
    ['Top', onPage.above(0, 0), onPage.above(long, 0)],
  ] as const) {
    await lookAt(desk, name);
    await desk.choose('tool-datum');
    await desk.pointAt(from, to);
  }
}

/** Points at one line in several views, as one goes from view to view. */
async function share(
  desk: Desk,
  shape: 'level' | 'upright',
  seen: readonly (readonly [string, readonly Px[]])[],
): Promise<void> {
  await lookAt(desk, seen[0]![0]);
  await desk.choose(`share-${shape}`);
  await desk.closeCards();
  for (const [view, places] of seen) {
    await lookAt(desk, view);
    await desk.pointAt(...places);
  }
  await desk.openCards();
  await desk.choose('share-done');
}

async function trace(desk: Desk, corners: readonly Px[]): Promise<void> {
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt(...corners);
  await desk.openCards();
  await desk.choose('draw-close');
}

/** Hands over what stands in space, and judges one layer of it. */
const judgeInSpaceAfter = async (desk: Desk, layer: string) => judgeInSpace(await saveInSpace(desk), layer);

test('front, side and top of one bench agree, in space', async ({ desk, page }, { project }) => {
  // With a mouse from the page of the PDF, by touch from its scan, which was cut before.
  const { front, side, above } = project.name === 'wide' ? onPage : onScan;
  if (project.name === 'wide') await bringInPage(desk);
  else await desk.openBundle(cutSheet());
  await desk.step('arrange');

  // Their sides, as third angle has them.
  await expect(page.getByTestId('sides-proposed')).toContainText('Side: right, since it lies right of it');
  await axe(page);
  await page.getByRole('radio', { name: 'First angle' }).click();
  await expect(page.getByTestId('sides-proposed')).toContainText('Side: left, since it lies right of it');
  await page.getByRole('radio', { name: 'Third angle' }).click();
  await desk.choose('take-sides');
  await expect(page.getByTestId('side-of-Top').getByRole('radio', { name: 'Top' })).toBeChecked();

  // What they share.
  const { length: long, seat, depth } = BENCH;
  await share(desk, 'level', [
    ['Front', [front(0, 0), front(long, 0)]],
    ['Side', [side(0, 0), side(depth, 0)]],
  ]);
  await share(desk, 'level', [
    ['Front', [front(long / 2, seat)]],
    ['Side', [side(60, seat), side(depth - 90, seat)]],
  ]);
  await share(desk, 'upright', [
    ['Front', [front(0, 200), front(0, seat - 30)]],
    ['Top', [above(0, 60), above(0, depth - 60)]],
  ]);
  await share(desk, 'upright', [['Side', [side(0, 100), side(0, 380)]]]);
  await share(desk, 'upright', [['Side', [side(depth, 100), side(depth, 380)]]]);
  await axe(page);

  // The window is closed in the middle of it, and nothing is lost.
  await desk.saved();
  await page.reload();
  await page.getByTestId('bench').waitFor();
  await expect(page.locator('#bench-drawing')).toBeAttached();
  await desk.step('arrange');
  await desk.openCards();
  await expect(page.getByTestId(/^feature-(Base|Line|Centre|Back)/)).toHaveCount(5);

  // Sizes between them: one that is right, and the one that was drawn wrong.
  const base = page.getByTestId('feature-Base line');
  await base.getByRole('radio', { name: 'Line 2' }).click();
  await desk.type('span-length', `${seat} ± 4`);
  await expect(base.getByTestId('span-says')).toContainText('Comes to 4');
  const edge = page.getByTestId('feature-Back line');
  await edge.getByRole('radio', { name: 'Line 3' }).click();
  await desk.type('span-length', `${WRONG_DEPTH} ± 4`);
  await expect(edge.getByTestId('span-says')).toContainText('It does not belong with the others.');

  // One fit of all.
  await desk.choose('panel-together');
  await expect(page.getByTestId('odd-one')).toContainText(`is said to be ${WRONG_DEPTH} ± 4, and comes to 5`);
  await axe(page);
  await desk.choose('join-all');
  await expect(page.getByTestId('together')).toContainText('All that is known of these views is one fit.');

  // All of it looked at together.
  await desk.choose('panel-look-together');
  const look = page.getByTestId('folded-look');
  await expect(look.locator('img')).toHaveCount(3, { timeout: 30_000 });
  await axe(page);
  const heights = async () =>
    Promise.all(
      ['Front', 'Side'].map(
        async (name) =>
          (await page.getByTestId(`folded-ink-${name}`).getByTestId('folded-line-Base line').boundingBox())!.y,
      ),
    );
  const [one, other] = await heights();
  expect(Math.abs(one! - other!)).toBeLessThan(3);
  const ring = page.getByTestId('turn-ring');
  await ring.focus();
  await page.keyboard.press('ArrowRight');
  await expect(ring).toHaveAttribute('aria-valuenow', '5');
  await page.getByRole('radio', { name: 'From the right' }).click();
  await expect(ring).toHaveAttribute('aria-valuenow', '90');
  await expect(page.getByRole('slider', { name: 'Folded up' })).toHaveValue('1');
  await desk.choose('folded-Side');
  await expect(look).toHaveCount(0);

  // The board of the seat, traced in the side, which has no size of its own.
  const under = seat - BENCH.board;
  await trace(desk, [side(0, under), side(depth, under), side(depth, seat), side(0, seat)]);
  await desk.step('handover');
  const facts = judgeDxf(await desk.download('save-file'));
  const job = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!job.ok) throw new Error(job.code);
  expect([facts.errors, facts.kinds]).toEqual([0, { LWPOLYLINE: 1 }]);
  // A pixel is 1.7 mm on this sheet.
  expect(Math.abs(facts.width - depth)).toBeLessThan(5);
  expect(Math.abs(facts.height - BENCH.board)).toBeLessThan(5);
  // The same board in the front, and both of them in space: as long, as deep and as thick as it is.
  await lookAt(desk, 'Front');
  await trace(desk, [front(0, under), front(long, under), front(long, seat), front(0, seat)]);
  const saved = await saveInSpace(desk);
  await axe(page);
  const { errors, size, least } = judgeInSpace(saved);
  expect(errors).toBe(0);
  [long, depth, BENCH.board].forEach((mm, axis) => expect(Math.abs(size[axis]! - mm)).toBeLessThan(6));
  [0, 0, under].forEach((mm, axis) => expect(Math.abs(least[axis]! - mm)).toBeLessThan(6));
  // What is drawn in the front lies at the front, until it is said to lie at the rear edge.
  const inFront = await judgeInSpaceAfter(desk, 'Outline (Front)');
  expect([inFront.least[1], inFront.size[1]]).toEqual([expect.closeTo(0, 6), expect.closeTo(0, 6)]);
  await desk.step('arrange');
  await desk.choose('panel-together');
  await desk.openCards();
  await page.getByTestId('lies-at-Front').getByRole('radio', { name: 'Line 3' }).click();
  const atRear = await judgeInSpaceAfter(desk, 'Outline (Front)');
  expect(Math.abs(atRear.least[1]! - depth)).toBeLessThan(6);
  expect(atRear.size[1]).toBeCloseTo(0, 6);
  expect(job.value.job.views.map(({ side: shows, joins }) => [shows, joins])).toEqual([
    ['front', true],
    ['right', true],
    ['top', true],
  ]);
});

test('an elevation stands on an edge that is drawn in its plan, and leaves there @wide', async ({ desk, page }) => {
  await desk.openBundle(cutSheet());
  const { length: long, seat, depth } = BENCH;
  await desk.step('arrange');
  await page.getByTestId('side-of-Top').getByRole('radio', { name: 'Top' }).click();
  await page.getByTestId('side-of-Side').getByRole('radio', { name: 'Other face' }).click();
  // The right end of the seat in the plan, from front to back; the end's own outline in the side.
  await lookAt(desk, 'Top');
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.pointAt(above(long, 0), above(long, depth));
  await desk.choose('draw-finish');
  await lookAt(desk, 'Side');
  await trace(desk, [side(0, 0), side(depth, 0), side(depth, seat), side(0, seat)]);

  await desk.step('arrange');
  await desk.choose('panel-together');
  await page.getByTestId('stands-Side').getByTestId('edge-choose').click();
  await expect(page.getByTestId('hint')).toHaveText('Choose the view that it stands on, and tap the edge there.');
  await lookAt(desk, 'Top');
  await desk.pointAt(above(long, depth / 2));
  await expect(page.getByTestId('edge-says')).toContainText(
    /^Stands on an edge in Top, 5[78]\d(\.\d)? mm ±\d+(\.\d)? long\.$/,
  );
  await axe(page);

  const stood = await judgeInSpaceAfter(desk, 'Outline (Side)');
  [long, 0, 0].forEach((mm, axis) => expect(Math.abs(stood.least[axis]! - mm)).toBeLessThan(6));
  [0, depth, seat].forEach((mm, axis) => expect(Math.abs(stood.size[axis]! - mm)).toBeLessThan(6));

  // Slid along its edge, it is found there; undone, it is where it was.
  await desk.step('arrange');
  await desk.choose('panel-together');
  await desk.type('edge-along', '120');
  const slid = await judgeInSpaceAfter(desk, 'Outline (Side)');
  expect(slid.least[1]! - stood.least[1]!).toBeCloseTo(120, 1);
  await page.getByRole('button', { name: /^Undo/ }).click();
  expect((await judgeInSpaceAfter(desk, 'Outline (Side)')).least[1]).toBeCloseTo(stood.least[1]!, 3);

  // Between its two ends, pointed at from the right to the left, both views show two places, and it stands by those.
  await desk.step('arrange');
  await desk.choose('panel-together');
  await page.getByTestId('edge-ends').click();
  await expect(page.getByTestId('hint')).toHaveText('Point at the foot of one end of its edge.');
  await desk.pointAt(side(depth, 0), side(0, 0));
  const card = page.getByTestId('stands-Side');
  await expect(card.getByTestId('edge-by-ends')).toHaveText(
    /^It stands between “[^”]+” and “[^”]+”, which both views show\.$/,
  );
  await expect(card).toContainText('What it shows lies within');
  await axe(page);
  const between = await judgeInSpaceAfter(desk, 'Outline (Side)');
  [long, 0, 0].forEach((mm, axis) => expect(Math.abs(between.least[axis]! - mm)).toBeLessThan(4));
  [0, depth, seat].forEach((mm, axis) => expect(Math.abs(between.size[axis]! - mm)).toBeLessThan(4));
});

test('a view that is said to show the opposite side is found, and one tap puts all right @wide', async ({
  desk,
  page,
}) => {
  const { spans, views, features, ...job } = JSON.parse(readFileSync('public/demo/bench-views.json', 'utf8')) as Job;
  const scan = readFileSync('public/demo/bench-views.jpg');
  const wrong = {
    ...job,
    spans: spans.filter(({ id }) => id !== 'depth'),
    views: views.map((view) => (view.name === 'Side' ? { ...view, side: 'left' as const } : view)),
    // The rear edge is seen from above, too.
    features: features.map((feature) =>
      feature.id === 'rear'
        ? {
            ...feature,
            seen: [...feature.seen, { id: 'rear-top', view: 'bench-top', at: above(400, BENCH.depth), sigma: 2 }],
          }
        : feature,
    ),
  };
  await desk.openBundle(bundleOf(wrong, scan));
  await desk.step('arrange');
  await desk.choose('panel-together');
  const found = page.getByTestId('turned-round-Side');
  await expect(found).toContainText(
    'Everything agrees once Side is seen from the opposite side (right), or mirrored.',
    {
      timeout: 30_000,
    },
  );
  await expect(page.getByTestId('turned-round-Front')).toHaveCount(0);
  await found.getByTestId('turn-side').click();
  await expect(found).toHaveCount(0);
  await expect(page.getByTestId('together')).toHaveText('All that is known of these views is one fit.');
});

/** The sheet's three views with their sides said and each outline's box traced, and nothing said of what they share. */
function tracedSheet(): Buffer {
  const job = JSON.parse(readFileSync('public/demo/bench-views.json', 'utf8')) as Job;
  const scan = readFileSync('public/demo/bench-views.jpg');
  const { length: long, height, depth } = BENCH;
  const back = depth + BENCH_PLACES.leansBack;
  const traced = (id: string, plane: string, corners: readonly Px[]): Job['outlines'][number] => {
    const nodes = corners.map((at, i) => ({
      id: `${id}-${i}`,
      place: { kind: 'pointed' as const, at, sigma: 0.6 },
      smooth: false,
    }));
    return {
      shape: 'chain',
      id,
      plane,
      layer: 'outline',
      closed: true,
      nodes,
      segments: nodes.map(() => ({ kind: 'line' as const })),
    };
  };
  const outlines = [
    traced('f', 'bench-front', [front(0, 0), front(long, 0), front(long, height), front(0, height)]),
    traced('s', 'bench-side', [side(0, 0), side(depth, 0), side(back, height), side(0, BENCH.seat)]),
    traced('t', 'bench-top', [above(0, 0), above(long, 0), above(long, depth), above(0, depth)]),
  ];
  const views = job.views.map(({ joins: _joins, ...view }) => view);
  return bundleOf({ ...job, views, outlines, features: [], spans: [] }, scan);
}

test('where what is drawn ends in several views is proposed as lines that they share, and taken by one tap', async ({
  desk,
  page,
}) => {
  await desk.openBundle(tracedSheet());
  await desk.step('arrange');
  await desk.choose('share-level');
  await desk.openCards();
  const card = page.getByTestId('lines-proposed');
  await expect(card.getByTestId('proposed-Base line')).toContainText('Base line: the lowest in Front and Side');
  await expect(card.getByTestId('proposed-Left end')).toContainText('Left end: the farthest left in Front and Top');
  // The back leans out over the seat: what is farthest back is not the same in the side and from above.
  await expect(card.getByTestId('proposed-Rear edge')).toContainText(
    /It reaches 6\d\d mm ±\d+ in Side and 5\d\d mm ±\d+ in Top: is it the same\?/,
  );
  await expect(page.getByTestId('pencil-line')).toHaveCount(4);
  await axe(page);
  await card.getByTestId('take-lines').click();
  await expect(page.getByTestId(/^feature-(Base line|Top|Left end|Right end)$/)).toHaveCount(4);
  await expect(page.getByTestId('pencil-line')).toHaveCount(0);
  await card.getByTestId('proposed-Front edge').getByTestId('take-line').click();
  await expect(page.getByTestId('feature-Front edge')).toHaveCount(1);
  await desk.choose('panel-together');
  await desk.choose('join-all');
  await expect(page.getByTestId('together')).toHaveText('All that is known of these views is one fit.');
  // One step back is one step.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await desk.choose('share-level');
  await desk.openCards();
  await expect(page.getByTestId('feature-Front edge')).toHaveCount(0);
  await expect(page.getByTestId('feature-Base line')).toHaveCount(1);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId(/^feature-/)).toHaveCount(0);
});

test('a guide and a point of one view are shared with the others, and lie there as high @wide', async ({
  desk,
  page,
}) => {
  await desk.openDemo('bench-views');
  await desk.step('trace');
  await desk.choose('tool-guide');
  await desk.pointAt(front(700, 300));
  await desk.openCards();
  await desk.choose('guide-share-1');
  await expect(page.getByTestId('notice')).toContainText('“Line 2” is shared now');
  await lookAt(desk, 'Side');
  await expect(page.getByTestId('shared-Line 2')).toBeAttached();
  await trace(desk, [side(100, 60), side(400, 60), side(400, 200)]);
  await desk.choose('tool-select');
  // The outline first, and then its point.
  await desk.pointAt(side(250, 60), side(400, 200));
  await desk.choose('edit-share');
  await desk.step('arrange');
  await desk.choose('share-level');
  const upOf = async (name: string) => {
    const says = await page.getByTestId(`feature-${name}`).getByTestId('feature-where').textContent();
    return Number(/up (\d+)/.exec(says!)![1]);
  };
  expect(Math.abs((await upOf('Line 2')) - 300)).toBeLessThan(6);
  expect(Math.abs((await upOf('Place 1')) - 200)).toBeLessThan(6);
});
