import type { MadeOutline, Siting } from '../outline';
import { command, draft, replaceById, type Command } from './command';
import { takeOut } from './kinds';
import type { Setback } from './siting';

/** Sets what is drawn on one plane on another, as a whole; `made`: its outlines there. */
export const setOnPlane = (siting: Siting, made: readonly MadeOutline[]) =>
  command(
    'drawing-sited',
    (job) => {
      job.sitings.push(draft(siting));
      job.outlines.push(...made.map(draft));
    },
    { count: made.length },
  );

/** What was drawn since goes along to where the rest was set. */
export const addSited = (made: readonly MadeOutline[]) =>
  command('sited-added', (job) => void job.outlines.push(...made.map(draft)), { count: made.length });

/** Another way to stand there: moved by hand, or by what is said. Steps of one kind in a row are one. */
export const changeSiting = (
  siting: Siting,
  code: 'siting-moved' | 'hold-added' | 'hold-changed' | 'hold-removed' | 'overhang-set',
): Command => ({
  ...command(code, (job) => replaceById(job.sitings, draft(siting))),
  ...(code === 'hold-added' || code === 'hold-removed' ? {} : { merge: `siting/${siting.id}/${code}` }),
});

/** Takes it off again, with what shows it there and what was said of that. */
export const removeSiting = (id: string) => command('siting-removed', (job) => takeOut(job, [{ list: 'sitings', id }]));

/** Says how far what is set there has to keep from an edge; of the same edge anew. */
export const putSetback = (setback: Setback): Command => ({
  ...command(
    'setback-set',
    (job) => {
      if (job.setbacks.some(({ id }) => id === setback.id)) replaceById(job.setbacks, draft(setback));
      else job.setbacks.push(draft(setback));
    },
    { mm: setback.mm },
  ),
  merge: `setback/${setback.id}`,
});
export const removeSetback = (id: string) =>
  command('setback-removed', (job) => takeOut(job, [{ list: 'setbacks', id }]));
