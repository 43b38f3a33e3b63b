import { Pressable, View } from 'react-native';
import { usePalette } from './palette';

export const INK_COLORS = ['berry', 'ink', 'tide', 'plum', 'straw', 'hedge'] as const;
export type InkColor = (typeof INK_COLORS)[number];

const WORDS: Readonly<Record<InkColor, string>> = {
  berry: 'Red',
  ink: 'Grey',
  tide: 'Blue',
  plum: 'Plum',
  straw: 'Straw',
  hedge: 'Green',
};

/** One of the inks, each by its colour and its word. */
export function ColorChoice({
  value,
  onChange,
  name,
}: {
  value: InkColor | undefined;
  onChange: (color: InkColor) => void;
  name: string;
}) {
  const palette = usePalette();
  return (
    <View role="radiogroup" aria-label={name} style={{ flexDirection: 'row', gap: 6 }}>
      {INK_COLORS.map((color) => (
        <Pressable
          key={color}
          accessibilityRole="radio"
          aria-checked={value === color}
          accessibilityLabel={WORDS[color]}
          onPress={() => onChange(color)}
          style={{
            width: 34,
            height: 34,
            borderRadius: 17,
            backgroundColor: palette[color],
            borderWidth: value === color ? 4 : 0,
            borderColor: palette.leaf,
          }}
        />
      ))}
    </View>
  );
}
