import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button, Dialog, Menu, Portal, TextInput } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { renameJob, setUnits } from '@/core/job';
import type { Units, UnitStyle } from '@/core/units';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { nameOfCommand } from '@/ui/words';

/** The slim bar: back, the job's name, undo, redo, more. */
export function JobBar({ onLeave }: { onLeave: () => Promise<void> }) {
  const palette = usePalette();
  const router = useRouter();
  const { jobs, session } = useDesk();
  const job = useJob((state) => state.job);
  const history = useJob((state) => state.history);
  const saveState = useJob((state) => state.saveState);
  const tool = useSession((state) => state.tool);
  const [dialog, setDialog] = useState<'name' | 'units'>();
  const [menu, setMenu] = useState(false);
  const drawing = tool.name === 'chain' && tool.state.nodes.length > 0;
  const [undoable, redoable] = [history.entries[history.cursor - 1], history.entries[history.cursor]];
  const undoName = drawing ? 'Take back the last point' : undoable ? `Undo: ${nameOfCommand(undoable.name, job.units)}` : 'Nothing to undo';
  return (
    <View role="banner" style={{ height: 48, flexDirection: 'row', alignItems: 'center', backgroundColor: palette.paper, borderBottomWidth: 1, borderBottomColor: palette.rule, paddingHorizontal: 2 }}>
      <RoundButton icon="back" name="Back to the jobs" onPress={() => void onLeave().then(() => (router.canGoBack() ? router.back() : router.replace('/')))} testID="leave" />
      <Pressable onPress={() => setDialog('name')} accessibilityRole="button" accessibilityLabel={`Rename ${job.name}`} style={{ flex: 1, minWidth: 0 }}>
        <Words lines={1} style={{ fontWeight: '700' }}>{job.name}</Words>
      </Pressable>
      <Words quiet style={{ fontSize: 12.5 }} testID="save-state">{{ saved: 'saved', saving: 'saving', full: 'no room left', failed: 'not saved' }[saveState]}</Words>
      <RoundButton icon="undo" name={undoName} disabled={!drawing && !undoable} onPress={() => (drawing ? session.input({ kind: 'back' }) : jobs.getState().undo())} testID="undo" />
      <RoundButton icon="redo" name={redoable ? `Redo: ${nameOfCommand(redoable.name, job.units)}` : 'Nothing to redo'} disabled={!redoable} onPress={() => jobs.getState().redo()} testID="redo" />
      <Menu visible={menu} onDismiss={() => setMenu(false)} anchor={<RoundButton icon="more" name="More" onPress={() => setMenu(true)} testID="more" />}>
        <Menu.Item leadingIcon="pencil" title="Rename" onPress={() => (setMenu(false), setDialog('name'))} />
        <Menu.Item leadingIcon="measure" title="Units" testID="menu-units" onPress={() => (setMenu(false), setDialog('units'))} />
        <Menu.Item leadingIcon="magnet" title={session.getState().snapping ? 'Snapping off' : 'Snapping on'} onPress={() => (setMenu(false), session.toggle('snapping'))} />
        <Menu.Item leadingIcon="zoomin" title={session.getState().magnifier ? 'Magnifier off' : 'Magnifier on'} onPress={() => (setMenu(false), session.toggle('magnifier'))} />
      </Menu>
      <Portal>
        <NameDialog key={`${dialog}-${job.name}`} visible={dialog === 'name'} name={job.name} onClose={() => setDialog(undefined)} onName={(name) => jobs.getState().run(renameJob(name))} />
        <UnitsDialog visible={dialog === 'units'} units={job.units} onClose={() => setDialog(undefined)} onUnits={(units) => jobs.getState().run(setUnits(units))} />
      </Portal>
    </View>
  );
}

function NameDialog({ visible, name, onClose, onName }: { visible: boolean; name: string; onClose: () => void; onName: (name: string) => void }) {
  const [text, setText] = useState(name);
  return (
    <Dialog visible={visible} onDismiss={onClose} style={{ maxWidth: 420, width: '90%', alignSelf: 'center' }}>
      <Dialog.Title>Rename the job</Dialog.Title>
      <Dialog.Content><TextInput mode="outlined" label="Name" accessibilityLabel="Name" value={text} onChangeText={setText} maxLength={200} /></Dialog.Content>
      <Dialog.Actions>
        <Button onPress={onClose}>Keep the old one</Button>
        <Button mode="contained" disabled={!text.trim()} onPress={() => (onName(text.trim()), onClose())}>Rename</Button>
      </Dialog.Actions>
    </Dialog>
  );
}

const STYLES: readonly (readonly [UnitStyle, string])[] = [['mm', 'mm'], ['cm', 'cm'], ['m', 'm'], ['inch', 'Inches, decimal'], ['inch-fraction', 'Inches, fractions'], ['feet-inches', 'Feet and inches']];
const DENOMINATORS = ['2', '4', '8', '16', '32', '64'].map((d) => [d, `1/${d}`] as const);

function UnitsDialog({ visible, units, onClose, onUnits }: { visible: boolean; units: Units; onClose: () => void; onUnits: (units: Units) => void }) {
  const fractions = units.style === 'inch-fraction' || units.style === 'feet-inches';
  return (
    <Dialog visible={visible} onDismiss={onClose} style={{ maxWidth: 420, width: '90%', alignSelf: 'center' }}>
      <Dialog.Title>Units</Dialog.Title>
      <Dialog.Content style={{ gap: 14 }}>
        <Choice name="Lengths are shown in" value={units.style} options={STYLES} onChange={(style) => onUnits({ ...units, style })} />
        {fractions ? <Choice name="Finest fraction" value={String(units.denominator)} options={DENOMINATORS} onChange={(d) => onUnits({ ...units, denominator: Number(d) as Units['denominator'] })} /> : null}
      </Dialog.Content>
      <Dialog.Actions><Button mode="contained" onPress={onClose} testID="units-done">Done</Button></Dialog.Actions>
    </Dialog>
  );
}
