import type { Relatable } from './relatable';
import { listGroups, type Group } from './groups';
import { findLive, missesOf } from './live';
import type { RelatingPlanes } from './plane';
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
export function judgeRelation(
  relation: Relation,
  held: readonly Relation[],
  outlines: readonly Relatable[],
  planes: RelatingPlanes,
): Verdict {
  const known = new Map(outlines.map((outline) => [outline.id, outline]));
  if (!findLive(relation, known, planes)) return { kind: 'meaningless' };
  const about = groupOf(relation, held, outlines);
  const holds = (others: readonly Relation[]) => solveRelations(about.outlines, [...others, relation], planes).holds;
  if (holds(about.relations)) return { kind: 'holds' };
  if (!holds([])) return { kind: 'contradicts', others: [] };
  let fighting = about.relations;
  for (const other of [...fighting]) {
    const without = fighting.filter((kept) => kept !== other);
    if (!holds(without)) fighting = without;
  }
  return { kind: 'contradicts', others: fighting.map(({ id }) => id) };
}

/** Whether a relation is true already because of those that hold: saying it would say nothing new. */
export function follows(
  relation: Relation,
  held: readonly Relation[],
  outlines: readonly Relatable[],
  planes: RelatingPlanes,
): boolean {
  const about = groupOf(relation, held, outlines);
  const solved = solveAll(about.outlines, about.relations, planes);
  const live = findLive(relation, solved.known, planes);
  if (!live || !solved.holds) return false;
  return missesOf(
    live,
    live.blocks.map((id) => solved.solution.values.get(id)!),
  ).every((miss) => Math.abs(miss) < NOTHING_NEW);
}

/** What has to do with a relation: the outlines that it would tie together, and what holds among them. */
function groupOf(relation: Relation, held: readonly Relation[], outlines: readonly Relatable[]): Group {
  const group = listGroups(outlines, [...held, relation]).find(({ relations }) => relations.includes(relation));
  return { outlines: group?.outlines ?? [], relations: group?.relations.filter((other) => other !== relation) ?? [] };
}
