import { useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useDesk, useJob } from '@/bench/use-session';
import { useWorked, type Worked } from '@/bench/use-worked';
import { mendAll, shapesCutIn, toldIn, type Check } from '@/core/derive';
import type { CheckLimits, Finding, Shape } from '@/core/outline';
import { newId } from '@/store';
import { drawingWorker } from '@/workers';

const look = (shapes: readonly Shape[], limits: CheckLimits, signal: AbortSignal) =>
  drawingWorker.call('checkShapes', { shapes, limits }, { signal });

/** What keeps the outlines of a plane from being cut, looked for anew when one of them changes. */
export function useFindings(plane: string, limits: CheckLimits): Worked<readonly Finding[]> {
  const shapes = useJob(useShallow(({ job, derived }) => shapesCutIn(job, derived, plane)));
  return useWorked('findings', plane, [limits.shortest, limits.touching, ...shapes], (signal) =>
    look(shapes, limits, signal),
  );
}

/** Mends everything that can be, as one step, unless the drawing changes meanwhile or it is stopped. */
export function useMending(view: string, limits: CheckLimits): Omit<Worked<never>, 'value'> {
  const { jobs, session } = useDesk();
  const abort = useRef<AbortController>(undefined);
  const [isWorking, setWorking] = useState(false);
  const again = async () => {
    const { signal } = (abort.current = new AbortController());
    const { job, derived } = jobs.getState();
    setWorking(true);
    const check: Check = async (shapes) => {
      const found = await look(shapes, limits, signal);
      return found.kind === 'done' ? found.value : undefined;
    };
    const mended = await mendAll(job, view, limits, { check, newId, told: toldIn(derived) });
    setWorking(false);
    if (signal.aborted) return;
    if (jobs.getState().job !== job) return session.say('mending-overtaken');
    if (mended) jobs.getState().run(mended.command);
    session.say(mended ? 'mended' : 'nothing-mended', { count: mended?.count ?? 0 });
  };
  return { isWorking, isStopped: false, stop: () => abort.current?.abort(), again: () => void again() };
}
