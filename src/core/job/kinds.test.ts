/** Whatever is taken out, nothing that is left speaks of what is gone. */
import fc from 'fast-check';
import type { Vec } from '../geometry';
import type { Chain, MadeOutline, Outline, Recipe } from '../outline';
import { listDangling } from './kinds';
import {
  addDimension,
  addFeature,
  addGuide,
  addLayer,
  addMade,
  addOutline,
  addPart,
  addRegion,
  addRelations,
  addSheet,
  addSpaceCurve,
  removeFeature,
  addSpan,
  setLiesAt,
  setOnPlane,
  layBeside,
  standByEye,
  putSetback,
  createJob,
  createView,
  cutView,
  declineProposals,
  joinOutlines,
  layOnPlane,
  readJob,
  removeGuide,
  removeLayer,
  removeOutlines,
  removeView,
  replaceOutline,
  runCommand,
  shareFit,
  SITE,
  startHistory,
  undo,
  type Command,
  type Feature,
  type Job,
  type Sheet,
} from '.';

const sheetOf = (id: string): Sheet => ({
  id,
  name: id,
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 2000,
  height: 1000,
  kind: 'scan',
  taken: {},
});
const pointed = (x: number, y: number) => ({ kind: 'pointed' as const, at: [x, y] as Vec, sigma: 1 });
const square = (id: string, plane: string, closed: boolean): Chain => ({
  shape: 'chain',
  id,
  plane,
  layer: 'outline',
  closed,
  nodes: [
    [0, 0],
    [50, 0],
    [50, 50],
    [0, 50],
  ].map(([x, y], i) => ({ id: `${id}${i}`, place: pointed(x!, y!), smooth: false })),
  segments: Array.from({ length: closed ? 4 : 3 }, () => ({ kind: 'line' })),
});
const made = (id: string, plane: string, recipe: Recipe): MadeOutline => ({
  shape: 'made',
  id,
  plane,
  layer: 'extra',
  recipe,
});

/** One view with everything that names anything. */
function viewful(v: string) {
  const [body, hole, line] = [
    square(`${v}body`, v, true),
    square(`${v}hole`, v, true),
    square(`${v}line`, v, false),
  ] as const;
  const outlines: readonly Outline[] = [body, hole, line];
  const makings = [
    made(`${v}less`, v, { kind: 'combined', of: [body.id, hole.id], how: 'subtracted' }),
    made(`${v}both`, v, { kind: 'combined', of: [body.id, hole.id], how: 'united' }),
    made(`${v}image`, v, { kind: 'mirrored', of: [hole.id], guide: `${v}guide`, joined: false }),
    made(`${v}beside`, v, { kind: 'offset', of: [`${v}image`, line.id], by: 2, both: false, corners: 'round' }),
    made(`${v}wall`, v, {
      kind: 'strip',
      of: [line.id],
      width: 5,
      justified: 'middle',
      ends: 'flat',
      corners: 'round',
    }),
    made(`${v}rows`, v, { kind: 'rows', of: [`${v}wall`], step: [9, 0], count: 2, rowStep: [0, 9], rows: 2 }),
    made(`${v}leaves`, v, { kind: 'fittings', of: [`${v}wall`], set: 'leaves' }),
  ];
  return [
    ...outlines.map(addOutline),
    addGuide({ id: `${v}guide`, plane: v, through: pointed(3, 3), angle: 0, offset: 0 }),
    ...makings.map((outline) => addMade(outline, false)),
    addRelations([
      {
        id: `${v}r`,
        plane: v,
        kind: 'parallel',
        on: [
          { outline: body.id, segment: `${v}body0` },
          { outline: hole.id, segment: `${v}hole0` },
        ],
      },
    ]),
    addRegion({ id: `${v}n`, plane: v, name: 'Plate', at: [1, 1], kind: 'material' }),
    addDimension({
      id: `${v}d`,
      plane: v,
      kind: 'gap',
      on: [{ outline: `${v}image` }, { outline: `${v}wall` }],
      aside: 3,
    }),
    addPart({ id: `${v}p`, plane: v, name: 'Part', of: [`${v}less`, `${v}beside`] }),
    addPart({ id: `${v}q`, plane: v, name: 'Hole', of: [hole.id] }),
    declineProposals([{ kind: 'level', on: [{ outline: line.id, segment: `${v}line0` }] }]),
  ];
}

const feature = (id: string, views: readonly string[]): Feature => ({
  id,
  name: id,
  along: 'up',
  said: {},
  seen: views.map((view) => ({ id: `${id}${view}`, view, at: [9, 9], sigma: 1 })),
});
const span = (id: string) => ({ id, said: { value: 90, written: '90' }, guess: false, role: 'use' }) as const;

