/** What of much that is wanted can be said together, and what a thing fights among much that holds. */
import fc from 'fast-check';
import { SingularValueDecomposition } from 'ml-matrix';
import { freeMatrix, linearize } from '../adjust';
import { createRandom } from '../calibrate/simulation';
import type { Vec } from '../geometry';
import type { Chain } from '../outline';
import { judgeRelation } from './conflict';
import { findLive, missesOf } from './live';
import type { RelatingPlane } from './plane';
import { listProposals } from './proposals';
import type { Relation, RelationKind } from './relation';
import { solveAll, solveRelations } from './solve-relations';
import { takeRelations } from './together';

/** A plane in mm whose sheet is just so. */
const plane: RelatingPlane = {
  scaled: true,
  toPlane: ([x, y]) => [x, y],
  freedoms: [],
  knowing: { steadinessIn: () => 1, edgesKnownTo: () => 0 },
  covarianceOf: ({ sigma }) => [sigma ** 2, 0, sigma ** 2],
};
const planes = () => plane;

/** Boxes in rows that lie askew, pointed at by a hand that misses a little. */
function boxesOf(count: number, seed: number): readonly Chain[] {
  const { normal } = createRandom(seed);
  const [c, s] = [Math.cos(0.3), Math.sin(0.3)];
  return Array.from({ length: count }, (_, i): Chain => {
    const [x, y] = [90 * (i % 4), 70 * Math.floor(i / 4) + 7 * (i % 4)];
    const corners: readonly Vec[] = [
      [x, y],
      [x + 50 + 3 * i, y],
      [x + 50 + 3 * i, y + 40],
      [x, y + 40],
    ];
    return {
      shape: 'chain',
      id: `b${i}`,
      layer: 'outline',
      plane: 'v',
      closed: true,
      segments: corners.map(() => ({ kind: 'line' })),
      nodes: corners.map(([u, v], n) => ({
        id: `n${n}`,
        smooth: false,
        place: {
          kind: 'pointed',
          at: [c * u - s * v + 0.1 * normal(), s * u + c * v + 0.1 * normal()],
          sigma: 0.1,
        },
      })),
    };
  });
}

const side = (box: number, n: number) => ({ outline: `b${box}`, segment: `n${n}` });
const say = (id: string, kind: RelationKind, on: Relation['on'], value?: number): Relation => ({
  id,
  plane: 'v',
  kind,
  on,
  ...(value === undefined ? {} : { value }),
});

/** By how much a relation is missed where others hold. */
function missOf(relation: Relation, held: readonly Relation[], outlines: readonly Chain[]): number {
  const solved = solveAll(outlines, held, planes);
  const live = findLive(relation, solved.known, planes)!;
  return Math.max(
    ...missesOf(
      live,
      live.blocks.map((id) => solved.solution.values.get(id)!),
    ).map(Math.abs),
  );
}

/** What somebody could say of two boxes, of which sizes may contradict each other. */
const sayable = fc
  .tuple(
    fc.integer({ min: 0, max: 1 }),
    fc.integer({ min: 0, max: 3 }),
    fc.integer({ min: 0, max: 1 }),
    fc.integer({ min: 0, max: 3 }),
    fc.constantFrom('size', 'other'),
    fc.integer({ min: -2, max: 2 }),
  )
  .filter(([box, n, other, m]) => box !== other || n !== m)
  .map(([box, n, other, m, what, off]) => {
    if (what === 'size') return say('', 'length', [side(box, n)], (n % 2 === 0 ? 50 + 3 * box : 40) + off);
    const kind = n % 2 !== m % 2 ? 'square' : box === other && off > 0 ? 'equal-length' : 'parallel';
    return say('', kind, [side(box, n), side(other, m)]);
  });

