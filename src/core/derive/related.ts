import { isSameList } from '../basics';
import { shapeOf, type Outline, type Shape } from '../outline';
import {
  directionOfOne,
  doubtsAt,
  hasSize,
  heldStill,
  listGroups,
  listMoves,
  movedPose,
  solvedOutlines,
  solveRelations,
  spreadOf,
  type Group,
  type Relatable,
  type RelatingPlanes,
  type Solved,
  type Spread,
} from '../relate';
import type { KnownStanding, RelatedPlanes, SeenPlane, SolvedGroup } from './derived';
import { asTheyLook, doubtsOn, movedPlane, relatingPlanes } from './planes';
import type { Tied } from './tied';
import type { Pose } from '../space';

/** A group is solved once, for as long as its planes, outlines and relations stay the same. */
type SolveGroup = (group: Group, planes: RelatingPlanes, doubted: RelatingPlanes) => SolvedGroup;

function solveGroup({ outlines, relations }: Group, planes: RelatingPlanes, doubted: RelatingPlanes): SolvedGroup {
  const solved = solveRelations(outlines, relations, planes);
  let spread: { readonly value: Spread | undefined } | undefined;
  return { solved, relations, spread: () => (spread ??= { value: spreadOf(solved, outlines, doubted) }).value };
}

/** Where planes stand in the object frame. */
export type StandingOf = (plane: SeenPlane) => KnownStanding | undefined;

/**
 * Relations about sizes tell something of the scale: with them the fits move within their doubt, and everything that is traced on the planes with them.
 * Relations about shape alone leave the fits as they are: making two edges parallel changes no size elsewhere.
 */
function relateOn(
  { planes, outlines, relations }: Tied,
  relating: RelatingPlanes,
  standing: StandingOf,
  { solve, move }: { readonly solve: SolveGroup; readonly move: typeof movedPlane },
): RelatedPlanes {
  const all = listGroups(outlines, relations).filter((group) => group.relations.length > 0);
  const [sized, shaped] = [
    all.filter((group) => hasSize(group.relations)),
    all.filter((group) => !hasSize(group.relations)),
  ];
  const joint: Group = {
    outlines: sized.flatMap((group) => group.outlines),
    relations: sized.flatMap((group) => group.relations),
  };
  const measured = sized.length > 0 ? [solve(joint, relating, relating)] : [];
  const doubts = measured.flatMap(({ solved }) => (solved.holds ? doubtsAt(solved) : []));
  const moved = doubts.length > 0 ? planes.map((plane) => move(plane, doubtsOn(plane, planes, doubts))) : planes;
  const isMoved = moved.some((plane, i) => plane !== planes[i]);
  const stands = isMoved ? movedStanding(planes, relating, standing, doubts) : standing;
  const held = heldStill(isMoved ? relatingPlanes(moved, stands) : relating);
  const groups = [...measured, ...shaped.map((group) => solve(group, held, relating))];
  const placingOf = ({ plane }: Outline) => moved.find(({ id }) => id === plane)!.placing;
  return {
    planes,
    relating,
    groups,
    moved,
    poses: isMoved ? posesOf(planes, stands) : new Map(),
    holds: groups.every(({ solved }) => solved.holds),
    shapes: new Map(groups.flatMap(({ solved }) => (solved.holds ? shapesOf(solved, placingOf) : []))),
    moves: groups.flatMap(({ solved }) =>
      solved.holds ? listMoves(solved, (outline) => shapeOf(outline, placingOf(outline))) : [],
    ),
  };
}

/** Where planes stand after the doubts of their fits went by so many sigmas. */
function movedStanding(
  planes: readonly SeenPlane[],
  relating: RelatingPlanes,
  standing: StandingOf,
  doubts: readonly number[],
): StandingOf {
  const stands = new Map(
    planes.flatMap((plane) => {
      const [before, known] = [standing(plane), relating(plane.id).standing];
      return before && known ? [[plane.id, { ...before, pose: movedPose(known, doubts) }] as const] : [];
    }),
  );
  return ({ id }) => stands.get(id);
}

