import { useMemo } from 'react';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import { datumTurned, findAskew } from '@/core/derive';
import { setDatum } from '@/core/job';
import { formatAngle } from '@/core/units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { outlinesOf, type Relating } from './relate-actions';

/** Pieces that say themselves what is level: then a part lies as it lies. */
const TELLS_LEVEL = ['level', 'known-point'];

/** A part that lies askew in its picture: level can be laid along its longest edge. */
export function AskewCard({ relating }: { relating: Relating }) {
  const { jobs } = useDesk();
  const { job, derived, fitted } = relating;
  const isTold = fitted.view.evidence.some(({ kind, role }) => role === 'use' && TELLS_LEVEL.includes(kind));
  const askew = useMemo(
    () => (isTold ? undefined : findAskew(outlinesOf(relating), { job, derived }, derived.shapes)),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [isTold, job, derived, fitted],
  );
  if (!askew) return null;
  return (
    <Card testID="askew">
      <Words>{`The longest edge runs ${formatAngle(Math.abs(askew.value), askew.sigma)} off level.`}</Words>
      <Button
        mode="outlined"
        compact
        style={{ alignSelf: 'flex-start' }}
        onPress={() => jobs.getState().run(setDatum(fitted.view.id, datumTurned(fitted, askew.value)))}
        testID="lay-level">
        Lay level along it
      </Button>
    </Card>
  );
}
