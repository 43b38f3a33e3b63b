/** A bent tang, drawn from the front and from above, becomes one curve in space: traced, made, looked at, kept through a reload, and judged in its file against the truth. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { scanner } from '../demo/generator/scan';
import { ABOVE, onTang, trowelViews } from '../demo/scenes/trowel';
import type { Job } from '../src/core/job';
import { axe } from './helpers/axe';
import { bundleOf } from './helpers/bundle';
import { expect, test, type Desk } from './helpers/desk';
import type { Px } from './helpers/hand';
import { lookAt, saveInSpace } from './helpers/in-space';

const { project } = scanner(trowelViews);
const inFront = (t: number): Px => project([onTang(t)[0], onTang(t)[2]]);
const fromAbove = (t: number): Px => project([onTang(t)[0], ABOVE + onTang(t)[1]]);
const SHARES = [0, 0.18, 0.36, 0.5, 0.64, 0.82, 1];

/** Both views stand, and nothing is drawn on them. */
function undrawn(): Buffer {
  const job = JSON.parse(readFileSync('public/demo/trowel.json', 'utf8')) as Job;
  const scan = readFileSync('public/demo/trowel.jpg');
  return bundleOf({ ...job, outlines: [], spaceCurves: [] }, scan);
}

async function traceTang(desk: Desk, view: string, place: (t: number) => Px): Promise<void> {
  await lookAt(desk, view);
  await desk.step('trace');
  await desk.choose('tool-curve');
  await desk.closeCards();
  await desk.pointAt(...SHARES.map(place));
  await desk.openCards();
  await desk.choose('draw-finish');
}

/** Where Debian's python3-ezdxf finds the splines of a layer to run, mm. */
function splinesIn(file: string, layer: string): readonly (readonly [number, number, number])[] {
  const script = `
import sys, json, ezdxf
doc = ezdxf.readfile(sys.argv[1]); audit = doc.audit(); assert not audit.errors and not audit.fixes
print(json.dumps([list(p) for s in doc.modelspace().query("SPLINE") if s.dxf.layer == sys.argv[2] for p in s.flattening(0.001)]))`;
  return JSON.parse(execFileSync('/usr/bin/python3', ['-c', script, file, layer], { encoding: 'utf8' })) as [
    number,
    number,
    number,
  ][];
}

const truth = Array.from({ length: 5001 }, (_, i) => onTang(i / 5000));
const awayFromTruth = (at: readonly number[]) =>
  Math.min(...truth.map((place) => Math.hypot(...place.map((value, axis) => value - at[axis]!))));
const trueLength = truth
  .slice(1)
  .reduce((sum, at, i) => sum + Math.hypot(...at.map((value, axis) => value - truth[i]![axis]!)), 0);

/** Value and plus-minus of a figure. mm */
async function figure(desk: Desk, testId: string): Promise<readonly number[]> {
  const text = (await desk.page.getByTestId(testId).textContent())!;
  return [...text.matchAll(/\d+(\.\d+)?/g)].map(([number]) => Number(number));
}

test('a bent tang stands in space from its front and its top, and leaves as the curve that it is @wide', async ({
  desk,
  page,
}) => {
  await desk.openBundle(undrawn());
  await traceTang(desk, 'Front', inFront);
  await traceTang(desk, 'Top', fromAbove);

  await desk.step('arrange');
  await desk.choose('panel-curves');
  await desk.closeCards();
  // Where nothing lies nothing is chosen; two outlines of one view make no curve.
  await desk.pointAt(project([200, ABOVE + 40]));
  await expect(page.getByTestId('hint')).toContainText('Tap an outline that shows the curve from this side.');
  await desk.pointAt(fromAbove(0.5));
  await expect(page.getByTestId('hint')).toContainText('Choose a view from a neighbouring side');
  await lookAt(desk, 'Front');
  await expect(page.getByTestId('hint')).toContainText('Tap the outline that shows the same curve from here.');
  await desk.pointAt(inFront(0.5));
  await desk.openCards();
  const card = page.getByTestId('space-curve-Curve 1');
  await expect(card).toContainText('Of an outline in Top and one in Front');
  await axe(page);
  const [long, longOff] = await figure(desk, 'curve-length');
  const [within] = await figure(desk, 'curve-plus-minus');
  expect(Math.abs(long! - trueLength)).toBeLessThan(1.5 * longOff!);
  expect(within!).toBeLessThan(2);
  await expect(page.getByTestId('curve-missing')).toHaveCount(0);

  // Mirrored about a line that the views share, called by its name, and all of it still there after the window was closed.
  await card.getByRole('radio', { name: 'Middle of the blade' }).click();
  await desk.type('curve-name', 'Tang');
  await desk.saved();
  await page.reload();
  await page.getByTestId('bench').waitFor();
  await expect(page.locator('#bench-drawing')).toBeAttached();
  await desk.step('arrange');
  await desk.choose('panel-curves');
  await desk.openCards();
  await expect(page.getByTestId('space-curve-Tang').getByRole('radio', { name: 'Middle of the blade' })).toBeChecked();
  await page.getByTestId('space-curve-Tang').getByRole('radio', { name: 'None' }).click();

  // Folded up, it stands between its two views.
  await desk.choose('panel-look-together');
  await expect(page.getByTestId('folded-look')).toBeVisible();
  await expect(page.getByTestId('space-Tang')).toHaveCount(0);
  await page.getByRole('radio', { name: 'From a corner' }).click();
  await expect(page.getByRole('slider', { name: 'Folded up' })).toHaveValue('1');
  await expect(page.getByTestId('space-Tang')).toHaveCount(1);
  await axe(page);

  const places = splinesIn(await saveInSpace(desk), 'Tang (in space)');
  expect(places.length).toBeGreaterThan(50);
  expect(Math.max(...places.map(awayFromTruth))).toBeLessThan(1.5 * within!);
  for (const end of [onTang(0), onTang(1)])
    expect(Math.min(...places.map((at) => Math.hypot(...at.map((value, axis) => value - end[axis]!))))).toBeLessThan(
      1.5 * within!,
    );
});
