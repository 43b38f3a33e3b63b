import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { done, refused, type Result } from '@/core/basics';
import type { FittedView } from '@/core/derive';
import { formatRatio, parseRatio } from '@/core/units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { useDrawnAt } from './use-drawn-at';

function parseDots(text: string): Result<number> {
  const dots = Number(text.trim().replace(',', '.'));
  return dots >= 10 && dots <= 20_000 ? done(dots) : refused('dots-not-understood', { text });
}

/** A scan's dots an inch, and the ratio that is printed on a drawing: together they are a scale, with the doubt that scanners and printers deserve. */
export function ResolutionCard({ fitted, onDone }: { fitted: FittedView; onDone: () => void }) {
  const { sheet } = fitted;
  const [dots, setDots] = useState(sheet.taken.dpi ? String(Number(sheet.taken.dpi.toFixed(1))) : '');
  const [ratio, setRatio] = useState('1:1');
  const [read, drawn] = [parseDots(dots), parseRatio(ratio)];
  const setDrawn = useDrawnAt(fitted);
  const use = () => {
    if (!read.ok || !drawn.ok) return;
    setDrawn(read.value, drawn.value);
    onDone();
  };
  return (
    <Card testID="resolution-card">
      <Words style={{ fontWeight: '700' }}>Scanned at a known resolution</Words>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
        <WrittenField
          label="Dots an inch"
          value={dots}
          onChange={setDots}
          parse={parseDots}
          onSubmit={use}
          testID="dots-field"
        />
        <WrittenField
          label="Drawn at"
          value={ratio}
          onChange={setRatio}
          parse={parseRatio}
          echo={formatRatio}
          onSubmit={use}
          testID="ratio-field"
        />
        <Button
          mode="contained"
          style={{ marginTop: 6 }}
          disabled={!read.ok || !drawn.ok}
          onPress={use}
          testID="use-resolution">
          Use it
        </Button>
      </View>
      <Words quiet style={{ fontSize: 12.5, lineHeight: 16 }}>
        {sheet.kind === 'photo'
          ? 'This picture is taken for a photo: a camera’s dots an inch mean nothing. Say under Sources that it is a scan.'
          : 'Write the ratio as it is printed: 1:50, or 1/4″ = 1′. A scanner is taken to be good to 0.2 %, a printer to 1.6 %.'}
      </Words>
    </Card>
  );
}
