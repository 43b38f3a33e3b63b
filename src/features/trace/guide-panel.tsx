import { useState } from 'react';
import { View } from 'react-native';
import type { GuideState } from '@/bench/tools';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { removeGuide } from '@/core/job';
import { formatLength, parseLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

const MODES = [['level', 'Level'], ['upright', 'Upright'], ['two', 'Through two points']] as const;

/** Guides: where they run, a typed offset for the last one, and the list to take them away again. */
export function GuidePanel({ state }: { state: GuideState }) {
  const { session, jobs } = useDesk();
  const units = useUnits();
  const viewId = useSession((current) => current.viewId);
  const allGuides = useJob((current) => current.job.guides);
  const guides = allGuides.filter((guide) => guide.view === viewId);
  const [text, setText] = useState('');
  return (
    <>
      <Card width={340}>
        <Choice name="How the guide runs" value={state.mode} options={MODES} onChange={(mode) => session.setTool({ name: 'guide', state: { mode } })} />
        <Words quiet>{state.mode === 'two' ? 'Point at two places on the guide.' : 'Point at a place on the guide.'}</Words>
        {state.last ? (
          <WrittenField label="Stand it aside by" value={text} onChange={setText} parse={(written) => parseLength(written, units.style)} echo={({ mm }) => formatLength(mm, units)} testID="guide-offset"
            onSubmit={({ mm }) => {
              session.input({ kind: 'typed', length: mm, aim: undefined });
              setText('');
            }} />
        ) : null}
      </Card>
      {guides.length > 0 ? (
        <Card width={240}>
          {guides.map((guide, i) => (
            <View key={guide.id} style={{ flexDirection: 'row', alignItems: 'center' }}>
              <Words style={{ flex: 1 }}>{`Guide ${i + 1}${guide.offset ? `, ${formatLength(guide.offset, units)} aside` : ''}`}</Words>
              <RoundButton icon="trash" name={`Remove guide ${i + 1}`} size={36} onPress={() => jobs.getState().run(removeGuide(guide.id))} />
            </View>
          ))}
        </Card>
      ) : null}
    </>
  );
}
