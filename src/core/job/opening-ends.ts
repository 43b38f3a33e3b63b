import type { Draft } from 'immer';
import { segmentOf, type Chain, type Opening, type Outline } from '../outline';
import type { Job } from './schema';

const OTHER = { on: 'back', back: 'on', start: 'end', end: 'start', left: 'right', right: 'left' } as const;

/** The node at the other end of the segment that an opening is in. */
function farNode(opening: Pick<Opening, 'corner' | 'way'>, chain: Chain): string | undefined {
  const segment = segmentOf(opening, chain);
  return segment === undefined
    ? undefined
    : chain.nodes[opening.way === 'on' ? (segment + 1) % chain.nodes.length : segment]!.id;
}

/** Openings stay between their corners when the line of their wall is turned round: what was on from a corner is back from it, left is right. */
export function keepOpenings(job: Draft<Job>, former: readonly Outline[], outline: Outline): void {
  if (outline.shape !== 'chain') return;
  for (const made of job.outlines) {
    if (made.shape !== 'made' || made.recipe.kind !== 'strip') continue;
    for (const opening of made.recipe.openings ?? []) {
      const before = former.flatMap((chain) => (chain.shape === 'chain' ? (farNode(opening, chain) ?? []) : []))[0];
      const turned = { corner: opening.corner, way: OTHER[opening.way] };
      if (before === undefined || farNode(opening, outline) === before || farNode(turned, outline) !== before) continue;
      opening.way = turned.way;
      const hung = opening.fill?.hung;
      if (hung) Object.assign(hung, { at: OTHER[hung.at], to: OTHER[hung.to] });
    }
  }
}
