import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { planeAsView } from '../src/core/derive';
import { readReference } from '../src/core/formats';
import { test, truth } from './helpers/desk';
import type { Px, TouchHand } from './helpers/hand';

const marks = new Map(truth.rule.marks.map(({ mark, px }) => [mark, px]));
const path = (name: string) => `docs/screenshots/${name}.png`;

/** Takes a picture once what moves has come to rest. */
const shooter = (page: Page, size: string) => async (name: string) => {
  await page.getByTestId('ledge-cards').evaluateAll((all) => all.forEach((cards) => cards.scrollTo(0, 0)));
  await page.waitForTimeout(1200);
  await page.screenshot({ path: path(`${name}-${size}`) });
};

test.use({ colorScheme: 'light' });

test('pictures', async ({ desk, page }, { project }) => {
  test.setTimeout(240_000);
  const phone = project.name === 'phone';
  const shoot = shooter(page, project.name);
  await desk.openDemo('blade-finished');
  if (!phone) {
    await desk.step('trace');
    await desk.choose('tool-relate');
    await desk.choose('take-all');
    await desk.hand.zoomTo(truth.blade.holes[1]!.px, 0.42);
    await desk.hand.pointAt(truth.blade.holes[0]!.rimPx[0]!, 0.42);
    await page.getByTestId('chosen-card').waitFor();
    await shoot('relate');
    await desk.choose('undo');
  }
  await desk.saved();
  await page.getByTestId('leave').click();
  await page.getByTestId('job-Pruner blade, finished').waitFor();
  if (!phone) await shoot('jobs');

  await desk.openDemo('blade-start');
  await page.waitForTimeout(800);
  if (phone) await shoot('start');
  await desk.pointAt(truth.card.left, truth.card.right);
  await desk.type('length-field', '85.6');
  await desk.pointAt(marks.get(20)!, marks.get(260)!);
  await desk.type('length-field', '240');
  await desk.choose('zoom-all');
  await desk.openCards();

  await desk.step('trace');
  await desk.choose('tool-line');
  const [line, tangent, curve] = truth.blade.strokes;
  await desk.pointAt(truth.blade.start.px, line!.to.px);
  await desk.choose('tool-tangent');
  await desk.pointAt(tangent!.to.px);
  if (phone) {
    await desk.choose('tool-curve');
    await desk.hand.zoomTo(curve!.to.px, 0.6);
    await (desk.hand as TouchHand).hold(curve!.to.px);
    await shoot('trace');
    await (desk.hand as TouchHand).lift();
  }

  await desk.openDemo('blade-finished');
  await page.waitForTimeout(800);
  if (!phone) {
    await desk.hand.zoomTo([2500, 1500], 0.4);
    const [x, y] = await desk.hand.screenOf(truth.blade.strokes[5]!.to.px);
    await page.mouse.click(x + 40, y - 3);
    await shoot('trace');
  }
  await desk.step('handover');
  await page.getByTestId('read-back-closed').waitFor();
  await shoot('handover');
});

test('the fit', async ({ desk, page }, { project }) => {
  test.setTimeout(240_000);
  const phone = project.name === 'phone';
  const shoot = shooter(page, project.name);
  await desk.openDemo('blade-slanted');
  await desk.step('fit');
  await page.waitForTimeout(1500);
  if (phone) {
    await desk.openCards();
    await page.getByTestId('length-card').last().scrollIntoViewIfNeeded();
    return shoot('fit');
  }
  await shoot('fit');
  await desk.choose('toggle-accuracy');
  await shoot('accuracy');
  await desk.choose('toggle-accuracy');
  await desk.choose('toggle-straight');
  await shoot('straight');
});

test('drawn @wide', async ({ desk, page }, { project }) => {
  if (project.name === 'phone') return;
  const shoot = shooter(page, project.name);
  await desk.openDemo('shed');
  await desk.step('trace');
  await desk.choose('tool-region');
  for (const [place, name] of [
    [[900, 900], 'Potting room'],
    [[1650, 900], 'Store'],
  ] as const) {
    await desk.hand.pointAt(place, 0.3);
    await desk.type('region-name', name);
    await page.getByRole('radio', { name: 'Room' }).click();
  }
  await shoot('plan');
  await desk.openDemo('blade-drawn');
  await desk.step('trace');
  await desk.choose('tool-dimension');
  await page.getByTestId('sizes').waitFor();
  await desk.hand.zoomTo([1700, 1650], 0.3);
  await shoot('sizes');
});

test('bringing in', async ({ desk, page }, { project }) => {
  test.setTimeout(240_000);
  const shoot = shooter(page, project.name);
  if (project.name === 'phone') {
    const { terrace } = JSON.parse(readFileSync('demo/truth/stones.json', 'utf8')) as {
      terrace: readonly { mm: Px; px: Px }[];
    };
    const survey = readReference({
      bytes: new Uint8Array(readFileSync('public/demo/pond.dxf')).buffer,
      format: 'dxf',
      placing: 'free',
    });
    if (!survey.ok) throw new Error(survey.code);
    const { fit } = planeAsView('site', '', survey.value.bounds);
    await desk.openDemo('pond');
    await desk.step('fit');
    await desk.choose('panel-match');
    await desk.choose('match-plane');
    for (const { px, mm } of [terrace[1]!, terrace[3]!, terrace[2]!]) {
      await desk.hand.pointAt(px);
      await desk.hand.pointAt(fit.toSheet(mm) as Px, 0.4);
    }
    await desk.choose('zoom-all');
    await desk.openCards();
    return shoot('match');
  }
  await desk.openDemo('sources');
  await desk.choose('demo-file-bench.pdf');
  await desk.choose('pdf-page-2');
  await desk.choose('pdf-bring');
  await page.getByTestId('view-fit').waitFor();
  await desk.step('sources');
  await desk.choose('straighten');
  await desk.choose('panel-clean');
  await desk.choose('even-out');
  await page.getByTestId('specks-field').fill('8 px');
  await page.getByText(/would go/).waitFor();
  await desk.choose('zoom-all');
  await shoot('clean');
  await desk.openDemo('orchard');
  await desk.step('arrange');
  await desk.choose('panel-site');
  await desk.hand.zoomTo([1065, 310], 3);
  await shoot('site');
});

test('the dark bench @wide', async ({ browser }, { config }) => {
  const context = await browser.newContext({ colorScheme: 'dark', viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const { url, port } = config.webServer as unknown as { url?: string; port?: number };
  await page.goto(url ?? `http://localhost:${port ?? 8717}/`);
  await page.getByTestId('demo-blade-finished').click();
  await page.getByTestId('step-fit').click();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: path('dark-wide') });
  await context.close();
});

test('views together', async ({ desk, page }, { project }) => {
  const phone = project.name === 'phone';
  const shoot = shooter(page, project.name);
  await desk.openDemo(phone ? 'glasshouse' : 'bench-views');
  await desk.step('arrange');
  await desk.choose('panel-together');
  if (!phone) return shoot('arrange');
  await desk.openCards();
  await page.getByTestId('turned-round-Right').getByTestId('turn-mirror').click({ timeout: 60_000 });
  await desk.choose('panel-look-together');
  await page.getByTestId('folded-look').locator('img').nth(4).waitFor({ timeout: 60_000 });
  await page.getByRole('radio', { name: 'From a corner' }).click();
  return shoot('fold');
});
