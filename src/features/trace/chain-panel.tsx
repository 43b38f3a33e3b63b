import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import type { ChainState, Wall } from '@/bench/tools';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import { formatAngle, formatLength, parseAngle, parseLength, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Choice, LedgeButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { LengthField } from './make/fields';

/** While an outline is drawn: take back, close, finish, cancel; level and upright only; typed length and angle. */
export function ChainPanel({ state }: { state: ChainState }) {
  const { session } = useDesk();
  const started = state.nodes.length > 0;
  const input = (kind: 'back' | 'close' | 'finish' | 'cancel') => () => session.input({ kind });
  return (
    <Card>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <LedgeButton
          icon="tick"
          label="Finish"
          name="Finish the outline, leave it open"
          disabled={!started}
          onPress={input('finish')}
          testID="draw-finish"
        />
        <LedgeButton
          icon="loop"
          label="Close"
          name="Close the outline"
          disabled={!started}
          onPress={input('close')}
          testID="draw-close"
        />
        <LedgeButton
          icon="stepback"
          label="Take back"
          name="Take back the last point"
          disabled={!started}
          onPress={input('back')}
          testID="draw-back"
        />
        <LedgeButton
          icon="close"
          label="Cancel"
          name="Cancel the outline"
          disabled={!started}
          onPress={input('cancel')}
          testID="draw-cancel"
        />
        <LedgeButton
          icon="level"
          label="Level, upright"
          name="Lines level or upright only"
          chosen={state.lock}
          testID="draw-lock"
          onPress={() => session.changeTool('chain', { lock: !state.lock })}
        />
        {state.kind === 'line' ? (
          <LedgeButton
            icon="tangent"
            label="Touching"
            name="The line becomes tangent to the circle or arc pointed at next"
            chosen={state.touching === true}
            testID="draw-touching"
            onPress={() => session.changeTool('chain', { touching: !state.touching })}
          />
        ) : null}
      </View>
      {state.wall ? <WallFields wall={state.wall} /> : null}
      {state.kind === 'arc' ? <ArcFields state={state} /> : null}
      {started ? <TypedSegment /> : null}
      <TypedPlace started={started} />
    </Card>
  );
}

const ARC_WAYS = [
  ['through', 'By a place on it'],
  ['centre', 'By its centre'],
  ['radius', 'By its radius'],
] as const;
const BULGES = [
  ['left', 'To the left'],
  ['right', 'To the right'],
] as const;

/** There to be typed over. mm */
const FIRST_RADIUS = 10;

/** How arcs are said, and their typed radius. */
function ArcFields({ state }: { state: ChainState }) {
  const { session } = useDesk();
  const way = state.arcBy ?? 'through';
  const set = (change: Partial<ChainState>) => session.changeTool('chain', change);
  const side = (state.radius ?? 1) < 0 ? 'right' : 'left';
  return (
    <>
      <Choice
        name="How the arc is said"
        value={way}
        options={ARC_WAYS}
        onChange={(arcBy) => set({ arcBy, through: undefined, radius: state.radius ?? FIRST_RADIUS })}
      />
      {way === 'radius' ? (
        <>
          <LengthField
            label="Radius"
            mm={Math.abs(state.radius ?? FIRST_RADIUS)}
            onChange={(mm) => set({ radius: side === 'left' ? mm : -mm })}
            testID="arc-radius"
          />
          <Choice
            name="Which way it bulges"
            value={side}
            options={BULGES}
            onChange={(to) => set({ radius: Math.abs(state.radius ?? FIRST_RADIUS) * (to === 'left' ? 1 : -1) })}
          />
        </>
      ) : null}
    </>
  );
}

const JUSTIFIED = [
  ['left', 'To its left'],
  ['middle', 'In the middle'],
  ['right', 'To its right'],
] as const;

/** How thick walls are, and where their thickness lies. */
function WallFields({ wall }: { wall: Wall }) {
  const { session } = useDesk();
  const set = (change: Partial<Wall>) => session.changeTool('chain', { wall: { ...wall, ...change } });
  return (
    <>
      <LengthField
        label="Thickness of the wall"
        mm={wall.width}
        onChange={(width) => set({ width })}
        testID="wall-width"
      />
      <Choice
        name="Where the wall lies along its line"
        value={wall.justified}
        options={JUSTIFIED}
        onChange={(justified) => set({ justified })}
      />
      <Button mode="outlined" compact onPress={() => session.chooseTool('opening')} testID="wall-openings">
        Doors and windows
      </Button>
    </>
  );
}

/** A typed place: across and up from the last point, or from zero. */
function TypedPlace({ started }: { started: boolean }) {
  const { session } = useDesk();
  const units = useUnits();
  const fitted = useFitted();
  const [open, setOpen] = useState(false);
  const [written, setWritten] = useState({ across: '', up: '' });
  const [from, setFrom] = useState<'last' | 'zero'>('last');
  if (!fitted?.fit.scaled) return null;
  const base = started ? from : 'zero';
  const parse = (text: string) => parseLength(text.trim() === '' ? '0' : text, units.style);
  const submit = () => {
    const [across, up] = [parse(written.across), parse(written.up)];
    if (!across.ok || !up.ok || (base === 'last' && across.value.mm === 0 && up.value.mm === 0)) return;
    session.input({ kind: 'typed', at: { by: [across.value.mm, up.value.mm], from: base }, aim: undefined });
    setWritten({ across: '', up: '' });
  };
  if (!open)
    return (
      <Button compact mode="text" onPress={() => setOpen(true)} testID="type-place">
        Type a place
      </Button>
    );
  return (
    <>
      {started ? (
        <Choice
          name="Counted from"
          value={from}
          options={[
            ['last', 'From the last point'],
            ['zero', 'From zero'],
          ]}
          onChange={setFrom}
        />
      ) : (
        <Words quiet style={{ fontSize: 14 }}>
          From zero:
        </Words>
      )}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <WrittenField
          label="Across"
          value={written.across}
          onChange={(across) => setWritten({ ...written, across })}
          parse={parse}
          onSubmit={submit}
          testID="place-across"
        />
        <WrittenField
          label="Up"
          value={written.up}
          onChange={(up) => setWritten({ ...written, up })}
          parse={parse}
          onSubmit={submit}
          testID="place-up"
        />
      </View>
    </>
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
      <WrittenField
        label="Length"
        value={length}
        onChange={setLength}
        parse={parseLengthOf}
        echo={({ mm }) => formatLength(mm, units)}
        onSubmit={submit}
        testID="segment-length"
      />
      <WrittenField
        label="Angle"
        value={angle}
        onChange={setAngle}
        parse={parseAngle}
        echo={(radians) => formatAngle(radians)}
        onSubmit={submit}
        testID="segment-angle"
      />
    </View>
  );
}
