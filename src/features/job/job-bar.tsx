import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { step } from '@/bench/follow';
import { toolOf } from '@/bench/tools';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { nameOfCommand } from '@/ui/command-words';
import { SettingsDialog } from './settings-dialog';

const SAVE_WORDS = { saved: 'saved', saving: 'saving', full: 'no room left', failed: 'not saved' } as const;

/** The slim bar: back, the job's name, undo, redo, more. */
export function JobBar({ onLeave }: { onLeave: () => Promise<void> }) {
  const palette = usePalette();
  const router = useRouter();
  const { jobs, session } = useDesk();
  const job = useJob((state) => state.job);
  const history = useJob((state) => state.history);
  const saveState = useJob((state) => state.saveState);
  const tool = useSession((state) => state.tool);
  const [settings, setSettings] = useState(false);
  const drawing = toolOf(tool).takesBack?.(tool.state) ?? false;
  const [undoable, redoable] = [history.entries[history.cursor - 1], history.entries[history.cursor]];
  const undoName = drawing
    ? 'Take back the last point'
    : undoable
      ? `Undo: ${nameOfCommand(undoable.name, job.units)}`
      : 'Nothing to undo';
  return (
    <View
      role="banner"
      style={{
        height: 48,
        flexDirection: 'row',
        alignItems: 'center',
        backgroundColor: palette.paper,
        borderBottomWidth: 1,
        borderBottomColor: palette.rule,
        paddingHorizontal: 2,
      }}>
      <RoundButton
        icon="back"
        name="Back to the jobs"
        onPress={() => void onLeave().then(() => router.replace('/'))}
        testID="leave"
      />
      <Pressable
        onPress={() => setSettings(true)}
        accessibilityRole="button"
        accessibilityLabel={`Name and units of ${job.name}`}
        style={{ flex: 1, minWidth: 0 }}>
        <Words lines={1} style={{ fontWeight: '700' }}>
          {job.name}
        </Words>
      </Pressable>
      <Words quiet style={{ fontSize: 12.5 }} testID="save-state">
        {SAVE_WORDS[saveState]}
      </Words>
      <RoundButton
        icon="undo"
        name={undoName}
        disabled={!drawing && !undoable}
        onPress={() => (drawing ? session.input({ kind: 'back' }) : step('undo', { jobs, session }))}
        testID="undo"
      />
      <RoundButton
        icon="redo"
        name={redoable ? `Redo: ${nameOfCommand(redoable.name, job.units)}` : 'Nothing to redo'}
        disabled={!redoable}
        onPress={() => step('redo', { jobs, session })}
        testID="redo"
      />
      <RoundButton icon="more" name="More" onPress={() => setSettings(true)} testID="more" />
      <SettingsDialog visible={settings} onClose={() => setSettings(false)} />
    </View>
  );
}