const job: Job = [
  addLayer({ id: 'extra', name: 'Extra', color: 'ink', show: true, lock: false }),
  addSheet(sheetOf('s'), createView('v', sheetOf('s'))),
  addSheet(sheetOf('t'), createView('w', sheetOf('t'))),
  cutView({ ...createView('x', sheetOf('s')), shares: 'v' }),
  layOnPlane('w', 'v', [], []),
  layOnPlane('v', SITE, [], []),
  ...viewful('v'),
  ...viewful('w'),
  ...viewful('x'),
  addRelations([
    {
      id: 'between',
      plane: 'v',
      kind: 'one-up',
      on: [
        { outline: 'vline', node: 'vline0' },
        { outline: 'xline', node: 'xline1' },
      ],
    },
  ]),
  addFeature(feature('base', ['v', 'w'])),
  addFeature({ ...feature('level', ['v']), said: { up: { value: 2400, written: '2400' } } }),
  addFeature(feature('eaves', ['x'])),
  addSpan({ ...span('rise'), from: 'base', to: 'level' }),
  addSpan({ ...span('over'), from: 'level', to: 'eaves' }),
  setLiesAt('w', 'level'),
  addLayer({ id: 'storey', name: 'Storey', color: 'tide', show: true, lock: false, liesAt: 'level', risesTo: 'eaves' }),
  setOnPlane(
    {
      id: 'set',
      plane: 'w',
      of: 'v',
      holds: [
        {
          id: 'h',
          kind: 'parallel',
          own: { outline: 'vbody', segment: 'vbody0' },
          to: { outline: 'wbody', segment: 'wbody1' },
          value: 0,
        },
        {
          id: 'i',
          kind: 'off',
          own: { outline: 'vline', node: 'vline0' },
          to: { outline: 'wbody', segment: 'wbody2' },
          value: 9,
        },
      ],
      put: { at: [5, 5], turn: 0 },
    },
    [made('sited', 'w', { kind: 'sited', of: ['vbody'], siting: 'set' })],
  ),
  putSetback({ id: 'keep', plane: 'w', on: [{ outline: 'wbody', segment: 'wbody0' }], mm: 3 }),
  layBeside({ id: 'fronts', side: 'front', gap: 30 }),
  ...['v', 'w'].map((plane) =>
    standByEye({
      id: `door-${plane}`,
      plane,
      thing: 'door',
      from: 'above',
      at: { ...pointed(9, 9), view: plane === 'v' ? 'x' : 'w' },
      turn: 0.5,
    }),
  ),
  addSpaceCurve({ id: 'rail', name: 'Rail', of: ['vline', 'wline'], mirrored: 'eaves' }),
  addSpaceCurve({ id: 'hoop', name: 'Hoop', of: ['vline', 'xline'] }),
].reduce(runCommand, startHistory(createJob('j', 'Job', new Date(0)))).job;

/** What is joined or cut is there, and what comes of it lies on its layer. */
const remakings: readonly ((of: Job, v: string) => Command | undefined)[] = [
  (of, v) => {
    const [kept, gone] = [`${v}hole`, `${v}line`].map((id) => of.outlines.find((outline) => outline.id === id));
    return kept && gone ? joinOutlines({ ...square(kept.id, v, true), layer: kept.layer }, gone.id) : undefined;
  },
  (of, v) => {
    const cut = of.outlines.find(({ id }) => id === `${v}line`);
    const { nodes, segments } = square(`${v}line`, v, false);
    return (
      cut &&
      replaceOutline(
        cut.id,
        [{ ...square(`${v}part`, v, false), layer: cut.layer, nodes: nodes.slice(1), segments: segments.slice(1) }],
        'cut-away',
      )
    );
  },
];

const removals = fc
  .oneof(
    fc
      .shuffledSubarray(
        job.outlines.map(({ id }) => id),
        { minLength: 1, maxLength: 3 },
      )
      .map(removeOutlines),
    fc.constantFrom(...job.guides).map(({ id }) => removeGuide(id)),
    fc.constantFrom('v', 'w', 'x').map(removeView),
    fc.constantFrom('extra', 'outline').map(removeLayer),
    fc.constant(shareFit('x', undefined)),
  )
  .map((command) => () => command as Command | undefined);
const changes = fc.oneof(
  { weight: 3, arbitrary: removals },
  {
    weight: 1,
    arbitrary: fc.tuple(fc.constantFrom(...remakings), fc.constantFrom('v', 'w', 'x')).map(
      ([make, v]) =>
        (of: Job) =>
          make(of, v),
    ),
  },
);

it('the job that is taken apart hangs together', () => expect(listDangling(job)).toEqual([]));

it('nothing that is left names what is gone, it can be read, and comes back whole', () => {
  fc.assert(
    fc.property(fc.array(changes, { minLength: 1, maxLength: 6 }), (made) => {
      let history = made.reduce((done, make) => {
        const command = make(done.job);
        return command ? runCommand(done, command) : done;
      }, startHistory(job));
      expect(listDangling(history.job)).toEqual([]);
      expect(readJob(JSON.parse(JSON.stringify(history.job))).ok).toBe(true);
      expect(history.job.parts.every(({ of }) => of.length > 0)).toBe(true);
      while (history.cursor > 0) history = undo(history);
      expect(history.job).toEqual(job);
    }),
    { seed: 1, numRuns: 300 },
  );
});

