import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import type { Lease } from '@/store';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';

const NOT_SAVED = {
  full: 'This device has no room left, so the last changes are not stored. They are still here: save the job as a bundle under Hand over, then delete jobs you do not need.',
  failed: 'The last changes could not be stored. They are still here: try again, or save the job as a bundle under Hand over.',
} as const;

/** Says over the bench's upper edge that the job is only shown here, or that changes are not stored. Nothing under it moves. */
export function StateBanner({ lease }: { lease: Lease }) {
  const { jobs } = useDesk();
  const readOnly = useJob((state) => state.readOnly);
  const saveState = useJob((state) => state.saveState);
  const takeOver = async () => {
    await lease.takeOver();
    // The other window wrote its last change before it let go: what is on the device now is the job.
    if (lease.held) window.location.reload();
    else jobs.setState({ readOnly: true });
  };
  if (readOnly) {
    return (
      <Banner says="Another window has this job open, so it is only shown here." testID="read-only">
        <Button mode="contained" compact onPress={() => void takeOver()} testID="take-over">Take over</Button>
      </Banner>
    );
  }
  if (saveState !== 'full' && saveState !== 'failed') return null;
  return (
    <Banner says={NOT_SAVED[saveState]} testID="not-saved">
      <Button mode="contained" compact onPress={() => void jobs.getState().flush()}>Try again</Button>
    </Banner>
  );
}

function Banner({ says, testID, children }: { says: string; testID: string; children: ReactNode }) {
  const palette = usePalette();
  return (
    <View style={{ position: 'absolute', left: 0, right: 0, top: 0, zIndex: 3, flexDirection: 'row', alignItems: 'center', gap: 10, padding: 8, backgroundColor: palette.leaf, opacity: 0.999 }} testID={testID}>
      <Words style={{ flex: 1 }}>{says}</Words>
      {children}
    </View>
  );
}
