import { isSameList } from '../basics';
import { shapeOf, type Outline, type Shape } from '../outline';
import {
  doubtsAt,
  hasSize,
  isRelatable,
  listGroups,
  listMoves,
  solvedOutlines,
  solveRelations,
  spreadOf,
  type Group,
  type Move,
  type Relation,
  type Relatable,
  type RelatingPlane,
  type Solved,
  type Spread,
} from '../relate';
import { asTheyLook, movedPlane, relatingPlane, type SeenPlane } from './planes';

/** What the relations on a plane make of its outlines. */
export interface RelatedPlane {
  /** The plane as the evidence alone puts it. */
  readonly plane: RelatingPlane;
  /** Outlines that hang together, solved group by group; those about which sizes are typed together, since they share the scale. */
  readonly groups: readonly SolvedGroup[];
  /** Whether all of them hold. */
  readonly holds: boolean;
  /** The plane as typed sizes move the fits of its views within their doubt; as it was where relations are about no size. */
  readonly moved: SeenPlane;
  /** Shapes of the outlines that relations are about. What does not hold together stays where it was drawn. */
  readonly shapes: ReadonlyMap<string, Shape>;
  /** How far what was drawn had to move for the relations. */
  readonly moves: readonly Move[];
}

export interface SolvedGroup {
  readonly solved: Solved;
  readonly relations: readonly Relation[];
  /** Joint covariance of what was solved; worked out when it is first asked for. */
  spread(): Spread | undefined;
}

/** A group is solved once, for as long as its plane, outlines and relations stay the same. */
type SolveGroup = (group: Group, plane: RelatingPlane, doubted: RelatingPlane) => SolvedGroup;

function solveGroup({ outlines, relations }: Group, plane: RelatingPlane, doubted: RelatingPlane): SolvedGroup {
  const solved = solveRelations(outlines, relations, plane);
  let spread: { readonly value: Spread | undefined } | undefined;
  return { solved, relations, spread: () => (spread ??= { value: spreadOf(solved, outlines, doubted) }).value };
}

/**
 * Relations about sizes tell something of the scale: with them the fits move within their doubt, and everything that is traced on the plane with them.
 * Relations about shape alone leave the fits as they are: making two edges parallel changes no size elsewhere.
 */
function relateOn(
  seen: SeenPlane,
  plane: RelatingPlane,
  outlines: readonly Relatable[],
  relations: readonly Relation[],
  solve: SolveGroup,
): RelatedPlane {
  const all = listGroups(outlines, relations).filter((group) => group.relations.length > 0);
  const [sized, shaped] = [
    all.filter((group) => hasSize(group.relations)),
    all.filter((group) => !hasSize(group.relations)),
  ];
  const joint: Group = {
    outlines: sized.flatMap((group) => group.outlines),
    relations: sized.flatMap((group) => group.relations),
  };
  const measured = sized.length > 0 ? [solve(joint, plane, plane)] : [];
  const doubts = measured.flatMap(({ solved }) => (solved.holds ? doubtsAt(solved) : []));
  const moved = movedPlane(seen, doubts);
  const held: RelatingPlane = { ...(moved === seen ? plane : relatingPlane(moved)), freedoms: [] };
  const groups = [...measured, ...shaped.map((group) => solve(group, held, plane))];
  return {
    plane,
    groups,
    moved,
    holds: groups.every(({ solved }) => solved.holds),
    shapes: new Map(groups.flatMap(({ solved }) => (solved.holds ? shapesOf(solved, moved) : []))),
    moves: groups.flatMap(({ solved }) =>
      solved.holds ? listMoves(solved, (outline) => shapeOf(outline, moved.placing)) : [],
    ),
  };
}

/** What was solved lies on the plane already, in px where there is no scale; there corners stay sharp, since their size is in mm. */
function shapesOf(solved: Solved, { placing }: SeenPlane): readonly (readonly [string, Shape])[] {
  return [...solvedOutlines(solved)].map(
    ([id, outline]) =>
      [id, shapeOf(placing.scaled ? outline : withoutCorners(outline), { ...placing, scaled: true })] as const,
  );
}

function withoutCorners(outline: Relatable): Relatable {
  return outline.shape === 'chain'
    ? { ...outline, nodes: outline.nodes.map((node) => ({ ...node, corner: undefined })) }
    : outline;
}

/** Remembers what was worked out for a plane for as long as its views' fits, its outlines and its relations stay the same, and of the groups those that did. */
export function createRelating(): (
  seen: SeenPlane,
  outlines: readonly Outline[],
  relations: readonly Relation[],
) => RelatedPlane | undefined {
  const planes = new Map<string, { readonly of: readonly unknown[]; readonly plane: RelatingPlane }>();
  const known = new Map<string, { readonly of: readonly unknown[]; readonly related: RelatedPlane }>();
  const groups = new Map<string, { readonly of: readonly unknown[]; readonly group: SolvedGroup }>();
  const planeOf = (seen: SeenPlane) => {
    const before = planes.get(seen.id);
    if (before && isSameList(before.of, seen.fits)) return before.plane;
    const plane = relatingPlane(seen);
    planes.set(seen.id, { of: seen.fits, plane });
    return plane;
  };
  return (seen, all, every) => {
    const { id, fits } = seen;
    const relations = every.filter(({ plane }) => plane === id);
    if (relations.length === 0) return undefined;
    const named = new Set(relations.flatMap(({ on }) => on.map(({ outline }) => outline)));
    const outlines = all.filter(isRelatable).filter((outline) => outline.plane === id && named.has(outline.id));
    const before = known.get(id);
    const of = [...fits, ...outlines, ...relations];
    if (before && isSameList(before.of, of))
      return { ...before.related, moved: asTheyLook(before.related.moved, seen) };
    const plane = planeOf(seen);
    const solve: SolveGroup = (group, on, doubted) => {
      // A plane that typed sizes moved is another one each time.
      const key = [on.freedoms.length > 0 ? doubted : on.toPlane, ...group.outlines, ...group.relations];
      const name = group.outlines[0]!.id;
      const earlier = groups.get(name);
      if (earlier && isSameList(earlier.of, key)) return earlier.group;
      const solved = solveGroup(group, on, doubted);
      groups.set(name, { of: key, group: solved });
      return solved;
    };
    const related = relateOn(seen, plane, outlines, relations, solve);
    known.set(id, { of, related });
    return related;
  };
}
