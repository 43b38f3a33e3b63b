import { compare, createDeriver, figuredIn, findSpan, kindsFor, measureDimension } from '.';
import { addEvidence, addOutline, addSheet, createJob, createView, readJob, replaceOutline, addDimension, addRelations, runCommand, startHistory, type Command, type DimensionKind, type Evidence, type Sheet } from '../job';
import type { Chain, CircleOutline } from '../outline';
import type { RelationEnd } from '../relate';
import { formatSlope } from '../units';

const sheet: Sheet = { id: 's', name: 's', picture: 'a'.repeat(64), mediaType: 'image/png', bytes: 1, width: 2000, height: 1000, kind: 'scan', taken: {} };
const length: Evidence = { id: 'e', kind: 'length', groups: [['p', 'q']], said: { length: { value: 100, written: '100' } }, guess: false, role: 'use' };
const at = (x: number, y: number) => ({ kind: 'pointed' as const, at: [x, y] as const, sigma: 1 });
/** A roof of 3 in 12 over a base of 48 mm at 10 px/mm, and a hole of 8 mm. */
const roof: Chain = { shape: 'chain', id: 'roof', layer: 'outline', view: 'v', closed: true, nodes: [[100, 700], [580, 700], [580, 580]].map(([x, y], i) => ({ id: `n${i}`, place: at(x!, y!), smooth: false })), segments: [{ kind: 'line' }, { kind: 'line' }, { kind: 'line' }] };
const hole: CircleOutline = { shape: 'circle', id: 'hole', layer: 'outline', view: 'v', by: { kind: 'rim', centre: at(300, 300), rim: at(340, 300) } };
const side = (i: number): RelationEnd => ({ outline: 'roof', segment: `n${i}` });
const corner = (i: number): RelationEnd => ({ outline: 'roof', node: `n${i}` });
const commands: readonly Command[] = [addSheet(sheet, createView('v', sheet)), addEvidence('v', length, [{ id: 'p', at: [0, 900], sigma: 1 }, { id: 'q', at: [1000, 900], sigma: 1 }]), addOutline(roof), addOutline(hole)];
const history = commands.reduce((now, command) => runCommand(now, command), startHistory(createJob('j', 'Job', new Date(0))));
const { job } = history;
const derived = createDeriver()(job);

it.each<[DimensionKind, readonly RelationEnd[], number]>([
  ['length', [side(0)], 48], ['slope', [side(2)], Math.atan2(3, 12)], ['angle', [side(0), side(2)], Math.atan2(3, 12)], ['diameter', [{ outline: 'hole' }], 8], ['radius', [{ outline: 'hole' }], 4],
  ['distance', [corner(0), corner(2)], Math.hypot(48, 12)], ['across', [corner(0), corner(2)], 48], ['up', [corner(0), corner(2)], 12], ['distance', [{ outline: 'hole', node: 'centre' }, side(0)], 40], ['across', [corner(0)], 10],
])('%s of %j', (kind, on, value) => {
  expect(kindsFor(on, job.outlines, derived.shapes)).toContain(kind);
  const measured = measureDimension({ kind, on }, figuredIn(job, derived, 'v'), derived.shapes)!;
  expect(measured.value).toBeCloseTo(value, 6);
  expect(measured.sigma).toBeGreaterThan(0);
  expect(compare(measured, value + 1.9 * measured.sigma).isWithin).toBe(true);
  expect(compare(measured, value + 2.1 * measured.sigma).isWithin).toBe(false);
});

it('a size whose outline is gone cannot be read; one whose outline was cut is read on the part that has it', () => {
  expect(findSpan({ kind: 'length', on: [{ outline: 'none', segment: 'n0' }] }, job.outlines, derived.shapes)).toBeUndefined();
  const said = [addDimension({ id: 'd', view: 'v', kind: 'length', on: [side(1)], aside: 0 }), addRelations([{ id: 'r', view: 'v', kind: 'level', on: [side(0)] }])].reduce((now, command) => runCommand(now, command), history);
  const parts: Chain[] = [{ ...roof, closed: false, nodes: roof.nodes.slice(1), segments: roof.segments.slice(0, 1), id: 'part' }];
  const after = runCommand(said, replaceOutline('roof', parts, 'cut-away')).job;
  expect(after.dimensions.map(({ on }) => on)).toEqual([[{ outline: 'part', segment: 'n1' }]]);
  expect(after.relations).toEqual([]);
  expect(readJob(JSON.parse(JSON.stringify(after))).ok).toBe(true);
});

/** Roof slopes (common practice): 12 in 12 is 45°, 3 in 12 is 14.04°. */
it('slopes are said as trades say them', () => {
  expect(formatSlope(Math.PI / 4)).toBe('45.00° · 100.0 % · 12 in 12');
  expect(formatSlope(Math.atan2(3, 12))).toBe('14.04° · 25.0 % · 3 in 12');
  expect(formatSlope(Math.PI / 2)).toBe('90.00° · upright');
});
