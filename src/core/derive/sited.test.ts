/** A plan set on its site: its outlines there, how it keeps from edges, and their plus-minus. */
import { startOf, type Vec } from '../geometry';
import {
  addDimension,
  addEvidence,
  addOutline,
  addSheet,
  addSited,
  changeSiting,
  createView,
  putSetback,
  removeOutlines,
  removeSiting,
  setDatum,
  setSide,
  setOnPlane,
  turnView,
  type Command,
  type Job,
  type Setback,
} from '../job';
import { jobOf, scanOf } from '../job/for-tests';
import type { Chain, Hold, MadeOutline, Siting } from '../outline';
import { distance3, toSpace } from '../space';
import { clearanceOf, createDeriver, drawingInSpace, drawingOf, listStanding, measureDimension, sitedIn } from '.';

/** How a hand was off at every click, px: none, or as `noise` has it. */
type Noise = () => number;
const STEADY: Noise = () => 0;

const CLICK = 1;
const off = ([x, y]: Vec, noise: Noise): Vec => [x + CLICK * noise(), y + CLICK * noise()];

/** A sheet of 4000 × 4000 px with one known length of 3000 px, and zero at its lower left. */
function sheetWith(id: string, perPx: number, noise: Noise): readonly Command[] {
  const sheet = {
    ...scanOf(4000, 4000),
    id: `${id}-sheet`,
    name: id,
    picture: id === 'site' ? 'b'.repeat(64) : 'a'.repeat(64),
  };
  const view = { ...createView(id, sheet), datum: { origin: [0, 4000] as Vec, direction: 0 } };
  const ends = [
    [500, 3800],
    [3500, 3800],
  ] as const;
  return [
    addSheet(sheet, view),
    addEvidence(
      id,
      {
        id: `${id}-length`,
        kind: 'length',
        groups: [[`${id}-p`, `${id}-q`]],
        said: { length: { value: 3000 * perPx, written: '' } },
        plusMinus: 0.001,
        guess: false,
        role: 'use',
      },
      ends.map((at, i) => ({ id: `${id}-${'pq'[i]!}`, at: off(at, noise), sigma: CLICK })),
    ),
  ];
}

/** Corners in mm from the lower left, as a shut chain in a view of so many mm a pixel. */
const chain = (id: string, plane: string, corners: readonly Vec[], perPx: number, noise: Noise): Chain => ({
  shape: 'chain',
  id,
  plane,
  layer: 'outline',
  closed: true,
  nodes: corners.map(([x, y], i) => ({
    id: `${id}${i}`,
    smooth: false,
    place: { kind: 'pointed', at: off([x / perPx, 4000 - y / perPx], noise), sigma: CLICK },
  })),
  segments: corners.map(() => ({ kind: 'line' })),
});

/** A glasshouse of 3 by 2 m in a plan of 1 mm a pixel; a plot on a site of 10 mm a pixel. */
const HOUSE: readonly Vec[] = [
  [500, 1000],
  [3500, 1000],
  [3500, 3000],
  [500, 3000],
];
const PLOT: readonly Vec[] = [
  [5000, 5000],
  [30_000, 10_000],
  [28_000, 35_000],
  [3000, 30_000],
];
const SLOPE = Math.atan2(5000, 25_000);
const holds: readonly Hold[] = [
  {
    id: 'turned',
    kind: 'parallel',
    own: { outline: 'house', segment: 'house0' },
    to: { outline: 'plot', segment: 'plot0' },
    value: 0,
  },
  {
    id: 'away',
    kind: 'off',
    own: { outline: 'house', segment: 'house0' },
    to: { outline: 'plot', segment: 'plot0' },
    value: 4000,
  },
  {
    id: 'slid',
    kind: 'along',
    own: { outline: 'house', node: 'house0' },
    to: { outline: 'plot', segment: 'plot0' },
    value: 6000,
    plusMinus: 40,
  },
];
const siting: Siting = { id: 'set', plane: 'site', of: 'plan', holds, put: { at: [12_000, 12_000], turn: 0 } };
const made: MadeOutline = {
  shape: 'made',
  id: 'there',
  layer: 'outline',
  plane: 'site',
  recipe: { kind: 'sited', of: ['house'], siting: 'set' },
};
const setback: Setback = { id: 'keep', plane: 'site', on: [{ outline: 'plot', segment: 'plot1' }], mm: 5000 };

