import { ontoVariant, type Derived, type FittedView } from '@/core/derive';
import { UNMOVED, type Affine } from '@/core/geometry';
import type { Laid } from './laying';
import type { Viewport } from './viewport';

/** So many others are shown under a view at the most: each takes room for its tiles. */
const MOST = 6;

/** Another view that may lie under the one that is worked on. */
export interface OtherView {
  readonly fitted: FittedView;
  /** From its plane to that of the view that is worked on. */
  readonly onto: Affine;
  readonly back: Affine;
}

/** The other views whose pictures lie where a view's does, as far as it is known where: those of its plane, and those that show the same side of the thing. */
export function listOthers(
  { views, arranged }: Pick<Derived, 'views' | 'arranged'>,
  to: FittedView,
): readonly OtherView[] {
  if (!to.fit.scaled) return [];
  return [...views.values()]
    .filter(({ view, fit }) => view.id !== to.view.id && fit.scaled && !view.hidden)
    .flatMap((fitted) => onSamePlane(fitted, to) ?? ofSameSide(fitted, to, arranged) ?? [])
    .slice(0, MOST);
}

function onSamePlane(fitted: FittedView, { ground, view }: FittedView): OtherView | undefined {
  const isOne = fitted.ground === ground && ground !== view.plane && fitted.ground !== fitted.view.plane;
  return isOne ? { fitted, onto: UNMOVED, back: UNMOVED } : undefined;
}

function ofSameSide(fitted: FittedView, to: FittedView, { stands }: Derived['arranged']): OtherView | undefined {
  const [its, own] = [stands.get(fitted.view.id), stands.get(to.view.id)];
  if (!its?.side || its.side !== own?.side) return undefined;
  return { fitted, onto: ontoVariant(its, own), back: ontoVariant(own, its) };
}

/** How the picture of another view lies where this one does. */
export const laidUnder = (
  { fitted: other, onto, back }: OtherView,
  { fit }: FittedView,
  { laid: over }: Pick<Viewport, 'laid'>,
): Laid => ({ kind: 'under', over, map: fit.map, own: other.fit.map, onto, back });
