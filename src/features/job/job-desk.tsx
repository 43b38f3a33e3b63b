import { useCallback, type ReactNode } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { useRouter } from 'expo-router';
import { Bench } from '@/bench/bench';
import { useSession, type Desk } from '@/bench/use-session';
import { ArrangePanel } from '@/features/arrange/arrange-panel';
import { FoldedLook } from '@/features/arrange/folded-look';
import { ArrangeRow } from '@/features/arrange/arrange-row';
import { FitPanel, FitRow } from '@/features/calibrate/fit-panel';
import { HandoverPanel } from '@/features/handover/handover-panel';
import type { PointAtAsked } from '@/features/sources/ask/ask-cards';
import { sayOfBegun } from '@/features/sources/begun-with';
import { FilmChooser } from '@/features/sources/film/film-chooser';
import { PdfChooser } from '@/features/sources/pdf/pdf-chooser';
import { CaliperSlip } from '@/features/sources/services/caliper-slip';
import { SourcesPanel } from '@/features/sources/sources-panel';
import { SourcesRow } from '@/features/sources/sources-row';
import { useBringIn, type BringIn } from '@/features/sources/use-bring-in';
import { TracePanel } from '@/features/trace/trace-panel';
import { TraceRow } from '@/features/trace/trace-row';
import { layoutFor, type DeskLayout } from '@/ui/layout';
import { usePalette } from '@/ui/palette';
import { useTyping } from '@/ui/use-typing';
import { BenchButtons } from './bench-buttons';
import { JobBar } from './job-bar';
import { Ledge } from './ledge';
import { LostPicture } from './lost-picture';
import { Notices } from './notices';
import { Readout } from './readout';
import { StateBanner } from './state-banner';
import type { StepName } from './step';
import { Steps } from './steps';
import { Tour } from './tour';
import { useShortcuts } from './use-shortcuts';
import { useStep, type StepState } from './use-step';
import { ViewStrip } from './view-strip';

/** How high the cards of each step are on a wide screen, CSS px: the bench keeps its size within a step. */
const CARD_HEIGHT: Readonly<Record<StepName, number>> = {
  sources: 226,
  fit: 196,
  arrange: 226,
  trace: 192,
  handover: 268,
};

interface JobDeskProps {
  readonly desk: Desk;
  readonly reopen: () => void;
  /** Takes the job off the device. */
  readonly discard: () => Promise<void>;
}

/** A job that is open: its bench, and around it what the step in hand offers. */
export function JobDesk({ desk, reopen, discard }: JobDeskProps) {
  const palette = usePalette();
  const { width, height } = useWindowDimensions();
  const layout = layoutFor(width, height);
  const wide = layout === 'wide';
  const { jobs, session } = desk;
  const steps = useStep(desk);
  const { step, cardsShown, setStep, setOpen } = steps;
  const router = useRouter();
  const bringIn = useBringIn(
    useCallback(() => setStep('fit'), [setStep]),
    useCallback(
      (words: string) => {
        sayOfBegun(words);
        void discard().then(() => router.replace('/'));
      },
      [discard, router],
    ),
  );
  useShortcuts(desk);
  const pointAtAsked: PointAtAsked = (kind, what, written) => {
    setStep('fit');
    session.pointAtEvidence(kind, 'use', {
      name: what,
      written: { [kind === 'circle' ? 'diameter' : 'length']: written },
    });
  };
  const Frame = FRAMES[layout];
  return (
    // A phone's keyboard takes of the window: all of the desk stands above it.
    <View style={[wide ? { flex: 1 } : { height }, { backgroundColor: palette.bench }]}>
      <JobBar onLeave={() => jobs.getState().flush()} />
      {bringIn.pdf ? (
        <PdfChooser
          pdf={bringIn.pdf}
          onChosen={(wanted) => void bringIn.bringPages(wanted)}
          onLeave={bringIn.leavePdf}
        />
      ) : null}
      {bringIn.film ? (
        <FilmChooser
          film={bringIn.film}
          onStills={(stills) => (bringIn.leaveFilm(), void bringIn.take(stills))}
          onLeave={bringIn.leaveFilm}
        />
      ) : null}
      <Frame
        step={step}
        onStep={setStep}
        height={height}
        bench={<BenchArea bringIn={bringIn} reopen={reopen} step={step} wide={wide} cardsShown={cardsShown} />}
        notices={<Notices bringIn={bringIn} wide={wide} />}
        ledge={
          <Ledge
            row={step === 'handover' ? null : <StepRow {...steps} />}
            cards={<StepCards {...steps} bringIn={bringIn} onPointAt={pointAtAsked} />}
            layout={layout}
            open={wide || cardsShown}
            height={height}
            onOpen={setOpen}
            low={CARD_HEIGHT[step]}
          />
        }
      />
    </View>
  );
}

