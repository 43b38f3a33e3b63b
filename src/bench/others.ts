import type { FittedView } from '@/core/derive';
import { layingOf, type Laying } from './laying';
import type { Viewport } from './viewport';

/** So many others are shown under a view at the most: each takes room for its tiles. */
const MOST = 6;

/** The other views whose pictures lie on the plane of a view, as far as it is known where. */
export function listOthers(views: Iterable<FittedView>, { view, fit, ground }: FittedView): readonly FittedView[] {
  if (ground === view.plane || !fit.scaled) return [];
  return [...views]
    .filter(
      (other) =>
        other.ground === ground &&
        other.ground !== other.view.plane &&
        other.view.id !== view.id &&
        other.fit.scaled &&
        !other.view.hidden,
    )
    .slice(0, MOST);
}

/** How the picture of another view lies where this one does: over the plane that both show. */
export function layingUnder(other: FittedView, { fit }: FittedView, viewport: Viewport): Laying {
  const own = layingOf(viewport, fit);
  return {
    straight: true,
    fromPlane: own.fromPlane,
    toBench: (sheet) => own.fromPlane(other.fit.toPlane(sheet)),
    toSheet: (bench) => other.fit.toSheet(fit.toPlane(own.toSheet(bench))),
    canLay: (sheet) => own.fromPlane(other.fit.toPlane(sheet)).every(Number.isFinite),
  };
}
