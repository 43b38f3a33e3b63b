/** Several views of one plane, and several planes of one job: places come through the view they name, and every cause of doubt counts once. */
import { createRandom } from '../calibrate/simulation';
import { add, distance, scale, type Vec } from '../geometry';
import {
  addEvidence,
  addOutline,
  addRelations,
  addSheet,
  createJob,
  createView,
  cutView,
  removeView,
  runCommand,
  startHistory,
  type Command,
  type Evidence,
  type EvidencePoint,
  type Job,
  type Sheet,
  type View,
} from '../job';
import type { Chain, Node } from '../outline';
import type { Relation } from '../relate';
import { createDeriver, measureShapes, type Figured } from '.';

const sheetOf = (id: string): Sheet => ({
  id,
  name: id,
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 3000,
  height: 2400,
  kind: 'scan',
  taken: {},
});

/** A scan that lies exactly to scale: where a place of the plane (mm) is on its sheet, px. */
interface Scan {
  readonly perMm: number;
  readonly zero: Vec;
}
const ONE: Scan = { perMm: 10, zero: [200, 2200] };
const OTHER: Scan = { perMm: 6, zero: [900, 1800] };
const onSheet = ({ perMm, zero }: Scan, [x, y]: Vec): Vec => add(zero, scale([x, -y], perMm));

/** The hand, and what is said: one sigma. px, mm */
const HAND = 1.2;
const SAID = 0.12;

const viewOn = (id: string, sheet: string, more: Partial<View> = {}): View => ({
  ...createView(id, sheetOf(sheet)),
  model: 'similarity',
  lens: 'none',
  ...more,
});

const NOISELESS = () => 0;

function length(id: string, { perMm }: Scan, noise: () => number): readonly [Evidence, readonly EvidencePoint[]] {
  const said = 200 + SAID * noise();
  return [
    {
      id,
      kind: 'length',
      groups: [[`${id}p`, `${id}q`]],
      said: { length: { value: said, written: String(said) } },
      plusMinus: 2 * SAID,
      guess: false,
      role: 'use',
    },
    [
      [300, 400],
      [300 + 200 * perMm, 400],
    ].map(([x, y], i) => ({ id: `${id}${'pq'[i]}`, at: [x! + HAND * noise(), y! + HAND * noise()], sigma: HAND })),
  ];
}

/** Known points: with them a view has the axes of what they are known on. */
const knownPoints = (id: string, scan: Scan, noise: () => number): readonly Command[] =>
  (
    [
      [0, 0],
      [200, 10],
      [30, 150],
    ] as const
  ).map((at, i) => {
    const name = `${id}${i}`;
    const [across, up] = at.map((value) => value + SAID * noise()) as [number, number];
    const [x, y] = onSheet(scan, at);
    return addEvidence(
      id,
      {
        id: name,
        kind: 'known-point',
        groups: [[name]],
        said: { across: { value: across, written: '' }, up: { value: up, written: '' } },
        plusMinus: 2 * SAID,
        guess: false,
        role: 'use',
      },
      [{ id: name, at: [x + HAND * noise(), y + HAND * noise()], sigma: HAND }],
    );
  });

/** A line between places of the plane, each pointed in a view of it. */
function lineOn(
  id: string,
  plane: string,
  ends: readonly (readonly [Vec, Scan, string | undefined])[],
  noise: () => number,
): Chain {
  const nodes = ends.map(([at, scan, view], i): Node => {
    const [x, y] = onSheet(scan, at);
    return {
      id: `${id}${i}`,
      smooth: false,
      place: {
        kind: 'pointed',
        at: [x + HAND * noise(), y + HAND * noise()],
        sigma: HAND,
        ...(view === undefined ? {} : { view }),
      },
    };
  });
  return { shape: 'chain', id, plane, layer: 'outline', closed: false, nodes, segments: [{ kind: 'line' }] };
}

