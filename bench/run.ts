/** Prints measured figures beside their budgets. Nothing here is asserted: figures depend on the machine. */
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { chromium, type Browser, type Page } from 'playwright-core';
import jpeg from 'jpeg-js';
import { median } from '../src/core/basics';
import { createSheetMap, toPlane, toSheet } from '../src/core/calibrate';
import { createDeriver } from '../src/core/derive';
import { writeBundle } from '../src/core/formats';
import { sha256Hex } from '../src/core/pictures';
import { createJob, createView, readJob, type Job, type Sheet } from '../src/core/job';
import type { Outline } from '../src/core/outline';
import { straightenRows } from '../src/core/raster';
import { arrangeTimes, spaceCurveTime } from './arrange';
import { fitTimes } from './fits';
import { contradictedTimes, fitTime } from './lengths';
import { arrangementTime, offsetTime, peerOffsetTime, peerUnionTime, snapTime } from './planar';
import { foldingWork } from './folding';
import { dragTime, ringTime, tieTime } from './relate';
import { workOf, type Work } from './work';
import { sceneTimes } from './scene';
import { measureSources } from './sources';

const PORT = 8719;
const HOME = `http://localhost:${PORT}/`;
const CHROMIUM = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--enable-unsafe-swiftshader',
];

const rows: (readonly [string, string, string])[] = [];
const row = (what: string, measured: string, budget: string) => rows.push([what, measured, budget]);
const milliseconds = (ms: number) => `${ms < 10 ? ms.toFixed(1) : Math.round(ms)} ms`;

/** The fits of a demo's job, from its file on: median of many. */
function demoFitTime(name: string, only?: readonly string[]): number {
  const read = readJob(JSON.parse(readFileSync(`public/demo/${name}.json`, 'utf8')));
  if (!read.ok) throw new Error(read.code);
  const views = read.value.views.map((view) => ({
    ...view,
    evidence: view.evidence.filter(({ id }) => !only || only.includes(id)),
  }));
  const times = Array.from({ length: 15 }, () => {
    const start = performance.now();
    createDeriver()({ ...read.value, views, outlines: [], relations: [], regions: [], dimensions: [] });
    return performance.now() - start;
  });
  return median(times);
}

function loopTime(): number {
  const start = performance.now();
  let sum = 0;
  for (let i = 0; i < 3e8; i++) sum += i * 1.0000001;
  return sum > 0 ? performance.now() - start : 0;
}

/** Time of the fourth run, when the machine has come to know the code. */
function fourthTime(run: () => unknown): number {
  for (let i = 0; i < 3; i++) run();
  const start = performance.now();
  run();
  return performance.now() - start;
}

/** A 12 MP photo squared up at full size, and the same by the picture library's warp, which knows no lens. */
async function straightenTimes(): Promise<void> {
  const { width, height, data } = jpeg.decode(readFileSync('public/demo/blade-slanted.jpg'), {
    useTArray: true,
    maxMemoryUsageInMB: 1024,
  });
  const source = { width, height, data: new Uint8ClampedArray(data.buffer) };
  const map = createSheetMap(
    { width, height },
    { k1: 0.03, k2: 0, centre: [0, 0] },
    [300, 0, 0, 0, 300, 0, 0.02, -0.25, 1],
  );
  const perMm = Math.hypot(width, height) / 2 / 300;
  const corner = toPlane(map, [0.1 * width, 0.1 * height]);
  const ours = () =>
    straightenRows(source, width, 0, height, ([x, y]) => toSheet(map, [corner[0] + x / perMm, corner[1] - y / perMm]));
  row('a 12 MP picture squared up, lens and all', milliseconds(fourthTime(ours)), 'faster than the next line');
  const loaded = (await import('@techstark/opencv-js')).default as unknown;
  const library = (loaded instanceof Promise ? await loaded : loaded) as Record<string, any>; // eslint-disable-line @typescript-eslint/no-explicit-any
  if (!library.Mat) await new Promise<void>((resolve) => (library.onRuntimeInitialized = resolve));
  const [from, to] = [library.matFromImageData(source), new library.Mat()];
  const theirs = () =>
    library.warpPerspective(
      from,
      to,
      library.matFromArray(3, 3, library.CV_64F, [1.1, 0.02, 40, 0.03, 0.9, 60, 2e-5, -6e-5, 1]),
      new library.Size(width, height),
      library.INTER_LINEAR,
    );
  row(
    'a 12 MP picture by warpPerspective of @techstark/opencv-js, no lens',
    milliseconds(fourthTime(theirs)),
    'the peer of the line above',
  );
}

