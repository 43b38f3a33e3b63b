import type { Outline } from '../outline';
import { blocksOf } from './element';
import { listLive, missesOf } from './problem';
import type { RelatingPlane } from './plane';
import type { Relation } from './relation';
import { solveAll, solveRelations } from './solve-relations';

/** What is missed by less was not hit by chance: people do not point so well. mm */
const NOTHING_NEW = 1e-7;

export type Verdict =
  | { readonly kind: 'holds' }
  /** The relation is about something that is gone, or that nothing of the kind can be said about. */
  | { readonly kind: 'meaningless' }
  /** Relations that it cannot hold together with; none of them can be left out. Empty when it cannot hold by itself, so far is it from what was drawn. */
  | { readonly kind: 'contradicts'; readonly others: readonly string[] };

/**
 * Whether a relation can hold beside those that hold already. If not, an irreducible set of those that it fights is found by leaving
 * one after the other away and keeping away those that do not matter (deletion filter; Chinneck, Feasibility and Infeasibility in
 * Optimization, 2008, section 6.2).
 */
export function judgeRelation(relation: Relation, held: readonly Relation[], outlines: readonly Outline[], plane: RelatingPlane): Verdict {
  const known = new Map(outlines.map((outline) => [outline.id, outline]));
  if (listLive([relation], known).length === 0) return { kind: 'meaningless' };
  const holds = (others: readonly Relation[]) => solveRelations(outlines, [...others, relation], plane).holds;
  if (holds(held)) return { kind: 'holds' };
  if (!holds([])) return { kind: 'contradicts', others: [] };
  let fighting = connected(relation, held);
  for (const other of [...fighting]) {
    const without = fighting.filter((kept) => kept !== other);
    if (!holds(without)) fighting = without;
  }
  return { kind: 'contradicts', others: fighting.map(({ id }) => id) };
}

/** Whether a relation is true already because of those that hold: saying it would say nothing new. */
export function follows(relation: Relation, held: readonly Relation[], outlines: readonly Outline[], plane: RelatingPlane): boolean {
  const solved = solveAll(outlines, held, plane);
  const [live] = listLive([relation], solved.known);
  if (!live || !solved.holds) return false;
  return missesOf(live, live.on.flatMap(blocksOf).map((id) => solved.solution.values.get(id)!)).every((miss) => Math.abs(miss) < NOTHING_NEW);
}

/** The relations that have to do with one, through the outlines that they share. */
function connected(relation: Relation, held: readonly Relation[]): readonly Relation[] {
  const reached = new Set(relation.on.map(({ outline }) => outline));
  const found = new Set<Relation>();
  for (let grown = true; grown;) {
    grown = false;
    for (const other of held) {
      if (found.has(other) || !other.on.some(({ outline }) => reached.has(outline))) continue;
      found.add(other);
      other.on.forEach(({ outline }) => reached.add(outline));
      grown = true;
    }
  }
  return held.filter((other) => found.has(other));
}
