import { Pressable, Text, View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useReferencesAtHand, useSession } from '@/bench/use-session';
import { changeReference, removeReference, type Reference } from '@/core/job';
import { Card } from '@/ui/card';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { FONT, usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';

const UNITS = [
  ['1', 'mm'],
  ['10', 'cm'],
  ['1000', 'm'],
  ['25.4', 'in'],
  ['304.8', 'ft'],
] as const;

/** Existing geometry that came in: what it holds, in which unit it is read, and which of its layers are shown. */
export function ReferenceCard({ reference }: { reference: Reference }) {
  const { jobs, session } = useDesk();
  const { run } = jobs.getState();
  const loaded = useReferencesAtHand().find((other) => other.reference.id === reference.id);
  const looking = useSession(({ elsewhere }) => elsewhere?.kind === 'plane' && elsewhere.id === reference.plane);
  const geometry = loaded?.geometry;
  const unit = reference.unitMm ?? geometry?.saidUnitMm ?? 1;
  const size = geometry && geometry.bounds.max.map((far, axis) => (far - geometry.bounds.min[axis]!) / unit);
  const look = () => {
    session.chooseTool('select');
    session.lookAt(looking ? undefined : { kind: 'plane', id: reference.plane });
  };
  const setUnit = (text: string) => run(changeReference(reference.id, 'reference-unit-set', { unitMm: Number(text) }));
  return (
    <Card testID={`reference-${reference.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Words lines={1} style={{ fontWeight: '700', flex: 1 }}>
          {reference.name}
        </Words>
        <RoundButton
          icon={reference.shown ? 'eye' : 'hide'}
          name={reference.shown ? `Hide ${reference.name}` : `Show ${reference.name}`}
          size={36}
          onPress={() =>
            run(
              changeReference(reference.id, reference.shown ? 'reference-hidden' : 'reference-shown', {
                shown: !reference.shown,
              }),
            )
          }
        />
        <RoundButton
          icon="trash"
          name={`Remove ${reference.name}`}
          size={36}
          onPress={() => (session.lookAt(undefined), run(removeReference(reference.id)))}
        />
      </View>
      <Figures quiet style={{ fontSize: 12.5 }} testID="reference-facts">
        {size
          ? `${size.map((value) => Number(value.toPrecision(5))).join(' × ')} ${wordFor(unit)}, ${geometry.layerOf.length} lines and curves`
          : 'Reading it …'}
      </Figures>
      <Choice name={`Unit of ${reference.name}`} value={String(unit)} options={UNITS} onChange={setUnit} />
      {geometry && geometry.layers.length > 1 ? (
        <Layers reference={reference} names={geometry.layers.map(({ name }) => name)} />
      ) : null}
      <Button
        compact
        style={{ alignSelf: 'flex-start' }}
        disabled={!geometry}
        onPress={look}
        testID="look-at-reference">
        {looking ? 'Back to the picture' : 'Look at it alone'}
      </Button>
    </Card>
  );
}

const wordFor = (mm: number) =>
  UNITS.find(([value]) => Number(value) === mm)?.[1] ?? `units of ${Number(mm.toPrecision(4))} mm`;

/** More layers than this are chosen by the file they come from. */
const MOST_CHIPS = 40;

function Layers({ reference, names }: { reference: Reference; names: readonly string[] }) {
  const palette = usePalette();
  const { jobs } = useDesk();
  const toggle = (name: string) => {
    const hidden = reference.hiddenLayers.includes(name)
      ? reference.hiddenLayers.filter((other) => other !== name)
      : [...reference.hiddenLayers, name];
    jobs.getState().run(changeReference(reference.id, 'reference-layers-set', { hiddenLayers: hidden }));
  };
  const alone =
    names.length - reference.hiddenLayers.length === 1
      ? names.findIndex((name) => !reference.hiddenLayers.includes(name))
      : -1;
  const show = (hidden: readonly string[]) =>
    jobs.getState().run(changeReference(reference.id, 'reference-layers-set', { hiddenLayers: hidden }));
  return (
    <div
      role="group"
      aria-label={`Layers of ${reference.name}`}
      style={{ display: 'flex', flexWrap: 'wrap', gap: 4, maxHeight: 132, overflow: 'auto' }}>
      <Button
        compact
        onPress={() => show(names.filter((_, i) => i !== (alone + 1) % names.length))}
        testID="next-layer">
        {alone < 0 ? 'One at a time' : 'The next one'}
      </Button>
      {reference.hiddenLayers.length > 0 ? (
        <Button compact onPress={() => show([])}>
          All
        </Button>
      ) : null}
      {names.slice(0, MOST_CHIPS).map((name) => {
        const shown = !reference.hiddenLayers.includes(name);
        return (
          <Pressable
            key={name}
            accessibilityRole="checkbox"
            aria-checked={shown}
            accessibilityLabel={`Layer ${name || 'without a name'}`}
            onPress={() => toggle(name)}
            style={{
              height: 40,
              paddingHorizontal: 12,
              borderRadius: 8,
              justifyContent: 'center',
              borderWidth: 1,
              borderColor: shown ? palette.hedge : palette.rule,
              backgroundColor: shown ? palette.leaf : palette.paper,
            }}>
            <Text
              style={{
                fontFamily: FONT.text,
                fontSize: 14,
                color: shown ? palette.ink : palette.quiet,
                textDecorationLine: shown ? 'none' : 'line-through',
              }}>
              {name || 'no name'}
            </Text>
          </Pressable>
        );
      })}
    </div>
  );
}
