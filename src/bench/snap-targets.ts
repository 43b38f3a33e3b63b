import { guideReach, sharedIn, type Derived, type FittedView } from '@/core/derive';
import { distance, type Vec } from '@/core/geometry';
import { createSnapSearch, findGuideLine, shapeOf, type SnapSearch, type SnapTarget } from '@/core/outline';
import type { LoadedReference } from '@/store';
import { piecesAround, shownOn } from './ground';
import { toolOf, type ActiveTool, type ToolContext } from './tools';

/** Reference geometry around the aim: its place on the sheet, and how far to look, sheet px. */
interface Around {
  readonly references: readonly LoadedReference[];
  readonly at: Vec;
  readonly reach: number;
}

/** What is drawn of a view, sorted by where it is, for as long as it stays the same. */
interface Sorted {
  readonly of: readonly unknown[];
  readonly search: SnapSearch;
}

const sorted = new WeakMap<Derived, Sorted>();

/** What the aim can catch on: shown outlines of the view, its guides, the outline that is being drawn, and reference geometry near the aim. */
export function snapSearch(context: ToolContext, derived: Derived, tool: ActiveTool, around?: Around): SnapSearch {
  const { line, carries } = toolOf(tool).draws?.(tool.state, context) ?? {};
  const drawn = searchDrawn(context, derived, carries);
  const further = [
    ...(line ? shapeOf(line, context.fitted.placing).finished : []).map((piece) => ({ piece, guide: false })),
    ...(around ? nearReferences(context.fitted, around) : []),
  ];
  return (aim, reach) => [...drawn(aim, reach), ...further];
}

function searchDrawn({ job, fitted }: ToolContext, derived: Derived, without: string | undefined): SnapSearch {
  const of = [fitted, job.layers, job.outlines, job.guides, job.features, without];
  const before = sorted.get(derived);
  if (before && before.of.every((item, i) => item === of[i])) return before.search;
  const shown = new Set(job.layers.filter((layer) => layer.show).map((layer) => layer.id));
  const outlines = job.outlines.filter(
    (outline) => outline.plane === fitted.view.plane && shown.has(outline.layer) && outline.id !== without,
  );
  const guides = job.guides
    .filter((guide) => guide.plane === fitted.view.plane)
    .flatMap((guide) => findGuideLine(guide, fitted.placing, guideReach(fitted)) ?? []);
  const search = createSnapSearch([
    ...outlines
      .flatMap((outline) => derived.shapes.get(outline.id)?.finished ?? [])
      .map((piece) => ({ piece, guide: false })),
    ...guides.map((piece) => ({ piece, guide: true })),
    ...sharedIn(fitted, { job, derived }).flatMap(({ line }) => (line ? [{ piece: line, guide: true }] : [])),
  ]);
  sorted.set(derived, { of, search });
  return search;
}

function nearReferences({ ground, fit }: FittedView, { references, at, reach }: Around): SnapTarget[] {
  const shown = fit.scaled ? shownOn(references, ground) : [];
  if (shown.length === 0) return [];
  const place = fit.toPlane(at);
  const wide = distance(place, fit.toPlane([at[0] + reach, at[1]]));
  return Number.isFinite(wide) ? piecesAround(shown, place, wide).map((piece) => ({ piece, guide: false })) : [];
}
