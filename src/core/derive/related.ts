import { listFreedoms, movedFit, pointingCovariance } from '../calibrate';
import { shapeOf, type Outline, type Shape } from '../outline';
import { doubtsAt, hasSize, listMoves, solvedOutlines, solveRelations, spreadOf, type Move, type Relation, type RelatingPlane, type Solved } from '../relate';
import type { FittedView } from './fits';

/** What the relations of a view make of its outlines. */
export interface RelatedView {
  /** The plane as the evidence alone puts it. */
  readonly plane: RelatingPlane;
  readonly solved: Solved;
  /** The view as typed sizes move its fit within its doubt; as it was where relations are about no size. */
  readonly fitted: FittedView;
  /** Shapes of the outlines that relations are about. None when the relations do not hold together: then everything stays where it was drawn. */
  readonly shapes: ReadonlyMap<string, Shape>;
  /** How far what was drawn had to move for the relations. */
  readonly moves: readonly Move[];
  /** Joint covariance of what was solved; worked out when it is first asked for. */
  spread(): ReturnType<typeof spreadOf>;
}

/** The view's plane as relations need it. */
export function relatingPlane({ fit, steadiness }: FittedView): RelatingPlane {
  return {
    scaled: fit.scaled, toPlane: fit.toPlane, freedoms: listFreedoms(fit),
    covarianceOf: ({ at, sigma, edge }) => {
      const matrix = pointingCovariance({ at, sigma: sigma * steadiness.factor, edge });
      return [matrix.get(0, 0), matrix.get(0, 1), matrix.get(1, 1)];
    },
  };
}

/**
 * Relations about sizes tell something of the scale: with them the fit moves within its doubt, and everything that is traced in the view with it.
 * Relations about shape alone leave the fit as it is: making two edges parallel changes no size elsewhere.
 */
function relateView(fitted: FittedView, outlines: readonly Outline[], relations: readonly Relation[]): RelatedView {
  const plane = relatingPlane(fitted);
  const solved = solveRelations(outlines, relations, hasSize(relations) ? plane : { ...plane, freedoms: [] });
  const doubts = solved.holds ? doubtsAt(solved) : [];
  const fit = doubts.length > 0 ? movedFit(fitted.fit, doubts) : fitted.fit;
  const moved: FittedView = fit === fitted.fit ? fitted : { ...fitted, fit, placing: { ...fitted.placing, toPlane: fit.toPlane } };
  // What was solved lies on the plane already, in px where there is no scale.
  const placed = { ...moved.placing, scaled: true };
  const put = solved.holds ? solvedOutlines(solved) : new Map<string, Outline>();
  // A corner's size is in mm: without scale it stays sharp, as everywhere.
  const finish = (outline: Outline) => (fitted.fit.scaled ? outline : withoutCorners(outline));
  let spread: { readonly value: ReturnType<typeof spreadOf> } | undefined;
  return {
    plane, solved, fitted: moved,
    shapes: new Map([...put].map(([id, outline]) => [id, shapeOf(finish(outline), placed)])),
    moves: solved.holds ? listMoves(solved, (outline) => shapeOf(outline, moved.placing)) : [],
    spread: () => (spread ??= { value: spreadOf(solved, outlines, plane) }).value,
  };
}

function withoutCorners(outline: Outline): Outline {
  return outline.shape === 'chain' ? { ...outline, nodes: outline.nodes.map((node) => ({ ...node, corner: undefined })) } : outline;
}

interface Remembered {
  readonly fitted: FittedView;
  readonly outlines: readonly Outline[];
  readonly relations: readonly Relation[];
  readonly related: RelatedView;
}

/** Remembers what was worked out for a view for as long as its fit, its outlines and its relations stay the same. */
export function createRelating(): (fitted: FittedView, outlines: readonly Outline[], relations: readonly Relation[]) => RelatedView | undefined {
  const known = new Map<string, Remembered>();
  return (fitted, all, every) => {
    const relations = every.filter(({ view }) => view === fitted.view.id);
    if (relations.length === 0) return undefined;
    const named = new Set(relations.flatMap(({ on }) => on.map(({ outline }) => outline)));
    const outlines = all.filter(({ id, view }) => view === fitted.view.id && named.has(id));
    const before = known.get(fitted.view.id);
    if (before?.fitted === fitted && isSame(before.outlines, outlines) && isSame(before.relations, relations)) return before.related;
    const related = relateView(fitted, outlines, relations);
    known.set(fitted.view.id, { fitted, outlines, relations, related });
    return related;
  };
}

const isSame = <T>(a: readonly T[], b: readonly T[]) => a.length === b.length && a.every((item, i) => item === b[i]);
