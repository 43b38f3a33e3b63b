import { useState } from 'react';
import { View } from 'react-native';
import { useDesk } from '@/bench/use-session';
import { changeFeature, type Feature } from '@/core/job';
import type { Direction } from '@/core/space';
import { formatLength, parseLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { DIRECTION_WORDS } from '@/ui/feature-words';
import { RoundButton } from '@/ui/ledge-button';
import { WrittenField } from '@/ui/written-field';

/** A coordinate that somebody knows; emptied, it is what the views say. */
export function CoordinateField({ feature, direction }: { feature: Feature; direction: Direction }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const said = feature.said[direction];
  const [draft, setDraft] = useState<{ readonly of: string | undefined; readonly text: string }>();
  const text = draft && draft.of === said?.written ? draft.text : (said?.written ?? '');
  const put = (next: Feature['said'], plusMinus: number | undefined) => {
    setDraft(undefined);
    const { plusMinus: before, ...rest } = feature;
    const kept = plusMinus ?? (Object.keys(next).length > 0 ? before : undefined);
    jobs.getState().run(changeFeature({ ...rest, said: next, ...(kept === undefined ? {} : { plusMinus: kept }) }));
  };
  const { [direction]: _before, ...others } = feature.said;
  return (
    <View style={{ flexDirection: 'row', flex: 1, minWidth: 120, alignItems: 'flex-start' }}>
      <WrittenField
        label={`Known ${DIRECTION_WORDS[direction]}`}
        value={text}
        onChange={(typed) => setDraft({ of: said?.written, text: typed })}
        parse={(written) => parseLength(written, units.style)}
        echo={({ mm }) => formatLength(mm, units)}
        onSubmit={({ mm, plusMinus }) =>
          put({ ...others, [direction]: { value: mm, written: text.slice(0, 80) } }, plusMinus)
        }
        testID={`feature-${direction}`}
      />
      {said ? (
        <RoundButton
          icon="close"
          size={40}
          name={`Forget where ${feature.name} is known to lie ${DIRECTION_WORDS[direction]}`}
          onPress={() => put(others, undefined)}
        />
      ) : null}
    </View>
  );
}
