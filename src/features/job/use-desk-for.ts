import { useEffect, useState } from 'react';
import { Session } from '@/bench/session';
import type { Desk } from '@/bench/use-session';
import { pictureKey, type Job } from '@/core/job';
import { claimJob, createJobStore, jobCardOf, repository, storage, thumbnailOf, type Lease } from '@/store';

export type DeskState =
  | { readonly kind: 'opening' }
  | { readonly kind: 'missing' }
  /** Something is stored of it that cannot be read. */
  | { readonly kind: 'damaged' }
  | { readonly kind: 'open'; readonly desk: Desk; readonly lease: Lease };

/** Opens a job: its history, its draft, and the right to write it. Everything is written and let go when the screen goes. */
export function useDeskFor(id: string): DeskState {
  const [state, setState] = useState<DeskState>({ kind: 'opening' });
  useEffect(() => {
    let gone = false;
    let close = () => undefined as void;
    const missing = async () => {
      const kind = (await repository.holds(id)) ? 'damaged' : 'missing';
      if (!gone) setState({ kind });
    };
    void openDesk(id).then((opened) => {
      if (!opened) return void missing();
      close = opened.close;
      if (gone) close();
      else setState({ kind: 'open', desk: opened.desk, lease: opened.lease });
    }, () => gone || setState({ kind: 'damaged' }));
    return () => {
      gone = true;
      close();
    };
  }, [id]);
  return state;
}

const keyOfFirst = ({ sheets: [first] }: Job) => first && pictureKey(first);

async function openDesk(id: string): Promise<{ desk: Desk; lease: Lease; close: () => void } | undefined> {
  const opened = await repository.open(id);
  if (!opened) return undefined;
  const known = (await repository.listCards()).find((card) => card.id === id)?.thumbnail;
  const thumbnail = { picture: keyOfFirst(opened.history.job), url: known };
  const jobs = createJobStore({ ...opened, repository, cardOf: (job, derived) => jobCardOf(job, derived, new Date(), thumbnail.url) });
  const stopThumbnail = jobs.subscribe(({ job }) => {
    const picture = keyOfFirst(job);
    if (picture === thumbnail.picture) return;
    thumbnail.picture = picture;
    void thumbnailOf(job, repository).then((url) => {
      thumbnail.url = url;
      jobs.getState().renewCard();
    });
  });
  const lease = await claimJob(storage, id, () => {
    jobs.setState({ readOnly: true });
  });
  jobs.setState({ readOnly: !lease.held });
  const session = new Session(jobs, opened.draft);
  if (opened.isShortened) session.say('history-shortened');
  const flush = () => void jobs.getState().flush();
  const onHide = () => document.visibilityState === 'hidden' && flush();
  document.addEventListener('visibilitychange', onHide);
  window.addEventListener('pagehide', flush);
  return {
    desk: { jobs, session }, lease,
    close() {
      document.removeEventListener('visibilitychange', onHide);
      window.removeEventListener('pagehide', flush);
      stopThumbnail();
      void jobs.getState().flush().then(() => lease.release());
    },
  };
}