it('a plane goes with the last view that shows it; what lay on it lies nowhere then', () => {
  expect(job.planes).toEqual([{ id: 'v', liesOn: 'site' }, { id: 'w', liesOn: 'v' }, { id: 'x' }, { id: 'site' }]);
  expect(runCommand(startHistory(job), removeView('v')).job.planes).toEqual([{ id: 'w' }, { id: 'x' }, { id: 'site' }]);
  const shared = runCommand(startHistory(job), cutView({ ...createView('y', sheetOf('s')), plane: 'v' }));
  const still = runCommand(shared, removeView('v')).job;
  expect(still.planes).toEqual(job.planes);
  expect(still.outlines).toEqual(job.outlines);
});

it('a plane does not lie on itself', () => {
  const { planes } = runCommand(startHistory(job), layOnPlane('v', 'v', [], [])).job;
  expect(planes.find(({ id }) => id === 'v')).toEqual({ id: 'v', liesOn: 'site' });
});

it('what goes takes along what stands on it, and no more', () => {
  const ids = (of: Job) => of.outlines.filter(({ plane }) => plane === 'v').map(({ id }) => id.slice(1));
  const without = (...gone: readonly string[]) => runCommand(startHistory(job), removeOutlines(gone)).job;
  // Nothing is left of a plate whose body is gone, however many holes it had; what was united goes on with the other.
  expect(ids(without('vbody'))).toEqual(['hole', 'line', 'both', 'image', 'beside', 'wall', 'rows', 'leaves']);
  expect(without('vbody')).toMatchObject({
    dimensions: [{ id: 'vd' }, { id: 'wd' }, { id: 'xd' }],
    parts: [{ id: 'vp', of: ['vbeside'] }, { id: 'vq' }, {}, {}, {}, {}],
  });
  expect(ids(without('vline'))).toEqual(['body', 'hole', 'less', 'both', 'image', 'beside']);
  expect(without('vline').dimensions.map(({ id }) => id)).toEqual(['wd', 'xd']);
  const guideless = runCommand(startHistory(job), removeGuide('vguide')).job;
  expect(ids(guideless)).toEqual(['body', 'hole', 'line', 'less', 'both', 'beside', 'wall', 'rows', 'leaves']);
  expect(guideless.outlines.find(({ id }) => id === 'vbeside')).toMatchObject({ recipe: { of: ['vline'] } });
  const viewless = runCommand(startHistory(job), removeView('v')).job;
  expect([ids(viewless), viewless.declined.length, viewless.views.map(({ id, shares }) => [id, shares])]).toEqual([
    [],
    2,
    [
      ['w', undefined],
      ['x', undefined],
    ],
  ]);
});

it('a shared line stays while a view shows it or somebody said where it is; what was said between two goes with either', () => {
  const { features, spans } = [removeView('x'), removeView('v')].reduce(runCommand, startHistory(job)).job;
  expect(features.map(({ id, seen }) => [id, seen.length])).toEqual([
    ['base', 1],
    ['level', 0],
  ]);
  expect(spans.map(({ id }) => id)).toEqual(['rise']);
});

it('a curve in space goes with either outline, and stays without what it was mirrored about; a view lies at zero again, a layer with its view', () => {
  const after = (...commands: Command[]) => commands.reduce(runCommand, startHistory(job)).job;
  const curves = ({ spaceCurves }: Job) => spaceCurves.map(({ id, mirrored }) => [id, mirrored]);
  expect(curves(job)).toEqual([
    ['rail', 'eaves'],
    ['hoop', undefined],
  ]);
  expect(curves(after(removeOutlines(['wline'])))).toEqual([['hoop', undefined]]);
  expect(curves(after(removeFeature('eaves')))).toEqual([
    ['rail', undefined],
    ['hoop', undefined],
  ]);
  const storey = ({ layers }: Job) => layers.find(({ id }) => id === 'storey');
  expect(storey(job)).toMatchObject({ liesAt: 'level', risesTo: 'eaves' });
  expect(storey(after(removeFeature('eaves')))).not.toHaveProperty('risesTo');
  expect(storey(after(removeFeature('level')))).toEqual({
    id: 'storey',
    name: 'Storey',
    color: 'tide',
    show: true,
    lock: false,
    risesTo: 'eaves',
  });
  const liesAt = ({ views }: Job) => views.find(({ id }) => id === 'w')!.liesAt;
  expect([liesAt(job), liesAt(after(removeFeature('level'))), after(removeFeature('level')).views.length]).toEqual([
    'level',
    undefined,
    3,
  ]);
});
