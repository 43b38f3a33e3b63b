import type { Vec } from '@/core/geometry';
import { AIM_RADIUS, aimZoom } from './aim';
import { layingUnder } from './laying';
import type { SessionState } from './session-state';
import type { Viewport } from './viewport';

/** The magnified patch: a small viewport about the aim, and where its middle stands on the bench. */
export interface AimPatch {
  readonly middle: Vec;
  readonly viewport: Viewport;
  /** From the patch's own screen to the bench's. */
  readonly offset: Vec;
}

/** Where the patch is shown and what is in it: above the finger, or in the corner when a mouse asked for it. */
export function patchOf({
  aim,
  patch,
  magnifier,
  viewport,
}: Pick<SessionState, 'aim' | 'patch' | 'magnifier' | 'viewport'>): AimPatch | undefined {
  if (!aim) return undefined;
  const corner: Vec = [viewport.width - AIM_RADIUS - 14, AIM_RADIUS + 14];
  const middle = patch ?? (magnifier ? corner : undefined);
  if (!middle) return undefined;
  const size = 2 * AIM_RADIUS;
  return {
    middle,
    viewport: {
      width: size,
      height: size,
      zoom: aimZoom(viewport.zoom),
      centre: layingUnder(viewport)?.toBench(aim.sheet) ?? aim.sheet,
      laid: viewport.laid,
    },
    offset: [middle[0] - AIM_RADIUS, middle[1] - AIM_RADIUS],
  };
}
