import type { Derived, FittedView } from '@/core/derive';
import { findSpan, relatingPlane, seenPlane } from '@/core/derive';
import { angleOf, lineAngle, subtract } from '@/core/geometry';
import { addRelations, type Job } from '@/core/job';
import {
  canRelate,
  findElement,
  follows,
  isRelatable,
  judgeRelation,
  RELATION_KINDS,
  type Relation,
  type RelationEnd,
  type RelationKind,
  type Verdict,
} from '@/core/relate';
import { newId } from '@/store';

export interface Relating {
  readonly job: Job;
  readonly derived: Derived;
  readonly fitted: FittedView;
}

export const outlinesOf = ({ job, fitted }: Relating) =>
  job.outlines.filter(isRelatable).filter(({ plane }) => plane === fitted.view.plane);
export const relationsOf = ({ job, fitted }: Relating) =>
  job.relations.filter(({ plane }) => plane === fitted.view.plane);

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
  const known = new Map(outlinesOf(relating).map((outline) => [outline.id, outline]));
  return RELATION_KINDS.flatMap((kind) => {
    const on = ordersOf(chosen).find((ends) => {
      const elements = ends.map((end) => findElement(end, known));
      return elements.every((element) => element !== undefined) && canRelate(kind, elements);
    });
    return on && (kind !== 'distance' || haveDistance(relating, on)) ? [{ kind, on }] : [];
  });
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
  { fitted }: Relating,
  kind: RelationKind,
  on: readonly RelationEnd[],
  value?: number,
): Relation {
  return { id: newId(), plane: fitted.view.plane, kind, on, ...(value === undefined ? {} : { value }) };
}

/** The plane as the evidence alone puts it: sizes that hold already have moved the view's own. */
export const planeOf = ({ derived, fitted }: Relating) =>
  derived.related.get(fitted.view.plane)?.plane ??
  relatingPlane(derived.planes.get(fitted.view.plane) ?? seenPlane(fitted.view.plane, [fitted]));

export function judge(relating: Relating, relation: Relation): Verdict {
  return judgeRelation(relation, relationsOf(relating), outlinesOf(relating), planeOf(relating));
}

/** The command that takes those of some relations that can hold together; undefined when none can. */
export function takingOf(relating: Relating, wanted: readonly Relation[]) {
  const [outlines, plane] = [outlinesOf(relating), planeOf(relating)];
  const taken: Relation[] = [];
  for (const relation of wanted) {
    const held = [...relationsOf(relating), ...taken];
    if (!follows(relation, held, outlines, plane) && judgeRelation(relation, held, outlines, plane).kind === 'holds')
      taken.push(relation);
  }
  return taken.length > 0 ? addRelations(taken, taken.length > 1 ? 'relations-added' : 'relation-added') : undefined;
}
