import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';

/** At an address where nothing is. */
export function NowhereScreen() {
  const palette = usePalette();
  const router = useRouter();
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 14, padding: 24, backgroundColor: palette.bench }} role="main">
      <Words>There is nothing at this address. Your jobs stand on the first screen.</Words>
      <Button mode="contained" onPress={() => router.replace('/')}>To the jobs</Button>
    </View>
  );
}
