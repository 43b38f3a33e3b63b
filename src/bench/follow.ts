import { findUnion, pieceBounds } from '@/core/geometry';
import { boxOnBench, layingOf } from './laying';
import type { Session } from './session';

/** Goes after outlines that something typed has moved out of sight. */
export function follow(session: Session, outlines: readonly string[]): void {
  const context = session.findContext();
  if (!context) return;
  const box = findUnion(outlines.flatMap((id) => context.shapes.get(id)?.pieces ?? []).map(pieceBounds));
  if (!box) return;
  session.framing.follow(boxOnBench(layingOf(session.getState().viewport, context.fitted.fit), box));
}
