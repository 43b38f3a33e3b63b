import { View } from 'react-native';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import { middleOfBench, NO_INSETS } from '@/bench/viewport';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';

/** Small targets at the bench's right edge: closer, further, the whole picture. */
export function BenchButtons() {
  const palette = usePalette();
  const { session } = useDesk();
  const fitted = useFitted();
  const covered = useSession(({ viewport }) => viewport.insets) ?? NO_INSETS;
  if (!fitted) return null;
  const middle = () => middleOfBench(session.getState().viewport);
  return (
    <View
      style={{
        position: 'absolute',
        right: covered.right + 8,
        bottom: covered.bottom + 8,
        borderRadius: 24,
        backgroundColor: palette.paper,
        borderWidth: 1,
        borderColor: palette.rule,
      }}>
      <RoundButton icon="zoomin" name="Closer" onPress={() => session.framing.zoom(middle(), 1.6)} testID="zoom-in" />
      <RoundButton
        icon="zoomout"
        name="Further"
        onPress={() => session.framing.zoom(middle(), 1 / 1.6)}
        testID="zoom-out"
      />
      <RoundButton icon="whole" name="Whole picture" onPress={() => session.framing.showAll()} testID="zoom-all" />
    </View>
  );
}
