import { useEffect } from 'react';
import { loadReference, repository } from '@/store';
import { useDesk, useJob } from './use-session';

/** Brings the job's reference geometry to hand, and anew when it or the way it is read changes. */
export function useReferences(): void {
  const { session } = useDesk();
  const references = useJob((state) => state.job.references);
  const site = useJob((state) => state.job.site);
  useEffect(() => {
    let gone = false;
    void Promise.all(references.map((reference) => loadReference(reference, { site }, repository.pictures))).then(
      (loaded) => {
        if (gone) return;
        session.setReferences(loaded.flatMap((one) => one ?? []));
        if (loaded.some((one) => one === undefined)) session.say('reference-missing');
      },
    );
    return () => {
      gone = true;
    };
  }, [session, references, site]);
}
