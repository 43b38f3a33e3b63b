import { useRouter } from 'expo-router';
import { Button } from 'react-native-paper';
import { PlainPage } from '@/ui/plain-page';
import { Words } from '@/ui/text';

/** At an address where nothing is. */
export function NowhereScreen() {
  const router = useRouter();
  return (
    <PlainPage>
      <Words>There is nothing at this address. Your jobs stand on the first screen.</Words>
      <Button mode="contained" onPress={() => router.replace('/')}>
        To the jobs
      </Button>
    </PlainPage>
  );
}
