import { distance, type Vec } from '../geometry';
import { findCorner, type FoundCorner } from './corner';
import type { Pyramid } from './pyramid';

/** A corner is known by its surroundings of ten pixels: from farther off than this, px, it is looked for in a smaller picture first. */
const IN_SIGHT = 8;
/** What a smaller picture says of a corner holds in the next larger one to so many of its pixels. */
const STEP = 4;

/** How likely it is beforehand that no corner was meant, beside one just where the hand is: some lie where a shadow or a print meets an edge. Assumed. */
const NONE_MEANT = 0.02;

/**
 * The corner nearest to a place within `reach` px, as it is seen by somebody who cannot point better than that: found where the picture is so small that the reach is a few pixels, and
 * followed down to single pixels (`findCorner`). With `hand`, one sigma of the hand that pointed there (px), the farther off it is the less sure it is that it was meant. Undefined where there is none at any of the sizes on the way: what is a corner from afar only (a rounded one) has no place.
 */
export function findCornerNear({ levels }: Pyramid, near: Vec, reach: number, hand?: number): FoundCorner | undefined {
  const first = Math.min(levels.length - 1, Math.max(0, Math.ceil(Math.log2(reach / IN_SIGHT))));
  let found: FoundCorner | undefined;
  for (let level = first; level >= 0; level--) {
    const size = 2 ** level;
    const from: Vec = found ? [found.at[0] * 2, found.at[1] * 2] : [near[0] / size, near[1] / size];
    found = findCorner(levels[level]!, from, level === first ? reach / size : STEP);
    if (!found) return undefined;
  }
  if (!found || hand === undefined) return found;
  const away = distance(found.at, near);
  const share = NONE_MEANT / (NONE_MEANT + Math.exp(-((away / hand) ** 2) / 2));
  return { ...found, sigma: Math.hypot(found.sigma, away * Math.sqrt(share / 2)) };
}
