/** A glasshouse from its plan and four sides: the side that was scanned from behind is found, the one without a size takes it from the others, heights go from the sides into the plan, and all of it leaves in space. */
import { readdirSync, readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { join } from 'node:path';
import { SEEN } from '../demo/jobs-glasshouse';
import { GLASSHOUSE } from '../demo/scenes/glasshouse';
import type { Job } from '../src/core/job';
import { axe } from './helpers/axe';
import { bundleOf } from './helpers/bundle';
import { readBundle } from '../src/core/formats';
import { expect, test, type Desk } from './helpers/desk';
import { drawOnLevel, judgeInSpace, lookAt, saveInSpace } from './helpers/in-space';

const { length: long, width: wide, eaves, ridge, gutter, hatch, door } = GLASSHOUSE;
/** Of sheets of which a pixel is 3 to 4 mm; and of a sketch, which is drawn off by centimetres. mm */
const [NEAR, SKETCHED] = [10, 60];

const isNear = (found: readonly number[], truly: readonly number[], within = NEAR) =>
  found.forEach((mm, axis) => expect(Math.abs(mm - truly[axis]!)).toBeLessThan(within));

async function traceBack(desk: Desk): Promise<void> {
  await lookAt(desk, 'Back');
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt(SEEN.back(0, 0), SEEN.back(long, 0), SEEN.back(long, ridge), SEEN.back(0, ridge));
  await desk.openCards();
  await desk.choose('draw-close');
}

test('a plan and four sides become one glasshouse in space, the side that was scanned from behind and all', async ({
  desk,
  page,
}) => {
  await desk.openDemo('glasshouse');
  await desk.step('arrange');
  await desk.choose('panel-together');
  await desk.openCards();
  const found = page.getByTestId('turned-round-Right');
  await expect(found).toContainText(
    'Everything agrees once Right is seen from the opposite side (left), or mirrored.',
    {
      timeout: 60_000,
    },
  );
  // The others stand without it.
  const together = page.getByTestId('together');
  await expect(together).toContainText('All that is known of the other views is one fit.');
  await expect(together).toContainText('What Right shows fits none of the others: it is left out');
  await axe(page);
  await found.getByTestId('turn-mirror').click();
  await expect(found).toHaveCount(0);
  await expect(together).toHaveText('All that is known of these views is one fit.', { timeout: 30_000 });

  // The window is closed in the middle of it.
  await desk.saved();
  await page.reload();
  await page.getByTestId('bench').waitFor();
  await expect(page.locator('#bench-drawing')).toBeAttached();

  await lookAt(desk, 'Plan');
  await drawOnLevel(desk, 'Ridge', SEEN.above(0, wide / 2), SEEN.above(long, wide / 2));
  await traceBack(desk);
  const file = await saveInSpace(desk);
  const all = judgeInSpace(file);
  expect(all.errors).toBe(0);
  isNear(all.size, [long, wide + 2 * gutter, ridge], SKETCHED);

  // Heights of the sides are in the plan.
  const [gutters, ridgeLine] = ['Gutter (Plan)', 'Ridge (Plan)'].map((layer) => judgeInSpace(file, layer));
  isNear([...gutters!.least, ...gutters!.size], [0, -gutter, eaves, long, wide + 2 * gutter, 0]);
  isNear([...ridgeLine!.least, ...ridgeLine!.size], [0, wide / 2, ridge, long, 0, 0]);
  // What is in the right gable stands where it does in the plan, as high as it was drawn.
  const opening = judgeInSpace(file, 'Openings (Right)');
  isNear([...opening.least, ...opening.size], [long, hatch.from, 0, 0, hatch.width, hatch.height]);
  // The back has its size from the others.
  const back = judgeInSpace(file, 'Outline (Back)');
  isNear([...back.least, ...back.size], [0, wide, 0, long, 0, ridge], SKETCHED);
});

const PICTURES = readdirSync('public/demo')
  .filter((name) => /^glasshouse.*\.jpg$/.test(name))
  .map((name) => readFileSync(join('public/demo', name)));
const bundled = (job: Job) => bundleOf(job, ...PICTURES);

/** The glasshouse with a back of which nothing is said yet: not which side it shows, nor what it shares with the others. */
function backUnsaid(): Buffer {
  const job = JSON.parse(readFileSync('public/demo/glasshouse.json', 'utf8')) as Job;
  const back = job.views.find(({ name }) => name === 'Back')!.id;
  const bare: Job = {
    ...job,
    views: job.views.map(({ side, joins, liesAt, ...view }) =>
      view.id === back
        ? { ...view, side: 'face' as const }
        : { ...view, side, joins, liesAt, ...(view.name === 'Right' ? { mirrored: true } : {}) },
    ),
    features: job.features.map((feature) => ({ ...feature, seen: feature.seen.filter(({ view }) => view !== back) })),
  };
  return bundled(bare);
}

test('a sketch without a size stands between the ends of its edge in the plan, as large as that says @phone', async ({
  desk,
  page,
}) => {
  await desk.openBundle(backUnsaid());
  await desk.step('arrange');
  await desk.choose('panel-together');
  await desk.openCards();
  const card = page.getByTestId('stands-Back');
  await card.getByTestId('edge-choose').click();
  await lookAt(desk, 'Plan');
  await desk.closeCards();
  await desk.pointAt(SEEN.above(0.6 * long, wide));
  await desk.openCards();
  await expect(card.getByTestId('edge-says')).toHaveText(
    'It has no size of its own yet. Point at both ends of its edge in it, and it is as large as that is; or set its scale under Fit.',
  );
  await card.getByTestId('edge-ends').click();
  await desk.closeCards();
  await desk.pointAt(SEEN.back(0, 0), SEEN.back(long, 0));
  // It runs level where the ground does.
  await desk.choose('share-level');
  await desk.openCards();
  await page.getByTestId('feature-Ground').getByTestId('feature-point').click();
  await desk.closeCards();
  await desk.pointAt(SEEN.back(0, 0), SEEN.back(long, 0));
  await desk.openCards();
  await desk.choose('share-done');
  await desk.choose('panel-together');
  await card.getByTestId('join').click();
  await expect(card.getByTestId('edge-says')).toContainText(/^Stands on an edge in Plan, \d\D?\d{3} mm/);
  await axe(page);
  await traceBack(desk);
  const back = judgeInSpace(await saveInSpace(desk), 'Outline (Back)');
  isNear([...back.least, ...back.size], [0, wide, 0, long, 0, ridge], SKETCHED);
});

/** The glasshouse with walls in its plan. */
function walled(): Buffer {
  const job = JSON.parse(readFileSync('public/demo/glasshouse.json', 'utf8')) as Job;
  const { plane, layer } = job.outlines.find(({ id }) => id === 'house')!;
  return bundled({
    ...job,
    outlines: [
      ...job.outlines.map((outline) => (outline.id === 'house' ? { ...outline, aid: true } : outline)),
      {
        shape: 'made',
        id: 'walls',
        plane,
        layer,
        recipe: { kind: 'strip', of: ['house'], width: 60, justified: 'middle', ends: 'flat', corners: 'mitre' },
      },
    ],
  });
}

test('the door of an elevation is an opening of the plan, and told where the two differ later @wide', async ({
  desk,
  page,
}) => {
  await desk.openBundle(walled());
  await lookAt(desk, 'Left');
  await desk.step('trace');
  await desk.choose('tool-select');
  await desk.pointAt(SEEN.left(door.from + door.width / 2, door.height));
  await expect(page.getByTestId('opening-offer')).toContainText(
    /^It lies in a wall of Plan: \d+(\.\d+)? mm ±\d+(\.\d+)? wide, from the floor to [\d.]+ mm ±\d+(\.\d+)? above it\./,
  );
  await axe(page);
  await desk.choose('opening-read');
  await expect(page.getByTestId('opening-elsewhere')).toContainText('D1 in Plan is as it is drawn in Left.');

  await lookAt(desk, 'Plan');
  await desk.choose('tool-wall');
  await desk.choose('wall-openings');
  await page.getByTestId('opening-row-D1').getByRole('button').click();
  const elsewhere = page.getByTestId('opening-elsewhere');
  await expect(elsewhere).toContainText('D1 in Plan is as it is drawn in Left.');
  await desk.type('opening-width', String(door.width + 150));
  await expect(elsewhere).toContainText(/a side of it is off by 1[45]\d(\.\d+)? mm\./);
  await axe(page);
  await desk.choose('opening-again');
  await expect(elsewhere).toContainText('D1 in Plan is as it is drawn in Left.');

  await desk.step('handover');
  const table = Papa.parse<Record<string, string>>(readFileSync(await desk.download('save-openings'), 'utf8'), {
    header: true,
    skipEmptyLines: true,
  });
  const [row] = table.data;
  expect([row!.mark, row!.what]).toEqual(['D1', 'door']);
  isNear([Number(row!['width mm']), Number(row!['height mm'])], [door.width, door.height]);
  const bundle = readBundle(readFileSync(await desk.download('save-bundle')));
  if (!bundle.ok) throw new Error(bundle.code);
  const wall = bundle.value.job.outlines.find(({ id }) => id === 'walls');
  const [opening] = wall?.shape === 'made' && wall.recipe.kind === 'strip' ? (wall.recipe.openings ?? []) : [];
  // The left end runs from the back to the front in the plan: the door is counted from the back.
  isNear([opening!.distance], [wide - door.from - door.width]);
});