const relation = (id: string, plane: string, kind: Relation['kind'], value?: number): Relation => ({
  id,
  plane,
  kind,
  on: [{ outline: id.slice(1), segment: `${id.slice(1)}0` }],
  ...(value === undefined ? {} : { value }),
});

/** v and w are cut from one scan and share its fit; x and y are two scans of one plane. */
function jobWith(noise: () => number, relations: readonly Relation[] = []): Job {
  const commands: readonly Command[] = [
    addSheet(sheetOf('s'), viewOn('v', 's')),
    addEvidence('v', ...length('e', ONE, noise)),
    cutView(viewOn('w', 's', { shares: 'v', datum: { origin: [800, 1500], direction: 0 } })),
    addSheet(sheetOf('t'), viewOn('x', 't')),
    addSheet(sheetOf('u'), viewOn('y', 'u', { plane: 'x' })),
    ...knownPoints('x', ONE, noise),
    ...knownPoints('y', OTHER, noise),
    ...[
      lineOn(
        'inv',
        'v',
        [
          [[0, 0], ONE, undefined],
          [[100, 0], ONE, undefined],
        ],
        noise,
      ),
      lineOn(
        'inw',
        'w',
        [
          [[20, 30], ONE, undefined],
          [[100, 30], ONE, undefined],
        ],
        noise,
      ),
      lineOn(
        'up',
        'v',
        [
          [[40, 20], ONE, undefined],
          [[40, 90], ONE, undefined],
        ],
        noise,
      ),
      lineOn(
        'both',
        'x',
        [
          [[10, 10], ONE, 'x'],
          [[130, 100], OTHER, 'y'],
        ],
        noise,
      ),
      lineOn(
        'first',
        'x',
        [
          [[20, 120], ONE, undefined],
          [[170, 120], ONE, 'x'],
        ],
        noise,
      ),
      lineOn(
        'other',
        'x',
        [
          [[15, 140], OTHER, 'y'],
          [[180, 140], OTHER, 'y'],
        ],
        noise,
      ),
    ].map(addOutline),
    ...(relations.length > 0 ? [addRelations(relations)] : []),
  ];
  return commands.reduce(runCommand, startHistory(createJob('j', 'Job', new Date(0)))).job;
}

const figuredOf = (job: Job): Figured => ({ job, derived: createDeriver()(job) });

/** A figure of the lengths of some outlines, with its plus-minus. */
const ofLengths = (figured: Figured, ids: readonly string[], figure: (lengths: readonly number[]) => number) =>
  measureShapes(
    figured.job.outlines.filter(({ id }) => ids.includes(id)),
    figured,
    (shapes) => figure(ids.map((id) => distance(...(shapes.get(id)!.nodes as unknown as readonly [Vec, Vec])))),
  );

it('what is pointed in several views of a plane lies where each of them has it', () => {
  const job = jobWith(NOISELESS);
  const { planes, shapes, views } = createDeriver()(job);
  expect([...planes].map(([id, seen]) => [id, seen.views.map(({ view }) => view.id)])).toEqual([
    ['v', ['v']],
    ['w', ['w']],
    ['x', ['x', 'y']],
  ]);
  const [from, to] = shapes.get('both')!.nodes as unknown as readonly [Vec, Vec];
  expect(distance(from, [10, 10])).toBeLessThan(1e-6);
  expect(distance(to, [130, 100])).toBeLessThan(1e-6);
  // A place that names no view is of the first.
  expect(distance(shapes.get('first')!.nodes[0]!, [20, 120])).toBeLessThan(1e-6);
  expect(views.get('y')!.fit.toSheet([15, 140])[0]).toBeCloseTo(onSheet(OTHER, [15, 140])[0], 5);
});

