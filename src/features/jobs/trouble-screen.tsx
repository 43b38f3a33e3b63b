import { useRouter, type ErrorBoundaryProps } from 'expo-router';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { PlainPage } from '@/ui/plain-page';
import { Words } from '@/ui/text';

/** In the place of a screen that failed: what is safe, and the ways on. */
export function TroubleScreen({ error, retry }: ErrorBoundaryProps) {
  const router = useRouter();
  return (
    <PlainPage testID="trouble">
      <Words style={{ fontWeight: '700' }}>Something went wrong on this screen.</Words>
      <Words style={{ maxWidth: 460 }}>
        What was saved is safe on this device. Show the screen again, or go to the jobs and open it from there.
      </Words>
      <Words quiet style={{ maxWidth: 460, fontSize: 13 }}>{`For whoever mends it: ${error.message}`}</Words>
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button mode="contained" onPress={() => void retry()}>
          Show it again
        </Button>
        <Button mode="outlined" onPress={() => router.replace('/')}>
          To the jobs
        </Button>
      </View>
    </PlainPage>
  );
}
