/** Zero moved, turned and seen from behind: everything that lies on a plane stays where it is on the thing, whatever kind it is of. */
import fc from 'fast-check';
import {
  add,
  distance,
  findDirection,
  mix,
  nearestOn,
  perpendicular,
  pointAt,
  scale,
  subtract,
  type Vec,
} from '../geometry';
import {
  addDimension,
  cutView,
  addEvidence,
  addGuide,
  addMade,
  addOutline,
  addRegion,
  addRelations,
  addSheet,
  createJob,
  createView,
  mirrorView,
  readJob,
  runCommand,
  setDatum,
  startHistory,
  turnView,
  type Command,
  type Job,
} from '../job';
import { listDangling } from '../job/kinds';
import {
  findGuideLine,
  type Chain,
  type Guide,
  type MadeOutline,
  type Outline,
  type Place,
  type Recipe,
} from '../outline';
import {
  createDeriver,
  findRegionAt,
  findSpan,
  listRims,
  measureDimension,
  namesIn,
  shapesShownIn,
  SAME_PLACE,
} from '.';
import { listRegions } from '../planar';
import { scanOf } from '../job/for-tests';

const sheet = scanOf(4000, 3000);
const pointed = (x: number, y: number) => ({ kind: 'pointed' as const, at: [x, y] as Vec, sigma: 1 });
/** 10 px/mm with zero at the lower left corner of the sheet. */
const placed = (x: number, y: number): Place => ({ kind: 'placed', at: [x, y], seen: [10 * x, 3000 - 10 * y] });
const owned = { plane: 'v', layer: 'outline' };
const chain = (id: string, places: readonly Place[], closed: boolean): Chain => ({
  ...owned,
  shape: 'chain',
  id,
  closed,
  nodes: places.map((place, i) => ({ id: `${id}${i}`, place, smooth: false })),
  segments: Array.from({ length: places.length - (closed ? 0 : 1) }, () => ({ kind: 'line' })),
});
const made = (id: string, recipe: Recipe): MadeOutline => ({ ...owned, shape: 'made', id, recipe });
const from = pointed(800, 900);

