import { listMapDoubts, listReaches, movedFit, pointingCovariance, type Fit } from '../calibrate';
import type { Vec } from '../geometry';
import type { Knowing } from '../outline';
import type { PoseMove, RelatingPlane, RelatingPlanes, StandingIn } from '../relate';
import { cross3, dot3, normalOf, scale3, subtract3 } from '../space';
import type { FittedView } from './fits';
import { knowingIn } from './knowing';
import type { KnownStanding, PlanePlacing, SeenPlane } from './derived';

/** The doubts of a fit among those of a plane: the covariance that they make up, which views that share the fit share; from which on, how many, and how far each goes at once, where it does. */
export interface FitDoubts {
  readonly of: Fit['covariance'];
  readonly first: number;
  readonly count: number;
  readonly reaches: readonly (number | undefined)[];
}

/** The view that a place names, or the first. */
const sightIn = (views: readonly FittedView[], view: string | undefined): FittedView =>
  views.find((other) => other.view.id === view) ?? views[0]!;

export function seenPlane(id: string, views: readonly FittedView[]): SeenPlane {
  const scaled = views.filter(({ fit }) => fit.scaled);
  const seeing = scaled.length > 0 ? scaled : views;
  const blind = views.filter((fitted) => !seeing.includes(fitted)).map(({ view }) => view.id);
  return withViews(id, seeing, (view = views[0]?.view.id ?? '') => blind.includes(view));
}

const withViews = (id: string, views: readonly FittedView[], isBlind: PlanePlacing['isBlind']): SeenPlane => ({
  id,
  views,
  fits: views.map(({ fit }) => fit),
  placing: placingBy(views, isBlind),
});

/** Every plane that views show. */
export function listPlanes(views: Iterable<FittedView>): Map<string, SeenPlane> {
  const seeing = new Map<string, FittedView[]>();
  for (const fitted of views) seeing.set(fitted.view.plane, [...(seeing.get(fitted.view.plane) ?? []), fitted]);
  return new Map([...seeing].map(([id, some]) => [id, seenPlane(id, some)]));
}

function placingBy(views: readonly FittedView[], isBlind: PlanePlacing['isBlind']): PlanePlacing {
  const { scaled } = views[0]!.fit;
  return { scaled, isBlind, toPlane: (sheet, view) => sightIn(views, view).fit.toPlane(sheet) };
}

export function doubtsOf({ fits }: Pick<SeenPlane, 'fits'>): readonly FitDoubts[] {
  const each = new Map(fits.map((fit) => [fit.covariance, fit]));
  let first = 0;
  return [...each].map(([of, fit]) => {
    const reaches = listReaches(fit);
    const count = reaches.length;
    first += count;
    return { of, first: first - count, count, reaches };
  });
}

/** Of the doubts of several planes' fits those of one of the planes, in its own order. */
export function doubtsOn(plane: SeenPlane, among: readonly SeenPlane[], doubts: readonly number[]): readonly number[] {
  const all = doubtsOf(together(among));
  return doubtsOf(plane).flatMap(({ of }) => {
    const { first, count } = all.find((fit) => fit.of === of)!;
    return doubts.slice(first, first + count);
  });
}

/** The other way: the doubts of several planes' fits, as far as they are said plane by plane; undefined where none is. */
export function doubtsAmong(
  among: readonly SeenPlane[],
  doubts: ReadonlyMap<string, readonly number[]>,
): readonly number[] | undefined {
  if (!among.some(({ id }) => doubts.has(id))) return undefined;
  return doubtsOf(together(among)).flatMap(({ of, count }): readonly number[] => {
    for (const plane of among) {
      const [own, said] = [doubtsOf(plane).find((fit) => fit.of === of), doubts.get(plane.id)];
      if (own && said) return said.slice(own.first, own.first + count);
    }
    return Array.from({ length: count }, () => 0);
  });
}

const together = (among: readonly SeenPlane[]): Pick<SeenPlane, 'fits'> => ({
  fits: among.flatMap(({ fits }) => fits),
});

