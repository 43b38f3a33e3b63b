import type { Relatable } from './relatable';
import { listGroups, type Group } from './groups';
import { findLive, saysNothing } from './live';
import type { RelatingPlanes } from './plane';
import type { Relation } from './relation';
import { solveAll, solveRelations } from './solve-relations';

/** Of more relations what contradicts those near by is found without solving all of it. */
const MUCH = 24;

export type Verdict =
  | { readonly kind: 'holds' }
  /** The relation is about something that is gone, or that nothing of the kind can be said about. */
  | { readonly kind: 'meaningless' }
  /** Relations that it cannot hold together with; none of them can be left out. Empty when it cannot hold by itself, so far is it from what was drawn. */
  | { readonly kind: 'contradicts'; readonly others: readonly string[] };

/**
 * Whether a relation can hold beside those that hold already. If not, an irreducible set of those that it fights is found, as near to it as there is one: among those of its own outlines first, then of those that these tie to, and so on; of
 * these those that are left when one after the other is kept away that does not matter, halves at a time (Junker, QuickXplain: preferred explanations and relaxations for over-constrained problems, 2004).
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
  // Without some of them the rest may have nothing to do with it any more.
  const holds = (others: readonly Relation[]) => {
    const near = groupOf(relation, others, about.outlines);
    return solveRelations(near.outlines, [...near.relations, relation], planes).holds;
  };
  const isMuch = about.relations.length > MUCH;
  if (!isMuch && holds(about.relations)) return { kind: 'holds' };
  if (!holds([])) return isMuch && holds(about.relations) ? { kind: 'holds' } : { kind: 'contradicts', others: [] };
  const near = listNearer(relation, about.relations).find((some) => !holds(some));
  if (isMuch && !near && holds(about.relations)) return { kind: 'holds' };
  const fighting = new Set(fightingAmong(near ?? about.relations, [], holds, false));
  return { kind: 'contradicts', others: about.relations.filter((other) => fighting.has(other)).map(({ id }) => id) };
}

/** Relations about a relation's own outlines alone, with those that tie these to others, and so on, up to half of all. */
function listNearer(relation: Relation, all: readonly Relation[]): readonly (readonly Relation[])[] {
  const nearer: (readonly Relation[])[] = [];
  let reached = new Set(relation.on.map(({ outline }) => outline));
  for (;;) {
    const some = all.filter(({ on }) => on.every(({ outline }) => reached.has(outline)));
    if (2 * some.length > all.length) return nearer;
    if (some.length > (nearer.at(-1)?.length ?? 0)) nearer.push(some);
    const touching = all.filter(({ on }) => on.some(({ outline }) => reached.has(outline)));
    const next = new Set([...reached, ...touching.flatMap(({ on }) => on.map(({ outline }) => outline))]);
    if (next.size === reached.size) return nearer;
    reached = next;
  }
}

/** Of some relations those that cannot be left away beside `others` for nothing to hold together; none where these alone do not. Earlier ones are left away first. */
function fightingAmong(
  some: readonly Relation[],
  others: readonly Relation[],
  holds: (relations: readonly Relation[]) => boolean,
  isNew: boolean,
): readonly Relation[] {
  if (isNew && !holds(others)) return [];
  if (some.length <= 1) return some;
  const half = Math.ceil(some.length / 2);
  const [earlier, later] = [some.slice(0, half), some.slice(half)];
  const early = fightingAmong(earlier, [...others, ...later], holds, true);
  const late = fightingAmong(later, [...others, ...early], holds, early.length > 0);
  return [...early, ...late];
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
  return live !== undefined && solved.holds && saysNothing(live, solved.solution.values);
}

/** What has to do with a relation: the outlines that it would tie together, and what holds among them. */
function groupOf(relation: Relation, held: readonly Relation[], outlines: readonly Relatable[]): Group {
  const group = listGroups(outlines, [...held, relation]).find(({ relations }) => relations.includes(relation));
  return { outlines: group?.outlines ?? [], relations: group?.relations.filter((other) => other !== relation) ?? [] };
}
