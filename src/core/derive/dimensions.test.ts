import {
  compare,
  countPart,
  createDeriver,
  findSpan,
  kindsFor,
  listParts,
  listRow,
  measureDimension,
  measureSaid,
  sharesOf,
  wholeEnds,
} from '.';
import { writePartsTable } from '../formats';
import {
  addEvidence,
  addMade,
  addOutline,
  addPart,
  removeOutlines,
  addSheet,
  createJob,
  createView,
  readJob,
  replaceOutline,
  addDimension,
  addRelations,
  runCommand,
  startHistory,
  type Command,
  type DimensionKind,
  type Evidence,
} from '../job';
import type { Chain, CircleOutline, MadeOutline, Recipe, Shape } from '../outline';
import type { RelationEnd, RelationKind } from '../relate';
import { formatSlope } from '../units';
import { scanOf } from '../job/for-tests';

const sheet = scanOf(2000, 1000);
const length: Evidence = {
  id: 'e',
  kind: 'length',
  groups: [['p', 'q']],
  said: { length: { value: 100, written: '100' } },
  guess: false,
  role: 'use',
};
const at = (x: number, y: number) => ({ kind: 'pointed' as const, at: [x, y] as const, sigma: 1 });
/** A roof of 3 in 12 over a base of 48 mm at 10 px/mm, and a hole of 8 mm. */
const roof: Chain = {
  shape: 'chain',
  id: 'roof',
  layer: 'outline',
  plane: 'v',
  closed: true,
  nodes: [
    [100, 700],
    [580, 700],
    [580, 580],
  ].map(([x, y], i) => ({ id: `n${i}`, place: at(x!, y!), smooth: false })),
  segments: [{ kind: 'line' }, { kind: 'line' }, { kind: 'line' }],
};
const hole: CircleOutline = {
  shape: 'circle',
  id: 'hole',
  layer: 'outline',
  plane: 'v',
  by: { kind: 'rim', centre: at(300, 300), rim: at(340, 300) },
};
const side = (i: number): RelationEnd => ({ outline: 'roof', segment: `n${i}` });
const corner = (i: number): RelationEnd => ({ outline: 'roof', node: `n${i}` });
const commands: readonly Command[] = [
  addSheet(sheet, createView('v', sheet)),
  addEvidence('v', length, [
    { id: 'p', at: [0, 900], sigma: 1 },
    { id: 'q', at: [1000, 900], sigma: 1 },
  ]),
  addOutline(roof),
  addOutline(hole),
];
const history = commands.reduce(
  (now, command) => runCommand(now, command),
  startHistory(createJob('j', 'Job', new Date(0))),
);
const { job } = history;
const derived = createDeriver()(job);

it.each<[DimensionKind, readonly RelationEnd[], number]>([
  ['length', [side(0)], 48],
  ['slope', [side(2)], Math.atan2(3, 12)],
  ['angle', [side(0), side(2)], Math.atan2(3, 12)],
  ['diameter', [{ outline: 'hole' }], 8],
  ['radius', [{ outline: 'hole' }], 4],
  ['length', [{ outline: 'hole' }], 8 * Math.PI],
  ['distance', [corner(0), corner(2)], Math.hypot(48, 12)],
  ['across', [corner(0), corner(2)], 48],
  ['up', [corner(0), corner(2)], 12],
  ['distance', [{ outline: 'hole', node: 'centre' }, side(0)], 40],
  ['across', [corner(0)], 10],
])('%s of %j', (kind, on, value) => {
  expect(kindsFor(on, job.outlines, derived.shapes)).toContain(kind);
  const measured = measureDimension({ kind, on }, { job, derived }, derived.shapes)!;
  expect(measured.value).toBeCloseTo(value, 6);
  expect(measured.sigma).toBeGreaterThan(0);
  expect(compare(measured, value + 1.9 * measured.sigma).isWithin).toBe(true);
  expect(compare(measured, value + 2.1 * measured.sigma).isWithin).toBe(false);
});

