import { changeView, command, draft, replaceById, together, type Command } from './command';
import type { StoodByEye } from './by-eye';
import { takeOut } from './kinds';
import type { StandOff, Variants } from './variants';
import { setHidden } from './view-commands';

/** How all views are looked at together, and what is stood in them to judge by eye. Nothing of it moves a fit, an outline or a file. */

/** Views of a side lie side by side, with this gap between their pictures. */
export const layBeside = (variants: Variants): Command => ({
  ...command(
    'variants-beside',
    (job) => {
      if (job.variants.some(({ id }) => id === variants.id)) replaceById(job.variants, draft(variants));
      else job.variants.push(draft(variants));
    },
    { mm: variants.gap },
  ),
  merge: `variants/${variants.id}`,
});

/** They lie over each other again. */
export const layOver = (id: string) => command('variants-over', (job) => takeOut(job, [{ list: 'variants', id }]));

/** Of some views just these are shown, one step of the history. */
export const showOnly = (shown: readonly string[], of: readonly string[]): Command => {
  const all = of.map((id) => setHidden(id, !shown.includes(id)));
  return { ...together([...all.slice(1), all[0]!]), name: { code: 'views-chosen', detail: { count: shown.length } } };
};

/** A view is moved out of the way where all are looked at together, or back. */
export const setStandOff = (id: string, off: StandOff | undefined): Command => ({
  ...changeView('view-stood-off', id, (view) => {
    if (off) view.standOff = draft(off);
    else delete view.standOff;
  }),
  ...(off ? { merge: `stand-off/${id}` } : {}),
});

export const standByEye = (stood: StoodByEye) =>
  command('by-eye-stood', (job) => void job.byEye.push(draft(stood)), { thing: stood.thing });
export const moveByEye = (stood: StoodByEye): Command => ({
  ...command('by-eye-moved', (job) => replaceById(job.byEye, draft(stood)), { thing: stood.thing }),
  merge: `by-eye/${stood.id}`,
});
export const removeByEye = (id: string) => command('by-eye-removed', (job) => takeOut(job, [{ list: 'byEye', id }]));
