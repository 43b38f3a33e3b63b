import { clearanceOf, type Clearance, type Derived } from '@/core/derive';
import type { Job, Setback } from '@/core/job';
import type { Siting } from '@/core/outline';

/** How one drawing that is set on a plane keeps from one edge there. */
export interface KeptClear extends Clearance {
  readonly setback: Setback;
  readonly siting: Siting;
}

const known = new WeakMap<Derived, Map<string, readonly KeptClear[]>>();

/** How all that is set on a plane keeps from all edges there, worked out once for as long as nothing that it stands on changes. */
export function clearancesOn(plane: string, job: Job, derived: Derived): readonly KeptClear[] {
  const planes = known.get(derived) ?? new Map<string, readonly KeptClear[]>();
  known.set(derived, planes);
  const before = planes.get(plane);
  if (before) return before;
  const kept = job.setbacks
    .filter((setback) => setback.plane === plane)
    .flatMap((setback) =>
      job.sitings
        .filter((siting) => siting.plane === plane)
        .flatMap((siting): KeptClear[] => {
          const clear = clearanceOf(setback, siting, { job, derived });
          return clear ? [{ setback, siting, ...clear }] : [];
        }),
    );
  planes.set(plane, kept);
  return kept;
}

/** More is over than its plus-minus explains; below nothing within that it may be either. */
export const isOver = ({ margin: { value, sigma } }: Clearance): boolean => value < -2 * sigma;
