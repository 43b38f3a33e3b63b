import { useRouter } from 'expo-router';
import { useCallback, useEffect, useState } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { Button } from 'react-native-paper';
import { Bench } from '@/bench/bench';
import type { Session } from '@/bench/session';
import { isPointed } from '@/bench/tools';
import { DeskContext, useFitted, useSession, type Desk } from '@/bench/use-session';
import { FitPanel, FitRow, type FitPanelName } from '@/features/calibrate/fit-panel';
import { HandoverPanel } from '@/features/handover/handover-panel';
import { PdfChooser } from '@/features/sources/pdf/pdf-chooser';
import type { PointAtAsked } from '@/features/sources/ask/ask-cards';
import { FilmChooser } from '@/features/sources/film/film-chooser';
import { CaliperSlip } from '@/features/sources/services/caliper-slip';
import { SourcesPanel } from '@/features/sources/sources-panel';
import { SourcesRow, type SourcesPanelName } from '@/features/sources/sources-row';
import { useBringIn } from '@/features/sources/use-bring-in';
import { TracePanel } from '@/features/trace/trace-panel';
import { TraceRow, type TracePanelName } from '@/features/trace/trace-row';
import type { Lease } from '@/store';
import { WIDE } from '@/ui/layout';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { BenchButtons } from './bench-buttons';
import { JobBar } from './job-bar';
import { CARDS_SHARE, Ledge } from './ledge';
import { Notices } from './notices';
import { Readout } from './readout';
import { StateBanner } from './state-banner';
import type { StepName } from './step';
import { Steps } from './steps';
import { Tour } from './tour';
import { useDeskFor } from './use-desk-for';
import { useShortcuts } from './use-shortcuts';
import { ViewStrip } from './view-strip';

export function JobScreen({ id }: { id: string }) {
  const palette = usePalette();
  const router = useRouter();
  const state = useDeskFor(id);
  if (state.kind === 'open') {
    return <DeskContext.Provider value={state.desk}><JobDesk lease={state.lease} desk={state.desk} /></DeskContext.Provider>;
  }
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 14, padding: 24, backgroundColor: palette.bench }} role="main">
      <Words>{state.kind === 'opening' ? 'Opening the job…' : 'This job is not on this device. It may have been deleted, or it lives in another browser.'}</Words>
      {state.kind === 'missing' ? <Button mode="contained" onPress={() => router.replace('/')}>To the jobs</Button> : null}
    </View>
  );
}

/** How high the cards of each step are on a wide screen, CSS px: the bench keeps its size within a step. */
const CARD_HEIGHT: Readonly<Record<StepName, number>> = { sources: 226, fit: 196, trace: 192, handover: 268 };

/** The step that a job that is opened goes on with. */
function firstStep({ jobs, session }: Desk): StepName {
  const tool = session.getState().tool;
  if (tool.name === 'evidence' || tool.name === 'datum') return 'fit';
  if (tool.name === 'chain' && tool.state.nodes.length > 0) return 'trace';
  const { job, derived } = jobs.getState();
  if (job.sheets.length === 0) return 'sources';
  return [...derived.views.values()].some((view) => view.fit.scaled) ? 'trace' : 'fit';
}

/** The tool that a step begins with: pointing at a length while there is none, else choosing. */
function beginStep(step: StepName, session: Session): void {
  const fitted = session.findFitted();
  if (step === 'fit') {
    if (fitted && !fitted.fit.scaled) session.pointAtEvidence('length');
    else if (fitted && fitted.view.evidence.length < 2) session.pointAtEvidence('length', 'check');
    else session.chooseTool('points');
  } else if (session.getState().tool.name !== 'select' || step === 'trace') session.chooseTool('select');
}

