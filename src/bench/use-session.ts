import { createContext, useCallback, useContext, useRef } from 'react';
import { useStore } from 'zustand';
import type { JobState, JobStore } from '@/store';
import { fittedIn } from './ground';
import type { Session } from './session';
import type { SessionState } from './session-state';
import type { Insets } from './viewport';

/** The job and the sitting that the parts of a job's screen share. */
export interface Desk {
  readonly jobs: JobStore;
  readonly session: Session;
}

export const DeskContext = createContext<Desk | undefined>(undefined);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('no desk above');
  return desk;
}

export function useJob<T>(select: (state: JobState) => T): T {
  return useStore(useDesk().jobs, select);
}

export function useSession<T>(select: (state: SessionState) => T): T {
  return useStore(useDesk().session.store, select);
}

/** Reference geometry of the job that is at hand. */
export const useReferencesAtHand = () => useStore(useDesk().session.references);

/** For the ref of what lies over an edge of the bench: the picture makes room for it. */
export function useCover(side: keyof Insets) {
  const { session } = useDesk();
  const leave = useRef<() => void>(undefined);
  return useCallback(
    (view: unknown) => {
      leave.current?.();
      leave.current = view instanceof Element ? session.covers.watchOver(view, side) : undefined;
    },
    [session, side],
  );
}

/** The view that is on the bench, with its fit, or what is looked at in its stead; undefined in a job without pictures. */
export function useFitted() {
  const viewId = useSession((state) => state.viewId);
  const elsewhere = useSession((state) => state.elsewhere);
  const references = useReferencesAtHand();
  return useJob(({ derived }) => fittedIn(viewId, elsewhere, references, derived));
}
