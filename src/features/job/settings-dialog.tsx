import { useState } from 'react';
import { View } from 'react-native';
import { Button, Dialog, Portal, Switch, TextInput } from 'react-native-paper';
import { CATCHES, type Catch } from '@/bench/session-state';
import { DeskContext, useDesk, useJob, useSession } from '@/bench/use-session';
import { renameJob, setUnits } from '@/core/job';
import { formatLength, parseSize, type Units, type UnitStyle } from '@/core/units';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { useEscape } from '@/ui/use-escape';
import { WrittenField } from '@/ui/written-field';

const STYLES: readonly (readonly [UnitStyle, string])[] = [
  ['mm', 'mm'],
  ['cm', 'cm'],
  ['m', 'm'],
  ['inch', 'Inches, decimal'],
  ['inch-fraction', 'Inches, fractions'],
  ['feet-inches', 'Feet and inches'],
];
const DENOMINATORS = ['2', '4', '8', '16', '32', '64'].map((d) => [d, `1/${d}`] as const);

/** The job's name and units, and how one points at this bench. Everything holds as soon as it is chosen. */
export function SettingsDialog({ visible, onClose }: { visible: boolean; onClose: () => void }) {
  const desk = useDesk();
  useEscape(onClose, visible);
  // A portal's children stand elsewhere in the tree, so the desk is handed to them again.
  return (
    <Portal>
      <DeskContext.Provider value={desk}>
        <Dialog visible={visible} onDismiss={onClose} style={{ maxWidth: 440, width: '92%', alignSelf: 'center' }}>
          <Dialog.Content style={{ gap: 14 }}>{visible ? <Settings /> : null}</Dialog.Content>
          <Dialog.Actions>
            <Button mode="contained" onPress={onClose} testID="settings-done">
              Done
            </Button>
          </Dialog.Actions>
        </Dialog>
      </DeskContext.Provider>
    </Portal>
  );
}

function Settings() {
  const { jobs, session } = useDesk();
  const { name, units } = useJob((state) => state.job);
  const snapping = useSession((state) => state.snapping);
  const caliper = useSession((state) => state.caliper);
  const magnifier = useSession((state) => state.magnifier);
  const [text, setText] = useState(name);
  const { run } = jobs.getState();
  const rename = () => (text.trim() === '' ? setText(name) : text.trim() !== name && run(renameJob(text.trim())));
  const fractions = units.style === 'inch-fraction' || units.style === 'feet-inches';
  return (
    <>
      <TextInput
        mode="outlined"
        label="Name"
        accessibilityLabel="Name"
        value={text}
        onChangeText={setText}
        onBlur={rename}
        onSubmitEditing={rename}
        maxLength={200}
      />
      <Choice
        name="Lengths are shown in"
        value={units.style}
        options={STYLES}
        onChange={(style) => run(setUnits({ ...units, style }))}
      />
      {fractions ? (
        <Choice
          name="Finest fraction"
          value={String(units.denominator)}
          options={DENOMINATORS}
          onChange={(d) => run(setUnits({ ...units, denominator: Number(d) as Units['denominator'] }))}
        />
      ) : null}
      <Toggle
        label="The aim catches on what is drawn and seen"
        value={snapping}
        onToggle={() => session.toggle('snapping')}
      />
      {snapping ? <CatchChoice /> : null}
      <GridField />
      <Toggle
        label="Magnifier in the corner for the mouse"
        value={magnifier}
        onToggle={() => session.toggle('magnifier')}
      />
      <Toggle
        label="Readings of the caliper come into the field that has the cursor"
        value={caliper}
        onToggle={() => session.toggle('caliper')}
      />
    </>
  );
}

function Toggle({ label, value, onToggle }: { label: string; value: boolean; onToggle: () => void }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
      <Words style={{ flex: 1 }}>{label}</Words>
      <Switch value={value} onValueChange={onToggle} accessibilityLabel={label} />
    </View>
  );
}

/** A grid on the view plane; without a size there is none. */
function GridField() {
  const { session } = useDesk();
  const units = useJob((state) => state.job.units);
  const grid = useSession((state) => state.grid);
  const [text, setText] = useState(grid === undefined ? '' : formatLength(grid, units));
  const set = (written: string) => {
    setText(written);
    if (written.trim() === '') session.setGrid(undefined);
  };
  return (
    <WrittenField
      label="A grid, every (empty for none)"
      value={text}
      onChange={set}
      parse={(written) => parseSize(written, units.style)}
      onSubmit={({ mm }) => session.setGrid(mm)}
      testID="grid-field"
    />
  );
}

const CATCH_WORDS: Readonly<Record<Catch, string>> = {
  end: 'Ends',
  crossing: 'Crossings',
  middle: 'Middles',
  centre: 'Centres',
  outermost: 'Outermost points',
  tangent: 'Tangent',
  square: 'Square to',
  guide: 'Guides',
  nearest: 'Anywhere on it',
  'would-cross': 'Where lines would cross',
  'straight-on': 'Straight on',
  grid: 'Grid',
  picture: 'The picture',
};

/** What the aim is caught by; the n key goes through what lies near each other. */
function CatchChoice() {
  const { session } = useDesk();
  const catching = useSession((state) => state.catching);
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }} testID="catches">
      {CATCHES.map((kind) => {
        const on = catching.includes(kind);
        return (
          <Button
            key={kind}
            compact
            mode={on ? 'contained-tonal' : 'outlined'}
            aria-pressed={on}
            onPress={() => session.setCatching(on ? catching.filter((other) => other !== kind) : [...catching, kind])}
            testID={`catch-${kind}`}>
            {CATCH_WORDS[kind]}
          </Button>
        );
      })}
    </View>
  );
}
