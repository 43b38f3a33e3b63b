import type { Relatable } from './relatable';
import type { Relation } from './relation';

/** Outlines that hang together by relations, with those relations: what one of them does is nothing to another group. */
export interface Group {
  readonly outlines: readonly Relatable[];
  readonly relations: readonly Relation[];
}

/** Groups in the order of their first outline. Relations about what is gone belong to none. */
export function listGroups(outlines: readonly Relatable[], relations: readonly Relation[]): readonly Group[] {
  const leader = new Map(outlines.map(({ id }) => [id, id]));
  const leaderOf = (id: string): string => {
    const above = leader.get(id)!;
    return above === id ? id : leaderOf(above);
  };
  const live = relations.filter(({ on }) => on.every(({ outline }) => leader.has(outline)));
  for (const {
    on: [first, ...others],
  } of live)
    for (const { outline } of others) leader.set(leaderOf(outline), leaderOf(first!.outline));
  const groups = new Map<string, { outlines: Relatable[]; relations: Relation[] }>();
  for (const outline of outlines) {
    const group = groups.get(leaderOf(outline.id)) ?? { outlines: [], relations: [] };
    groups.set(leaderOf(outline.id), group);
    group.outlines.push(outline);
  }
  for (const relation of live) groups.get(leaderOf(relation.on[0]!.outline))!.relations.push(relation);
  return [...groups.values()];
}
