import { useRouter } from 'expo-router';
import { Button } from 'react-native-paper';
import { DeskContext } from '@/bench/use-session';
import { safeFileName, saveFile } from '@/features/handover/download';
import { repository } from '@/store';
import { PlainPage } from '@/ui/plain-page';
import { Words } from '@/ui/text';
import { JobDesk } from './job-desk';
import { useDeskFor } from './use-desk-for';

const SAYS = {
  opening: 'Opening the job…',
  missing: 'This job is not on this device. It may have been deleted, or it lives in another browser.',
  damaged:
    'What is stored of this job cannot be read. Nothing of it was changed. Save it to a file, so that somebody can look at it; your other jobs are not touched.',
} as const;

/** The screen of a job: its desk once it is open. */
export function JobScreen({ id }: { id: string }) {
  const router = useRouter();
  const state = useDeskFor(id);
  if (state.kind === 'open') {
    return (
      <DeskContext.Provider key={state.round} value={state.desk}>
        <JobDesk desk={state.desk} reopen={state.reopen} discard={state.discard} />
      </DeskContext.Provider>
    );
  }
  return (
    <PlainPage>
      <Words style={{ maxWidth: 460, textAlign: 'center' }}>{SAYS[state.kind]}</Words>
      {state.kind === 'damaged' ? (
        <Button
          mode="outlined"
          onPress={() =>
            void repository
              .readRaw(id)
              .then((raw) => saveFile(`${safeFileName(id)}-as-stored.json`, raw, 'application/json'))
          }
          testID="save-raw">
          Save what is stored
        </Button>
      ) : null}
      {state.kind !== 'opening' ? (
        <Button mode="contained" onPress={() => router.replace('/')}>
          To the jobs
        </Button>
      ) : null}
    </PlainPage>
  );
}
