import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { commandForRectangle, commandForSlot, type ShapeState } from '@/bench/tools';
import { useDesk, useFitted } from '@/bench/use-session';
import { done, refused, type Result } from '@/core/basics';
import { formatLength, parseLength, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

const MODES = [
  ['rectangle', 'Rectangle'],
  ['turned', 'Turned'],
  ['polygon', 'Even polygon'],
  ['slot', 'Slot'],
] as const;
const HINTS = {
  rectangle: ['Point at a corner.', 'Point at the corner across, or type its sides.'],
  turned: ['Point at one end of a side.', 'Point at its other end.', 'Point anywhere on the side across.'],
  polygon: ['Point at one end of a side.', 'Point at its other end; the shape lies to its left.'],
  slot: [
    'Point at the middle of one round end.',
    'Point at the middle of the other.',
    'Point at a side, or type the width.',
  ],
};
const MOST_SIDES = 24;

function parseSides(text: string): Result<number> {
  const sides = Number(text.trim());
  return Number.isInteger(sides) && sides >= 3 && sides <= MOST_SIDES
    ? done(sides)
    : refused('sides-not-understood', { most: MOST_SIDES });
}

/** Shapes that keep what makes them what they are, however roughly they were pointed. */
export function ShapePanel({ state }: { state: ShapeState }) {
  const { session } = useDesk();
  const fitted = useFitted();
  const [sides, setSides] = useState(String(state.sides));
  return (
    <Card testID="shape-card">
      <Choice
        name="Which shape is drawn"
        value={state.mode}
        options={MODES}
        onChange={(mode) => session.setTool({ name: 'shape', state: { ...state, mode, points: [] } })}
      />
      <Words quiet>{HINTS[state.mode][state.points.length] ?? ''}</Words>
      {state.mode === 'polygon' ? (
        <WrittenField
          label="Sides"
          value={sides}
          parse={parseSides}
          testID="polygon-sides"
          onSubmit={() => undefined}
          onChange={(text) => {
            setSides(text);
            const read = parseSides(text);
            if (read.ok) session.changeTool('shape', { sides: read.value });
          }}
        />
      ) : null}
      {state.mode === 'slot' && state.points.length === 2 && fitted?.fit.scaled ? <TypedWidth state={state} /> : null}
      {state.mode === 'rectangle' && state.points.length === 1 && fitted?.fit.scaled ? (
        <TypedSides state={state} />
      ) : null}
    </Card>
  );
}

/** The width of a slot, which is the diameter of its ends. */
function TypedWidth({ state }: { state: ShapeState }) {
  const { jobs, session } = useDesk();
  const units = useUnits();
  const [text, setText] = useState('');
  return (
    <WrittenField
      label="Width"
      value={text}
      onChange={setText}
      parse={(written) => parseSize(written, units.style)}
      echo={({ mm }) => formatLength(mm, units)}
      testID="slot-width"
      onSubmit={({ mm }) => {
        const context = session.findContext();
        const command = context && commandForSlot(state, mm, context);
        if (command) jobs.getState().run(command);
        session.setTool({ name: 'shape', state: { ...state, points: [] } });
      }}
    />
  );
}

/** Typed sides, and how far the corner stands from the place that was pointed at. */
function TypedSides({ state }: { state: ShapeState }) {
  const { jobs, session } = useDesk();
  const units = useUnits();
  const [written, setWritten] = useState({ width: '', height: '', across: '0', up: '0' });
  const size = (text: string) => parseSize(text, units.style);
  const offset = (text: string) => parseLength(text, units.style);
  const [width, height, across, up] = [
    size(written.width),
    size(written.height),
    offset(written.across),
    offset(written.up),
  ];
  const isWhole = width.ok && height.ok && across.ok && up.ok;
  const draw = () => {
    const context = session.findContext();
    if (!isWhole || !context) return;
    const command = commandForRectangle(
      state,
      { width: width.value.mm, height: height.value.mm, offset: [across.value.mm, up.value.mm] },
      context,
    );
    if (command) jobs.getState().run(command);
    session.setTool({ name: 'shape', state: { ...state, points: [] } });
  };
  const field = (
    name: keyof typeof written,
    label: string,
    parse: (text: string) => Result<{ readonly mm: number }>,
  ) => (
    <WrittenField
      key={name}
      label={label}
      value={written[name]}
      onChange={(text) => setWritten({ ...written, [name]: text })}
      parse={parse}
      echo={({ mm }) => formatLength(mm, units)}
      onSubmit={draw}
      testID={`rectangle-${name}`}
    />
  );
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        {field('width', 'Width', size)}
        {field('height', 'Height', size)}
      </View>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        {field('across', 'Across from there', offset)}
        {field('up', 'Up from there', offset)}
      </View>
      <Button mode="contained" disabled={!isWhole} onPress={draw} testID="draw-rectangle">
        Draw it
      </Button>
    </>
  );
}
