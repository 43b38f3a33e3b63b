import { useShallow } from 'zustand/react/shallow';
import { listRims, shapesShownIn, withOutlines, type ViewRegion } from '@/core/derive';
import { drawingWorker } from '@/workers';
import { useJob } from './use-session';
import { useWorked, type Worked } from './use-worked';

/** What is nearer than this is one place: mm, or px without scale. */
const TOLERANCE = 1e-6;

/** The regions of a view, worked out anew when anything changes that shuts them in. */
export function useRegions(view: string): Worked<readonly ViewRegion[]> {
  const shapes = useJob(useShallow(({ job, derived }) => shapesShownIn(job, derived, view)));
  return useWorked('regions', view, shapes, async (signal) => {
    const rims = listRims(shapes);
    const listed = await drawingWorker.call('listRegions', { pieces: rims.map(({ piece }) => piece), tolerance: TOLERANCE }, { signal });
    return listed.kind === 'done' ? { ...listed, value: withOutlines(listed.value, rims) } : listed;
  });
}
