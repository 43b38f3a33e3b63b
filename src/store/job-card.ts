import type { Derived } from '@/core/derive';
import type { Job } from '@/core/job';
import { formatPlusMinus } from '@/core/units';
import type { JobCard } from './repository';

/** The card of a job as it stands; `now` and the thumbnail come from outside. */
export function jobCardOf(job: Job, derived: Derived, changed: Date, thumbnail: string | undefined): JobCard {
  // What is not worked out yet says nothing of how good it is.
  const sigmas = [...derived.views.values()].flatMap(({ sigma, isPending }) =>
    sigma === undefined || isPending ? [] : [sigma],
  );
  const fit =
    job.sheets.length === 0
      ? 'no-pictures'
      : sigmas.length === 0
        ? 'no-scale'
        : formatPlusMinus(Math.max(...sigmas), job.units);
  const checks = [...derived.views.values()].flatMap((view) => view.checks);
  return {
    id: job.id,
    name: job.name,
    changed: changed.toISOString(),
    thumbnail,
    pictures: job.sheets.length,
    outlines: job.outlines.length,
    fit,
    checked: checks.length > 0 && checks.every((check) => check.verdict === 'agrees'),
  };
}