/** What a step offers to take in hand. */
function StepRow({ step, panels, choosePanel }: StepState) {
  switch (step) {
    case 'sources':
      return <SourcesRow panel={panels.sources} onPanel={(sources) => choosePanel({ sources })} />;
    case 'fit':
      return <FitRow panel={panels.fit} onPanel={(fit) => choosePanel({ fit })} />;
    case 'arrange':
      return <ArrangeRow panel={panels.arrange} onPanel={(arrange) => choosePanel({ arrange })} />;
    case 'trace':
      return <TraceRow panel={panels.trace} onPanel={(trace) => choosePanel({ trace })} />;
    case 'handover':
      return null;
  }
}

function StepCards({
  step,
  panels,
  setPanel,
  bringIn,
  onPointAt,
}: StepState & { bringIn: BringIn; onPointAt: PointAtAsked }) {
  switch (step) {
    case 'sources':
      return <SourcesPanel bringIn={bringIn} panel={panels.sources} onPointAt={onPointAt} />;
    case 'fit':
      return <FitPanel panel={panels.fit} onPanel={(fit) => setPanel({ fit })} />;
    case 'arrange':
      return <ArrangePanel panel={panels.arrange} />;
    case 'trace':
      return <TracePanel panel={panels.trace} />;
    case 'handover':
      return <HandoverPanel />;
  }
}

/** The drawing surface with what floats over it. */
function BenchArea({
  bringIn,
  reopen,
  step,
  wide,
  cardsShown,
}: {
  bringIn: BringIn;
  reopen: () => void;
  step: StepName;
  wide: boolean;
  cardsShown: boolean;
}) {
  const folding = useSession((state) => state.folding);
  return (
    <View style={{ flex: 1, minHeight: 0 }} role="main">
      <Bench />
      {folding && step === 'arrange' ? <FoldedLook folding={folding} /> : null}
      {folding ? null : <BenchButtons />}
      <LostPicture />
      <Tour step={step} hidden={!wide && cardsShown} />
      {wide ? <Notices bringIn={bringIn} wide /> : null}
      <StateBanner reopen={reopen} />
      <CaliperSlip />
    </View>
  );
}

interface FrameProps {
  readonly step: StepName;
  readonly onStep: (step: StepName) => void;
  /** Of the window, CSS px. */
  readonly height: number;
  readonly bench: ReactNode;
  readonly notices: ReactNode;
  readonly ledge: ReactNode;
}

/** Steps and views in a column on the left, the bench with its ledge beside it. */
function WideFrame({ step, onStep, bench, ledge }: FrameProps) {
  const palette = usePalette();
  return (
    <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
      <View style={{ width: 196, backgroundColor: palette.paper, borderRightWidth: 1, borderRightColor: palette.rule }}>
        <Steps step={step} onStep={onStep} wide />
        <ViewStrip wide />
      </View>
      <View style={{ flex: 1, minWidth: 0 }}>
        {bench}
        <Readout step={step} wide />
        {ledge}
      </View>
    </View>
  );
}

/** A phone held sideways has no height to spare: steps and views in a narrow column, one line of hints, and the ledge as on a phone. */
function SidewaysFrame({ step, onStep, bench, notices, ledge }: FrameProps) {
  const palette = usePalette();
  return (
    <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
      <View style={{ width: 136, backgroundColor: palette.paper, borderRightWidth: 1, borderRightColor: palette.rule }}>
        <Steps step={step} onStep={onStep} wide />
        <ViewStrip wide narrow />
      </View>
      <View style={{ flex: 1, minWidth: 0 }}>
        <View style={{ zIndex: 3 }}>{notices}</View>
        {bench}
        <View style={{ zIndex: 2 }}>
          <Readout step={step} wide />
          {ledge}
        </View>
      </View>
    </View>
  );
}

/** So little of a phone's height is left by a keyboard, CSS px. */
const UNDER_KEYBOARD = 560;

/** Views above the bench, and over them what is said: the picture is left alone. The ledge and the steps below; while one types they leave their room to the bench. */
function PhoneFrame({ step, onStep, height, bench, notices, ledge }: FrameProps) {
  const isNarrowed = useTyping() && height < UNDER_KEYBOARD;
  return (
    <>
      <View style={{ zIndex: 3 }}>
        {isNarrowed ? null : <ViewStrip wide={false} />}
        {notices}
      </View>
      {bench}
      <View style={{ zIndex: 2 }}>
        <Readout step={step} wide={false} />
        {ledge}
      </View>
      {isNarrowed ? null : <Steps step={step} onStep={onStep} wide={false} />}
    </>
  );
}

const FRAMES: Readonly<Record<DeskLayout, (props: FrameProps) => ReactNode>> = {
  wide: WideFrame,
  phone: PhoneFrame,
  sideways: SidewaysFrame,
};
