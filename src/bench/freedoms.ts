import { relatingPlane, type Derived } from '@/core/derive';
import type { Job } from '@/core/job';
import { isRelatable, listFreedoms, type Freedom } from '@/core/relate';

const known = new WeakMap<Derived, Map<string, readonly Freedom[]>>();

/** What is left free in a view, worked out once for as long as nothing changes. */
export function freedomsIn(job: Job, derived: Derived, view: string): readonly Freedom[] {
  const views = known.get(derived) ?? new Map<string, readonly Freedom[]>();
  known.set(derived, views);
  const before = views.get(view);
  if (before) return before;
  const [fitted, related] = [derived.views.get(view), derived.related.get(view)];
  const values = new Map(
    (related?.groups ?? []).flatMap(({ solved }) => (solved.holds ? [...solved.solution.values] : [])),
  );
  const outlines = job.outlines.filter(isRelatable).filter((outline) => outline.plane === view);
  const found = fitted
    ? listFreedoms(
        outlines,
        job.relations.filter((relation) => relation.plane === view),
        relatingPlane(fitted),
        values,
      )
    : [];
  views.set(view, found);
  return found;
}
