import { View } from 'react-native';
import { useDesk, useFitted } from '@/bench/use-session';
import type { Vec } from '@/core/geometry';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';

/** Small targets at the bench's right edge: closer, further, the whole picture. */
export function BenchButtons() {
  const palette = usePalette();
  const { session } = useDesk();
  const fitted = useFitted();
  if (!fitted) return null;
  const middle = (): Vec => {
    const { viewport } = session.getState();
    return [viewport.width / 2, viewport.height / 2];
  };
  return (
    <View style={{ position: 'absolute', right: 8, bottom: 8, borderRadius: 24, backgroundColor: palette.paper, borderWidth: 1, borderColor: palette.rule }}>
      <RoundButton icon="zoomin" name="Closer" onPress={() => session.zoom(middle(), 1.6)} testID="zoom-in" />
      <RoundButton icon="zoomout" name="Further" onPress={() => session.zoom(middle(), 1 / 1.6)} testID="zoom-out" />
      <RoundButton icon="whole" name="Whole picture" onPress={() => session.showAll()} testID="zoom-all" />
    </View>
  );
}