it.each<[RelationKind, readonly RelationEnd[], number | undefined]>([
  ['length', [side(0)], 48],
  ['radius', [{ outline: 'hole' }], 8],
  ['distance', [{ outline: 'hole', node: 'centre' }, side(0)], 40],
  ['angle', [side(0), side(2)], Math.atan2(3, 12)],
  ['direction', [side(2)], Math.atan2(3, 12)],
  ['direction', [side(1)], Math.PI / 2],
  ['across', [corner(0)], 10],
  ['up', [{ outline: 'hole', node: 'centre' }], -30 + 100],
  ['level', [side(0)], undefined],
  ['across', [{ outline: 'none', node: 'n0' }], undefined],
])('what %s said of %j comes to now', (kind, on, value) => {
  const measured = measureSaid(kind, on, { job, derived }, derived.shapes);
  if (value === undefined) return expect(measured).toBeUndefined();
  expect(Math.abs(measured!.value)).toBeCloseTo(value, 6);
  expect(measured!.sigma).toBeGreaterThan(0);
  expect(measured!.sigma).toBeLessThan(1);
});

it('a size whose outline is gone cannot be read; one whose outline was cut is read on the part that has it', () => {
  expect(
    findSpan({ kind: 'length', on: [{ outline: 'none', segment: 'n0' }] }, job.outlines, derived.shapes),
  ).toBeUndefined();
  const said = [
    addDimension({ id: 'd', plane: 'v', kind: 'length', on: [side(1)], aside: 0 }),
    addRelations([{ id: 'r', plane: 'v', kind: 'level', on: [side(0)] }]),
  ].reduce((now, command) => runCommand(now, command), history);
  const parts: Chain[] = [
    { ...roof, closed: false, nodes: roof.nodes.slice(1), segments: roof.segments.slice(0, 1), id: 'part' },
  ];
  const after = runCommand(said, replaceOutline('roof', parts, 'cut-away')).job;
  expect(after.dimensions.map(({ on }) => on)).toEqual([[{ outline: 'part', segment: 'n1' }]]);
  expect(after.relations).toEqual([]);
  expect(readJob(JSON.parse(JSON.stringify(after))).ok).toBe(true);
});

it('a gap between outlines is the least there is, and what it should be at least', () => {
  const on = wholeEnds([corner(0), { outline: 'hole' }]);
  expect(kindsFor([corner(0), { outline: 'hole' }], job.outlines, derived.shapes)).toContain('gap');
  const measured = measureDimension({ kind: 'gap', on }, { job, derived }, derived.shapes)!;
  // From the middle of the hole to the slope of the roof, less its radius.
  const [dx, dy] = [58 - 10, 12];
  const away = Math.abs(dx * (-30 - -70) - dy * (30 - 10)) / Math.hypot(dx, dy) - 4;
  expect(measured.value).toBeCloseTo(away, 6);
  expect(compare(measured, away - 5, true)).toMatchObject({ isWithin: true, difference: expect.closeTo(5, 6) });
  expect(compare(measured, away + 3 * measured.sigma, true).isWithin).toBe(false);
  const kept = runCommand(
    history,
    addDimension({ id: 'g', plane: 'v', kind: 'gap', on, aside: 0, should: 3, least: true }),
  );
  const cut = runCommand(kept, replaceOutline('roof', [{ ...roof, id: 'part' }], 'cut-away')).job;
  expect(cut.dimensions[0]!.on).toEqual([{ outline: 'part' }, { outline: 'hole' }]);
});

it('sizes in a row go from one place to the next as they lie, or all from the first', () => {
  const on = [corner(2), corner(0), { outline: 'hole' }];
  const names = (ends: ReturnType<typeof listRow>) =>
    ends.map((pair) => pair.map(({ outline, node = '' }) => outline + node).join(' '));
  expect(names(listRow(on, job.outlines, derived.shapes, 0, 'before'))).toEqual(['roofn0 hole', 'hole roofn2']);
  expect(names(listRow(on, job.outlines, derived.shapes, 0, 'first'))).toEqual(['roofn2 hole', 'roofn2 roofn0']);
  expect(listRow([side(0)], job.outlines, derived.shapes, 0, 'before')).toEqual([]);
});