const drawn: readonly Outline[] = [
  chain(
    'open',
    [
      from,
      { kind: 'shifted', from, by: [12, 5], seen: [920, 850] },
      { kind: 'aligned', from, angle: 0.4, to: pointed(1500, 700) },
      { kind: 'reach', from: placed(140, 220), length: 25, towards: pointed(1900, 1000) },
      { kind: 'middle', a: placed(200, 210), b: pointed(2200, 600) },
    ],
    false,
  ),
  chain(
    'shut',
    [
      placed(30, 20),
      placed(90, 22),
      pointed(880, 2300),
      { kind: 'shifted', from: placed(30, 60), by: [2, 3], seen: [320, 2370] },
    ],
    true,
  ),
  {
    ...chain('bent', [placed(300, 40), pointed(3500, 2500), pointed(3300, 2100)], false),
    nodes: [
      { id: 'k0', place: placed(300, 40), smooth: true, direction: 0.3 },
      { id: 'k1', place: pointed(3500, 2500), smooth: true, handleOut: [40, -60] },
      { id: 'k2', place: pointed(3300, 2100), smooth: true },
    ],
    segments: [{ kind: 'curve' }, { kind: 'curve' }],
  },
  { ...owned, shape: 'circle', id: 'hole', by: { kind: 'rim', centre: placed(60, 40), rim: pointed(650, 2600) } },
  { ...owned, shape: 'ellipse', id: 'oval', centre: placed(200, 60), end: pointed(2300, 2400), side: placed(200, 70) },
  chain('wall', [placed(120, 120), placed(180, 120), placed(180, 160)], false),
];
const guides: readonly Guide[] = [
  { id: 'axis', plane: 'v', through: placed(250, 100), angle: 1.2, offset: 6 },
  { id: 'between', plane: 'v', through: pointed(500, 500), towards: placed(90, 190), angle: 0, offset: -4 },
  {
    id: 'square',
    plane: 'v',
    through: pointed(500, 500),
    towards: placed(90, 190),
    angle: 0.7,
    offset: 3,
    square: true,
  },
];
const makings: readonly MadeOutline[] = [
  made('beside', { kind: 'offset', of: ['open'], by: 2, both: false, corners: 'round' }),
  made('grown', { kind: 'offset', of: ['shut'], by: 3, both: false, corners: 'mitre' }),
  made('mixed', { kind: 'offset', of: ['shut', 'open'], by: 1.5, both: false, corners: 'round' }),
  made('bothsides', { kind: 'offset', of: ['bent'], by: 1, both: true, corners: 'round' }),
  made('image', { kind: 'mirrored', of: ['shut', 'bent'], guide: 'axis', joined: false }),
  made('rows', { kind: 'rows', of: ['hole'], step: [8, 1], count: 3, rowStep: [-1, 9], rows: 2 }),
  made('around', { kind: 'around', of: ['hole'], centre: placed(60, 80), count: 5, sweep: 2 }),
  made('stood', {
    kind: 'placed',
    of: ['shut', 'open'],
    from: placed(30, 20),
    to: pointed(2500, 2000),
    turn: 0.7,
    mirrored: true,
  }),
  made('less', { kind: 'combined', of: ['shut', 'hole'], how: 'subtracted' }),
  made('besides', { kind: 'offset', of: ['stood'], by: 1, both: false, corners: 'round' }),
  made('house', {
    kind: 'strip',
    of: ['wall'],
    width: 6,
    justified: 'left',
    ends: 'flat',
    corners: 'mitre',
    openings: [
      {
        id: 'd',
        corner: 'wall0',
        way: 'on',
        distance: 15,
        width: 12,
        fill: { kind: 'door', frame: 1, leaf: 1, leaves: 1, hung: { at: 'start', to: 'left', open: 1.2 } },
      },
    ],
  }),
  made('leaves', { kind: 'fittings', of: ['house'], set: 'leaves' }),
  made('swings', { kind: 'fittings', of: ['house'], set: 'swings' }),
];
const job: Job = [
  addSheet(sheet, createView('v', sheet)),
  addEvidence(
    'v',
    {
      id: 'e',
      kind: 'length',
      groups: [['p', 'q']],
      said: { length: { value: 200, written: '200' } },
      guess: false,
      role: 'use',
    },
    [
      { id: 'p', at: [500, 1000], sigma: 1 },
      { id: 'q', at: [2500, 1000], sigma: 1 },
    ],
  ),
  ...drawn.map(addOutline),
  ...guides.map(addGuide),
  ...makings.map((outline) => addMade(outline, false)),
  addRelations([{ id: 'r', plane: 'v', kind: 'level', on: [{ outline: 'shut', segment: 'shut0' }] }]),
  addRegion({ id: 'n', plane: 'v', name: 'Plate', at: [40, 30], kind: 'material' }),
  addRegion({ id: 'm', plane: 'v', name: 'Hole', at: [60, 40], kind: 'opening' }),
  addDimension({ id: 'l', plane: 'v', kind: 'length', on: [{ outline: 'shut', segment: 'shut1' }], aside: 5 }),
  addDimension({ id: 'g', plane: 'v', kind: 'gap', on: [{ outline: 'less' }, { outline: 'house' }], aside: 5 }),
].reduce(runCommand, startHistory(createJob('j', 'Job', new Date(0)))).job;

