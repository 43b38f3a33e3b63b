import { readFileSync } from 'node:fs';
import { planeAsView } from '../src/core/derive';
import { readReference } from '../src/core/formats';
import { expect, judgeDxf, test } from './helpers/desk';
import type { Px } from './helpers/hand';

interface Place {
  readonly mm: Px;
  readonly px: Px;
}
const stones = JSON.parse(readFileSync('demo/truth/stones.json', 'utf8')) as {
  readonly terrace: readonly Place[];
  readonly posts: readonly Place[];
};
const survey = readReference({
  bytes: new Uint8Array(readFileSync('public/demo/pond.dxf')).buffer,
  format: 'dxf',
  placing: 'free',
});
if (!survey.ok) throw new Error(survey.code);
/** Where a place of the survey stands when that is looked at alone, px of its sheet. */
const onSurvey = ({ mm }: Place): Px => planeAsView('site', '', survey.value.bounds).fit.toSheet(mm) as Px;

test('a sketch falls into place on a survey in four taps, and what is traced over it leaves true to the survey, without it @phone', async ({
  desk,
  page,
}) => {
  const [, b, c, d] = stones.terrace as [Place, Place, Place, Place];
  await desk.openDemo('pond');
  await desk.step('fit');
  await desk.choose('panel-match');
  await desk.openCards();
  await desk.choose('match-plane');
  const scale = page.getByTestId('view-fit');
  await expect(scale).toHaveText('no scale yet');
  for (const place of [b, d]) {
    await desk.pointAt(place.px);
    await expect(page.getByTestId('hint')).toHaveText('Point at the same place here.');
    await desk.hand.pointAt(onSurvey(place), 0.4);
    await expect(page.getByTestId('hint')).toHaveText('Point at a place in the picture that is there too.');
  }
  await expect(scale).toContainText('±');
  await expect(page.getByTestId('reference-ink').first()).toBeAttached();
  // A third place is fitted, what is left over is a wobble of the hand that drew it, and one of them can be held.
  await desk.pointAt(c.px);
  await desk.hand.pointAt(onSurvey(c), 0.4);
  await desk.openCards();
  const pairs = page.getByTestId('match-pair');
  await expect(pairs).toHaveCount(3);
  const left = await pairs.allTextContents();
  const off = left.map((text) => Number(/off by ([\d.]+) mm/.exec(text)![1]));
  expect(Math.max(...off)).toBeLessThan(90);
  expect(Math.max(...off)).toBeGreaterThan(1);
  await pairs.first().getByTestId('hold-pair').click();
  await expect(pairs.first()).toContainText('held');
  await desk.choose('match-done');

  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  // The survey is snapped to: what the hand drew is up to 60 mm off, and the survey's own corners come out.
  for (const { px } of [...stones.terrace, stones.terrace[0]!]) await desk.hand.pointAt(px, 0.5);
  await expect(desk.layer('Outline')).toHaveAttribute('aria-label', 'Outline: 1');
  await desk.step('handover');
  const facts = judgeDxf(await desk.download('save-file'));
  expect(facts).toMatchObject({ errors: 0, kinds: { LWPOLYLINE: 1 } });
  expect(Object.keys(facts.kinds)).toHaveLength(1);
  expect(facts.width).toBeCloseTo(5500, 0);
  expect(facts.height).toBeCloseTo(4500, 0);
});

test('existing geometry says its unit and its layers, a world file lays its picture to scale, and what bites is refused @wide', async ({
  desk,
  page,
}) => {
  await page.goto('/');
  await desk.choose('new-job');
  const input = page.getByTestId('picture-files');
  await input.setInputFiles('public/demo/pond.dxf');
  await expect(page.getByTestId('said')).toContainText('“pond”: 54 lines and curves on 5 layers');
  const card = page.getByTestId('reference-pond');
  await expect(card.getByTestId('reference-facts')).toHaveText(/29.06 × 19.12 m, 54 lines and curves/);
  await card.getByRole('radio', { name: 'ft', exact: true }).click();
  await expect(card.getByTestId('reference-facts')).toContainText('ft');
  await card.getByRole('checkbox', { name: 'Layer paths' }).click();
  await expect(card.getByRole('checkbox', { name: 'Layer paths' })).not.toBeChecked();
  await desk.choose('undo');
  await desk.choose('undo');
  await expect(card.getByTestId('reference-facts')).toContainText(' m,');

  // 2 cm to a pixel, its upper left pixel around (4, 17) m of the survey.
  const world = ['0.02', '0', '0', '-0.02', '4.01', '16.99'].join('\n');
  await input.setInputFiles([
    { name: 'above.jpg', mimeType: 'image/jpeg', buffer: readFileSync('public/demo/stones.jpg') },
    { name: 'above.jgw', mimeType: 'text/plain', buffer: Buffer.from(world) },
  ]);
  await expect(page.getByRole('button', { name: /^above, ±/ })).toBeVisible({ timeout: 20_000 });
  await expect(page.getByTestId('reference-ink').first()).toBeAttached();
  await desk.choose('tool-check');
  await desk.hand.pointAt([100, 300], 0.5);
  await desk.hand.pointAt([1100, 300], 0.5);
  await desk.type('length-field', '20 m');
  await expect(page.getByTestId('check-card').getByTestId('evidence-says')).toContainText('agrees');

  await desk.step('sources');
  const said = page.getByTestId('said');
  const bites: readonly (readonly [string, string, RegExp])[] = [
    [
      'script.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="10mm" height="10mm" viewBox="0 0 10 10" onload="document.title=1"><script>document.title=2</script><image href="http://elsewhere.invalid/p.png"/><path d="M0 0H10"/></svg>',
      /one layer; not line work and left out: 1 script, 1 image/,
    ],
    [
      'laughs.svg',
      '<!DOCTYPE svg [<!ENTITY a "ha">]><svg xmlns="http://www.w3.org/2000/svg" width="1" height="1">&a;</svg>',
      /cannot be read as an SVG/,
    ],
    ['rubble.dxf', '0\nSECTION\n2\nENTITIES\n0\nLINE\n10\nnonsense', /cannot be read as a DXF/],
    ['world.geojson', '{"type":"LineString","coordinates":[[0,0],[90,45]]}', /more than a degree/],
    ['alone.tfw', world, /says where a picture lies, but its picture was not chosen/],
  ];
  for (const [name, text, answer] of bites) {
    await input.setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
    await expect(said.filter({ hasText: answer })).toBeVisible();
  }
});
