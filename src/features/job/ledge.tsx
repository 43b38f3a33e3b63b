import type { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { usePalette } from '@/ui/palette';

/** What the step offers, along the bottom like a pencil ledge: a row of targets, and cards side by side. */
export function Ledge({ row, cards, wide, open, height }: { row: ReactNode; cards: ReactNode; wide: boolean; open: boolean; height: number }) {
  const palette = usePalette();
  const shelf = (
    <ScrollView horizontal={wide} style={{ flexGrow: 0, height: wide ? 190 : undefined, maxHeight: wide ? 190 : height * 0.5, backgroundColor: palette.bench }} contentContainerStyle={{ padding: 8, gap: 8, alignItems: wide ? 'flex-start' : 'stretch' }} testID="ledge-cards">
      {cards}
    </ScrollView>
  );
  return (
    <View role="region" aria-label="Ledge" style={{ backgroundColor: palette.paper, borderTopWidth: 1, borderTopColor: palette.rule }}>
      {row ? <ScrollView horizontal style={{ flexGrow: 0 }} contentContainerStyle={{ paddingHorizontal: 4, paddingVertical: 3 }} showsHorizontalScrollIndicator={false} testID="ledge-row">{row}</ScrollView> : null}
      {wide ? shelf : null}
      {!wide && open ? <View style={{ position: 'absolute', left: 0, right: 0, bottom: '100%', borderTopWidth: 1, borderTopColor: palette.rule }}>{shelf}</View> : null}
    </View>
  );
}
