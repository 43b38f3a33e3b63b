import { useJob } from '@/bench/use-session';
import type { Units } from '@/core/units';

/** The units of the job that is open. */
export function useUnits(): Units {
  return useJob((state) => state.job.units);
}
