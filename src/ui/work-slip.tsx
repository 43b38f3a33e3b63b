import { View } from 'react-native';
import { ActivityIndicator, Button } from 'react-native-paper';
import { useShownLate } from './use-shown-late';
import { Words } from './text';

interface WorkSlipProps {
  readonly isWorking: boolean;
  readonly isStopped: boolean;
  stop(): void;
  again(): void;
  /** What is being done, as in "Looking for regions". */
  readonly doing: string;
  readonly testID: string;
}

/** Work that goes on elsewhere: what it does and a way to stop it, or that it was stopped and a way to begin again. Says nothing of work that is through before it could be read. */
export function WorkSlip({ isWorking, isStopped, stop, again, doing, testID }: WorkSlipProps) {
  const isLong = useShownLate(isWorking);
  if (!isLong && !isStopped) return null;
  return (
    <View role="status" testID={testID} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
      {isWorking ? <ActivityIndicator size={18} accessibilityLabel={doing} /> : null}
      <Words style={{ flex: 1 }}>{isWorking ? `${doing} …` : `${doing} was stopped before it was through.`}</Words>
      <Button
        mode="outlined"
        compact
        onPress={isWorking ? stop : again}
        testID={`${testID}-${isWorking ? 'stop' : 'again'}`}>
        {isWorking ? 'Stop' : 'Begin again'}
      </Button>
    </View>
  );
}
