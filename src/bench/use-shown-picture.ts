import { useEffect, useState } from 'react';
import type { FittedView } from '@/core/derive';
import { openShown, repository, shownPicture, type ShownPicture } from '@/store';
import { useDesk } from './use-session';

/**
 * The picture to show of a view: while a cleaning is being worked out, the one that stood before it. Undefined where there is none. What is being done is
 * told to the session.
 */
export function useShownPicture(fitted: FittedView | undefined): ShownPicture | undefined {
  const { session } = useDesk();
  const wanted = fitted && fitted.sheet.bytes > 0 ? shownPicture(fitted.view, fitted.sheet) : undefined;
  const [ready, setReady] = useState<ShownPicture>();
  const key = wanted?.key;
  useEffect(() => {
    if (!wanted || wanted.steps.length === 0) return;
    const stop = new AbortController();
    void openShown(wanted, repository, { onProgress: (done) => session.setCleaning(done), signal: stop.signal }).then(
      (there) => {
        if (stop.signal.aborted) return;
        session.setCleaning(undefined);
        if (there) setReady(wanted);
        else session.say('cleaning-failed');
      },
    );
    return () => {
      stop.abort();
      session.setCleaning(undefined);
    };
    // The name says all of it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, session]);
  if (!wanted || wanted.steps.length === 0 || ready?.key === key) return wanted;
  return ready?.source === wanted.source ? ready : { key: wanted.source, source: wanted.source, steps: [] };
}
