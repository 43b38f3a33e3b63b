import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { EVIDENCE_POINTING, type SaidSizes } from '@/bench/tools';
import { sigmaOfSaid } from '@/core/derive';
import { limitsOfSigma, type OwnThing, type ShelfShape } from '@/core/shelf';
import type { Units } from '@/core/units';
import { usePalette } from '@/ui/palette';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { SaidField, useWritten } from './said-fields';

type Kind = ShelfShape['kind'];
const KINDS = [
  ['rectangle', 'Rectangle'],
  ['circle', 'Round'],
  ['length', 'Length'],
] as const;

/** What has to be said of a thing that is to stand on the shelf: its name, what it is, and its sizes. */
export function OwnThingForm({
  units,
  onKeep,
  onLeave,
}: {
  units: Units;
  onKeep: (thing: Omit<OwnThing, 'id'>) => void;
  onLeave: () => void;
}) {
  const palette = usePalette();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<Kind>('rectangle');
  const { sizes } = EVIDENCE_POINTING[kind];
  const { written, read, write } = useWritten(kind, sizes, false, NOTHING_WRITTEN, units);
  const thing = read.ok && name.trim() !== '' ? thingFrom(name.trim(), kind, read.value) : undefined;
  const keep = () => thing && onKeep(thing);
  return (
    <View style={{ gap: 8 }} testID="own-thing">
      <Words style={{ fontWeight: '700' }}>A thing of your own</Words>
      <TextInput
        mode="outlined"
        dense
        label="Its name"
        accessibilityLabel="Its name"
        value={name}
        maxLength={60}
        onChangeText={setName}
        style={{ height: 44, backgroundColor: palette.paper }}
        testID="own-name"
      />
      <Choice name="What it is" value={kind} options={KINDS} onChange={setKind} />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        {sizes.map((size) => (
          <SaidField
            key={size}
            name={size}
            value={written[size] ?? ''}
            units={units}
            onChange={write(size)}
            onSubmit={keep}
            testID={`own-${size}`}
          />
        ))}
      </View>
      <Words quiet style={{ fontSize: 12.5, lineHeight: 16 }}>
        Measure it once, well, and write how well: 120 ± 0.05.
      </Words>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button mode="contained" disabled={!thing} onPress={keep} testID="own-keep">
          Keep it
        </Button>
        <Button onPress={onLeave}>Cancel</Button>
      </View>
    </View>
  );
}

const NOTHING_WRITTEN = {};

function thingFrom(name: string, kind: Kind, { sizes, plusMinus, guess }: SaidSizes): Omit<OwnThing, 'id'> {
  const size = (which: keyof SaidSizes['sizes']) => sizes[which]?.value ?? 0;
  const shape: ShelfShape =
    kind === 'length'
      ? { kind, mm: size('length') }
      : kind === 'circle'
        ? { kind, diameter: size('diameter') }
        : { kind, width: size('width'), height: size('height') };
  const largest = Math.max(size('length'), size('diameter'), size('width'), size('height'));
  return { name, shape, tolerance: limitsOfSigma(sigmaOfSaid({ plusMinus, guess }, largest)) };
}
