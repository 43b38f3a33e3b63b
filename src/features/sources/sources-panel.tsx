import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { setSheetKind, setTrustTilt, type Sheet } from '@/core/job';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';
import { AddPictures } from './add-pictures';
import { AskCards, type PointAtAsked } from './ask/ask-cards';
import { CleanCards } from './clean/clean-cards';
import { FrameCard } from './frame-card';
import { LevelCard } from './level-card';
import { ReferenceCard } from './reference-card';
import type { SourcesPanelName } from './sources-row';
import { SuggestedCard } from './suggested-card';
import type { BringIn } from './use-bring-in';
import { ViewCard } from './view-card';

const KINDS = [
  ['photo', 'Photo by hand'],
  ['scan', 'Scan'],
  ['drawing', 'Copy or print'],
] as const;

interface SourcesPanelProps {
  readonly bringIn: BringIn;
  readonly panel: SourcesPanelName;
  readonly onPointAt: PointAtAsked;
}

/** The pictures of the job with what their files say of themselves, the views on them, and how to bring in more. */
export function SourcesPanel({ bringIn, panel, onPointAt }: SourcesPanelProps) {
  const sheets = useJob((state) => state.job.sheets);
  const references = useJob((state) => state.job.references);
  const tool = useSession((state) => state.tool);
  const suggested = useSession((state) => state.suggested.length);
  const referenceCards = references.map((reference) => <ReferenceCard key={reference.id} reference={reference} />);
  if (panel === 'ask') return <AskCards onPointAt={onPointAt} />;
  if (sheets.length === 0)
    return (
      <>
        <Card>
          <AddPictures bringIn={bringIn} empty />
        </Card>
        {referenceCards}
      </>
    );
  if (panel === 'tool' && tool.name === 'frame') return <FrameCard state={tool.state} />;
  if (panel === 'tool' && tool.name === 'level') return <LevelCard state={tool.state} />;
  if (panel === 'tool' && suggested > 0) return <SuggestedCard />;
  if (panel === 'clean') return <CleanCards />;
  if (panel === 'add')
    return (
      <>
        <Card>
          <AddPictures bringIn={bringIn} empty={false} />
        </Card>
        {sheets.map((sheet) => (
          <SheetCard key={sheet.id} sheet={sheet} />
        ))}
        {referenceCards}
      </>
    );
  return <ViewCards />;
}

function ViewCards() {
  const views = useJob((state) => state.job.views);
  const derived = useJob((state) => state.derived);
  return (
    <>
      {views.map((view, index) => {
        const fitted = derived.views.get(view.id);
        return fitted ? <ViewCard key={view.id} fitted={fitted} index={index} views={views} /> : null;
      })}
    </>
  );
}

/** A picture as its file tells of it, and what kind of picture it is taken for. */
function SheetCard({ sheet }: { sheet: Sheet }) {
  const { jobs } = useDesk();
  return (
    <Card testID={`sheet-${sheet.name}`}>
      <Words lines={1} style={{ fontWeight: '700' }}>
        {sheet.name}
      </Words>
      <Figures
        quiet
        style={{
          fontSize: 12.5,
        }}>{`${sheet.width} × ${sheet.height} px, ${(sheet.bytes / 1e6).toFixed(1)} MB`}</Figures>
      <Words quiet style={{ fontSize: 13 }}>
        {factsOf(sheet)}
      </Words>
      <Choice
        name={`What ${sheet.name} is`}
        value={sheet.kind}
        options={KINDS}
        onChange={(kind) => jobs.getState().run(setSheetKind(sheet.id, kind))}
      />
      {sheet.kind === 'photo' && sheet.taken.tilt ? <TiltOffer sheet={sheet} /> : null}
    </Card>
  );
}

/** The tilt that the phone measured, offered as evidence: what lies level can be corrected by it. */
function TiltOffer({ sheet: { id, taken, trustTilt } }: { sheet: Sheet }) {
  const { jobs } = useDesk();
  const [across, up] = taken.tilt!;
  return (
    <>
      <Words
        style={{ fontSize: 13.5 }}
        testID="tilt-offer">{`The phone measured ${Math.hypot(across, up).toFixed(1)}° out of square-on.`}</Words>
      <Button
        compact
        mode={trustTilt ? 'contained' : 'outlined'}
        style={{ alignSelf: 'flex-start' }}
        onPress={() => jobs.getState().run(setTrustTilt(id, !trustTilt))}
        testID="trust-tilt">
        {trustTilt ? 'It is used; let it be' : 'It lay level: use that'}
      </Button>
    </>
  );
}

/** What the file's tags tell, as one sentence. */
function factsOf({ taken }: Sheet): string {
  const facts = [
    taken.camera,
    taken.focalMm && `${round(taken.focalMm)} mm lens`,
    taken.focal35mm && `as ${round(taken.focal35mm)} mm on 35 mm film`,
    taken.dpi && `${round(taken.dpi)} dots an inch`,
    taken.time,
    taken.moment !== undefined && `${taken.moment.toFixed(2)} s into its film`,
  ].filter(Boolean);
  return facts.length > 0 ? facts.join(', ') : 'The file says nothing of camera or resolution.';
}

const round = (value: number) => Number(value.toFixed(1));
