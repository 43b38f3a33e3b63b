import type { Line } from '@/core/geometry';
import type { Aim } from '../aim';
import { findPicked } from './pick';
import { aimReach } from './reach';
import type { ToolContext } from './tool';

/** The straight piece that is pointed at. View plane. */
export function findLine(aim: Aim, context: ToolContext): Line | undefined {
  const picked = findPicked(context.job, context, context.fitted.view.plane, aim.plane, aimReach(aim, context));
  const piece = picked && context.shapes.get(picked.outline)?.pieces[picked.segment];
  return piece?.kind === 'line' ? piece : undefined;
}
