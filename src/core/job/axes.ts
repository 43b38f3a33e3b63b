import type { View } from './schema';

/** Places that a view is known to show. What it shares with another view tells nothing of its own axes. */
export const knownPlaces = ({ evidence, shares }: View) =>
  shares === undefined ? evidence.filter(({ role, kind }) => role === 'use' && kind === 'known-point') : [];

/** Whether the evidence of a view tells what is level: that is stronger than its datum. */
export const isLevelTold = (view: View): boolean =>
  knownPlaces(view).length > 0 ||
  (view.shares === undefined && view.evidence.some(({ role, kind }) => role === 'use' && kind === 'level'));
