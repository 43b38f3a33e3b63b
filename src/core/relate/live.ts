import type { Condition } from '../adjust';
import { canRelate } from './applies';
import { blocksOf, findElement, seen, type Element } from './element';
import { EQUATIONS, type Equations, type SpatialKind } from './equations';
import { findSpaceEquations } from './in-space';
import type { RelatingPlanes } from './plane';
import type { Relatable } from './relatable';
import { directionOfOne, type Relation } from './relation';

/** A relation that can be solved: its elements are there and of the right kinds, and their planes show what it is about. */
export interface LiveRelation {
  readonly relation: Relation;
  readonly on: readonly Element[];
  readonly equations: Equations;
}

/** A relation as it can be solved; undefined where it cannot be said, or something of it is gone. */
export function findLive(
  relation: Relation,
  outlines: ReadonlyMap<string, Relatable>,
  planes: RelatingPlanes,
): LiveRelation | undefined {
  const { kind } = relation;
  const on = relation.on.map((end) => findElement(end, outlines));
  if (!on.every((element): element is Element => element !== undefined) || !canRelate(kind, on)) return undefined;
  const ids = relation.on.map(({ outline }) => outlines.get(outline)!.plane);
  const isOfOnePlane = ids.every((id) => id === ids[0]) && !directionOfOne(kind);
  const equations = isOfOnePlane
    ? EQUATIONS[kind as Exclude<typeof kind, SpatialKind>]
    : ids.every((id) => planes(id).scaled)
      ? findSpaceEquations(
          kind,
          ids.map((id) => planes(id).standing),
        )
      : undefined;
  return equations && { relation, on, equations };
}

export const listLive = (
  relations: readonly Relation[],
  outlines: ReadonlyMap<string, Relatable>,
  planes: RelatingPlanes,
): readonly LiveRelation[] => relations.flatMap((relation) => findLive(relation, outlines, planes) ?? []);

/** What a relation misses by at given values of the blocks of its elements, one after the other. */
export function missesOf(
  { relation: { value = 0 }, on, equations }: LiveRelation,
  values: readonly (readonly number[])[],
): readonly number[] {
  let next = 0;
  return equations(
    on.map((element) => {
      const size = blocksOf(element).length;
      next += size;
      return seen(element, values.slice(next - size, next));
    }),
    value,
  );
}

export function conditionOf(live: LiveRelation): Condition {
  return {
    group: live.relation.id,
    origin: 'stated',
    exact: true,
    blocks: live.on.flatMap(blocksOf),
    residuals: (values) => missesOf(live, values),
  };
}
