import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { findFrame, startFrame, type FrameShape, type FrameState } from '@/bench/tools';
import { useDesk, useFitted } from '@/bench/use-session';
import { cutView, setFrame, type ViewSide } from '@/core/job';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { SIDE_WORDS } from '@/ui/feature-words';
import { SIDE_CHOICES, viewFromFrame } from './view-from-frame';

const SHAPES: readonly (readonly [FrameShape, string])[] = [
  ['box', 'Box'],
  ['turned', 'Turned box'],
  ['polygon', 'Around it'],
];

/** The frame that is being set: its shape, and what is made of it. */
export function FrameCard({ state }: { state: FrameState }) {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const [side, setSide] = useState<ViewSide>();
  const [name, setName] = useState('');
  if (!fitted) return null;
  const { view } = fitted;
  const frame = findFrame(state, view.datum);
  const number = jobs.getState().job.views.length + 1;
  const shown = name.trim() || (side ? SIDE_WORDS[side] : `${fitted.sheet.name} ${number}`);
  const again = () => session.frame(startFrame(state.purpose, state.shape));
  const cut = () => {
    if (!frame) return;
    jobs.getState().run(cutView(viewFromFrame(fitted, frame, shown, side)));
    session.say(session.isReadOnly() ? 'read-only' : 'view-cut', { name: shown });
    setName('');
    setSide(undefined);
    again();
  };
  const crop = () => {
    if (!frame) return;
    jobs.getState().run(setFrame(view.id, frame));
    session.chooseTool('select');
    session.framing.showAll();
  };
  return (
    <Card chosen testID="frame-card">
      <Words style={{ fontWeight: '700' }}>{state.purpose === 'cut' ? 'Cut a view out' : 'Show only a part'}</Words>
      <Choice
        name="How the frame is set"
        value={state.shape}
        options={SHAPES}
        onChange={(shape) => session.frame(startFrame(state.purpose, shape))}
      />
      {state.purpose === 'cut' ? (
        <ViewSaid side={side} name={name} shown={shown} onSide={setSide} onName={setName} />
      ) : null}
      <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
        <Button mode="contained" disabled={!frame} onPress={state.purpose === 'cut' ? cut : crop} testID="use-frame">
          {state.purpose === 'cut' ? 'Cut it out' : 'Crop to it'}
        </Button>
        <Button disabled={state.points.length === 0} onPress={again}>
          Begin again
        </Button>
      </View>
    </Card>
  );
}

interface ViewSaidProps {
  readonly side: ViewSide | undefined;
  readonly name: string;
  /** What it is called as long as no name is typed. */
  readonly shown: string;
  readonly onSide: (side: ViewSide | undefined) => void;
  readonly onName: (name: string) => void;
}

/** Which side a view shows, and its name. */
function ViewSaid({ side, name, shown, onSide, onName }: ViewSaidProps) {
  const palette = usePalette();
  return (
    <>
      <Choice
        name="Which side it shows"
        value={side ?? ('' as ViewSide)}
        options={SIDE_CHOICES}
        onChange={(next) => onSide(next === side ? undefined : next)}
      />
      <TextInput
        mode="outlined"
        dense
        label="Its name"
        accessibilityLabel="Name of the view"
        placeholder={shown}
        value={name}
        maxLength={80}
        onChangeText={onName}
        style={{ height: 44, backgroundColor: palette.paper }}
        testID="cut-name"
      />
    </>
  );
}
