import { distance } from '@/core/geometry';
import type { Aim } from '../aim';
import type { ToolContext } from './tool';

/** How near is near enough for a place that was set: the aim's own sigma, widened to what a hand means. Plane unit. */
export const aimReach = (aim: Aim, context: ToolContext): number =>
  pixelSize(aim, context) * Math.max(6, aim.sigma * 10);

/** How large a pixel of the sheet is where the aim is, across. Plane unit. */
export function pixelSize(aim: Aim, { fitted }: ToolContext): number {
  const aside = fitted.placing.toPlane([aim.sheet[0] + 1, aim.sheet[1]]);
  return distance(aside, fitted.placing.toPlane(aim.sheet));
}