it('what is taken holds together; what is left out follows from it or cannot hold beside it, and taking again takes nothing', () => {
  const outlines = boxesOf(2, 3);
  const seen = { all: 0, some: 0, follows: 0 };
  fc.assert(
    fc.property(fc.array(sayable, { minLength: 2, maxLength: 8 }), (wishes) => {
      const wanted = wishes.map((wish, i) => ({ ...wish, id: `w${i}` }));
      const taken = takeRelations(wanted, [], outlines, planes);
      expect(solveAll(outlines, taken, planes).holds).toBe(true);
      const out = wanted.filter((relation) => !taken.includes(relation));
      for (const left of out) {
        const follows = missOf(left, taken, outlines) < 1e-6;
        if (follows) seen.follows++;
        else expect(judgeRelation(left, taken, outlines, planes).kind).not.toBe('holds');
      }
      expect(takeRelations(out, taken, outlines, planes)).toEqual([]);
      seen[taken.length === wanted.length ? 'all' : 'some']++;
    }),
    { numRuns: 60, seed: 5 },
  );
  expect(Math.min(seen.all, seen.some, seen.follows)).toBeGreaterThan(5);
});

it('of all that is proposed of eight boxes as many are taken as there are freedoms to take, and nothing is proposed after that', () => {
  const outlines = boxesOf(8, 8);
  const proposed = listProposals(outlines, [], planes);
  const wanted = proposed.map(({ kind, on }, i) => say(`p${i}`, kind, on));
  const taken = takeRelations(wanted, [], outlines, planes);
  // Each box has four directions, and all of them are one in the end.
  expect(taken.filter(({ kind }) => kind !== 'collinear')).toHaveLength(4 * 8 - 1);
  expect(taken.length).toBeLessThan(wanted.length);
  const solved = solveAll(outlines, taken, planes);
  expect(solved.holds).toBe(true);
  // The library's singular values say so too: they bind all that is wanted binds, and each binds more than those before it.
  const rankOf = (bound: typeof solved, some: readonly Relation[]) => {
    const ids = new Set(some.map(({ id }) => id));
    const { problem, solution } = bound;
    const conditions = problem.conditions.filter(({ exact, group }) => exact && ids.has(group));
    const slopes = linearize({ ...problem, conditions }, solution.layout, solution.values);
    const { diagonal } = new SingularValueDecomposition(freeMatrix(slopes, solution.layout), { autoTranspose: true });
    // Slopes are differences: what vanishes does so to a millionth.
    return diagonal.filter((value) => value > 1e-6 * diagonal[0]!).length;
  };
  expect(rankOf(solveAll(outlines, wanted, planes), wanted)).toBe(rankOf(solved, taken));
  for (let i = 1; i < taken.length; i++)
    expect(rankOf(solved, taken.slice(0, i + 1))).toBeGreaterThan(rankOf(solved, taken.slice(0, i)));
  for (const relation of wanted) expect(missOf(relation, taken, outlines)).toBeLessThan(1e-6);
  expect(listProposals(outlines, taken, planes)).toEqual([]);
});

it('what a size fights among much that holds is what it has to do with itself, and none of it can be left away', () => {
  const outlines = boxesOf(8, 8);
  const wanted = listProposals(outlines, [], planes).map(({ kind, on }, i) => say(`p${i}`, kind, on));
  const held = [...takeRelations(wanted, [], outlines, planes), say('size', 'length', [side(4, 0)], 62)];
  const verdict = judgeRelation(say('other', 'length', [side(4, 2)], 66), held, outlines, planes);
  if (verdict.kind !== 'contradicts') throw new Error(verdict.kind);
  const fighting = held.filter(({ id }) => verdict.others.includes(id));
  expect(fighting.map(({ id }) => id)).toContain('size');
  expect(fighting.flatMap(({ on }) => on.map(({ outline }) => outline)).every((id) => id === 'b4')).toBe(true);
  const other = say('other', 'length', [side(4, 2)], 66);
  expect(solveRelations(outlines, [...fighting, other], planes).holds).toBe(false);
  for (const one of fighting)
    expect(solveRelations(outlines, [...fighting.filter((kept) => kept !== one), other], planes).holds).toBe(true);
});
