import { useRef } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { removeView, setSheetKind, type Sheet } from '@/core/job';
import { Card } from '@/ui/card';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';
import type { BringIn } from './use-bring-in';

const KINDS = [['photo', 'Photo by hand'], ['scan', 'Scan'], ['drawing', 'Copy or print']] as const;

/** The pictures of the job with what their files say of themselves, and how to bring in more. */
export function SourcesPanel({ bringIn }: { bringIn: BringIn }) {
  const { jobs, session } = useDesk();
  const sheets = useJob((state) => state.job.sheets);
  const views = useJob((state) => state.job.views);
  const viewId = useSession((state) => state.viewId);
  const { run } = jobs.getState();
  return (
    <>
      <Card><AddPictures bringIn={bringIn} empty={sheets.length === 0} /></Card>
      {views.map((view) => {
        const sheet = sheets.find((other) => other.id === view.sheet)!;
        return (
          <Card key={view.id} width={390} chosen={view.id === viewId} testID={`sheet-${sheet.name}`}>
            <View style={{ flexDirection: 'row', alignItems: 'center' }}>
              <Words lines={1} style={{ fontWeight: '700', flex: 1 }}>{sheet.name}</Words>
              <RoundButton icon="trash" name={`Remove ${sheet.name}`} size={36} onPress={() => {
                run(removeView(view.id));
                const left = jobs.getState().job.views[0];
                if (left) session.chooseView(left.id);
              }} />
            </View>
            <Figures quiet style={{ fontSize: 12.5 }}>{`${sheet.width} × ${sheet.height} px, ${(sheet.bytes / 1e6).toFixed(1)} MB`}</Figures>
            <Words quiet style={{ fontSize: 13 }}>{factsOf(sheet)}</Words>
            <Choice name={`What ${sheet.name} is`} value={sheet.kind} options={KINDS} onChange={(kind) => run(setSheetKind(sheet.id, kind))} />
          </Card>
        );
      })}
    </>
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
      <input ref={files} type="file" multiple accept="image/*" hidden aria-label="Picture files" data-testid="picture-files" onChange={taken} />
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
