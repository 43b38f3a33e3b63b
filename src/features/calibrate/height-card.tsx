import { useState } from 'react';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { setLift } from '@/core/job';
import { formatLength, parseLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

/** How far the traced edge stands above what was measured: nearer the camera, things look larger. */
export function HeightCard({ fitted }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const { view } = fitted;
  const [text, setText] = useState(view.lift === undefined ? '' : String(Number(view.lift.toFixed(3))));
  return (
    <Card>
      <Words style={{ fontWeight: '700' }}>How high does the traced edge stand?</Words>
      <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>Above what you measured. A 3 mm plate beside a card of 0.76 mm stands 2.24 mm higher and looks larger. Left open, up to 3 mm either way goes into the plus-minus.</Words>
      <WrittenField label="Height" value={text} onChange={setText} parse={(written) => parseLength(written, units.style)} echo={({ mm }) => formatLength(mm, units)}
        onSubmit={({ mm }) => jobs.getState().run(setLift(view.id, mm))} testID="height-field" />
      {view.lift === undefined ? null : <Button onPress={() => {
        setText('');
        jobs.getState().run(setLift(view.id, undefined));
      }}>Leave it open again</Button>}
    </Card>
  );
}