/** Everything of a job as it lies on the sheet. */
function onSheet(of: Job) {
  const derived = createDeriver()(of);
  const fitted = derived.views.get('v')!;
  const { toSheet } = fitted.fit;
  const rims = listRims(shapesShownIn(of, derived, 'v').filter(({ id }) => ['shut', 'hole'].includes(id)));
  const regions = listRegions(
    rims.map(({ piece }) => piece),
    SAME_PLACE,
  );
  return {
    outlines: new Map(of.outlines.map(({ id }) => [id, derived.shapes.get(id)!.paths.flatMap(({ pieces }) => pieces)])),
    fitted,
    places: (id: string) =>
      derived.shapes
        .get(id)!
        .paths.flatMap(({ pieces }) => pieces)
        .flatMap((piece) => [0.1, 0.5, 0.9].map((t) => toSheet(pointAt(piece, t)))),
    guides: of.guides.map((guide) => findGuideLine(guide, fitted.placing, 100)!),
    names: of.regions.map(({ name, at }) => [name, Math.round(findRegionAt(regions, at)?.area ?? 0)]),
    // Where sizes stand: aside of the middle of what they are read between.
    stands: () =>
      of.dimensions.map((dimension) => {
        const { from: a, to: b } = findSpan(dimension, of.outlines, derived.shapes)!;
        return toSheet(add(mix(a, b, 0.5), scale(perpendicular(findDirection(subtract(b, a))!), dimension.aside)));
      }),
    sizes: of.dimensions.map((dimension) => measureDimension(dimension, { job: of, derived }, derived.shapes)?.value),
  };
}

const angle = fc.double({ min: -4, max: 4, noNaN: true });
const origin = fc.tuple(
  fc.double({ min: 0, max: 4000, noNaN: true }),
  fc.double({ min: 0, max: 3000, noNaN: true }),
) as fc.Arbitrary<Vec>;
const change = fc.oneof(
  angle.map((by) => () => turnView('v', by)),
  fc.constant(() => mirrorView('v')),
  fc.tuple(origin, angle).map(
    ([at, direction]) =>
      (of: Job): Command =>
        setDatum('v', { origin: at, direction }, createDeriver()(of).views.get('v')!.fit.toPlane(at)),
  ),
);

it('nothing leaves its place on the thing', () => {
  const before = onSheet(job);
  const stood = before.stands();
  fc.assert(
    fc.property(fc.array(change, { minLength: 1, maxLength: 4 }), (changes) => {
      const turned = changes.reduce<Job>((of, make) => runCommand(startHistory(of), make(of)).job, job);
      const after = onSheet(turned);
      const { toPlane } = after.fitted.fit;
      for (const { id } of job.outlines) {
        const rims = after.outlines.get(id)!;
        // What lies beside a curve does within the fineness of offsets.
        const near = rims.some(({ kind }) => kind === 'cubic') ? 1 : 6;
        for (const place of before.places(id))
          expect([id, Math.min(...rims.map((piece) => nearestOn(piece, toPlane(place)).distance))]).toEqual([
            id,
            expect.closeTo(0, near),
          ]);
      }
      before.guides.forEach((line, i) => {
        for (const t of [0.3, 0.6])
          expect(
            nearestOn(after.guides[i]!, toPlane(before.fitted.fit.toSheet(pointAt(line, t)))).distance,
          ).toBeLessThan(1e-6);
      });
      expect(after.names).toEqual(before.names);
      expect(after.sizes).toEqual(before.sizes.map((size) => expect.closeTo(size!, 6)));
      after.stands().forEach((place, i) => expect(distance(place, stood[i]!)).toBeLessThan(1e-4));
      expect(listDangling(turned)).toEqual([]);
      expect(readJob(JSON.parse(JSON.stringify(turned))).ok).toBe(true);
    }),
    { seed: 1, numRuns: 25 },
  );
});

it('sizes in a row stay in their row when zero moves or left and right are exchanged, and stand by themselves once level is another', () => {
  const rows = [
    addDimension({
      id: 'x',
      plane: 'v',
      kind: 'across',
      on: [
        { outline: 'shut', node: 'shut0' },
        { outline: 'shut', node: 'shut1' },
      ],
      aside: 5,
      line: 12,
    }),
    addDimension({
      id: 'y',
      plane: 'v',
      kind: 'up',
      on: [
        { outline: 'shut', node: 'shut1' },
        { outline: 'shut', node: 'shut2' },
      ],
      aside: 5,
      line: 110,
    }),
  ].reduce(runCommand, startHistory(job)).job;
  const linesOf = (of: Job) => of.dimensions.slice(-2).map(({ line }) => line);
  const moved = runCommand(startHistory(rows), setDatum('v', { origin: [200, 2900], direction: 0 }, [20, 10])).job;
  expect(linesOf(moved)).toEqual([2, 90]);
  expect(linesOf(runCommand(startHistory(moved), mirrorView('v')).job)).toEqual([2, -90]);
  expect(linesOf(runCommand(startHistory(moved), turnView('v', 0.3)).job)).toEqual([undefined, undefined]);
});

