import type { View } from './schema';

/** Places that a view is known to show. One that shares what is known of another has none of its own: that tells nothing of its axes. */
export const knownPlaces = ({ evidence }: Pick<View, 'evidence'>) =>
  evidence.filter(({ role, kind }) => role === 'use' && kind === 'known-point');

/** Whether the evidence of a view tells what is level: that is stronger than its datum. */
export const isLevelTold = (view: Pick<View, 'evidence'>): boolean =>
  knownPlaces(view).length > 0 || view.evidence.some(({ role, kind }) => role === 'use' && kind === 'level');