const siteJob = (noise: Noise = STEADY, ...more: readonly Command[]): Job =>
  jobOf([
    ...sheetWith('plan', 1, noise),
    ...sheetWith('site', 10, noise),
    addOutline(chain('house', 'plan', HOUSE, 1, noise)),
    addOutline(chain('plot', 'site', PLOT, 10, noise)),
    setOnPlane(siting, [made]),
    putSetback(setback),
    ...more,
  ]);
const derive = (job: Job) => createDeriver()(job);
/** From a place of the plot's lower edge, so far along it and so far within. */
const beside = (along: number, within: number): Vec => {
  const [c, s] = [Math.cos(SLOPE), Math.sin(SLOPE)];
  return [5000 + along * c - within * s, 5000 + along * s + within * c];
};
const clearIn = (job: Job, of = siting) => clearanceOf(setback, of, { job, derived: derive(job) });
const isAt = (at: Vec) => [expect.closeTo(at[0], 4), expect.closeTo(at[1], 4)];

it('what is drawn in the plan stands on the site where it is said to, and leaves in its file', () => {
  const job = siteJob();
  const derived = derive(job);
  const corners = derived.shapes
    .get('there')!
    .paths[0]!.pieces.map((piece) => (piece.kind === 'line' ? piece.a : piece));
  expect(corners).toEqual([beside(6000, 4000), beside(9000, 4000), beside(9000, 6000), beside(6000, 6000)].map(isAt));
  const drawing = drawingOf(job, derived, { plane: 'site' });
  expect(drawing.ok && drawing.value.layers[0]!.paths).toHaveLength(2);
  expect(sitedIn(siting, job, derived)).toMatchObject({ slides: undefined, turns: false, lost: [] });
});

it('how far it keeps from an edge, less what it has to and what it overhangs; over it where that is below nothing', () => {
  // The plot's right edge, and the corner of the house that is nearest to it.
  const [a, b] = [PLOT[1]!, PLOT[2]!];
  const awayFrom = ([x, y]: Vec) =>
    ((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0])) / Math.hypot(b[0] - a[0], b[1] - a[1]);
  const corners = [beside(9000, 4000), beside(9000, 6000)];
  const nearest = Math.min(...corners.map(awayFrom));
  const clear = clearIn(siteJob())!;
  expect(clear.margin.value).toBeCloseTo(nearest - 5000, 4);
  expect(clear.from).toEqual(isAt(corners.find((corner) => awayFrom(corner) === nearest)!));
  const overhanging = { ...siting, overhang: 300 };
  expect(clearIn(siteJob(STEADY, changeSiting(overhanging, 'overhang-set')), overhanging)!.margin.value).toBeCloseTo(
    nearest - 5300,
    4,
  );
  const far: Siting = {
    ...siting,
    holds: holds.map((hold) => (hold.id === 'slid' ? { ...hold, value: 24_000 } : hold)),
  };
  const over = clearIn(siteJob(STEADY, changeSiting(far, 'hold-changed')), far)!;
  expect(over.margin.value).toBeCloseTo(
    Math.min(...[beside(27_000, 4000), beside(27_000, 6000)].map(awayFrom)) - 5000,
    4,
  );
  expect(over.margin.value).toBeLessThan(-5000);
});

