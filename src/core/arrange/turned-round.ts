import { oppositeOf } from '../space';
import { isUpright, turnedUpright, type Facing, type Upright } from './facing';
import { agrees, type SceneFit } from './fit-scene';
import type { SceneFeature, Scene, SceneView } from './scene';

/** A view, and the side from which it agrees with the others: of one that stands on an edge, the edge as it runs then. */
export interface TurnedRound {
  readonly view: string;
  readonly side: Facing;
}

/** The scene with one view seen from behind; what that took for one end of its edge is the other then. */
function turnedIn(scene: Scene, view: SceneView): { readonly side: Facing; readonly scene: Scene } {
  const { side } = view;
  const turned = isUpright(side) ? turnedUpright(side) : oppositeOf(side);
  const views = scene.views.map((other) => (other === view ? { ...view, side: turned } : other));
  const features = isUpright(side) ? exchanged(scene.features, view.id, side) : scene.features;
  return { side: turned, scene: { ...scene, views, features } };
}

function exchanged(features: readonly SceneFeature[], view: string, { from, to }: Upright): readonly SceneFeature[] {
  const seenHere = (id: string) =>
    features.find((feature) => feature.id === id)?.seen.filter((seen) => seen.view === view) ?? [];
  return features.map((feature) =>
    feature.id === from || feature.id === to
      ? {
          ...feature,
          seen: [...feature.seen.filter((seen) => seen.view !== view), ...seenHere(feature.id === from ? to : from)],
        }
      : feature,
  );
}

/** Whether anything of a fit is doubted, places and sizes alike. */
export const isDoubted = (fit: SceneFit | undefined) => !fit || fit.suspects.length > 0 || fit.warnings.length > 0;

/** Seen from below is rarer than from the other of two sides. */
const isRare = (side: Facing) => side === 'top' || side === 'bottom';

/**
 * Views that may have been said to be seen from the wrong one of two opposite sides, or were mirrored by mistake, which looks alike, in a scene whose fit is doubted: where all agrees with that one view turned round. Several, the likelier first, where any one of them would do:
 * of two views that alone show how deep things lie either may be the one. One adjustment a view.
 */
export function listTurnedRound(scene: Scene): readonly TurnedRound[] {
  if (scene.views.length < 2) return [];
  return scene.views
    .flatMap((view): TurnedRound[] => {
      const turned = turnedIn(scene, view);
      return agrees(turned.scene) ? [{ view: view.id, side: turned.side }] : [];
    })
    .sort((a, b) => Number(isRare(a.side)) - Number(isRare(b.side)));
}
