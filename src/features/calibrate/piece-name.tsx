import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { TextInput } from 'react-native-paper';
import { Choice } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';

const LONGEST = 60;

interface PieceNameProps {
  readonly title: string;
  readonly name: string | undefined;
  readonly color: string;
  readonly onName: (name: string | undefined) => void;
}

/** What a piece is called; a tap on it lets one write what it is or what it spans. */
export function PieceName({ title, name, color, onName }: PieceNameProps) {
  const palette = usePalette();
  const [writing, setWriting] = useState<string>();
  const done = () => {
    const next = writing?.trim() || undefined;
    if (next !== name) onName(next);
    setWriting(undefined);
  };
  if (writing === undefined) {
    return (
      <Pressable
        accessibilityRole="button"
        accessibilityLabel={`Name ${title}`}
        onPress={() => setWriting(name ?? '')}
        style={{ flex: 1, minHeight: 36, justifyContent: 'center' }}
        testID="name-piece">
        <Words lines={1} style={{ fontWeight: '700', color }}>
          {title}
        </Words>
      </Pressable>
    );
  }
  return (
    <TextInput
      mode="outlined"
      dense
      autoFocus
      label="What it is"
      accessibilityLabel="What it is"
      value={writing}
      maxLength={LONGEST}
      onChangeText={setWriting}
      onBlur={done}
      onSubmitEditing={done}
      style={{ flex: 1, height: 40, backgroundColor: palette.paper }}
      testID="piece-name"
    />
  );
}

const SPANS = [
  ['over all', 'Over all'],
  ['over the body', 'Over the body'],
  ['over the handles', 'Over the handles'],
] as const;

/** What a box goes around: things are wider over their handles than over their bodies. */
export function SpanField({ name, onName }: { name: string; onName: (name: string) => void }) {
  const palette = usePalette();
  return (
    <View style={{ gap: 6 }}>
      <Choice name="What it spans" value={name} options={SPANS} onChange={onName} />
      <TextInput
        mode="outlined"
        dense
        label="What it spans"
        accessibilityLabel="What it spans"
        value={name}
        maxLength={LONGEST}
        onChangeText={onName}
        style={{ height: 40, backgroundColor: palette.paper }}
        testID="span-name"
      />
    </View>
  );
}
