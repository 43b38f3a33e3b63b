import { useState } from 'react';
import { useDesk, useFitted } from '@/bench/use-session';
import type { Vec } from '@/core/geometry';
import { turnView, type View } from '@/core/job';
import { pictureKey } from '@/core/pictures';
import { openPicture, repository } from '@/store';
import { pictureWorker } from '@/workers';

const DEGREES = 180 / Math.PI;
const QUARTER = Math.PI / 2;
/** Off by less than this nobody can see it. Radians. */
const LEVEL = 0.005 / DEGREES;

/** Asks the picture worker for something about the sheet that is looked at; `none`: what is said where there is nothing of it. */
function useSearch() {
  const { session } = useDesk();
  const fitted = useFitted();
  const [busy, setBusy] = useState(false);
  const search = async <T>(operation: 'turn' | 'drawings', then: (found: T, view: View) => void, none: string) => {
    if (!fitted) return;
    const { view, sheet } = fitted;
    const hash = pictureKey(sheet);
    setBusy(true);
    session.say('seeking');
    const outcome = (await openPicture(hash, repository))
      ? await pictureWorker.call(operation, { hash, direction: view.datum.direction })
      : undefined;
    setBusy(false);
    const now = session.findFitted()?.view;
    // Whoever went on to another view in the meantime is not interrupted.
    if (now?.id !== view.id) return;
    if (outcome?.kind === 'done' && outcome.value) then(outcome.value as T, now);
    else session.say(outcome?.kind === 'failed' ? outcome.code : none);
  };
  return { busy, search };
}

/** What can be found on a sheet without pointing: how it lies, and where its drawings are. */
export function useSheetSearch() {
  const { jobs, session } = useDesk();
  const { busy, search } = useSearch();

  const straighten = () =>
    search<{ angle: number; sigma: number }>(
      'turn',
      ({ angle, sigma }, { id, datum, mirrored }) => {
        const off = angle - datum.direction;
        const by = (off - QUARTER * Math.round(off / QUARTER)) * (mirrored ? 1 : -1);
        const detail = { degrees: Math.abs(by * DEGREES).toFixed(2), plusMinus: (2 * sigma * DEGREES).toFixed(2) };
        if (Math.abs(by) < LEVEL) return session.say('already-level', detail);
        if (session.isReadOnly()) return session.say('read-only');
        jobs.getState().run(turnView(id, by));
        session.framing.showAll();
        session.say('straightened', { ...detail, way: by > 0 ? 'right' : 'left' });
      },
      'nothing-level',
    );

  const findDrawings = () =>
    search<readonly (readonly Vec[])[]>(
      'drawings',
      (frames) => {
        if (frames.length < 2) return session.say('one-drawing');
        session.suggest(frames);
        session.hush();
        session.framing.showAll();
      },
      'one-drawing',
    );

  return { busy, straighten, findDrawings };
}
