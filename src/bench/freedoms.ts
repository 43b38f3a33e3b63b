import { relatingPlane, type Derived } from '@/core/derive';
import type { Job } from '@/core/job';
import { isRelatable, listFreedoms, type Freedom } from '@/core/relate';

const known = new WeakMap<Derived, Map<string, readonly Freedom[]>>();

/** What is left free on a plane, worked out once for as long as nothing changes. */
export function freedomsIn(job: Job, derived: Derived, plane: string): readonly Freedom[] {
  const planes = known.get(derived) ?? new Map<string, readonly Freedom[]>();
  known.set(derived, planes);
  const before = planes.get(plane);
  if (before) return before;
  const [seen, related] = [derived.planes.get(plane), derived.related.get(plane)];
  const values = new Map(
    (related?.groups ?? []).flatMap(({ solved }) => (solved.holds ? [...solved.solution.values] : [])),
  );
  const outlines = job.outlines.filter(isRelatable).filter((outline) => outline.plane === plane);
  const found = seen
    ? listFreedoms(
        outlines,
        job.relations.filter((relation) => relation.plane === plane),
        relatingPlane(seen),
        values,
      )
    : [];
  planes.set(plane, found);
  return found;
}
