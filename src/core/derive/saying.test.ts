/** What is proposed, taken and judged elsewhere: the same as here, of a job that was handed over as plain data. */
import { addOutline, addRelations, declineProposals, setJoins, type Command, type Job } from '../job';
import { changed } from '../job/for-tests';
import type { RelationKind } from '../relate';
import { createDeriver, deriveAsTold, judgeSaid, proposeOn, takeTogether, tellJob, type Derived } from '.';
import { ALL, benchOf, joining, RIGHT, sized } from './bench-for-tests';

const knownOf = (job: Job) => ({ job, derived: createDeriver()(job) });
/** As a worker has it: of nothing but a message. */
const handedOver = ({ job, derived }: { job: Job; derived: Derived }) => {
  const told = structuredClone(tellJob(job, derived));
  return { job: told.job, derived: deriveAsTold(told) };
};

/** A box that was pointed at a little askew: its edges are nearly level and upright. px */
const box = (id: string, x: number): Command =>
  addOutline({
    shape: 'chain',
    id,
    layer: 'outline',
    plane: 'front',
    closed: true,
    segments: [0, 1, 2, 3].map(() => ({ kind: 'line' })),
    nodes: (
      [
        [x, 1500],
        [x + 400, 1502],
        [x + 401, 1200],
        [x - 1, 1199],
      ] as const
    ).map((at, i) => ({ id: `${id}${i}`, smooth: false, place: { kind: 'pointed', at, sigma: 1.5 } })),
  });
const onEdge = (outline: string, i: number) => ({ outline, segment: `${outline}${i}` });
const relation = (id: string, kind: RelationKind, ...on: ReturnType<typeof onEdge>[]) => ({
  id,
  plane: 'front',
  kind,
  on,
});

const bench = (...more: readonly Command[]) =>
  benchOf(undefined, [
    sized(RIGHT, 'foot', 'back', 1, () => 0, 1.2),
    box('a', 600),
    box('b', 1400),
    ...joining(...ALL),
    ...more,
  ]);

it('a job that was handed over comes to the same, and nothing of it is judged again', () => {
  const here = knownOf(bench());
  const there = handedOver(here);
  expect([...there.derived.views.values()].map(({ fit }) => fit.map)).toEqual(
    [...here.derived.views.values()].map(({ fit }) => fit.map),
  );
  expect(there.derived.arranged.isDoubted).toBe(true);
  expect(JSON.stringify([...there.derived.arranged.stands.values()])).toBe(
    JSON.stringify([...here.derived.arranged.stands.values()]),
  );
  expect(JSON.stringify([...there.derived.shapes.values()])).toBe(JSON.stringify([...here.derived.shapes.values()]));
});

it('what is pending here is judged to the end there', () => {
  const job = bench();
  const pending = { job, derived: createDeriver({ most: 1, mostTogether: 1 })(job) };
  expect(pending.derived.arranged.pending.length).toBeGreaterThan(0);
  const there = handedOver(pending);
  expect(there.derived.arranged.pending).toEqual([]);
  expect([...there.derived.views.values()].map(({ fit }) => fit.map)).toEqual(
    [...knownOf(job).derived.views.values()].map(({ fit }) => fit.map),
  );
});

it('proposals are those of the plane, and what was left as drawn is counted and not offered', () => {
  const here = knownOf(bench());
  const found = proposeOn('front', here);
  expect(found.kept).toBe(0);
  expect(new Set(found.open.map(({ kind }) => kind))).toEqual(new Set(['level', 'upright', 'collinear']));
  expect(found.open.filter(({ kind }) => kind === 'level')).toHaveLength(4);
  expect(found.moves).toHaveLength(8);
  expect(Math.max(...found.moves.map(({ sigmas }) => sigmas))).toBeLessThan(3);
  expect(proposeOn('front', handedOver(here))).toEqual(found);
  expect(proposeOn('side', here)).toEqual({ open: [], kept: 0, moves: [] });
  // Of one outline nothing is said that another takes part in.
  const one = proposeOn('front', here, 'a');
  expect(one.open.every(({ on }) => on.every(({ outline }) => outline === 'a'))).toBe(true);
  const levels = found.open.filter(({ kind }) => kind === 'level').map(({ kind, on }) => ({ kind, on }));
  const left = proposeOn('front', knownOf(changed(here.job, declineProposals(levels))));
  expect([left.kept, left.open.some(({ kind }) => kind === 'level')]).toEqual([4, false]);
});

it('of what is wanted that is taken which holds together and says something new', () => {
  const here = knownOf(bench());
  const wanted = [
    relation('1', 'level', onEdge('a', 0)),
    relation('2', 'level', onEdge('a', 2)),
    // Follows from both.
    relation('3', 'parallel', onEdge('a', 0), onEdge('a', 2)),
    // Cannot be.
    relation('4', 'upright', onEdge('a', 0)),
    relation('5', 'square', onEdge('a', 0), onEdge('a', 1)),
  ];
  const taken = takeTogether(wanted, 'front', here);
  expect(taken.map(({ id }) => id)).toEqual(['1', '2', '5']);
  expect(takeTogether(wanted, 'front', handedOver(here))).toEqual(taken);
});

it('a relation is judged beside all others, and one that is said anew in its own place', () => {
  const size = (value: number) => ({ ...relation('size', 'length', onEdge('a', 0)), value });
  const here = knownOf(bench(addRelations([size(240), relation('l', 'level', onEdge('a', 0))])));
  expect(judgeSaid(relation('n', 'upright', onEdge('a', 0)), here)).toEqual({ kind: 'contradicts', others: [] });
  expect(judgeSaid(size(250), here)).toEqual({ kind: 'holds' });
  expect(judgeSaid({ ...size(250), id: 'another' }, here)).toEqual({ kind: 'contradicts', others: ['size'] });
  expect(judgeSaid(relation('n', 'level', onEdge('gone', 0)), here)).toEqual({ kind: 'meaningless' });
  for (const said of [size(250), relation('n', 'parallel', onEdge('a', 0), onEdge('b', 0))])
    expect(judgeSaid(said, handedOver(here))).toEqual(judgeSaid(said, here));
  // Views that join or not make no other plane of it.
  expect(judgeSaid(size(250), knownOf(changed(here.job, setJoins('front', false))))).toEqual({ kind: 'holds' });
});