it('a name that was given before there was a scale stays on its region when the scale arrives, and when that changes', () => {
  const { evidence, points } = job.views[0]!;
  const bare: Job = {
    ...job,
    views: [{ ...job.views[0]!, evidence: [], points: [] }],
    regions: [{ id: 'n', plane: 'v', name: 'Plate', at: [400, 500], seen: [400, 2500], kind: 'material' }],
  };
  const named = (of: Job) => {
    const derived = createDeriver()(of);
    const fitted = derived.views.get('v')!;
    const [{ at } = { at: [NaN, NaN] as Vec }] = namesIn(of, derived, 'v');
    return { isOnPlate: distance(fitted.fit.toSheet(at), [400, 2500]) < 1e-6, unit: fitted.fit.scaled };
  };
  const scaled = { ...bare, views: [{ ...bare.views[0]!, evidence, points }] };
  const double = {
    ...bare,
    views: [
      { ...bare.views[0]!, points, evidence: [{ ...evidence[0]!, said: { length: { value: 400, written: '400' } } }] },
    ],
  };
  expect([bare, scaled, double].map(named)).toEqual([
    { isOnPlate: true, unit: false },
    { isOnPlate: true, unit: true },
    { isOnPlate: true, unit: true },
  ]);
});

const placeKnown = addEvidence(
  'v',
  {
    id: 'k',
    kind: 'known-point',
    groups: [['z']],
    said: { across: { value: 70, written: '70' }, up: { value: 30, written: '30' } },
    guess: false,
    role: 'use',
  },
  [{ id: 'z', at: [1000, 2000], sigma: 1 }],
);

it('a place that is known stays the known one, whatever turns', () => {
  const known = runCommand(startHistory(job), placeKnown).job;
  const before = onSheet(known);
  const turned = [
    turnView('v', 0.4),
    setDatum('v', { origin: [100, 100], direction: 1 }, [3, 4]),
    mirrorView('v'),
  ].reduce(runCommand, startHistory(known)).job;
  const after = onSheet(turned);
  expect(distance(after.fitted.fit.toPlane([1000, 2000]), [70, 30])).toBeLessThan(1e-6);
  for (const place of before.places('shut'))
    expect(
      Math.min(
        ...after.outlines.get('shut')!.map((piece) => nearestOn(piece, after.fitted.fit.toPlane(place)).distance),
      ),
    ).toBeLessThan(1e-6);
});

it('a view that shares what is known of another has axes of its own: what is typed in it stays on the thing when they turn', () => {
  const sharing = [
    placeKnown,
    cutView({ ...createView('w', job.sheets[0]!), datum: { origin: [300, 900], direction: 0.2 }, shares: 'v' }),
    addRegion({ id: 'there', plane: 'w', name: 'There', at: [12, -7], kind: 'zone' }),
  ].reduce(runCommand, startHistory(job)).job;
  const sheetOf = (of: typeof job) => {
    const { at } = of.regions.find(({ id }) => id === 'there')!;
    return createDeriver()(of).views.get('w')!.fit.toSheet(at!);
  };
  const before = sheetOf(sharing);
  for (const change of [
    turnView('w', 0.4),
    setDatum(
      'w',
      { origin: [500, 400], direction: -1 },
      createDeriver()(sharing).views.get('w')!.fit.toPlane([500, 400]),
    ),
  ])
    expect(distance(sheetOf(runCommand(startHistory(sharing), change).job), before)).toBeLessThan(1e-6);
});
