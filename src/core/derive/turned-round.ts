import { fitScene, standing, type SceneFit } from '../arrange';
import type { Job } from '../job';
import type { Side } from '../space';
import type { FittedView } from './fits';
import { isSide, sceneOf } from './scene';

/** A view, and the side from which it agrees with the others. */
export interface TurnedRound {
  readonly view: string;
  readonly side: Side;
}

const OPPOSITE: Readonly<Record<Side, Side>> = {
  front: 'back',
  back: 'front',
  left: 'right',
  right: 'left',
  top: 'bottom',
  bottom: 'top',
};

/** Whether anything of a fit is doubted, places and sizes alike. */
const isDoubted = (fit: SceneFit | undefined) => !fit || fit.suspects.length > 0 || fit.warnings.length > 0;

/** Seen from below is rarer than from the other of two sides. */
const isRare = (side: Side) => side === 'top' || side === 'bottom';

/**
 * Views that may have been said to be seen from the wrong one of two opposite sides, or were mirrored by mistake, which looks alike: where something does not belong, and all does with that one view turned round. Several, the likelier first, where any one of them would do:
 * of two views that alone show how deep things lie either may be the one. None where nothing is doubted. One fit a view.
 */
export function listTurnedRound(
  job: Pick<Job, 'features' | 'spans'>,
  views: readonly FittedView[],
  fit: SceneFit | undefined,
): readonly TurnedRound[] {
  if (!isDoubted(fit) || views.length < 2) return [];
  return views
    .flatMap((fitted): TurnedRound[] => {
      const { id, side } = fitted.source;
      if (!isSide(side)) return [];
      const turned = views.map((other) => (other === fitted ? turnedRound(other) : other));
      const found = fitScene(standing(sceneOf(job, turned)).scene);
      return found.ok && !isDoubted(found.value) ? [{ view: id, side: OPPOSITE[side] }] : [];
    })
    .sort((a, b) => Number(isRare(a.side)) - Number(isRare(b.side)));
}

function turnedRound(fitted: FittedView): FittedView {
  const { side } = fitted.source;
  return isSide(side) ? { ...fitted, source: { ...fitted.source, side: OPPOSITE[side] } } : fitted;
}