it('where some views of a plane have no scale, those count that have, and what is pointed in others has no place', () => {
  const lost = lineOn(
    'lost',
    'x',
    [
      [[10, 10], ONE, 'z'],
      [[90, 10], ONE, 'x'],
    ],
    NOISELESS,
  );
  const { job } = [addSheet(sheetOf('bare'), viewOn('z', 'bare', { plane: 'x' })), addOutline(lost)].reduce(
    runCommand,
    startHistory(jobWith(NOISELESS)),
  );
  const { planes, shapes } = createDeriver()(job);
  expect(planes.get('x')!.views.map(({ view }) => view.id)).toEqual(['x', 'y']);
  expect(shapes.get('lost')!.faults.length).toBeGreaterThan(0);
  expect(shapes.get('both')!.faults).toEqual([]);
});

it('a view goes with what was pointed in it, and what was pointed in others of its plane stays', () => {
  const { job } = runCommand(startHistory(jobWith(NOISELESS)), removeView('y'));
  expect(job.outlines.map(({ id }) => id)).toEqual(['inv', 'inw', 'up', 'first']);
  expect(job.planes.map(({ id }) => id)).toEqual(['v', 'w', 'x']);
});

it('views that share a fit are wrong together: the ratio of two lengths is better known than each of them', () => {
  const figured = figuredOf(jobWith(NOISELESS));
  const whole = ofLengths(figured, ['inv'], ([a]) => a!);
  const [ratio, difference] = [
    ofLengths(figured, ['inv', 'inw'], ([a, b]) => (100 * a!) / b!),
    ofLengths(figured, ['inv', 'inw'], ([a, b]) => a! - (100 / 80) * b!),
  ];
  // Two ends each: the hand alone, 1.2 px at 10 px/mm.
  const hand = Math.hypot((Math.SQRT2 * HAND) / 10, (100 / 80) * ((Math.SQRT2 * HAND) / 10));
  expect(difference.sigma / hand).toBeCloseTo(1, 3);
  expect(ratio.sigma / (hand * (100 / 80))).toBeCloseTo(1, 3);
  expect(whole.sigma).toBeGreaterThan(Math.hypot((Math.SQRT2 * HAND) / 10, SAID / 2));
});

/** What is said on planes of one view and of two; sizes move all fits that they are read through. */
const SAYINGS: Readonly<Record<string, readonly Relation[]>> = {
  'shapes alone': [relation('rinv', 'v', 'level'), relation('rboth', 'x', 'direction', Math.atan2(90, 120))],
  sizes: [relation('rup', 'v', 'length', 70), relation('rother', 'x', 'length', 165)],
};
const FIGURES: Readonly<Record<string, readonly [readonly string[], (lengths: readonly number[]) => number, number]>> =
  {
    'one line': [['inv'], ([a]) => a!, 100],
    'lines of two planes that share a fit': [['inv', 'inw'], ([a, b]) => a! + b!, 180],
    'lines of two planes with fits of their own': [['inv', 'both'], ([a, b]) => a! + b!, 250],
    'a line between two views': [['both'], ([a]) => a!, 150],
    'a line beside one of which something is said': [['first', 'both'], ([a, b]) => a! - b!, 0],
  };
const RUNS = 300;

it.each(Object.entries(SAYINGS))('with %s said, two sigma hold what they say, on whichever planes', (_, relations) => {
  const noise = createRandom(7).normal;
  const within = Object.fromEntries(Object.keys(FIGURES).map((name) => [name, 0]));
  for (let run = 0; run < RUNS; run++) {
    const figured = figuredOf(jobWith(noise, relations));
    for (const [name, [ids, figure, truth]] of Object.entries(FIGURES)) {
      const { value, sigma } = ofLengths(figured, ids, figure);
      within[name]! += Math.abs(value - truth) <= 2 * sigma ? 1 : 0;
    }
  }
  const shares = Object.entries(within).map(([name, count]) => [name, (100 * count) / RUNS] as const);
  expect(shares.filter(([, share]) => share < 92 || share > 98)).toEqual([]);
});
