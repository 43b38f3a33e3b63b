import { useDesk } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import {
  addEvidence,
  changeEvidence,
  changeReference,
  isResolution,
  removeEvidence,
  resolutionEvidence,
  together,
  type Command,
  type Evidence,
} from '@/core/job';
import { newId } from '@/store';

/** Lines that came along with a page, as large as the paper times something: they are as large as that until somebody says how it was drawn. */
function useLines({ sheet }: FittedView): (times: number) => readonly Command[] {
  const { jobs, session } = useDesk();
  return (times) =>
    jobs
      .getState()
      .job.references.filter(({ plane }) => plane === sheet.id)
      .flatMap(({ id }) => {
        const said = session.references.getState().find(({ reference }) => reference.id === id)?.geometry.saidUnitMm;
        return said ? [changeReference(id, 'reference-unit-set', { unitMm: said * times })] : [];
      });
}

/** Says at how many dots an inch a sheet was made, and how many times larger the thing is than its drawing there. */
export function useDrawnAt(fitted: FittedView): (dots: number, ratio: number) => void {
  const { jobs, session } = useDesk();
  const linesAt = useLines(fitted);
  const { sheet, view } = fitted;
  return (dots, ratio) => {
    const { evidence, points } = resolutionEvidence(sheet, dots, ratio, newId);
    const before = view.evidence
      .filter((piece) => isResolution(piece, view, sheet))
      .map(({ id }) => removeEvidence(view.id, id));
    jobs.getState().run(together([...linesAt(ratio), ...before, addEvidence(view.id, evidence, points)]));
    session.chooseTool('points');
  };
}

/** Leaves a sheet's own size aside: sizes that are said of the thing count alone. */
export function useSizeAside(fitted: FittedView): (resolution: Evidence, times: number) => void {
  const { jobs } = useDesk();
  const linesAt = useLines(fitted);
  return (resolution, times) =>
    jobs.getState().run(together([...linesAt(times), changeEvidence(fitted.view.id, { ...resolution, role: 'off' })]));
}
