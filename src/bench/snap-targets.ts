import type { Derived, FittedView } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import { findGuideLine, shapeOf, type SnapTarget } from '@/core/outline';
import { findDraft, type ActiveTool, type ToolContext } from './tools';

/** What the aim can catch on: shown outlines of the view, its guides, and the outline that is being drawn. */
export function listSnapTargets(context: ToolContext, derived: Derived, tool: ActiveTool): readonly SnapTarget[] {
  const { job, fitted } = context;
  const shown = new Set(job.layers.filter((layer) => layer.show).map((layer) => layer.id));
  const chain = tool.name === 'chain' ? tool.state : undefined;
  const outlines = job.outlines.filter((outline) => outline.view === fitted.view.id && shown.has(outline.layer) && outline.id !== chain?.carries?.id);
  const draft = chain && findDraft(chain, context);
  const shapes = [...outlines.map((outline) => derived.shapes.get(outline.id)), draft && shapeOf(draft, fitted.placing)];
  const reach = 2 * Math.max(...cornerDistances(fitted));
  const guides = job.guides.filter((guide) => guide.view === fitted.view.id).map((guide) => findGuideLine(guide, fitted.placing, reach));
  return [
    ...shapes.flatMap((shape) => shape?.pieces ?? []).map((piece) => ({ piece, guide: false })),
    ...guides.flatMap((piece) => (piece ? [{ piece, guide: true }] : [])),
  ];
}

function cornerDistances({ sheet, placing }: FittedView): number[] {
  const corners: Vec[] = [[0, 0], [sheet.width, 0], [0, sheet.height], [sheet.width, sheet.height]];
  return corners.map((corner) => Math.hypot(...placing.toPlane(corner)));
}
