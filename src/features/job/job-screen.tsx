import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { DeskContext } from '@/bench/use-session';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { JobDesk } from './job-desk';
import { useDeskFor } from './use-desk-for';

/** The screen of a job: its desk once it is open. */
export function JobScreen({ id }: { id: string }) {
  const palette = usePalette();
  const router = useRouter();
  const state = useDeskFor(id);
  if (state.kind === 'open') {
    return <DeskContext.Provider value={state.desk}><JobDesk lease={state.lease} desk={state.desk} /></DeskContext.Provider>;
  }
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 14, padding: 24, backgroundColor: palette.bench }} role="main">
      <Words>{state.kind === 'opening' ? 'Opening the job…' : 'This job is not on this device. It may have been deleted, or it lives in another browser.'}</Words>
      {state.kind === 'missing' ? <Button mode="contained" onPress={() => router.replace('/')}>To the jobs</Button> : null}
    </View>
  );
}
