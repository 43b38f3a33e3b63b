import { boxAround, findUnion, pieceBounds, type Vec } from '@/core/geometry';
import { layingOf } from './laying';
import type { Session } from './session';

/** Goes after outlines that something typed has moved out of sight. */
export function follow(session: Session, outlines: readonly string[]): void {
  const context = session.findContext();
  if (!context) return;
  const box = findUnion(outlines.flatMap((id) => context.shapes.get(id)?.pieces ?? []).map(pieceBounds));
  if (!box) return;
  const { min, max } = box;
  const corners: readonly Vec[] = [min, max, [min[0], max[1]], [max[0], min[1]]];
  const { fromPlane } = layingOf(session.getState().viewport, context.fitted.fit);
  session.framing.follow(boxAround(corners.map(fromPlane)));
}
