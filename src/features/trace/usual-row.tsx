import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import type { Measured } from '@/core/adjust';
import { againstUsual, listUsual, SHELF, type Usual } from '@/core/shelf';
import { formatLength, type Units } from '@/core/units';
import { useOwnShelf } from '@/features/calibrate/use-own-shelf';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';

/** As many as are offered at a time; typing finds others. */
const OFFERED = 5;

interface UsualRowProps {
  readonly measured: Measured;
  readonly usual: Usual | undefined;
  readonly units: Units;
  readonly onChange: (usual: Usual | undefined) => void;
}

/** A size against what such sizes usually are: chosen from the shelf, the nearest first. */
export function UsualRow({ measured, usual, units, onChange }: UsualRowProps) {
  const palette = usePalette();
  const [asked, setAsked] = useState(false);
  if (usual) {
    const { outside, isOpen } = againstUsual(measured, usual);
    return (
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <Words
          testID="usual-verdict"
          style={{ flex: 1, fontSize: 14, color: outside !== 0 && !isOpen ? palette.berry : palette.hedge }}>
          {verdictOf(usual, outside, isOpen, units)}
        </Words>
        <RoundButton
          icon="close"
          name={`Compare with ${usual.name} no more`}
          size={32}
          onPress={() => onChange(undefined)}
        />
      </View>
    );
  }
  if (!asked)
    return (
      <Button compact style={{ alignSelf: 'flex-start' }} onPress={() => setAsked(true)} testID="usual-ask">
        Compare with what is usual
      </Button>
    );
  return <UsualChoice measured={measured} units={units} onChosen={(chosen) => (setAsked(false), onChange(chosen))} />;
}

function UsualChoice({
  measured,
  units,
  onChosen,
}: {
  measured: Measured;
  units: Units;
  onChosen: (usual: Usual) => void;
}) {
  const palette = usePalette();
  const { own } = useOwnShelf();
  const [text, setText] = useState('');
  return (
    <View style={{ gap: 4 }} testID="usual-choice">
      <TextInput
        mode="outlined"
        dense
        label="What is it?"
        accessibilityLabel="What is it?"
        value={text}
        onChangeText={setText}
        style={{ height: 42, backgroundColor: palette.paper }}
        testID="usual-find"
      />
      {listUsual([...own, ...SHELF], measured.value, text)
        .slice(0, OFFERED)
        .map((usual) => (
          <Pressable
            key={usual.name}
            accessibilityRole="button"
            accessibilityLabel={`${usual.name}, ${rangeOf(usual, units)}`}
            onPress={() => onChosen(usual)}
            style={{ minHeight: 44, paddingVertical: 4, borderTopWidth: 1, borderTopColor: palette.rule }}>
            <Words lines={1}>{usual.name}</Words>
            <Figures quiet style={{ fontSize: 13 }}>
              {rangeOf(usual, units)}
            </Figures>
          </Pressable>
        ))}
    </View>
  );
}

const rangeOf = ({ least, most }: Usual, units: Units) =>
  `${formatLength(least, units)} to ${formatLength(most, units)}`;

function verdictOf(usual: Usual, outside: number, isOpen: boolean, units: Units): string {
  const range = `${usual.name}: usually ${rangeOf(usual, units)}.`;
  if (isOpen) return `${range} This lies about at its limit.`;
  if (outside === 0) return `${range} This lies within that.`;
  return `${range} This is ${formatLength(Math.abs(outside), units)} ${outside < 0 ? 'less' : 'more'}: look once more at the scale, or it is an unusual one.`;
}