/** A plane after its doubts went by so many sigmas each. */
export function movedPlane(plane: SeenPlane, doubts: readonly number[]): SeenPlane {
  if (doubts.every((doubt) => doubt === 0)) return plane;
  const fits = doubtsOf(plane);
  const views = plane.views.map((fitted) => {
    const { first, count } = fits.find(({ of }) => of === fitted.fit.covariance)!;
    const fit = movedFit(fitted.fit, doubts.slice(first, first + count));
    return { ...fitted, fit, placing: { ...fitted.placing, toPlane: fit.toPlane } };
  });
  return withViews(plane.id, views, plane.placing.isBlind);
}

/** A plane that was moved, with its views as they look now. */
export const asTheyLook = (moved: SeenPlane, now: SeenPlane): SeenPlane => ({
  ...moved,
  views: moved.views.map(({ fit, placing }, i) => ({ ...now.views[i]!, fit, placing })),
});

/** How well places are known that are pointed in the views of a plane. */
export const knowingOf = ({ views }: Pick<SeenPlane, 'views'>): Knowing => knowingIn((view) => sightIn(views, view));

/** Planes as relations need them that tie their outlines; `standing`: how each stands in the object frame, where that is known. */
export function relatingPlanes(
  among: readonly SeenPlane[],
  standing: (plane: SeenPlane) => KnownStanding | undefined,
): RelatingPlanes {
  const all = doubtsOf(together(among));
  const planes = new Map(among.map((plane) => [plane.id, relatingPlane(plane, all, standing(plane))]));
  return (id) => planes.get(id)!;
}

function relatingPlane(
  plane: SeenPlane,
  doubts: readonly FitDoubts[],
  stands: KnownStanding | undefined,
): RelatingPlane {
  const { views, placing } = plane;
  return {
    scaled: placing.scaled,
    toPlane: placing.toPlane,
    isBlind: placing.isBlind,
    freedoms: doubts.flatMap((fit) => freedomsOf(views, fit)),
    knowing: knowingOf(plane),
    standing: stands && standingWith(stands, doubts),
    covarianceOf: ({ at, sigma, edge }) => {
      const matrix = pointingCovariance({ at, sigma, edge });
      return [matrix.get(0, 0), matrix.get(0, 1), matrix.get(1, 1)];
    },
  };
}

/** Share of a sigma by which a fit is varied for how its pose moves. */
const STEP = 0.1;
const AS_IT_IS: PoseMove = { shift: [0, 0, 0], turn: 0 };

/** A pose with how it moves when the fit of the view goes by its doubts. */
function standingWith({ pose, shows, by }: KnownStanding, doubts: readonly FitDoubts[]): StandingIn {
  if (!by) return { pose, shows, moves: [] };
  const normal = normalOf(pose);
  const moveBy = (k: number): PoseMove => {
    const [ahead, behind] = [STEP, -STEP].map((step) =>
      by.poseBy(movedFit(by.fit, [...Array.from({ length: k }, () => 0), step])),
    ) as [KnownStanding['pose'], KnownStanding['pose']];
    return {
      shift: scale3(subtract3(ahead.origin, behind.origin), 1 / (2 * STEP)),
      turn: dot3(normal, cross3(behind.x, ahead.x)) / (2 * STEP),
    };
  };
  const moves = doubts.flatMap(({ of, count }) =>
    Array.from({ length: count }, (_, k) => (of === by.fit.covariance ? moveBy(k) : AS_IT_IS)),
  );
  return { pose, shows, moves };
}

const STILL: Vec = [0, 0];

/** What is pointed in a view moves with the doubts of its own fit alone. */
function freedomsOf(
  views: readonly FittedView[],
  { of, count }: FitDoubts,
): readonly ((sheet: Vec, view?: string) => Vec)[] {
  const moving = new Map(
    views.flatMap((fitted) => (fitted.fit.covariance === of ? [[fitted, listMapDoubts(fitted.fit)] as const] : [])),
  );
  return Array.from({ length: count }, (_, k) => (sheet: Vec, view?: string) => {
    const moves = moving.get(sightIn(views, view));
    return moves ? moves[k]!(sheet) : STILL;
  });
}
