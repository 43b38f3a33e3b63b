import { regionsOf, type Derived, type ViewRegion } from '@/core/derive';
import type { Job } from '@/core/job';

const known = new WeakMap<Derived, Map<string, { readonly layers: Job['layers']; readonly outlines: Job['outlines']; readonly regions: readonly ViewRegion[] }>>();

/** The regions of a view, worked out once for as long as nothing that shuts them in changes. */
export function regionsIn(job: Job, derived: Derived, view: string): readonly ViewRegion[] {
  const views = known.get(derived) ?? new Map();
  known.set(derived, views);
  const before = views.get(view);
  if (before && before.layers === job.layers && before.outlines === job.outlines) return before.regions;
  const regions = regionsOf(job, derived, view);
  views.set(view, { layers: job.layers, outlines: job.outlines, regions });
  return regions;
}
