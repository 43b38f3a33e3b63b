import type { FittedView } from '@/core/derive';
import type { Found, PictureEdges } from './edges';
import { isKnownStraight, type Effect } from './tools';

/** What a tool wants to be found in the picture, and what is said where it is not. */
export type Sought = Extract<Effect, { kind: 'seek' }>;

/** Looks for it; undefined where it is not found. */
export function seekIn(
  edges: PictureEdges,
  { view, sheet }: FittedView,
  { what, near, proportion }: Sought,
): Promise<Found | undefined> {
  switch (what) {
    case 'rim':
      return edges.findRim(near);
    case 'straight':
      return edges.findStraight(near);
    case 'next-straight':
      return edges.findNextStraight((along) => isKnownStraight(view, along));
    case 'sides':
      return edges.findSides(near, { proportion, focal35mm: sheet.taken.focal35mm });
  }
}