it('where axes of the plan or of the site are laid anew, it stands where it stood on the thing', () => {
  const gap = {
    id: 'gap',
    plane: 'site',
    kind: 'gap',
    on: [{ outline: 'there' }, { outline: 'plot' }],
    aside: 0,
  } as const;
  const loose: Siting = { ...siting, holds: holds.slice(0, 1), put: { at: [14_000, 13_000], turn: 0.1 } };
  const read = (...more: readonly Command[]) => {
    const job = siteJob(STEADY, changeSiting(loose, 'siting-moved'), addDimension(gap), ...more);
    return measureDimension(gap, { job, derived: derive(job) }, derive(job).shapes)!.value;
  };
  const before = read();
  for (const change of [
    setDatum('plan', { origin: [700, 2500], direction: 0.3 }, [700, 1500]),
    turnView('plan', Math.PI / 2),
    setDatum('site', { origin: [900, 3000], direction: -0.2 }, [9000, 10_000]),
    turnView('site', -1),
  ])
    expect(read(change)).toBeCloseTo(before, 4);
});

it('the plus-minus of a clearance is what clicks of the plan and of the site, both scales, and what was typed make of it', () => {
  let seed = 20_260_514;
  const even = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
  const normal: Noise = () => Math.sqrt(-2 * Math.log(even())) * Math.cos(2 * Math.PI * even());
  const TRIALS = 150;
  const [clear] = [clearIn(siteJob())!];
  const off = Array.from({ length: TRIALS }, () => {
    const slid = 6000 + 20 * normal();
    const said: Siting = {
      ...siting,
      holds: holds.map((hold) => (hold.id === 'slid' ? { ...hold, value: slid } : hold)),
    };
    const read = clearIn(siteJob(normal, changeSiting(said, 'hold-changed')), said)!;
    // As if it had been typed that well.
    return read.margin.value - clear.margin.value;
  });
  const spread = Math.sqrt(off.reduce((sum, value) => sum + value * value, 0) / TRIALS);
  expect(spread / clear.margin.sigma).toBeGreaterThan(0.88);
  expect(spread / clear.margin.sigma).toBeLessThan(1.12);
  // Without what was typed it would be surer: all of it counts.
  const exact: Siting = { ...siting, holds: holds.map(({ plusMinus: _, ...hold }) => hold) };
  expect(clearIn(siteJob(STEADY, changeSiting(exact, 'hold-changed')), exact)!.margin.sigma).toBeLessThan(
    0.9 * clear.margin.sigma,
  );
});

it('what is gone is missed as it should be', () => {
  const later: MadeOutline = { ...made, id: 'later' };
  const without = (command: Command) => siteJob(STEADY, addSited([later]), command);
  const ids = ({ outlines }: Job) => outlines.map(({ id }) => id);
  expect(ids(without(removeSiting('set')))).toEqual(['house', 'plot']);
  const noPlot = without(removeOutlines(['plot']));
  expect([ids(noPlot), noPlot.sitings[0]!.holds, noPlot.setbacks]).toEqual([['house', 'there', 'later'], [], []]);
  expect(ids(without(removeOutlines(['house'])))).toEqual(['plot']);
});

it('in space the site lies under the plan, and what is set there is not drawn twice', () => {
  const job = siteJob(STEADY, setSide('plan', 'top'));
  const derived = derive(job);
  const standing = listStanding(job, derived);
  expect(standing.map(({ view }) => view)).toEqual(['site', 'plan']);
  const [site, plan] = standing;
  // Every corner of the house lies where it lies on the site.
  HOUSE.forEach((corner, i) => {
    const there = derived.shapes.get('there')!.nodes[i] ?? startOf(derived.shapes.get('there')!.finished[i]!);
    expect(distance3(toSpace(site!.pose, there), toSpace(plan!.pose, corner))).toBeLessThan(1e-3);
  });
  const drawing = drawingInSpace(job, derived);
  if (!drawing.ok) throw new Error(drawing.code);
  expect(drawing.value.layers.map(({ name, paths }) => [name, paths.length])).toEqual([
    ['Outline (site)', 1],
    ['Outline (plan)', 1],
  ]);
  expect(listStanding(siteJob(), derive(siteJob()))).toEqual([]);
});