/** A 48 MP sheet of soft colour with 2,000 line segments over it, as a bundle. */
function largeBundle(segments: number): Buffer {
  const [width, height] = [8000, 6000];
  const data = Buffer.alloc(width * height * 4);
  for (let i = 0; i < width * height; i++) data.fill(((i * 7919) >> 13) & 63, 4 * i, 4 * i + 3);
  const picture = jpeg.encode({ width, height, data }, 60).data;
  const sheet: Sheet = {
    id: 's',
    name: 'large',
    picture: sha256Hex(picture),
    mediaType: 'image/jpeg',
    bytes: picture.length,
    width,
    height,
    kind: 'photo',
    taken: {},
  };
  const chains = Array.from({ length: segments / 20 }, (_, c): Outline => ({
    shape: 'chain',
    id: `c${c}`,
    layer: 'outline',
    plane: 'v',
    closed: false,
    nodes: Array.from({ length: 21 }, (_, n) => ({
      id: `n${n}`,
      place: { kind: 'pointed', at: [200 + n * 370, 60 + c * 58 + (n % 2) * 30], sigma: 1 },
      smooth: true,
    })),
    segments: Array.from({ length: 20 }, () => ({ kind: 'line' as const })),
  }));
  const job: Job = {
    ...createJob('large', 'Large', new Date(0)),
    sheets: [sheet],
    views: [createView('v', sheet)],
    planes: [{ id: 'v' }],
    outlines: chains,
  };
  return Buffer.from(writeBundle({ job, pictures: new Map([[sheet.picture, picture]]) }));
}

/** Script and whole main-thread time of one frame while the sheet is dragged. */
async function panWork(page: Page, moves: number): Promise<Work> {
  const box = (await page.getByTestId('bench').boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down({ button: 'middle' });
  const work = await workOf(page, moves, (i) => page.mouse.move(x + 60 * Math.sin(i / 5), y + 40 * Math.cos(i / 5)));
  await page.mouse.up({ button: 'middle' });
  return work;
}

/** Pan over the slanted demo as it was taken, and squared up. */
async function straightWork(browser: Browser): Promise<readonly [Work, Work]> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(HOME);
  await page.getByTestId('demo-blade-slanted').click();
  await page.locator('#bench-drawing').waitFor({ state: 'attached' });
  await page.getByTestId('step-fit').click();
  await page.waitForTimeout(4000);
  const taken = await panWork(page, 40);
  await page.getByTestId('toggle-straight').click();
  await page.waitForTimeout(3000);
  const straight = await panWork(page, 40);
  await page.close();
  return [taken, straight];
}

async function openLarge(browser: Browser, segments: number): Promise<Work> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(HOME);
  await page
    .getByTestId('bundle-file')
    .setInputFiles({ name: 'large.zip', mimeType: 'application/zip', buffer: largeBundle(segments) });
  await page.locator('#bench-drawing').waitFor({ state: 'attached', timeout: 120_000 });
  await page.waitForTimeout(4000);
  const work = await panWork(page, 60);
  await page.close();
  return work;
}

/** Bytes over the wire until the jobs list shows, with nothing cached. */
async function firstVisit(browser: Browser): Promise<number> {
  const context = await browser.newContext();
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  let bytes = 0;
  session.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
  await page.goto(HOME);
  await page.getByText('Try it on a demo').waitFor();
  await page.waitForTimeout(500);
  await context.close();
  return bytes;
}

/** From the file being chosen to its pixels on the bench, a second picture after a first one warmed everything up. */
async function chosenToShown(browser: Browser): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(HOME);
  await page.getByTestId('new-job').click();
  const photo = readFileSync('public/demo/blade.jpg');
  const choose = async (name: string) => {
    const start = performance.now();
    await page.getByTestId('picture-files').setInputFiles({ name, mimeType: 'image/jpeg', buffer: photo });
    await page.getByRole('button', { name: new RegExp(`^${name.replace('.jpg', '')}, `) }).waitFor();
    return performance.now() - start;
  };
  await choose('first.jpg');
  await page.getByTestId('step-sources').click();
  const time = await choose('second.jpg');
  await page.close();
  return time;
}

