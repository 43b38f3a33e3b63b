import { findSpan, planesOfEnds, sayingOn, type Derived, type FittedView, type Saying } from '@/core/derive';
import { angleOf, lineAngle, subtract } from '@/core/geometry';
import type { Job } from '@/core/job';
import {
  directionOfOne,
  findLive,
  isRelatable,
  RELATION_KINDS,
  type Relation,
  type RelationEnd,
  type RelationKind,
} from '@/core/relate';
import { newId } from '@/store';

export interface Relating {
  readonly job: Job;
  readonly derived: Derived;
  readonly fitted: FittedView;
}

/** Outlines of the plane of the view of which something can be said. */
export const outlinesOf = ({ job, fitted }: Relating) =>
  job.outlines.filter(isRelatable).filter(({ plane }) => plane === fitted.view.plane);

/** What is said of something that is drawn on the plane of the view, of other planes as well or not. */
export function relationsOf({ job, fitted }: Relating): readonly Relation[] {
  const here = new Set(job.outlines.filter(({ plane }) => plane === fitted.view.plane).map(({ id }) => id));
  return job.relations.filter(({ on }) => on.some(({ outline }) => here.has(outline)));
}

/** The planes on which things are drawn, in the order in which they are named. */
export const planesOf = ({ job }: Pick<Relating, 'job'>, on: readonly RelationEnd[]): readonly string[] =>
  planesOfEnds(on, job);

/** What of some things is drawn on other planes than that of the view. */
export const elsewhereOf = ({ job, fitted }: Relating, on: readonly RelationEnd[]): readonly RelationEnd[] =>
  on.filter((end) => planesOf({ job }, [end])[0] !== fitted.view.plane);

/** Names of the other views in which some of these things are drawn. */
export function otherViewsOf({ derived, fitted, job }: Relating, on: readonly RelationEnd[]): readonly string[] {
  const views = [...derived.views.values()];
  return planesOf({ job }, on)
    .filter((plane) => plane !== fitted.view.plane)
    .flatMap((plane) => views.find(({ view }) => view.plane === plane)?.source.name ?? []);
}

/** Of things in several views the first view that joins no other, so that only lengths can be compared with what it shows; or of which nothing says how far along a direction it stands. */
export function findApart(
  relating: Relating,
  on: readonly RelationEnd[],
): { readonly view: string; readonly isByZero: boolean } | undefined {
  const { relating: planes } = sayingOf(relating, on);
  const apart = planesOf(relating, on).find((plane) => (planes(plane).standing?.shows.length ?? 0) < 2);
  const view = [...relating.derived.views.values()].find((fitted) => fitted.view.plane === apart)?.source.name;
  return apart === undefined || view === undefined
    ? undefined
    : { view, isByZero: planes(apart).standing !== undefined };
}

/** All that what is said of some things has to agree with. */
const sayingOf = (relating: Relating, on: readonly RelationEnd[]): Saying =>
  sayingOn(planesOf(relating, on), relating.job, relating.derived);

/** All orders of up to three things; more stay as they were chosen. */
function ordersOf<T>(list: readonly T[]): readonly (readonly T[])[] {
  if (list.length > 3) return [list];
  return list.length <= 1
    ? [list]
    : list.flatMap((first, i) => ordersOf(list.filter((_, k) => k !== i)).map((rest) => [first, ...rest]));
}

/** What can be said of the things that are chosen, each with the order in which it is said of them. */
export function listSayable(
  relating: Relating,
  chosen: readonly RelationEnd[],
): readonly { readonly kind: RelationKind; readonly on: readonly RelationEnd[] }[] {
  const { outlines, relating: planes } = sayingOf(relating, chosen);
  const known = new Map(outlines.map((outline) => [outline.id, outline]));
  const sayable = RELATION_KINDS.flatMap((kind) => {
    const on = ordersOf(chosen).find((ends) => findLive({ id: '', plane: '', kind, on: ends }, known, planes));
    return on && (kind !== 'distance' || haveDistance(relating, on)) ? [{ kind, on }] : [];
  });
  // Where planes show one direction of the thing in common, one place is as far along that and nothing else: it is said so.
  const directions = sayable.filter(({ kind }) => directionOfOne(kind)).length;
  const isOneDirection = directions === 1 && planesOf(relating, chosen).length > 1;
  return sayable.filter(({ kind }) => !(isOneDirection && kind === 'coincident'));
}

/** Lines that run apart by more than this have no distance, only an angle. Radians. */
const NEARLY_PARALLEL = 0.1;

/** Whether two chosen lines run nearly alike: then a distance can be said of them. */
function haveDistance({ job, derived }: Relating, on: readonly RelationEnd[]): boolean {
  const slopes = on.map((end) => findSpan({ kind: 'slope', on: [end] }, job.outlines, derived.shapes));
  if (slopes.length !== 2 || slopes.some((slope) => slope === undefined)) return true;
  const [a, b] = slopes.map((slope) => angleOf(subtract(slope!.to, slope!.from))) as [number, number];
  return Math.abs(lineAngle(a - b)) < NEARLY_PARALLEL;
}

export function newRelation(
  relating: Relating,
  kind: RelationKind,
  on: readonly RelationEnd[],
  value?: number,
): Relation {
  const [plane = relating.fitted.view.plane] = planesOf(relating, on);
  return { id: newId(), plane, kind, on, ...(value === undefined ? {} : { value }) };
}
