import { useShallow } from 'zustand/react/shallow';
import { listRims, SAME_PLACE, shapesShownIn, withOutlines, type ViewRegion } from '@/core/derive';
import { drawingWorker } from '@/workers';
import { useJob } from './use-session';
import { useWorked, type Worked } from './use-worked';

/** The regions of a plane, worked out anew when anything changes that shuts them in, and only while they are wanted. */
export function useRegions(plane: string, isWanted = true): Worked<readonly ViewRegion[]> {
  const shapes = useJob(useShallow(({ job, derived }) => shapesShownIn(job, derived, plane)));
  return useWorked(
    'regions',
    plane,
    shapes,
    async (signal) => {
      const rims = listRims(shapes);
      const listed = await drawingWorker.call(
        'listRegions',
        { pieces: rims.map(({ piece }) => piece), tolerance: SAME_PLACE },
        { signal },
      );
      return listed.kind === 'done' ? { ...listed, value: withOutlines(listed.value, rims) } : listed;
    },
    isWanted,
  );
}
