import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { TextInput } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { SaidName } from '@/core/job';
import { findOnShelf, SHELF, sigmaOfTolerance, type ShelfEntry } from '@/core/shelf';
import { formatLength, type Units } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';

/** As many as one reads through; typing narrows it. */
const SHOWN = 12;

/** Things of known size: choosing one begins a piece of evidence that knows what it is. */
export function ShelfPanel({ onChosen }: { onChosen: () => void }) {
  const palette = usePalette();
  const { session } = useDesk();
  const units = useUnits();
  const [text, setText] = useState('');
  const found = findOnShelf(SHELF, text);
  const take = (entry: ShelfEntry) => {
    const guess = entry.standing === 'practice';
    const written = Object.fromEntries(Object.entries(sizesOf(entry)).map(([name, mm]) => [name, `${guess ? 'about ' : ''}${mm} mm`]));
    session.pointAtEvidence(entry.shape.kind, 'use', { name: entry.name, written, plusMinus: 2 * sigmaOfTolerance(entry.tolerance) });
    onChosen();
  };
  return (
    <Card style={{ minWidth: 300 }} testID="shelf">
      <TextInput mode="outlined" dense label="Find on the shelf" accessibilityLabel="Find on the shelf" value={text} onChangeText={setText} style={{ height: 44, backgroundColor: palette.paper }} testID="shelf-find" />
      {found.slice(0, SHOWN).map((entry) => (
        <Pressable key={entry.id} accessibilityRole="button" accessibilityLabel={`${entry.name}, ${sizeInWords(entry, units)}`} onPress={() => take(entry)} testID={`shelf-${entry.id}`} style={{ minHeight: 48, paddingVertical: 4, borderTopWidth: 1, borderTopColor: palette.rule }}>
          <View style={{ flexDirection: 'row', gap: 10 }}>
            <Words lines={1} style={{ flex: 1 }}>{entry.name}</Words>
            <Figures style={{ fontSize: 13 }}>{sizeInWords(entry, units)}</Figures>
          </View>
          <Words quiet lines={1} style={{ fontSize: 12.5, lineHeight: 16 }}>{sourceInWords(entry)}</Words>
        </Pressable>
      ))}
      <Words quiet style={{ fontSize: 13 }}>{found.length === 0 ? 'Nothing on the shelf is called that. Use Length, Circle or Rectangle and type its size.' : found.length > SHOWN ? `${found.length - SHOWN} more: type a word to find them.` : ''}</Words>
    </Card>
  );
}

function sizesOf({ shape }: ShelfEntry): Partial<Record<SaidName, number>> {
  return shape.kind === 'length' ? { length: shape.mm } : shape.kind === 'circle' ? { diameter: shape.diameter } : { width: shape.width, height: shape.height };
}

function sizeInWords(entry: ShelfEntry, units: Units): string {
  const size = Object.values(sizesOf(entry)).map((mm) => formatLength(mm, units)).join(' × ');
  return `${entry.standing === 'practice' ? 'about ' : ''}${size}`;
}

function sourceInWords({ source, standing, tolerance, family }: ShelfEntry): string {
  const from = standing === 'memory' ? `${source}, from memory` : source;
  return `${family}: ${from}; ±${tolerance} mm`;
}
