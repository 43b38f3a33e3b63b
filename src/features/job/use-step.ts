import { useCallback, useEffect, useState } from 'react';
import type { Session } from '@/bench/session';
import { toolOf } from '@/bench/tools';
import { useFitted, useSession, type Desk } from '@/bench/use-session';
import { drawnAtOf } from '@/core/derive';
import type { ArrangePanelName } from '@/features/arrange/arrange-row';
import type { FitPanelName } from '@/features/calibrate/fit-panel';
import type { SourcesPanelName } from '@/features/sources/sources-row';
import type { TracePanelName } from '@/features/trace/trace-row';
import type { StepName } from './step';

/** The panel that each step with several shows. */
export interface Panels {
  readonly sources: SourcesPanelName;
  readonly fit: FitPanelName;
  readonly arrange: ArrangePanelName;
  readonly trace: TracePanelName;
}

const FIRST: Panels = { sources: 'add', fit: 'evidence', arrange: 'shared', trace: 'tool' };

/** The step that a job that is opened goes on with. */
function firstStep({ jobs, session }: Desk): StepName {
  const { tool } = session.getState();
  const { isUnderWay, belongsTo } = toolOf(tool);
  if (isUnderWay?.(tool.state)) return belongsTo;
  const { job, derived } = jobs.getState();
  if (job.sheets.length === 0) return 'sources';
  return [...derived.views.values()].some((view) => view.fit.scaled) ? 'trace' : 'fit';
}

/** The tool that a step begins with: pointing at a length while there is none, else choosing. */
function beginStep(step: StepName, session: Session): void {
  const fitted = session.findFitted();
  if (step === 'fit' && !fitted?.view.lookOnly) {
    if (fitted && !fitted.fit.scaled) session.pointAtEvidence('length');
    else if (fitted && fitted.view.evidence.length < 2) session.pointAtEvidence('length', 'check');
    else session.chooseTool('points');
    // What is chosen stays chosen, but for drawing.
  } else if (step === 'arrange') session.chooseTool('share');
  else if (step === 'trace' || !toolOf(session.getState().tool).chosen) session.chooseTool('select');
}

/** Which side each view shows comes before what they share. */
const firstOfArrange = ({ jobs }: Desk): ArrangePanelName =>
  jobs.getState().job.views.every(({ side, lookOnly }) => side || lookOnly) ? 'shared' : 'sides';

export interface StepState {
  readonly step: StepName;
  readonly panels: Panels;
  /** Whether a phone's cards are open. */
  readonly cardsShown: boolean;
  setStep(step: StepName): void;
  setPanel(change: Partial<Panels>): void;
  /** Likewise, and the cards open by themselves again. */
  choosePanel(change: Partial<Panels>): void;
  setOpen(open: boolean): void;
}

/** Which step is worked on, with which panel, and whether a phone's cards are open. */
export function useStep(desk: Desk): StepState {
  const { session } = desk;
  const [step, setStepState] = useState<StepName>(() => firstStep(desk));
  const [panels, setPanels] = useState(FIRST);
  const [open, setOpen] = useState<boolean>();
  const setStep = useCallback(
    (next: StepName) => {
      session.setFolding(undefined);
      beginStep(next, session);
      setPanels(next === 'arrange' ? { ...FIRST, arrange: firstOfArrange(desk) } : FIRST);
      setOpen(undefined);
      setStepState(next);
      if (next === 'sources' || next === 'handover') session.framing.showAll();
      // Nothing is pointed at there: a mark of the last aim would look like part of the drawing.
      if (next === 'handover') session.dropAim();
    },
    [session, desk],
  );
  // A job that is opened without scale is ready for its first length.
  useEffect(() => {
    if (step === 'fit' && toolOf(session.getState().tool).rests) beginStep('fit', session);
  }, [session, step]);
  const setPanel = (change: Partial<Panels>) => setPanels({ ...panels, ...change });
  const choosePanel = (change: Partial<Panels>) => {
    setPanel(change);
    setOpen(undefined);
  };
  return { step, panels, cardsShown: useCardsShown(step, open, panels), setStep, setPanel, choosePanel, setOpen };
}

/** On a phone the cards open by themselves when there is something to answer, until somebody opens or closes them. */
function useCardsShown(step: StepName, open: boolean | undefined, panels: Panels): boolean {
  const tool = useSession((state) => state.tool);
  const fitted = useFitted();
  const { cards, belongsTo } = toolOf(tool);
  const says = belongsTo === step ? cards?.(tool.state) : undefined;
  if (says === 'needed' || !fitted) return true;
  // It asks at which ratio a sheet is drawn.
  if (step === 'fit' && tool.name === 'points' && drawnAtOf(fitted)) return true;
  if (open !== undefined) return open;
  if (says === 'in the way') return false;
  if (step === 'sources' || step === 'handover') return true;
  if (step === 'arrange') return panels.arrange !== 'shared';
  if (step === 'fit') return panels.fit !== 'evidence';
  return panels.trace !== 'tool' || says === 'useful';
}
