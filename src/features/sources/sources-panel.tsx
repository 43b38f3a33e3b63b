import { useRef } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { setSheetKind, type Sheet } from '@/core/job';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';
import { CleanCards } from './clean/clean-cards';
import { FrameCard } from './frame-card';
import { LevelCard } from './level-card';
import { ReferenceCard } from './reference-card';
import type { SourcesPanelName } from './sources-row';
import { SuggestedCard } from './suggested-card';
import type { BringIn } from './use-bring-in';
import { ViewCard } from './view-card';

const KINDS = [['photo', 'Photo by hand'], ['scan', 'Scan'], ['drawing', 'Copy or print']] as const;

interface SourcesPanelProps {
  readonly bringIn: BringIn;
  readonly panel: SourcesPanelName;
}

/** The pictures of the job with what their files say of themselves, the views on them, and how to bring in more. */
export function SourcesPanel({ bringIn, panel }: SourcesPanelProps) {
  const sheets = useJob((state) => state.job.sheets);
  const references = useJob((state) => state.job.references);
  const tool = useSession((state) => state.tool);
  const suggested = useSession((state) => state.suggested.length);
  const referenceCards = references.map((reference) => <ReferenceCard key={reference.id} reference={reference} />);
  if (sheets.length === 0) return <><Card><AddPictures bringIn={bringIn} empty /></Card>{referenceCards}</>;
  if (panel === 'tool' && tool.name === 'frame') return <FrameCard state={tool.state} />;
  if (panel === 'tool' && tool.name === 'level') return <LevelCard state={tool.state} />;
  if (panel === 'tool' && suggested > 0) return <SuggestedCard />;
  if (panel === 'clean') return <CleanCards />;
  if (panel === 'add') return <><Card><AddPictures bringIn={bringIn} empty={false} /></Card>{sheets.map((sheet) => <SheetCard key={sheet.id} sheet={sheet} />)}{referenceCards}</>;
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
    <Card width={390} testID={`sheet-${sheet.name}`}>
      <Words lines={1} style={{ fontWeight: '700' }}>{sheet.name}</Words>
      <Figures quiet style={{ fontSize: 12.5 }}>{`${sheet.width} × ${sheet.height} px, ${(sheet.bytes / 1e6).toFixed(1)} MB`}</Figures>
      <Words quiet style={{ fontSize: 13 }}>{factsOf(sheet)}</Words>
      <Choice name={`What ${sheet.name} is`} value={sheet.kind} options={KINDS} onChange={(kind) => jobs.getState().run(setSheetKind(sheet.id, kind))} />
    </Card>
  );
}

function AddPictures({ bringIn, empty }: { bringIn: BringIn; empty: boolean }) {
  const files = useRef<HTMLInputElement>(null);
  const camera = useRef<HTMLInputElement>(null);
  const taken = (event: React.ChangeEvent<HTMLInputElement>) => {
    void bringIn.bring([...(event.target.files ?? [])]);
    event.target.value = '';
  };
  return (
    <>
      <Words>{empty ? 'Choose pictures, drop them here, or paste them.' : 'Add more pictures.'}</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button mode="contained" icon="picture" onPress={() => files.current?.click()} testID="choose-pictures">Choose</Button>
        <Button mode="outlined" icon="camera" onPress={() => camera.current?.click()}>Take a photo</Button>
      </View>
      <input ref={files} type="file" multiple accept="image/*,.tif,.tiff,.heic,.heif,.pdf,.dxf,.svg,.json,.geojson,.jgw,.pgw,.tfw,.wld,video/mp4,video/webm" hidden aria-label="Picture files" data-testid="picture-files" onChange={taken} />
      <input ref={camera} type="file" accept="image/*" capture="environment" hidden aria-label="Photo from the camera" onChange={taken} />
      {empty ? <Words quiet style={{ fontSize: 13 }}>Square-on, close, level, on plain ground, with something of known size beside it.</Words> : null}
    </>
  );
}

/** What the file's tags tell, as one sentence. */
function factsOf({ taken }: Sheet): string {
  const facts = [
    taken.camera, taken.focalMm && `${round(taken.focalMm)} mm lens`, taken.focal35mm && `as ${round(taken.focal35mm)} mm on 35 mm film`,
    taken.dpi && `${round(taken.dpi)} dots an inch`, taken.time,
  ].filter(Boolean);
  return facts.length > 0 ? facts.join(', ') : 'The file says nothing of camera or resolution.';
}

const round = (value: number) => Number(value.toFixed(1));
