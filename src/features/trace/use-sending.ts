import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { hasOthers, type Sent } from '@/core/derive';
import { shareLines } from '@/core/job';
import { newId } from '@/store';
import { nameForFeature } from '@/ui/feature-words';

/** Sends a line or a place of this view to the others; undefined where there are none that show a side. */
export function useSending(): ((sent: Sent) => void) | undefined {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const job = useJob((state) => state.job);
  if (!fitted || !hasOthers(job, fitted)) return undefined;
  return ({ along, seen }) => {
    const name = nameForFeature(along, job.features);
    const places = seen.map((place) => ({ ...place, id: newId() }));
    jobs.getState().run(shareLines([{ id: newId(), name, ...(along ? { along } : {}), seen: places }]));
    session.say('sent-to-views', { name });
  };
}
