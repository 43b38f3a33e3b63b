import { createView, VIEW_SIDES, type View, type ViewSide } from '@/core/job';
import { SIDE_WORDS } from '@/ui/feature-words';
import type { FittedView } from '@/core/derive';
import { boxAround, levelled, subtract, type Vec } from '@/core/geometry';
import { newId } from '@/store';

export const SIDE_CHOICES = VIEW_SIDES.map((side) => [side, SIDE_WORDS[side]] as const);

/** A view of a part of the same sheet: it shares the fit of the one it was cut from, and has its zero at its own lower left corner. */
export function viewFromFrame(
  { view, sheet, fit }: FittedView,
  frame: readonly Vec[],
  name: string,
  side: ViewSide | undefined,
): View {
  const direction = levelAt(fit, view.datum);
  const origin = lowerLeft(frame, direction, view.mirrored === true);
  return {
    ...createView(newId(), sheet),
    name,
    frame,
    datum: { origin, direction },
    look: view.look,
    ...(view.mirrored ? { mirrored: true } : {}),
    ...(side ? { side } : {}),
    shares: view.shares ?? view.id,
  };
}

/** The sheet direction that is level on a view's plane, by its evidence where that tells; radians, clockwise. */
function levelAt({ toPlane, toSheet }: FittedView['fit'], { origin, direction }: View['datum']): number {
  const [x, y] = toPlane(origin);
  const [dx, dy] = subtract(toSheet([x + 1e-3, y]), toSheet([x, y]));
  const found = Math.atan2(dy, dx);
  if (!Number.isFinite(found)) return direction;
  return direction + Math.atan2(Math.sin(found - direction), Math.cos(found - direction));
}

function lowerLeft(frame: readonly Vec[], direction: number, mirrored: boolean): Vec {
  const level = levelled(direction, mirrored);
  const { min, max } = boxAround(frame.map(level.toSeen));
  return level.toSheet([min[0], max[1]]);
}
