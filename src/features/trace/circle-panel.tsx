import { useState } from 'react';
import type { CircleState } from '@/bench/tools';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import { formatLength, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

const MODES = [
  ['found', 'Tap in it'],
  ['rim', 'Centre and rim'],
  ['two', 'Across'],
  ['three', 'Three on the rim'],
  ['touching', 'Touching'],
  ['ellipse', 'Ellipse'],
] as const;
const HINTS = {
  found: ['Point inside a hole or a disc: its rim is found in the picture.'],
  rim: ['Point at the centre.', 'Point at the rim, or type the diameter.'],
  two: ['Point at one side.', 'Point at the side across, or type the diameter.'],
  three: ['Point at the rim.', 'Again, elsewhere on the rim.', 'And once more.'],
  touching: [
    'Point at a line, arc or circle that it touches.',
    'Point at the next one.',
    'Point at a third one, or type the diameter.',
  ],
  ellipse: [
    'Point at the centre.',
    'Point at the end of an axis, or type its length.',
    'Point as far as the other axis reaches, or type its length.',
  ],
};

/** Whether a typed size goes on from what is set. */
function takesSize({ mode, places }: CircleState): boolean {
  if (mode === 'touching') return places.length === 2;
  return mode === 'ellipse' ? places.length > 0 : places.length === 1 && (mode === 'rim' || mode === 'two');
}

/** How the circle is drawn, and its typed diameter. */
export function CirclePanel({ state }: { state: CircleState }) {
  const { session } = useDesk();
  const fitted = useFitted();
  const units = useUnits();
  const aim = useSession((current) => current.aim);
  const [text, setText] = useState('');
  const parse = (written: string) => parseSize(written, units.style);
  return (
    <Card>
      <Choice
        name="How the circle is drawn"
        value={state.mode}
        options={MODES}
        onChange={(mode) => session.setTool({ name: 'circle', state: { mode, places: [] } })}
      />
      <Words quiet>{HINTS[state.mode][state.places.length] ?? ''}</Words>
      {takesSize(state) && fitted?.fit.scaled ? (
        <WrittenField
          label={state.mode === 'ellipse' ? 'Length of the axis' : 'Diameter'}
          value={text}
          onChange={setText}
          parse={parse}
          echo={({ mm }) => formatLength(mm, units)}
          testID="circle-diameter"
          onSubmit={({ mm }) => {
            session.input({ kind: 'typed', length: mm, aim });
            setText('');
          }}
        />
      ) : null}
    </Card>
  );
}
