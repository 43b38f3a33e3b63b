import { View } from 'react-native';
import { clearancesOn, isOver } from '@/bench/clearances';
import { useDesk, useJob } from '@/bench/use-session';
import { putSetback, removeSetback, type Setback } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { LengthField } from '@/features/trace/make/fields';
import { Card } from '@/ui/card';
import { RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { clearInWords, edgeInWords, lengthsOfEdges } from './site-words';

/** Edges that what is set here has to keep from, and by how much each drawing does. */
export function SetbackCards({ plane }: { plane: string }) {
  const setbacks = useJob(({ job }) => job.setbacks).filter((setback) => setback.plane === plane);
  return setbacks.map((setback) => <SetbackCard key={setback.id} setback={setback} />);
}

function SetbackCard({ setback }: { setback: Setback }) {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const units = useUnits();
  const { job, derived } = useJob((state) => state);
  const kept = clearancesOn(setback.plane, job, derived).filter((one) => one.setback === setback);
  const edge = edgeInWords(setback.on[0], job, lengthsOfEdges(job, derived.shapes, units));
  return (
    <Card testID={`setback-${edge}`}>
      <View style={{ flexDirection: 'row', alignItems: 'flex-start', gap: 4 }}>
        <LengthField
          label={`${edge}: keep clear by`}
          mm={setback.mm}
          onChange={(mm) => run(putSetback({ ...setback, mm }))}
          testID="setback-length"
        />
        <RoundButton
          icon="trash"
          size={40}
          name={`${edge}: no more clear of it`}
          onPress={() => run(removeSetback(setback.id))}
          testID="setback-remove"
        />
      </View>
      {kept.map((one) => (
        <Words
          key={one.siting.id}
          style={{ fontSize: 14, lineHeight: 19, fontWeight: isOver(one) ? '700' : '400' }}
          testID="clearance-says">
          {clearInWords(one, job, units)}
        </Words>
      ))}
    </Card>
  );
}