describe('a part', () => {
  const made = (id: string, recipe: Recipe): MadeOutline => ({
    shape: 'made',
    id,
    layer: 'outline',
    plane: 'v',
    recipe,
  });
  const elsewhere = (mirrored: boolean, of: readonly string[]): Recipe => ({
    kind: 'placed',
    of,
    from: at(0, 0),
    to: at(900, 300),
    turn: 0,
    mirrored,
  });
  const withCopies = [
    made('again', elsewhere(true, ['roof', 'hole'])),
    made('row', { kind: 'rows', of: ['roof', 'hole', 'again'], step: [100, 0], count: 3, rowStep: [0, 50], rows: 2 }),
    made('grown', { kind: 'offset', of: ['roof'], by: 3, both: false, corners: 'round' }),
  ].reduce((now, outline) => runCommand(now, addMade(outline, false)), history);
  const part = { id: 'p', plane: 'v', name: 'Gable', of: ['roof', 'hole'], material: 'Plywood', thickness: 9 };
  const named = runCommand(withCopies, addPart(part)).job;

  it('is counted wherever it stands: copies of copies, mirrored ones by themselves; what is made anew of it is none', () => {
    expect(countPart(part, named.outlines)).toEqual({ plain: 6, mirrored: 6 });
    expect(countPart({ of: ['again'] }, named.outlines)).toEqual({ plain: 6, mirrored: 0 });
  });

  it('has a size and an area without its holes, each with its plus-minus, and is a row of a table', () => {
    const now = createDeriver()(named);
    const [row] = listParts(named, now);
    expect([row!.width.value, row!.height.value, row!.area.value]).toEqual([
      expect.closeTo(48, 6),
      expect.closeTo(70 - 26, 0),
      expect.closeTo((48 * 12) / 2 - Math.PI * 16, 6),
    ]);
    expect(row!.width.sigma).toBeGreaterThan(0);
    const line = {
      name: 'Gable, "left"',
      count: 12,
      mirrored: 6,
      material: '=1+1',
      thickness: 9,
      width: 48,
      widthPlusMinus: 0.3,
      height: 44,
      heightPlusMinus: 0.3,
      area: 237.735,
    };
    expect(writePartsTable([line]).split('\r\n')[1]).toBe('"Gable, ""left""",12,6,"\'=1+1",9,48,0.3,44,0.3,237.735');
  });

  it('follows what its outlines become, and goes with them', () => {
    const cut = runCommand(
      runCommand(withCopies, addPart(part)),
      replaceOutline(
        'roof',
        [
          { ...roof, id: 'left' },
          { ...roof, id: 'right' },
        ],
        'cut-away',
      ),
    );
    expect(cut.job.parts[0]!.of).toEqual(['left', 'right', 'hole']);
    expect(runCommand(cut, removeOutlines(['left', 'right', 'hole'])).job.parts).toEqual([]);
    expect(readJob(JSON.parse(JSON.stringify(cut.job))).ok).toBe(true);
  });
});

/** Roof slopes (common practice): 12 in 12 is 45°, 3 in 12 is 14.04°. */
it('slopes are said as trades say them', () => {
  expect(formatSlope(Math.PI / 4)).toBe('45.00° · 100.0 % · 12 in 12');
  expect(formatSlope(Math.atan2(3, 12))).toBe('14.04° · 25.0 % · 3 in 12');
  expect(formatSlope(Math.PI / 2)).toBe('90.00° · upright');
});

it('tells how much of a figure’s doubt comes from where it was pointed, and how much from edges that are never sharp', () => {
  const radius = ({ pieces: [piece] }: Shape) => (piece?.kind === 'arc' ? piece.radius : NaN);
  const rim = (sigma: number, edge = {}): CircleOutline => ({
    ...hole,
    by: { kind: 'rim', centre: { ...at(300, 300), sigma }, rim: { ...at(340, 300), sigma, ...edge } },
  });
  const sharesIn = (kind: 'scan' | 'photo', circle: CircleOutline) => {
    const pictured = {
      ...job,
      sheets: job.sheets.map((one) => ({ ...one, kind })),
      views: job.views.map((view) => ({ ...view, model: 'similarity' as const, lens: 'none' as const })),
      outlines: [circle],
    };
    return sharesOf(circle, { job: pictured, derived: createDeriver()(pictured) }, radius)!;
  };
  // Two places of 1 px at 10 px/mm, against a scale that 100 mm say to a tenth: nearly all of it.
  expect(sharesOf(hole, { job, derived }, radius)).toMatchObject({ pointed: expect.closeTo(1, 2), edges: 0 });
  expect(sharesIn('scan', rim(1e-4)).pointed).toBeLessThan(0.01);
  // What the picture caught is as good as edges are, and no better; what a hand pointed at freely has its own doubt.
  const caught = sharesIn('photo', rim(0.13));
  expect(caught.edges).toBeGreaterThan(0.8);
  expect(caught.pointed).toBeGreaterThan(caught.edges);
  expect(sharesIn('scan', rim(0.13)).edges).toBe(0);
  expect(sharesIn('photo', rim(1)).edges).toBe(0);
});
