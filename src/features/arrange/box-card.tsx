import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import type { Direction } from '@/core/space';
import { formatLength, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { EXTENT_WORDS } from '@/ui/feature-words';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { boxFirst } from './box-first';

const ORDER: readonly Direction[] = ['across', 'deep', 'up'];
const NOTHING_TYPED: Readonly<Record<Direction, string>> = { across: '', deep: '', up: '' };
const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);

/** A box of typed sizes to begin with: its sides are lines that the views share, pointed at afterwards. */
export function BoxCard() {
  const [isOpen, setOpen] = useState(false);
  if (isOpen) return <OpenBox close={() => setOpen(false)} />;
  return (
    <Button compact mode="outlined" onPress={() => setOpen(true)} testID="box-open">
      Begin with a box
    </Button>
  );
}

/** What is typed of a box, and what puts its lines into the job; undefined while a size is missing or cannot be read. */
function useTypedBox(close: () => void) {
  const { jobs } = useDesk();
  const { style } = useUnits();
  const features = useJob(({ job }) => job.features);
  const [typed, setTyped] = useState(NOTHING_TYPED);
  const [of, setOf] = useState('');
  const said = ORDER.filter((along) => typed[along].trim() !== '');
  const read = said.flatMap((along) => {
    const size = parseSize(typed[along], style);
    return size.ok ? [[along, { written: typed[along], size: size.value }] as const] : [];
  });
  const names = features.map(({ name }) => name);
  const command = read.length === said.length ? boxFirst(Object.fromEntries(read), of, names, newId) : undefined;
  const put = command && (() => (jobs.getState().run(command), close()));
  return { typed, of, setOf, put, type: (along: Direction, text: string) => setTyped({ ...typed, [along]: text }) };
}

function OpenBox({ close }: { close: () => void }) {
  const palette = usePalette();
  const units = useUnits();
  const { typed, type, of, setOf, put } = useTypedBox(close);
  return (
    <Card testID="box-card">
      <Words>What is known of the whole, or of a part of it. Its sides become lines to point at in every view.</Words>
      <TextInput
        mode="outlined"
        dense
        label="What it spans, if not the whole"
        accessibilityLabel="What it spans, if not the whole"
        value={of}
        maxLength={40}
        onChangeText={setOf}
        style={{ backgroundColor: palette.paper }}
        testID="box-of"
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {ORDER.map((along) => (
          <WrittenField
            key={along}
            label={capital(EXTENT_WORDS[along])}
            value={typed[along]}
            onChange={(text) => type(along, text)}
            parse={(written) => parseSize(written, units.style)}
            echo={({ mm }) => formatLength(mm, units)}
            onSubmit={() => put?.()}
            testID={`box-${along}`}
          />
        ))}
      </View>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button compact mode="contained" disabled={!put} onPress={() => put?.()} testID="box-make">
          Make its lines
        </Button>
        <Button compact onPress={close}>
          Not now
        </Button>
      </View>
    </Card>
  );
}