function JobDesk({ lease, desk }: { lease: Lease; desk: Desk }) {
  const palette = usePalette();
  const { width, height } = useWindowDimensions();
  const wide = width >= WIDE;
  const { jobs, session } = desk;
  const [step, setStepState] = useState<StepName>(() => firstStep(desk));
  const [sourcesPanel, setSourcesPanel] = useState<SourcesPanelName>('add');
  const [fitPanel, setFitPanel] = useState<FitPanelName>('evidence');
  const [tracePanel, setTracePanel] = useState<TracePanelName>('tool');
  const [open, setOpen] = useState<boolean>();
  const setStep = useCallback((next: StepName) => {
    beginStep(next, session);
    setSourcesPanel('add');
    setFitPanel('evidence');
    setTracePanel('tool');
    setOpen(undefined);
    setStepState(next);
    // On a phone the cards of these steps lie over the lower half: the picture is shown above them.
    if (!wide && (next === 'sources' || next === 'handover')) session.showAll(height * CARDS_SHARE);
  }, [session, wide, height]);
  const bringIn = useBringIn(useCallback(() => setStep('fit'), [setStep]));
  useShortcuts(desk);
  // A job that is opened without scale is ready for its first length.
  useEffect(() => {
    if (step === 'fit' && (session.getState().tool.name === 'select' || session.getState().tool.name === 'points')) beginStep('fit', session);
  }, [session, step]);
  const pointAtAsked: PointAtAsked = (kind, what, written) => {
    setStep('fit');
    session.pointAtEvidence(kind, 'use', { name: what, written: { [kind === 'circle' ? 'diameter' : 'length']: written } });
  };
  const cardsShown = useCardsShown(step, open, fitPanel, tracePanel);
  const row = step === 'fit' ? <FitRow panel={fitPanel} onPanel={(panel) => (setFitPanel(panel), setOpen(undefined))} />
    : step === 'trace' ? <TraceRow panel={tracePanel} onPanel={(panel) => (setTracePanel(panel), setOpen(undefined))} />
    : step === 'sources' ? <SourcesRow panel={sourcesPanel} onPanel={(panel) => (setSourcesPanel(panel), setOpen(undefined))} /> : null;
  const cards = step === 'sources' ? <SourcesPanel bringIn={bringIn} panel={sourcesPanel} onPointAt={pointAtAsked} /> : step === 'fit' ? <FitPanel panel={fitPanel} onPanel={setFitPanel} />
    : step === 'trace' ? <TracePanel panel={tracePanel} /> : <HandoverPanel />;
  const leave = () => jobs.getState().flush();
  const bench = (
    <View style={{ flex: 1, minHeight: 0 }} role="main">
      <Bench />
      <BenchButtons />
      <Tour />
      <Notices bringIn={bringIn} raised={!wide && cardsShown} />
      <StateBanner lease={lease} />
      <CaliperSlip />
    </View>
  );
  return (
    <View style={{ flex: 1, backgroundColor: palette.bench }}>
      <JobBar onLeave={leave} />
      {bringIn.pdf ? <PdfChooser pdf={bringIn.pdf} onChosen={(wanted) => void bringIn.bringPages(wanted)} onLeave={bringIn.leavePdf} /> : null}
      {bringIn.film ? <FilmChooser film={bringIn.film} onStills={(stills) => (bringIn.leaveFilm(), void bringIn.take(stills))} onLeave={bringIn.leaveFilm} /> : null}
      {wide ? (
        <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
          <View style={{ width: 196, backgroundColor: palette.paper, borderRightWidth: 1, borderRightColor: palette.rule }}>
            <Steps step={step} onStep={setStep} wide />
            <ViewStrip wide />
          </View>
          <View style={{ flex: 1, minWidth: 0 }}>
            {bench}
            <Readout step={step} wide />
            <Ledge row={row} cards={cards} wide open height={height} onOpen={setOpen} low={CARD_HEIGHT[step]} />
          </View>
        </View>
      ) : (
        <>
          <ViewStrip wide={false} />
          {bench}
          <View style={{ zIndex: 2 }}>
            <Readout step={step} wide={false} />
            <Ledge row={row} cards={cards} wide={false} open={cardsShown} height={height} onOpen={setOpen} low={0} />
          </View>
          <Steps step={step} onStep={setStep} wide={false} />
        </>
      )}
    </View>
  );
}

/** On a phone the cards open by themselves when there is something to answer, until somebody opens or closes them. */
function useCardsShown(step: StepName, open: boolean | undefined, fitPanel: FitPanelName, tracePanel: TracePanelName): boolean {
  const tool = useSession((state) => state.tool);
  const fitted = useFitted();
  const asking = tool.name === 'evidence' && isPointed(tool.state);
  if (asking || !fitted) return true;
  if (open !== undefined) return open;
  // While a frame or an edge is pointed at, the bench is free.
  if (tool.name === 'frame') return tool.state.points.length >= (tool.state.shape === 'box' ? 2 : 3);
  if (tool.name === 'brush' || (tool.name === 'match' && tool.state.target)) return false;
  if (tool.name === 'level') return tool.state.points.length === 2;
  if (step === 'sources' || step === 'handover') return true;
  if (step === 'fit') return fitPanel !== 'evidence';
  if (tracePanel !== 'tool') return true;
  return (tool.name === 'select' && tool.state.outlines.length > 0) || ((tool.name === 'distance' || tool.name === 'angle') && tool.state.points.length > 1);
}
