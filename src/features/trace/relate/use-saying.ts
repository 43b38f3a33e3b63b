import { useState } from 'react';
import { useDesk } from '@/bench/use-session';
import { useWorked, type Worked } from '@/bench/use-worked';
import { judgeSaid, takeTogether, tellJob, type Proposed, type ToldJob } from '@/core/derive';
import { addRelations, type Command, type Job } from '@/core/job';
import type { Relation, Verdict } from '@/core/relate';
import { relateWorker, type Outcome } from '@/workers';
import type { Relating } from './relate-actions';

/** What may be meant to be true on the plane of the view, or of one outline of it, looked for anew when what is drawn or said there changes. */
export function useProposed({ job, derived, fitted }: Relating, only: string | undefined): Worked<Proposed> {
  const { plane, id } = fitted.view;
  const of = [job.outlines, job.relations, job.declined, fitted, only];
  return useWorked('proposed', id, of, (signal) =>
    relateWorker.call('propose', { told: tellJob(job, derived), plane, only }, { signal }),
  );
}

/** Says something of what is drawn once it is known that it can hold; unless, where that takes longer, the drawing changes meanwhile. */
export function useSaying() {
  const { jobs, session } = useDesk();
  const [isWorking, setWorking] = useState(false);
  const work = async <T>({ here, there, then }: Work<T>) => {
    const { job, derived } = jobs.getState();
    if (!isMuch(job)) {
      const command = then(here({ job, derived }));
      return command && jobs.getState().run(command);
    }
    setWorking(true);
    const outcome = await there(tellJob(job, derived));
    setWorking(false);
    if (outcome.kind === 'failed') return session.say('saying-stopped');
    if (outcome.kind !== 'done') return;
    if (jobs.getState().job !== job) return session.say('saying-overtaken');
    const command = then(outcome.value);
    if (command) jobs.getState().run(command);
  };
  return {
    isWorking,
    /** `then`: what is done where it can hold, and `refused` hears why it cannot. */
    say: (relation: Relation, then: () => Command, refused: (verdict: Verdict) => void) =>
      work({
        here: (known) => judgeSaid(relation, known),
        there: (told) => relateWorker.call('judgeSaid', { told, relation }),
        then: (verdict) => (verdict.kind === 'holds' ? then() : void refused(verdict)),
      }),
    /** All of these that can hold together. */
    take: (wanted: readonly Relation[], plane: string) =>
      work({
        here: (known) => takeTogether(wanted, plane, known),
        there: (told) => relateWorker.call('take', { told, plane, wanted }),
        then: (taken) =>
          taken.length > 0 ? addRelations(taken, taken.length > 1 ? 'relations-added' : 'relation-added') : undefined,
      }),
  };
}

/** What is worked out at once where it takes no longer than a frame or two, and in a worker where it does. */
interface Work<T> {
  here(known: Pick<Relating, 'job' | 'derived'>): T;
  there(told: ToldJob): Promise<Outcome<T>>;
  then(found: T): Command | undefined;
}

/** So many places of all that is drawn are few. */
const FEW = 60;

/** Whether it takes longer than a moment to find out what can be true together of what is drawn. */
export const isMuch = ({ outlines }: Job): boolean =>
  outlines.reduce((sum, outline) => sum + (outline.shape === 'chain' ? outline.nodes.length : 2), 0) > FEW;
