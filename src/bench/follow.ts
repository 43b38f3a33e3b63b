import { findUnion, pieceBounds } from '@/core/geometry';
import { boxOnBench, layingOf } from './laying';
import type { Session } from './session';
import type { Desk } from './use-session';

/** Goes after outlines that something typed has moved out of sight. */
export function follow(session: Session, outlines: readonly string[]): void {
  const context = session.findContext();
  if (!context) return;
  const box = findUnion(outlines.flatMap((id) => context.shapes.get(id)?.pieces ?? []).map(pieceBounds));
  if (!box) return;
  session.framing.follow(boxOnBench(layingOf(session.getState().viewport, context.fitted.fit), box));
}

/** Takes the newest step back, or takes it again, and goes after what that puts out of sight. */
export function step(way: 'undo' | 'redo', { jobs, session }: Desk): void {
  const { shapes: before } = jobs.getState().derived;
  jobs.getState()[way]();
  const plane = session.findFitted()?.view.plane;
  const { job, derived } = jobs.getState();
  follow(
    session,
    job.outlines
      .filter((outline) => outline.plane === plane && derived.shapes.get(outline.id) !== before.get(outline.id))
      .map(({ id }) => id),
  );
}
