import { isSameList } from '../basics';
import { listFreedoms, movedFit, pointingCovariance } from '../calibrate';
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
import type { FittedView } from './fits';

/** What the relations of a view make of its outlines. */
export interface RelatedView {
  /** The plane as the evidence alone puts it. */
  readonly plane: RelatingPlane;
  /** Outlines that hang together, solved group by group; those about which sizes are typed together, since they share the scale. */
  readonly groups: readonly SolvedGroup[];
  /** Whether all of them hold. */
  readonly holds: boolean;
  /** The view as typed sizes move its fit within its doubt; as it was where relations are about no size. */
  readonly fitted: FittedView;
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

/** The view's plane as relations need it. */
export function relatingPlane({ fit, steadiness }: FittedView): RelatingPlane {
  return {
    scaled: fit.scaled,
    toPlane: fit.toPlane,
    freedoms: listFreedoms(fit),
    steadiness: steadiness.factor,
    covarianceOf: ({ at, sigma, edge }) => {
      const matrix = pointingCovariance({ at, sigma, edge });
      return [matrix.get(0, 0), matrix.get(0, 1), matrix.get(1, 1)];
    },
  };
}

/** A group is solved once, for as long as its plane, outlines and relations stay the same. */
type SolveGroup = (group: Group, plane: RelatingPlane, doubted: RelatingPlane) => SolvedGroup;

function solveGroup({ outlines, relations }: Group, plane: RelatingPlane, doubted: RelatingPlane): SolvedGroup {
  const solved = solveRelations(outlines, relations, plane);
  let spread: { readonly value: Spread | undefined } | undefined;
  return { solved, relations, spread: () => (spread ??= { value: spreadOf(solved, outlines, doubted) }).value };
}

/**
 * Relations about sizes tell something of the scale: with them the fit moves within its doubt, and everything that is traced in the view with it.
 * Relations about shape alone leave the fit as it is: making two edges parallel changes no size elsewhere.
 */
function relateView(
  fitted: FittedView,
  plane: RelatingPlane,
  outlines: readonly Relatable[],
  relations: readonly Relation[],
  solve: SolveGroup,
): RelatedView {
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
  const moved = doubts.length > 0 ? movedView(fitted, doubts) : fitted;
  const held: RelatingPlane = { ...(moved === fitted ? plane : relatingPlane(moved)), freedoms: [] };
  const groups = [...measured, ...shaped.map((group) => solve(group, held, plane))];
  return {
    plane,
    groups,
    fitted: moved,
    holds: groups.every(({ solved }) => solved.holds),
    shapes: new Map(groups.flatMap(({ solved }) => (solved.holds ? shapesOf(solved, moved) : []))),
    moves: groups.flatMap(({ solved }) =>
      solved.holds ? listMoves(solved, (outline) => shapeOf(outline, moved.placing)) : [],
    ),
  };
}

function movedView(fitted: FittedView, doubts: readonly number[]): FittedView {
  const fit = movedFit(fitted.fit, doubts);
  return { ...fitted, fit, placing: { ...fitted.placing, toPlane: fit.toPlane } };
}

/** What was solved lies on the plane already, in px where there is no scale; there corners stay sharp, since their size is in mm. */
function shapesOf(solved: Solved, { placing }: FittedView): readonly (readonly [string, Shape])[] {
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

/** Remembers what was worked out for a view for as long as its fit, its outlines and its relations stay the same, and of the groups those that did. */
export function createRelating(): (
  fitted: FittedView,
  outlines: readonly Outline[],
  relations: readonly Relation[],
) => RelatedView | undefined {
  const planes = new WeakMap<FittedView, RelatingPlane>();
  const views = new Map<string, { readonly of: readonly unknown[]; readonly related: RelatedView }>();
  const groups = new Map<string, { readonly of: readonly unknown[]; readonly group: SolvedGroup }>();
  const planeOf = (fitted: FittedView) => {
    const plane = planes.get(fitted) ?? relatingPlane(fitted);
    planes.set(fitted, plane);
    return plane;
  };
  return (fitted, all, every) => {
    const { id } = fitted.view;
    const relations = every.filter(({ plane }) => plane === id);
    if (relations.length === 0) return undefined;
    const named = new Set(relations.flatMap(({ on }) => on.map(({ outline }) => outline)));
    const outlines = all.filter(isRelatable).filter((outline) => outline.plane === id && named.has(outline.id));
    const before = views.get(id);
    const of = [fitted, ...outlines, ...relations];
    if (before && isSameList(before.of, of)) return before.related;
    const plane = planeOf(fitted);
    const solve: SolveGroup = (group, on, doubted) => {
      // A plane that typed sizes moved is another one each time.
      const key = [on.freedoms.length > 0 ? doubted : on.toPlane, ...group.outlines, ...group.relations];
      const name = group.outlines[0]!.id;
      const known = groups.get(name);
      if (known && isSameList(known.of, key)) return known.group;
      const solved = solveGroup(group, on, doubted);
      groups.set(name, { of: key, group: solved });
      return solved;
    };
    const related = relateView(fitted, plane, outlines, relations, solve);
    views.set(id, { of, related });
    return related;
  };
}
