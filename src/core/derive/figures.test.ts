/** What a figure's plus-minus comes from, and what it does not. */
import type { Vec } from '../geometry';
import {
  addEvidence,
  addOutline,
  addRelations,
  addSheet,
  createJob,
  createView,
  runCommand,
  startHistory,
  type Job,
} from '../job';
import type { Chain } from '../outline';
import type { Relation } from '../relate';
import { createDeriver, measureShapes } from '.';
import { scanOf } from '../job/for-tests';

const sheet = scanOf(4000, 3000);
/** An upright side, 10 px/mm, pointed at its two ends: along the hand's 1.5 px, across as said. */
const side = (id: string, x: number, across: number): Chain => ({
  shape: 'chain',
  id,
  plane: 'v',
  layer: 'outline',
  closed: false,
  segments: [{ kind: 'line' }],
  nodes: [500, 900].map((y, i) => ({
    id: `${id}${i}`,
    smooth: false,
    place: { kind: 'pointed', at: [x, y], sigma: 1.5, ...(across < 1.5 ? { edge: { normal: 0, sigma: across } } : {}) },
  })),
});
const jobOf = (across: number, ...relations: readonly Relation[]): Job =>
  [
    addSheet(sheet, createView('v', sheet)),
    addEvidence(
      'v',
      {
        id: 'e',
        kind: 'length',
        groups: [['p', 'q']],
        said: { length: { value: 200, written: '200' } },
        plusMinus: 0.001,
        guess: false,
        role: 'use',
      },
      [
        [500, 1000],
        [2500, 1000],
      ].map((at, i) => ({ id: 'pq'[i]!, at: at as unknown as Vec, sigma: 0.001 })),
    ),
    ...[side('a', 1000, across), side('b', 1400, across), side('c', 2000, across), side('d', 2400, across)].map(
      addOutline,
    ),
    addRelations(relations),
  ].reduce(runCommand, startHistory(createJob('j', 'Job', new Date(0)))).job;

/** One sigma of the distance between the middles of two sides, mm. */
function doubtBetween(job: Job, a: string, b: string): number {
  const figured = { job, derived: createDeriver()(job) };
  const middle = (shape: { readonly nodes: readonly Vec[] }) => (shape.nodes[0]![0] + shape.nodes[1]![0]) / 2;
  return measureShapes(
    job.outlines.filter(({ id }) => id === a || id === b),
    figured,
    (shapes) => middle(shapes.get(b)!) - middle(shapes.get(a)!),
  ).sigma;
}

const parallel: Relation = {
  id: 'r',
  plane: 'v',
  kind: 'parallel',
  on: [
    { outline: 'c', segment: 'c0' },
    { outline: 'd', segment: 'd0' },
  ],
};
const upright: Relation = { id: 'u', plane: 'v', kind: 'upright', on: [{ outline: 'c', segment: 'c0' }] };

it('an edge of the picture tells across what its own sigma says, whether relations hold the outline or not', () => {
  // Two middles of two ends each: 0.2 px is 0.02 mm, freehand it is 0.15 mm.
  for (const [across, expected] of [
    [0.2, 0.02],
    [1.5, 0.15],
  ] as const) {
    for (const relations of [[], [parallel], [upright]])
      expect(doubtBetween(jobOf(across, ...relations), 'c', 'd') / expected).toBeCloseTo(1, 1);
  }
});

it('what is said of some outlines changes nothing in the plus-minus of others, nor between them and others', () => {
  for (const relation of [parallel, upright]) {
    const [before, after] = [jobOf(0.2), jobOf(0.2, relation)];
    expect(doubtBetween(after, 'a', 'b')).toBe(doubtBetween(before, 'a', 'b'));
    expect(doubtBetween(after, 'a', 'c') / doubtBetween(before, 'a', 'c')).toBeCloseTo(1, 1);
  }
});
