import type { Relation, Verdict } from '@/core/relate';
import type { Units } from '@/core/units';
import { markForRelation } from '@/ui/relation-words';
import type { Relating } from './relate-actions';

/** Why a relation was not taken, and what to do. */
export function refusalInWords(relation: Relation, verdict: Verdict, relating: Relating, units: Units): string {
  const mark = markForRelation(relation, units);
  if (verdict.kind !== 'contradicts') return 'This can no longer be said of these.';
  if (verdict.others.length === 0) return `“${mark}” is too far from what was drawn. Move it nearer first.`;
  const others = relating.job.relations
    .filter(({ id }) => verdict.others.includes(id))
    .map((other) => `“${markForRelation(other, units)}”`);
  return `“${mark}” cannot hold together with ${others.join(', ')}. Take one of these away first. Nothing was changed.`;
}
