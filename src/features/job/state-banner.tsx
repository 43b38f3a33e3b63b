import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useCover, useDesk, useJob } from '@/bench/use-session';
import type { NotHeld } from '@/store';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';

const NOT_SAVED = {
  full: 'This device has no room left, so the last changes are not stored. They are still here: save the job as a bundle under Hand over, then delete jobs you do not need.',
  failed:
    'The last changes could not be stored. They are still here: try again, or save the job as a bundle under Hand over.',
} as const;

/** Why a job is only shown, and what leads on from there. */
const ONLY_SHOWN: Readonly<Record<NotHeld, { readonly says: string; readonly way?: string }>> = {
  elsewhere: { says: 'Another window has this job open, so it is only shown here.', way: 'Take over' },
  taken: { says: 'Another window took this job over, so it is only shown here.', way: 'Take over' },
  deleted: {
    says: 'This job was deleted in another window and is only here any more. To keep it, save it as a bundle under Hand over.',
  },
  full: {
    says: 'This device has no room left, so the job is only shown. Save it as a bundle under Hand over, then delete jobs you do not need.',
    way: 'Try again',
  },
  failed: {
    says: 'This device stores nothing at the moment, so the job is only shown. It can be saved as a bundle under Hand over.',
    way: 'Try again',
  },
};

const ONLY_HERE =
  'Another window took this job over. What was changed here last could not be stored and is only here: save it as a bundle under Hand over before you close this window.';

/** Says over the bench's upper edge that the job is only shown here, or that changes are not stored. The picture makes room for it. */
export function StateBanner({ reopen }: { reopen: () => void }) {
  const { jobs } = useDesk();
  const readOnly = useJob((state) => state.readOnly);
  const saveState = useJob((state) => state.saveState);
  const isUnsaved = saveState === 'full' || saveState === 'failed';
  if (readOnly) {
    const { says, way } = ONLY_SHOWN[readOnly];
    return (
      <Banner says={readOnly === 'taken' && isUnsaved ? ONLY_HERE : says} testID="read-only">
        {way && !isUnsaved ? (
          <Button mode="contained" compact onPress={reopen} testID="take-over">
            {way}
          </Button>
        ) : null}
      </Banner>
    );
  }
  if (!isUnsaved) return null;
  return (
    <Banner says={NOT_SAVED[saveState]} testID="not-saved">
      <Button mode="contained" compact onPress={() => void jobs.getState().flush()}>
        Try again
      </Button>
    </Banner>
  );
}

function Banner({ says, testID, children }: { says: string; testID: string; children: ReactNode }) {
  const palette = usePalette();
  const cover = useCover('top');
  return (
    <View
      ref={cover}
      style={{
        position: 'absolute',
        left: 0,
        right: 0,
        top: 0,
        zIndex: 3,
        flexDirection: 'row',
        alignItems: 'center',
        gap: 10,
        padding: 8,
        backgroundColor: palette.leaf,
        opacity: 0.999,
      }}
      role="status"
      testID={testID}>
      <Words style={{ flex: 1 }}>{says}</Words>
      {children}
    </View>
  );
}
