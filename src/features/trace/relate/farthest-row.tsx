import { View } from 'react-native';
import { useDesk } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { TOO_FAR, type Move } from '@/core/relate';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { goToPlace } from '../go-to';

interface Props {
  readonly moves: readonly Move[];
  readonly fitted: FittedView;
  /** What is said before how far it is: "The farthest any place moved is". */
  readonly says: string;
  readonly testID: string;
}

/** The farthest that any place is moved, the most against its own doubt, and a way to the place. */
export function FarthestRow({ moves, fitted, says, testID }: Props) {
  const { session } = useDesk();
  const units = useUnits();
  const farthest = moves.reduce<Move | undefined>(
    (most, move) => (most && most.distance >= move.distance ? most : move),
    undefined,
  );
  if (!farthest) return null;
  const sigmas = Math.max(...moves.map((move) => move.sigmas));
  const far = fitted.fit.scaled ? formatLength(farthest.distance, units) : `${farthest.distance.toFixed(1)} px`;
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
      <Words
        style={{ flex: 1, fontSize: 14 }}
        testID={
          testID
        }>{`${says} ${far}${sigmas > TOO_FAR ? '' : `, the most against its doubt ${sigmas.toFixed(1)} times: the picture allows it`}.`}</Words>
      <RoundButton
        icon="seek"
        name="Go to the place that moves farthest"
        size={36}
        onPress={() => goToPlace(session, fitted, farthest.at)}
      />
    </View>
  );
}
