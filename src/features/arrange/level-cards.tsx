import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { useDesk, useFitted, useJob, useSession } from '@/bench/use-session';
import { addFeature, addLayer, type Feature } from '@/core/job';
import { formatLength, parseLength, type WrittenLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { INK_COLORS } from '@/ui/color-choice';
import { nameInRow } from '@/ui/feature-words';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { CoordinateField } from './coordinate-field';
import { Rise } from './rise';
import { rankOf, whereInWords } from './shared-words';

/** The levels of a thing, from the top down as on a section: typed, or read where a view shows them. What is drawn goes on the one that is chosen. */
export function LevelCards() {
  const features = useJob(({ job }) => job.features);
  const arranged = useJob(({ derived }) => derived.arranged);
  const side = useFitted()?.source.side;
  const levels = features
    .filter(({ along }) => along === 'up')
    .sort((a, b) => rankOf(b, arranged) - rankOf(a, arranged));
  return (
    <>
      {levels.length === 0 ? (
        <Card testID="levels-none">
          <Words>
            No level is known yet. Type the height of one, or choose Level line and point at it in a view from the side.
          </Words>
        </Card>
      ) : (
        <>
          {side === 'top' || side === 'bottom' ? null : (
            <Card testID="levels-elsewhere">
              <Words>Plans are drawn on levels. Choose a view from above to draw on one.</Words>
            </Card>
          )}
          {levels.map((level) => (
            <LevelCard key={level.id} level={level} levels={levels} />
          ))}
        </>
      )}
      <NewLevel />
    </>
  );
}

/** Makes what is drawn from now on go to the layer that lies at a level; there will be one. */
function useDrawingOn({ id, name }: Feature) {
  const { jobs, session } = useDesk();
  const layers = useJob(({ job }) => job.layers);
  const current = useSession(({ layer }) => layer);
  const there = layers.filter(({ liesAt }) => liesAt === id);
  const draw = () => {
    const layer = there[0] ?? {
      id: newId(),
      name,
      color: INK_COLORS[layers.length % INK_COLORS.length]!,
      show: true,
      lock: false,
      liesAt: id,
    };
    if (there.length === 0) jobs.getState().run(addLayer(layer));
    session.setLayer(layer.id);
  };
  return { there, isDrawnOn: there.some((layer) => layer.id === current), draw };
}

function LevelCard({ level, levels }: { level: Feature; levels: readonly Feature[] }) {
  const units = useUnits();
  const arranged = useJob(({ derived }) => derived.arranged);
  const { there, isDrawnOn, draw } = useDrawingOn(level);
  const names = there.map(({ name }) => `“${name}”`).join(', ');
  return (
    <Card chosen={isDrawnOn} testID={`level-${level.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <Words>{level.name}</Words>
          <Words quiet style={{ fontSize: 13, lineHeight: 17 }} testID="level-where">
            {`${whereInWords(level, arranged, units)}${names === '' ? '' : `; layer ${names} lies there`}`}
          </Words>
        </View>
        <Button mode={isDrawnOn ? 'contained' : 'outlined'} compact onPress={draw} testID="level-draw">
          {isDrawnOn ? 'Drawn on' : 'Draw on it'}
        </Button>
      </View>
      <View style={{ flexDirection: 'row' }}>
        <CoordinateField feature={level} direction="up" />
      </View>
      {there.map((layer) => (
        <Rise key={layer.id} layer={layer} level={level} levels={levels} />
      ))}
    </Card>
  );
}

/** What is typed of a level, and what puts it into the job. */
function useTypedLevel() {
  const { jobs } = useDesk();
  const features = useJob(({ job }) => job.features);
  const [name, setName] = useState('');
  const [height, setHeight] = useState('');
  const put = ({ mm, plusMinus }: WrittenLength) => {
    const names = features.map((feature) => feature.name);
    const said = { up: { value: mm, written: height.slice(0, 80) } };
    const doubt = plusMinus === undefined ? {} : { plusMinus };
    const called = name.trim() || nameInRow('Level', names);
    jobs.getState().run(addFeature({ id: newId(), name: called, along: 'up', said, ...doubt, seen: [] }));
    setName('');
    setHeight('');
  };
  return { name, setName, height, setHeight, put };
}

/** A level by its name and its height, before any view shows it. */
function NewLevel() {
  const palette = usePalette();
  const units = useUnits();
  const { name, setName, height, setHeight, put } = useTypedLevel();
  const read = parseLength(height, units.style);
  return (
    <Card testID="new-level">
      <TextInput
        mode="outlined"
        dense
        label="Name of the level"
        accessibilityLabel="Name of the level"
        value={name}
        maxLength={80}
        onChangeText={setName}
        style={{ backgroundColor: palette.paper }}
        testID="new-level-name"
      />
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
        <WrittenField
          label="How high it lies"
          value={height}
          onChange={setHeight}
          parse={(written) => parseLength(written, units.style)}
          echo={({ mm }) => formatLength(mm, units)}
          onSubmit={put}
          testID="new-level-height"
        />
        <Button
          mode="outlined"
          compact
          disabled={!read.ok}
          onPress={() => read.ok && put(read.value)}
          testID="new-level-add">
          Add level
        </Button>
      </View>
    </Card>
  );
}