const posesOf = (planes: readonly SeenPlane[], standing: StandingOf): ReadonlyMap<string, Pose> =>
  new Map(
    planes.flatMap((plane) => {
      const stands = standing(plane);
      return stands?.by ? [[stands.by.view, stands.pose] as const] : [];
    }),
  );

/** What was solved lies on the plane already, in px where there is no scale; there corners stay sharp, since their size is in mm. */
function shapesOf(
  solved: Solved,
  placingOf: (outline: Outline) => SeenPlane['placing'],
): readonly (readonly [string, Shape])[] {
  return [...solvedOutlines(solved)].map(([id, outline]) => {
    const placing = placingOf(outline);
    return [id, shapeOf(placing.scaled ? outline : withoutCorners(outline), { ...placing, scaled: true })] as const;
  });
}

function withoutCorners(outline: Relatable): Relatable {
  return outline.shape === 'chain'
    ? { ...outline, nodes: outline.nodes.map((node) => ({ ...node, corner: undefined })) }
    : outline;
}

const numbersOf = (standing: KnownStanding | undefined): readonly number[] =>
  standing ? [standing.pose.origin, standing.pose.x, standing.pose.y, ...standing.shows].flat() : [];

/** Planes that doubts moved, each for as long as its fits and those stay the same: so what is drawn on it stays. */
function createMoving(): typeof movedPlane {
  const known = new Map<string, { readonly of: readonly unknown[]; readonly moved: SeenPlane }>();
  return (plane, doubts) => {
    const of = [...plane.fits, ...doubts];
    const before = known.get(plane.id);
    if (before && isSameList(before.of, of)) return asTheyLook(before.moved, plane);
    const moved = movedPlane(plane, doubts);
    known.set(plane.id, { of, moved });
    return moved;
  };
}

/** Remembers what was worked out for planes that are tied for as long as their views' fits, their outlines, how they stand and their relations stay the same, and of the groups those that did. */
export function createRelating(): (tied: Tied, standing: StandingOf) => RelatedPlanes {
  const move = createMoving();
  const known = new Map<string, { readonly of: readonly unknown[]; readonly related: RelatedPlanes }>();
  const relatings = new Map<string, { readonly of: readonly unknown[]; readonly relating: RelatingPlanes }>();
  const groups = new Map<string, { readonly of: readonly unknown[]; readonly group: SolvedGroup }>();
  return (tied, standingOf) => {
    const { planes, outlines, relations } = tied;
    const name = planes.map(({ id }) => id).join();
    // What is said on one plane alone is no matter of where that stands, but that sizes move it.
    const isSpatial = planes.length > 1 || hasSize(relations) || relations.some(({ kind }) => directionOfOne(kind));
    const standing: StandingOf = isSpatial ? standingOf : () => undefined;
    const stands = planes.flatMap((plane) => numbersOf(standing(plane)));
    const seen = [...planes.flatMap(({ fits }) => fits), ...stands];
    const before = known.get(name);
    const of = [...seen, ...outlines, ...relations];
    if (before && isSameList(before.of, of))
      return {
        ...before.related,
        planes,
        moved: before.related.moved.map((plane, i) => asTheyLook(plane, planes[i]!)),
      };
    const earlier = relatings.get(name);
    const relating = earlier && isSameList(earlier.of, seen) ? earlier.relating : relatingPlanes(planes, standing);
    relatings.set(name, { of: seen, relating });
    const solve: SolveGroup = (group, on, doubted) => {
      // Planes that typed sizes moved are others each time.
      const by = on(planes[0]!.id).freedoms.length > 0 ? [doubted] : planes.map(({ id }) => on(id).toPlane);
      const key = [...by, ...stands, ...group.outlines, ...group.relations];
      const first = group.outlines[0]!.id;
      const solvedBefore = groups.get(first);
      if (solvedBefore && isSameList(solvedBefore.of, key)) return solvedBefore.group;
      const solved = solveGroup(group, on, doubted);
      groups.set(first, { of: key, group: solved });
      return solved;
    };
    const related = relateOn(tied, relating, standing, { solve, move });
    known.set(name, { of, related });
    return related;
  };
}
