import { useCallback, useEffect, useState } from 'react';
import { Session } from '@/bench/session';
import type { Desk } from '@/bench/use-session';
import { type Job } from '@/core/job';
import { pictureKey } from '@/core/pictures';
import { keepStorage, openJob, repository, storage, thumbnailOf, type Judge } from '@/store';
import { fitWorker, type Outcome } from '@/workers';

export type DeskState =
  | { readonly kind: 'opening' }
  | { readonly kind: 'missing' }
  /** Something is stored of it that cannot be read. */
  | { readonly kind: 'damaged' }
  /** `reopen` reads it from the device again, to write it; taken, where need be, from the window that has it. */
  | {
      readonly kind: 'open';
      readonly desk: Desk;
      readonly round: number;
      reopen(): void;
      /** Takes the job off the device. */
      discard(): Promise<void>;
    };

/** Opens a job: its history, its draft, and the right to write it. Everything is written and let go when the screen goes. */
export function useDeskFor(id: string): DeskState {
  const [state, setState] = useState<DeskState>({ kind: 'opening' });
  const [round, setRound] = useState(0);
  const reopen = useCallback(() => setRound((before) => before + 1), []);
  useEffect(() => {
    let gone = false;
    let close = () => undefined as void;
    const missing = async () => {
      const kind = (await repository.holds(id)) ? 'damaged' : 'missing';
      if (!gone) setState({ kind });
    };
    void openDesk(id, round > 0).then(
      (opened) => {
        if (!opened) return void missing();
        close = opened.close;
        if (gone) close();
        else setState({ kind: 'open', desk: opened.desk, round, reopen, discard: opened.discard });
      },
      () => gone || setState({ kind: 'damaged' }),
    );
    return () => {
      gone = true;
      close();
    };
  }, [id, round, reopen]);
  return state;
}

const judgeInWorker: Judge = {
  view: async (asked, signal) => valueOf(await fitWorker.call('judge', asked, { signal })),
  together: async (scene, signal) => valueOf(await fitWorker.call('together', scene, { signal })),
};

const valueOf = <T>(outcome: Outcome<T>): T | undefined => (outcome.kind === 'done' ? outcome.value : undefined);

interface Thumbnail {
  picture?: string | undefined;
  url?: string | undefined;
}

const keyOfFirst = ({ sheets: [first] }: Job) => first && pictureKey(first);

async function openDesk(
  id: string,
  takeOver: boolean,
): Promise<{ desk: Desk; close: () => void; discard: () => Promise<void> } | undefined> {
  const thumbnail: Thumbnail = {};
  const said: { session?: Session } = {};
  const open = await openJob(id, {
    repository,
    storage,
    takeOver,
    thumbnail: () => thumbnail.url,
    judge: judgeInWorker,
    onKeptAside: (name) => said.session?.say('kept-aside', { name }),
  });
  if (!open) return undefined;
  const { jobs, lease, opened } = open;
  void keepStorage();
  const session = (said.session = new Session(jobs, opened.draft));
  thumbnail.picture = keyOfFirst(opened.history.job);
  thumbnail.url = (await repository.listCards()).find((card) => card.id === id)?.thumbnail;
  const stopThumbnail = keepThumbnail(jobs, thumbnail);
  if (opened.isShortened) session.say('history-shortened');
  if (open.leftElsewhere) session.say('left-elsewhere');
  const stopWatching = watchWindow(
    () => void jobs.getState().flush(),
    () => void lease.check(),
  );
  return {
    desk: { jobs, session },
    discard: open.discard,
    close() {
      stopWatching();
      stopThumbnail();
      void open.close();
    },
  };
}

/** The card's small picture is that of the first sheet, whichever that is. */
function keepThumbnail(jobs: Desk['jobs'], thumbnail: Thumbnail): () => void {
  return jobs.subscribe(({ job }) => {
    const picture = keyOfFirst(job);
    if (picture === thumbnail.picture) return;
    thumbnail.picture = picture;
    void thumbnailOf(job, repository).then((url) => {
      thumbnail.url = url;
      jobs.getState().renewCard();
    });
  });
}

/** A window that is hidden may never come back; one that slept may have been taken over meanwhile. Returns how to stop. */
function watchWindow(onHidden: () => void, onShown: () => void): () => void {
  const onChange = () => (document.visibilityState === 'hidden' ? onHidden() : onShown());
  document.addEventListener('visibilitychange', onChange);
  window.addEventListener('pagehide', onHidden);
  window.addEventListener('pageshow', onChange);
  return () => {
    document.removeEventListener('visibilitychange', onChange);
    window.removeEventListener('pagehide', onHidden);
    window.removeEventListener('pageshow', onChange);
  };
}
