import { changeFit, draft, replaceById, type Command } from './command';
import { MOST_POINTINGS, type Evidence, type EvidencePoint } from './evidence';
import type { View } from './schema';

export const setLift = (id: string, mm: number | undefined) =>
  changeFit(
    'lift-set',
    id,
    (view) => {
      if (mm === undefined) delete view.lift;
      else view.lift = mm;
    },
    { mm: mm ?? 0 },
  );

/** What stands first among the sizes of a piece, for the command's name. */
const sizeOf = ({ said }: Evidence) => said.length?.value ?? said.diameter?.value ?? said.width?.value ?? 0;
const detailOf = (evidence: Evidence) => ({ kind: evidence.kind, mm: sizeOf(evidence) });

/** Adds a piece with those of its points that the view does not have yet. */
export const addEvidence = (id: string, evidence: Evidence, points: readonly EvidencePoint[] = []) =>
  changeFit(
    evidence.role === 'check' ? 'check-added' : 'evidence-added',
    id,
    (view) => {
      view.points.push(...points.filter((point) => !view.points.some((known) => known.id === point.id)).map(draft));
      view.evidence.push(draft(evidence));
    },
    detailOf(evidence),
  );

export const changeEvidence = (id: string, evidence: Evidence) =>
  changeFit('evidence-set', id, (view) => replaceById(view.evidence, draft(evidence)), detailOf(evidence));

/** Takes a piece away, and the points that nothing stands on any more. */
export const removeEvidence = (id: string, evidence: string) =>
  changeFit('evidence-removed', id, (view) => {
    view.evidence = view.evidence.filter((other) => other.id !== evidence);
    const used = new Set(view.evidence.flatMap(({ groups }) => groups.flat()));
    view.points = view.points.filter((point) => used.has(point.id));
  });

/** Adds further pointings at places that are known already. */
export const pointAgain = (id: string, pointings: readonly EvidencePoint[]) =>
  changeFit('pointed-again', id, (view) => {
    for (const { id: known, ...pointing } of pointings) {
      const point = view.points.find((other) => other.id === known);
      if (point) point.again = [...(point.again ?? []), draft(pointing)].slice(-MOST_POINTINGS);
    }
  });

/** Raises all points of a piece above the plane of the fit, mm; undefined lays them on it. */
export const raisePoints = (id: string, evidence: string, mm: number | undefined) =>
  changeFit(
    'points-raised',
    id,
    (view) => {
      const raised = new Set(view.evidence.find((other) => other.id === evidence)?.groups.flat());
      for (const point of view.points) {
        if (!raised.has(point.id)) continue;
        if (mm === undefined) delete point.height;
        else point.height = mm;
      }
    },
    { mm: mm ?? 0 },
  );

/** Moves a point of the evidence, which forgets how it was pointed at before; in a row (dragging, a held nudge) it is one step. */
export const movePoint = (id: string, point: EvidencePoint): Command => ({
  ...changeFit('evidence-moved', id, (view) => replaceById(view.points, draft({ ...point, again: undefined }))),
  merge: `point/${point.id}`,
});

export const setModel = (id: string, model: View['model'], lens: View['lens']) =>
  changeFit(
    'model-set',
    id,
    (view) => {
      view.model = model;
      view.lens = lens;
    },
    { model },
  );
