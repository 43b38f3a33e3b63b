import { findUnion, pieceBounds, type Vec } from '@/core/geometry';
import type { SessionState } from './session-state';
import { toolOf, type ToolContext } from './tools';

/** So many places are looked at together; of more it is the last one that is worked on. */
const MOST_TOGETHER = 8;

/** The places that are worked on, the latest last: what was found or gone to, what is chosen, or what was set. View plane. */
export function listWorkedOn(
  { beacon, tool, aim, evidence }: Pick<SessionState, 'beacon' | 'tool' | 'aim' | 'evidence'>,
  context: ToolContext,
): readonly Vec[] {
  if (beacon) return [beacon];
  const { chosen, preview } = toolOf(tool);
  if (chosen) {
    const pieces = chosen(tool.state).flatMap((id) => context.shapes.get(id)?.pieces ?? []);
    const box = findUnion(pieces.map(pieceBounds));
    return box ? [box.min, box.max, ...(aim ? [context.fitted.fit.toPlane(aim.sheet)] : [])] : [];
  }
  const set = preview(tool.state, undefined, context).points;
  const places = (set.length > 0 ? set : endsOf(evidence, context)).map(context.fitted.fit.toPlane);
  return places.length > MOST_TOGETHER ? places.slice(-1) : places;
}

/** The places of a piece of evidence, sheet px. */
function endsOf(evidence: string | undefined, { fitted: { view } }: ToolContext): readonly Vec[] {
  const piece = view.evidence.find(({ id }) => id === evidence);
  const ends = new Set(piece?.groups.flat());
  return view.points.filter(({ id }) => ends.has(id)).map(({ at }) => at);
}
