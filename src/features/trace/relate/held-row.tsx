import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { useDesk } from '@/bench/use-session';
import { removeRelations, setRelationValue } from '@/core/job';
import { hasValue, type Relation } from '@/core/relate';
import { useUnits } from '@/features/job/use-units';
import { RoundButton } from '@/ui/ledge-button';
import { markForRelation } from '@/ui/relation-words';
import { Words } from '@/ui/text';
import { refusalInWords } from './refusal';
import { otherViewsOf, type Relating } from './relate-actions';
import { SayingWorking } from './saying-working';
import { useSaying } from './use-saying';
import { ValueField } from './value-field';

/** How large it is held, circles by their diameter. mm */
const sizeOf = ({ kind, value }: Relation): number | undefined =>
  value !== undefined && kind === 'radius' ? 2 * value : value;

/** Something that holds: tapping shows what it is about, its size can be typed anew, and it can be taken away. */
export function HeldRow({ relating, relation }: { relating: Relating; relation: Relation }) {
  const { jobs, session } = useDesk();
  const units = useUnits();
  const saying = useSaying();
  const [changing, setChanging] = useState(false);
  const [refusal, setRefusal] = useState<string>();
  const mark = markForRelation(relation, units);
  const others = otherViewsOf(relating, relation.on);
  const says = others.length > 0 ? `${mark}, with ${others.join(' and ')}` : mark;
  const change = (value: number) => {
    const wanted = { ...relation, value };
    void saying.say(
      wanted,
      () => {
        setRefusal(undefined);
        setChanging(false);
        return setRelationValue(relation.id, value);
      },
      (verdict) => setRefusal(refusalInWords(wanted, verdict, relating, units)),
    );
  };
  return (
    <View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Pressable
          style={{ flex: 1, minHeight: 34, justifyContent: 'center' }}
          accessibilityRole="button"
          accessibilityLabel={`Show what is ${says}`}
          onPress={() => session.setTool({ name: 'relate', state: { on: relation.on } })}>
          <Words style={{ fontSize: 14 }}>{says}</Words>
        </Pressable>
        {hasValue(relation.kind) ? (
          <RoundButton icon="pencil" name={`Change ${mark}`} size={34} onPress={() => setChanging(!changing)} />
        ) : null}
        <RoundButton
          icon="trash"
          name={`Take away: ${mark}`}
          size={34}
          onPress={() => jobs.getState().run(removeRelations([relation.id]))}
        />
      </View>
      {changing ? (
        <ValueField kind={relation.kind} units={units} now={sizeOf(relation)} onSaid={change} testID="held-value" />
      ) : null}
      <SayingWorking isWorking={saying.isWorking} />
      {refusal ? <Words testID="change-refused">{refusal}</Words> : null}
    </View>
  );
}
