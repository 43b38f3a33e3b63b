import type { Derived, FittedView } from '@/core/derive';
import { distance, type Vec } from '@/core/geometry';
import { findGuideLine, shapeOf, type SnapTarget } from '@/core/outline';
import type { LoadedReference } from '@/store';
import { piecesAround, shownOn } from './ground';
import { findDraft, type ActiveTool, type ToolContext } from './tools';

/** Reference geometry around the aim: its place on the sheet, and how far to look, sheet px. */
interface Around {
  readonly references: readonly LoadedReference[];
  readonly at: Vec;
  readonly reach: number;
}

/** What the aim can catch on: shown outlines of the view, its guides, the outline that is being drawn, and reference geometry near the aim. */
export function listSnapTargets(context: ToolContext, derived: Derived, tool: ActiveTool, around?: Around): readonly SnapTarget[] {
  const { job, fitted } = context;
  const shown = new Set(job.layers.filter((layer) => layer.show).map((layer) => layer.id));
  const chain = tool.name === 'chain' ? tool.state : undefined;
  const outlines = job.outlines.filter((outline) => outline.view === fitted.view.id && shown.has(outline.layer) && outline.id !== chain?.carries?.id);
  const draft = chain && findDraft(chain, context);
  const shapes = [...outlines.map((outline) => derived.shapes.get(outline.id)), draft && shapeOf(draft, fitted.placing)];
  const reach = 2 * Math.max(...cornerDistances(fitted));
  const guides = job.guides.filter((guide) => guide.view === fitted.view.id).map((guide) => findGuideLine(guide, fitted.placing, reach));
  return [
    ...shapes.flatMap((shape) => shape?.finished ?? []).map((piece) => ({ piece, guide: false })),
    ...(around ? nearReferences(context.fitted, around) : []),
    ...guides.flatMap((piece) => (piece ? [{ piece, guide: true }] : [])),
  ];
}

function nearReferences({ view, fit }: FittedView, { references, at, reach }: Around): SnapTarget[] {
  const shown = fit.scaled ? shownOn(references, view.plane) : [];
  if (shown.length === 0) return [];
  const place = fit.toPlane(at);
  const wide = distance(place, fit.toPlane([at[0] + reach, at[1]]));
  return Number.isFinite(wide) ? piecesAround(shown, place, wide).map((piece) => ({ piece, guide: false })) : [];
}

function cornerDistances({ sheet, placing }: FittedView): number[] {
  const corners: Vec[] = [[0, 0], [sheet.width, 0], [0, sheet.height], [sheet.width, sheet.height]];
  return corners.map((corner) => Math.hypot(...placing.toPlane(corner)));
}
