import { oppositeOf, type Side } from '../space';
import { agrees, type SceneFit } from './fit-scene';
import type { Scene } from './scene';

/** A view, and the side from which it agrees with the others. */
export interface TurnedRound {
  readonly view: string;
  readonly side: Side;
}

/** Whether anything of a fit is doubted, places and sizes alike. */
export const isDoubted = (fit: SceneFit | undefined) => !fit || fit.suspects.length > 0 || fit.warnings.length > 0;

/** Seen from below is rarer than from the other of two sides. */
const isRare = (side: Side) => side === 'top' || side === 'bottom';

/**
 * Views that may have been said to be seen from the wrong one of two opposite sides, or were mirrored by mistake, which looks alike, in a scene whose fit is doubted: where all agrees with that one view turned round. Several, the likelier first, where any one of them would do:
 * of two views that alone show how deep things lie either may be the one. One adjustment a view.
 */
export function listTurnedRound(scene: Scene): readonly TurnedRound[] {
  if (scene.views.length < 2) return [];
  return scene.views
    .flatMap((view): TurnedRound[] => {
      const side = oppositeOf(view.side);
      const views = scene.views.map((other) => (other === view ? { ...view, side } : other));
      return agrees({ ...scene, views }) ? [{ view: view.id, side }] : [];
    })
    .sort((a, b) => Number(isRare(a.side)) - Number(isRare(b.side)));
}
