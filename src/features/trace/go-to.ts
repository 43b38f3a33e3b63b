import type { Session } from '@/bench/session';
import type { FittedView } from '@/core/derive';
import type { Vec } from '@/core/geometry';

/** Brings a place of the plane into sight, with a fifteenth of the sheet around it. */
export function goToPlace(session: Session, { placing, sheet }: FittedView, [x, y]: Vec): void {
  const [zero, side] = [placing.toPlane([0, 0]), placing.toPlane([sheet.width, 0])];
  const reach = Math.hypot(side[0] - zero[0], side[1] - zero[1]) / 30;
  session.goTo([x - reach, y - reach], [x + reach, y + reach]);
}
