import type { Condition } from '../adjust';
import { canRelate } from './applies';
import { blocksOf, findElement, seen, type Element } from './element';
import { EQUATIONS, type SpatialKind } from './equations';
import { findSpaceEquations, type SpaceEquations } from './in-space';
import { MAP_BLOCK } from './observed';
import { movedPose, type RelatingPlanes, type StandingIn } from './plane';
import type { Relatable } from './relatable';
import { directionOfOne, type Relation } from './relation';

/** A relation that can be solved: its elements are there and of the right kinds, and their planes show what it is about. */
export interface LiveRelation {
  readonly relation: Relation;
  readonly on: readonly Element[];
  /** Of the elements, one after the other; and of the fits' doubts, where the planes stand as those have it. */
  readonly blocks: readonly string[];
  readonly equations: SpaceEquations;
  /** Whether what it misses by is a sum of its blocks' numbers, each times what never changes. */
  readonly isStraight: boolean;
  /** How the planes of the elements stand, where that matters. */
  readonly standing: readonly StandingIn[];
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
  const blocks = on.flatMap(blocksOf);
  const ids = relation.on.map(({ outline }) => outlines.get(outline)!.plane);
  if (ids.every((id) => id === ids[0]) && !directionOfOne(kind))
    return {
      relation,
      on,
      blocks,
      equations: EQUATIONS[kind as Exclude<typeof kind, SpatialKind>],
      isStraight: false,
      standing: [],
    };
  const standing = ids.map((id) => planes(id).standing);
  const between = ids.every((id) => planes(id).scaled) ? findSpaceEquations(kind, standing) : undefined;
  if (!between) return undefined;
  const known = standing.filter((each) => each !== undefined);
  const follows = known.some(({ moves }) => moves.length > 0);
  return {
    relation,
    on,
    equations: between.equations,
    // Where an arc has its middle follows from its ends as no straight line does.
    isStraight: between.isStraight && !follows && on.every((element) => element.kind !== 'arc'),
    standing: known,
    blocks: follows ? [...blocks, MAP_BLOCK] : blocks,
  };
}

export const listLive = (
  relations: readonly Relation[],
  outlines: ReadonlyMap<string, Relatable>,
  planes: RelatingPlanes,
): readonly LiveRelation[] => relations.flatMap((relation) => findLive(relation, outlines, planes) ?? []);

/** What a relation misses by at given values of its blocks, one after the other. */
export function missesOf(
  { relation: { value = 0 }, on, equations, standing }: LiveRelation,
  values: readonly (readonly number[])[],
): readonly number[] {
  let next = 0;
  const things = on.map((element) => {
    const size = blocksOf(element).length;
    next += size;
    return seen(element, values.slice(next - size, next));
  });
  const doubts = values[next] ?? [];
  return equations(
    things,
    value,
    standing.map((each) => movedPose(each, doubts)),
  );
}

/** The same where its blocks are looked up by name. */
export const missesAt = (live: LiveRelation, values: ReadonlyMap<string, readonly number[]>): readonly number[] =>
  missesOf(
    live,
    live.blocks.map((id) => values.get(id)!),
  );

/** What is missed by less was not hit by chance: people do not point so well. mm */
const NOTHING_NEW = 1e-7;

/** Whether a relation is true where others hold, so that saying it says nothing new. */
export const saysNothing = (live: LiveRelation, values: ReadonlyMap<string, readonly number[]>): boolean =>
  missesAt(live, values).every((miss) => Math.abs(miss) < NOTHING_NEW);

export function conditionOf(live: LiveRelation): Condition {
  return {
    group: live.relation.id,
    origin: 'stated',
    exact: true,
    isStraight: live.isStraight,
    blocks: live.blocks,
    residuals: (values) => missesOf(live, values),
  };
}