async function main(): Promise<void> {
  row(
    'a fixed loop of 3·10⁸ additions, to tell how quick this machine is',
    milliseconds(loopTime()),
    '300 to 450 ms on a usual one',
  );
  row('a fit with 20 lengths, as a photo', milliseconds(fitTime(20)), '16 ms');
  row('a fit with 60 lengths, as a photo', milliseconds(fitTime(60)), '60 ms');
  row('a fit with 20 lengths, one of them wrong', milliseconds(fitTime(20, (i) => i === 1)), 'no budget');
  const contradicted = contradictedTimes();
  row(
    '20 lengths, half of them wrong: held up / judged in a worker / had again from that',
    contradicted.map(milliseconds).join(' / '),
    '100 ms / – / 16 ms',
  );
  row('a fit with 400 lengths, as a photo', milliseconds(fitTime(400)), 'a second');
  row(
    'an ordinary fit: a card by its sides and a length, square-on',
    milliseconds(demoFitTime('blade-finished', ['card', 'rule'])),
    '16 ms',
  );
  row(
    'the finished blade: card by its sides, a length, two straight edges, a check',
    milliseconds(demoFitTime('blade-finished')),
    'no budget',
  );
  row(
    'the hardest demo: slanted, bowed, and a size that is wrong',
    milliseconds(demoFitTime('blade-slanted')),
    '100 ms',
  );
  for (const [held, aside, budget] of [
    ['as square-on as by eye', 1, '16 / – / –'],
    ['up to 45° aside', 45, '– / – / 100 ms'],
  ] as const) {
    const times = fitTimes(aside);
    const at = (share: number) => milliseconds(times[Math.floor(share * (times.length - 1))]!);
    row(
      `simulated cameras held ${held}, ${times.length} fits: half / 95 % take less / the longest`,
      [at(0.5), at(0.95), at(1)].join(' / '),
      budget,
    );
  }
  row('120 nodes with 60 pairs of equal lengths', milliseconds(ringTime(true)), '500 ms');
  row('120 nodes with 60 equal lengths, one after the other', milliseconds(ringTime(false)), '500 ms');
  row('a corner dragged among 75 rectangles that hold 300 relations', milliseconds(dragTime(75)), '16 ms');
  row('a place dragged among 60 that are tied between three views', milliseconds(tieTime(60)), '16 ms');
  row(
    '12 views that show 400 places: solved / how well all of it is known',
    sceneTimes(12, 400).map(milliseconds).join(' / '),
    'a second / –',
  );
  row(
    '12 views with 60 shared lines and 300 ties, fitted together: first / after a changed place',
    arrangeTimes().map(milliseconds).join(' / '),
    '300 ms / 50 ms',
  );
  row('a curve in space from two of 200 pieces each', milliseconds(spaceCurveTime(200)), '100 ms');
  const arranged = arrangementTime(5000);
  row(
    `5,000 lines and circles arranged (${arranged.edges} edges)`,
    milliseconds(arranged.milliseconds),
    'the next line is a peer’s part of it',
  );
  row('the 1,000 circles of them united by clipper2-ts, in 64 chords each', milliseconds(peerUnionTime(5000)), '');
  offsetTime(200);
  row('an outline of 1,000 cubics offset, as cubics', milliseconds(offsetTime(1000)), 'a second');
  row('the same in chords by clipper2-ts', milliseconds(peerOffsetTime(1000)), 'the peer of the line above');
  row('the aim caught among 20,000 pieces', milliseconds(snapTime(20_000)), '2 ms');
  await straightenTimes();

  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts', '--port', String(PORT)], {
    stdio: 'ignore',
  });
  await new Promise((resolve) => setTimeout(resolve, 4000));
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM });
  try {
    row(
      'first visit, over the wire, until the first screen is there',
      `${((await firstVisit(browser)) / 1e6).toFixed(2)} MB`,
      '0.9 MB',
    );
    row('a 12 MP photo, from chosen to on the bench', milliseconds(await chosenToShown(browser)), '1500 ms');
    const [taken, straight] = await straightWork(browser);
    row(
      'pan over 12 MP as it was taken: script / main thread a frame',
      `${milliseconds(taken.script)} / ${milliseconds(taken.task)}`,
      'the peer of the next line',
    );
    row(
      'pan over 12 MP squared up: script / main thread a frame',
      `${milliseconds(straight.script)} / ${milliseconds(straight.task)}`,
      'no worse than as it was taken',
    );
    const [alone, drawn] = [await openLarge(browser, 0), await openLarge(browser, 2000)];
    row(
      'pan over 48 MP, the picture alone: script / main thread a frame',
      `${milliseconds(alone.script)} / ${milliseconds(alone.task)}`,
      'the peer of the next line',
    );
    row(
      'pan over 48 MP with 2,000 segments: script / main thread a frame',
      `${milliseconds(drawn.script)} / ${milliseconds(drawn.task)}`,
      'no worse than alone (in software)',
    );
    const folding = await foldingWork(browser, HOME, 80);
    row(
      'folding six views of 12 MP: script / main thread a frame',
      `${milliseconds(folding.script)} / ${milliseconds(folding.task)}`,
      'as a pan over 12 MP, 16 ms at the most',
    );
    await measureSources(browser, HOME, row);
  } finally {
    await browser.close();
    server.kill();
  }
  const widths = [0, 1, 2].map((i) => Math.max(...rows.map((line) => line[i]!.length)));
  for (const line of [['what', 'measured', 'budget'] as const, ...rows])
    console.log(line.map((text, i) => text.padEnd(widths[i]!)).join('  '));
}

void main();
