import { useEffect } from 'react';

/** The screen of a job, which the first screen does without; asked for again it is there. */
export const loadJobScreen = () =>
  import('@/features/job/job-screen').then(({ JobScreen }) => ({ default: JobScreen }));

/** After the first screen is there. ms */
const LATER = 1000;

/** Fetches what a job needs while somebody looks at the list. Where that fails, opening a job says so. */
export function useBenchAtHand(): void {
  useEffect(() => {
    const timer = setTimeout(() => void loadJobScreen().catch(() => undefined), LATER);
    return () => clearTimeout(timer);
  }, []);
}
