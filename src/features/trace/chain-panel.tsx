import { useState } from 'react';
import { View } from 'react-native';
import type { ChainState } from '@/bench/tools';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import { formatAngle, formatLength, parseAngle, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { LedgeButton } from '@/ui/ledge-button';
import { WrittenField } from '@/ui/written-field';

/** While an outline is drawn: take back, close, finish, cancel; level and upright only; typed length and angle. */
export function ChainPanel({ state }: { state: ChainState }) {
  const { session } = useDesk();
  const started = state.nodes.length > 0;
  const input = (kind: 'back' | 'close' | 'finish' | 'cancel') => () => session.input({ kind });
  return (
    <Card width={420}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <LedgeButton icon="tick" label="Finish" name="Finish the outline, leave it open" disabled={!started} onPress={input('finish')} testID="draw-finish" />
        <LedgeButton icon="loop" label="Close" name="Close the outline" disabled={!started} onPress={input('close')} testID="draw-close" />
        <LedgeButton icon="stepback" label="Take back" name="Take back the last point" disabled={!started} onPress={input('back')} testID="draw-back" />
        <LedgeButton icon="close" label="Cancel" name="Cancel the outline" disabled={!started} onPress={input('cancel')} testID="draw-cancel" />
        <LedgeButton icon="level" label="Straight" name="Lines level or upright only" chosen={state.lock} testID="draw-lock"
          onPress={() => session.setTool({ name: 'chain', state: { ...state, lock: !state.lock } })} />
      </View>
      {started ? <TypedSegment /> : null}
    </Card>
  );
}

/** A typed length, an angle, or both: the next point goes there from the last one. */
function TypedSegment() {
  const { session } = useDesk();
  const units = useUnits();
  const fitted = useFitted();
  const aim = useSession((state) => state.aim);
  const [length, setLength] = useState('');
  const [angle, setAngle] = useState('');
  const parseLengthOf = (text: string) => parseSize(text, units.style);
  const submit = () => {
    const said = length.trim() === '' ? undefined : parseLengthOf(length);
    const turned = angle.trim() === '' ? undefined : parseAngle(angle);
    if ((said && !said.ok) || (turned && !turned.ok) || (!said && !turned)) return;
    session.input({ kind: 'typed', length: said?.value.mm, angle: turned?.value, aim });
    setLength('');
    setAngle('');
  };
  if (!fitted?.fit.scaled) return null;
  return (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      <WrittenField label="Length" value={length} onChange={setLength} parse={parseLengthOf} echo={({ mm }) => formatLength(mm, units)} onSubmit={submit} testID="segment-length" />
      <WrittenField label="Angle" value={angle} onChange={setAngle} parse={parseAngle} echo={(radians) => formatAngle(radians)} onSubmit={submit} testID="segment-angle" />
    </View>
  );
}
