import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { setStandOff, type StandOff } from '@/core/job';
import { LengthField } from '@/features/trace/make/fields';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';

const IN_PLACE: StandOff = { right: 0, up: 0, out: 0 };

const WAYS = [
  ['right', 'To its right'],
  ['up', 'Upwards'],
  ['out', 'Towards you'],
] as const;

/** A view is moved out of the way while all are looked at together, without a change to where it belongs. */
export function StandOffCard() {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const stands = useJob(({ derived }) => derived.arranged.stands);
  const views = useJob(({ job }) => job.views).filter(({ id }) => stands.has(id));
  const current = useSession(({ viewId }) => viewId);
  const [chosen, choose] = useState<string>();
  const view = views.find(({ id }) => id === (chosen ?? current)) ?? views[0];
  if (!view) return null;
  const off = view.standOff ?? IN_PLACE;
  const move = (to: StandOff) => run(setStandOff(view.id, WAYS.some(([way]) => to[way] !== 0) ? to : undefined));
  return (
    <Card testID="stand-off">
      <Words>A view can be moved out of the way here. Nothing of its fit, its drawing or a file goes along.</Words>
      <Choice
        name="View that is moved out of the way"
        value={view.id}
        options={views.map(({ id, name }) => [id, name] as const)}
        onChange={choose}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {WAYS.map(([way, label]) => (
          <View key={way} style={{ minWidth: 116, flex: 1 }}>
            <LengthField
              label={label}
              mm={off[way]}
              onChange={(mm) => move({ ...off, [way]: mm })}
              testID={`stand-off-${way}`}
              signed
            />
          </View>
        ))}
      </View>
      {view.standOff ? (
        <Button compact mode="outlined" onPress={() => move(IN_PLACE)} testID="stand-off-back">
          Back where it belongs
        </Button>
      ) : null}
    </Card>
  );
}
