import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { useDesk, useFitted } from '@/bench/use-session';
import type { SaidName } from '@/core/job';
import { findOnShelf, heightAbovePlane, SHELF, sigmaOfTolerance, type ShelfEntry } from '@/core/shelf';
import { formatLength, type Units } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { usePalette } from '@/ui/palette';
import { RoundButton } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { isStorageFull } from '@/store';
import { OwnThingForm } from './own-thing';
import { useOwnShelf } from './use-own-shelf';

/** As many as one reads through; typing narrows it. */
const SHOWN = 12;

/** Things of known size: choosing one begins a piece of evidence that knows what it is. */
export function ShelfPanel({ onChosen }: { onChosen: () => void }) {
  const units = useUnits();
  const [text, setText] = useState('');
  const [adding, setAdding] = useState(false);
  const shelf = useOwnShelf();
  const keep = (thing: Parameters<typeof shelf.keep.mutate>[0]) => {
    shelf.keep.mutate(thing);
    setAdding(false);
    setText('');
  };
  return (
    <>
      {adding ? (
        <Card key="own" chosen>
          <OwnThingForm units={units} onKeep={keep} onLeave={() => setAdding(false)} />
        </Card>
      ) : null}
      <Card testID="shelf">
        <FindRow text={text} onText={setText} onAdd={adding ? undefined : () => setAdding(true)} />
        <Found text={text} shelf={shelf} onChosen={onChosen} />
        <Unkept error={shelf.keep.error} />
      </Card>
    </>
  );
}

interface FindRowProps {
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onAdd: (() => void) | undefined;
}

function FindRow({ text, onText, onAdd }: FindRowProps) {
  const palette = usePalette();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
      <TextInput
        mode="outlined"
        dense
        label="Find on the shelf"
        accessibilityLabel="Find on the shelf"
        value={text}
        onChangeText={onText}
        style={{ flex: 1, height: 44, backgroundColor: palette.paper }}
        testID="shelf-find"
      />
      {onAdd ? (
        <RoundButton icon="plus" name="Add a thing of your own" size={44} onPress={onAdd} testID="own-add" />
      ) : null}
    </View>
  );
}

interface FoundProps {
  readonly text: string;
  readonly shelf: ReturnType<typeof useOwnShelf>;
  readonly onChosen: () => void;
}

/** What is called so, the practitioner's own things first; one that was taken off can be brought back. */
function Found({ text, shelf: { own, keep, remove }, onChosen }: FoundProps) {
  const palette = usePalette();
  const units = useUnits();
  const take = useTake(onChosen);
  const [removed, setRemoved] = useState<ShelfEntry>();
  const found = findOnShelf([...own, ...SHELF], text);
  return (
    <>
      {removed ? (
        <Button
          compact
          style={{ alignSelf: 'flex-start' }}
          onPress={() => (keep.mutate(removed), setRemoved(undefined))}
          testID="own-back">{`Bring “${removed.name}” back`}</Button>
      ) : null}
      {found.slice(0, SHOWN).map((entry) => (
        <View
          key={entry.id}
          style={{ flexDirection: 'row', alignItems: 'center', borderTopWidth: 1, borderTopColor: palette.rule }}>
          <ShelfRow entry={entry} units={units} onPress={() => take(entry)} />
          {entry.standing === 'own' ? (
            <RoundButton
              icon="trash"
              name={`Take ${entry.name} off the shelf`}
              size={36}
              onPress={() => (remove.mutate(entry.id), setRemoved(entry))}
            />
          ) : null}
        </View>
      ))}
      <Words quiet style={{ fontSize: 13 }}>
        {found.length === 0
          ? 'Nothing on the shelf is called that. Use Length, Circle or Rectangle and type its size.'
          : found.length > SHOWN
            ? `${found.length - SHOWN} more: type a word to find them.`
            : ''}
      </Words>
    </>
  );
}

/** Begins the piece of evidence that a thing is. */
function useTake(onChosen: () => void): (entry: ShelfEntry) => void {
  const { session } = useDesk();
  const fitted = useFitted();
  return (entry) => {
    const guess = entry.standing === 'practice';
    const written = Object.fromEntries(
      Object.entries(sizesOf(entry)).map(([name, mm]) => [name, `${guess ? 'about ' : ''}${mm} mm`]),
    );
    session.pointAtEvidence(entry.shape.kind, 'use', {
      name: entry.name,
      written,
      plusMinus: 2 * sigmaOfTolerance(entry.tolerance),
      height: fitted?.sheet.kind === 'photo' ? heightAbovePlane(entry) : undefined,
    });
    onChosen();
  };
}

function Unkept({ error }: { error: unknown }) {
  const palette = usePalette();
  if (!error) return null;
  return (
    <Words style={{ fontSize: 13.5, color: palette.berry }}>
      {sentenceFor(isStorageFull(error) ? 'storage-full' : 'storage-failed')}
    </Words>
  );
}

function ShelfRow({ entry, units, onPress }: { entry: ShelfEntry; units: Units; onPress: () => void }) {
  return (
    <Pressable
      accessibilityRole="button"
      onPress={onPress}
      testID={`shelf-${entry.id}`}
      style={{ flex: 1, minHeight: 48, paddingVertical: 4 }}>
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Words lines={1} style={{ flex: 1 }}>
          {entry.name}
        </Words>
        <Figures style={{ fontSize: 13 }}>{sizeInWords(entry, units)}</Figures>
      </View>
      <Words quiet lines={1} style={{ fontSize: 12.5, lineHeight: 16 }}>
        {sourceInWords(entry)}
      </Words>
    </Pressable>
  );
}

function sizesOf({ shape }: ShelfEntry): Partial<Record<SaidName, number>> {
  return shape.kind === 'length'
    ? { length: shape.mm }
    : shape.kind === 'circle'
      ? { diameter: shape.diameter }
      : { width: shape.width, height: shape.height };
}

function sizeInWords(entry: ShelfEntry, units: Units): string {
  const size = Object.values(sizesOf(entry))
    .map((mm) => formatLength(mm, units))
    .join(' × ');
  return `${entry.standing === 'practice' ? 'about ' : ''}${size}`;
}

function sourceInWords({ source, standing, tolerance, family, rim }: ShelfEntry): string {
  const from = standing === 'memory' ? `${source}, from memory` : source;
  const stands = heightAbovePlane({ rim });
  return `${family}: ${from}; ±${Number(tolerance.toPrecision(2))} mm${stands === undefined ? '' : `; its rim stands ${stands} mm high`}`;
}
