import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { commandForStretch, commandForTurn, type StandMode, type StandState } from '@/bench/tools';
import { useDesk } from '@/bench/use-session';
import { done, refused, type Result } from '@/core/basics';
import { parseAngle, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { ByFields } from './fields';

const HINTS: Readonly<Record<StandMode, readonly string[]>> = {
  move: ['Point at a place of it.', 'Point at where that place goes.'],
  placed: ['Point at a place of the part.', 'Point at where that place goes this time.'],
  stretch: [
    'Point at a corner of a box around what should move.',
    'Point at the corner across.',
    'Type how far it goes, or point at where from.',
    'Point at where to.',
  ],
  around: ['Point at the centre.'],
  turn: ['Point at the place to turn about.', 'Type by how much, to the left. Or mirror it.'],
  scale: ['Point at the place that stays.', 'Type a factor, or what a size is and what it should be.'],
};

/** Asks for the places that moving, turning, scaling and copying need, and for what is typed with them. */
export function StandPanel({ state }: { state: StandState }) {
  const { session } = useDesk();
  const hints = HINTS[state.mode];
  return (
    <Card testID="stand-card">
      <Words quiet>{hints[Math.min(state.points.length, hints.length - 1)]!}</Words>
      {state.mode === 'stretch' && state.points.length > 1 ? <StretchFields state={state} /> : null}
      {state.mode === 'turn' && state.points.length > 0 ? <TurnFields state={state} /> : null}
      {state.mode === 'scale' && state.points.length > 0 ? <ScaleFields state={state} /> : null}
      <Button mode="outlined" compact onPress={() => session.hold(state.of)} testID="stand-done">
        {state.points.length > 0 && (state.mode === 'turn' || state.mode === 'scale') ? 'Done' : 'Cancel'}
      </Button>
    </Card>
  );
}

function useTurning(state: StandState) {
  const { session, jobs } = useDesk();
  return (change: Parameters<typeof commandForTurn>[1]) => {
    const context = session.findContext();
    const command = context && commandForTurn(state, change, context);
    if (command) jobs.getState().run(command);
  };
}

function TurnFields({ state }: { state: StandState }) {
  const turn = useTurning(state);
  const [text, setText] = useState('');
  return (
    <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
      <WrittenField
        label="Turn by"
        value={text}
        onChange={setText}
        parse={parseAngle}
        onSubmit={(radians) => turn({ turn: radians })}
        testID="turn-by"
      />
      <Button mode="outlined" onPress={() => turn({ mirrored: true })} testID="turn-mirror">
        Mirror it
      </Button>
    </View>
  );
}

/** How far what lies in the box goes, typed. */
function StretchFields({ state }: { state: StandState }) {
  const { session, jobs } = useDesk();
  const stretch = (by: readonly [number, number]) => {
    const context = session.findContext();
    const command = context && commandForStretch(state, by, context);
    if (!command) return session.say('stretch-nothing');
    jobs.getState().run(command);
    session.hold(state.of);
  };
  return <ByFields label="Stretch" onSubmit={stretch} testID="stretch" />;
}

/** Whether a scale goes across, and up. */
const WAYS = { both: [true, true], across: [true, false], up: [false, true] } as const;

function parseFactor(text: string): Result<number> {
  const factor = Number(text.trim().replace(',', '.').replace(/%$/, 'e-2'));
  return factor > 0 && Number.isFinite(factor) ? done(factor) : refused('factor-not-understood', { text });
}

function ScaleFields({ state }: { state: StandState }) {
  const turn = useTurning(state);
  const units = useUnits();
  const [written, setWritten] = useState({ factor: '', is: '', wanted: '' });
  const size = (text: string) => parseSize(text, units.style);
  const [is, wanted] = [size(written.is), size(written.wanted)];
  const [way, setWay] = useState<keyof typeof WAYS>('both');
  const scale = (factor: number) =>
    turn({ scale: WAYS[way].map((scaled) => (scaled ? factor : 1)) as [number, number] });
  const byLengths = () => is.ok && wanted.ok && scale(wanted.value.mm / is.value.mm);
  return (
    <>
      <WrittenField
        label="Factor"
        value={written.factor}
        onChange={(factor) => setWritten({ ...written, factor })}
        parse={parseFactor}
        onSubmit={scale}
        testID="scale-factor"
      />
      <Choice
        name="Which way"
        value={way}
        options={[
          ['both', 'Both ways'],
          ['across', 'Across only'],
          ['up', 'Up only'],
        ]}
        onChange={setWay}
      />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <WrittenField
          label="What is"
          value={written.is}
          onChange={(text) => setWritten({ ...written, is: text })}
          parse={size}
          onSubmit={byLengths}
          testID="scale-is"
        />
        <WrittenField
          label="becomes"
          value={written.wanted}
          onChange={(text) => setWritten({ ...written, wanted: text })}
          parse={size}
          onSubmit={byLengths}
          testID="scale-wanted"
        />
      </View>
    </>
  );
}
