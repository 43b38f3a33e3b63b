import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { drawnAtOf, type FittedView } from '@/core/derive';
import { useUnits } from '@/features/job/use-units';
import { formatLength, formatRatio } from '@/core/units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { useDrawnAt, useSizeAside } from './use-drawn-at';

/** A size of the thing that is said where the sheet itself is far smaller: the ratio at which it seems to be drawn, by one tap. */
export function DrawnAtCard({ fitted }: { fitted: FittedView }) {
  const units = useUnits();
  const setDrawn = useDrawnAt(fitted);
  const leaveAside = useSizeAside(fitted);
  const found = drawnAtOf(fitted);
  if (!found) return null;
  const { resolution, dpi, said, comesTo, times, ratio } = found;
  const has = `${formatLength(said, units)} is said where the sheet itself has ${formatLength(comesTo.value, units, comesTo.sigma)}`;
  return (
    <Card chosen testID="drawn-at">
      <View style={{ gap: 6 }}>
        <Words style={{ fontSize: 14, lineHeight: 19 }}>
          {ratio === undefined
            ? `${has}. That is no usual ratio: the drawing may have been made to fit its page, and then the page’s own size says nothing.`
            : `${has}: it seems to be drawn at ${formatRatio(ratio)}. If it is not, correct the size.`}
        </Words>
        {ratio === undefined ? (
          <Button compact mode="contained" onPress={() => leaveAside(resolution, times)} testID="drawn-at-aside">
            Leave the page’s size aside
          </Button>
        ) : (
          <Button compact mode="contained" onPress={() => setDrawn(dpi, ratio)} testID="drawn-at-take">
            {`It is drawn at ${formatRatio(ratio)}`}
          </Button>
        )}
      </View>
    </Card>
  );
}
