import { sayingOn, type Derived } from '@/core/derive';
import type { Job } from '@/core/job';
import { listFreedoms, type Freedom } from '@/core/relate';

const known = new WeakMap<Derived, Map<string, readonly Freedom[]>>();

/** What is left free on a plane, worked out once for as long as nothing changes. */
export function freedomsIn(job: Job, derived: Derived, plane: string): readonly Freedom[] {
  const planes = known.get(derived) ?? new Map<string, readonly Freedom[]>();
  known.set(derived, planes);
  const before = planes.get(plane);
  if (before) return before;
  const values = new Map(
    (derived.related.get(plane)?.groups ?? []).flatMap(({ solved }) =>
      solved.holds ? [...solved.solution.values] : [],
    ),
  );
  const { outlines, relations, relating } = sayingOn([plane], job, derived, 'moved');
  const here = new Set(outlines.filter((outline) => outline.plane === plane).map(({ id }) => id));
  const found = derived.planes.has(plane)
    ? listFreedoms(outlines, relations, relating, values).filter(({ outline }) => here.has(outline))
    : [];
  planes.set(plane, found);
  return found;
}
