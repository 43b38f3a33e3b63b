import { useEffect } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { useUnits } from '@/features/job/use-units';
import { formatPlusMinus } from '@/core/units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { useAdvice } from './use-advice';
import { believableDpi } from './resolution';
import { fitInWords } from './fit-words';

/** What the fit says in words: how good it is, what was found, where most of the doubt comes from, what would help most. */
export function FitSummary({ fitted, onResolution }: { fitted: FittedView; onResolution: () => void }) {
  const units = useUnits();
  const { session } = useDesk();
  const { fit, refusal, without } = fitted;
  const advice = useAdvice(fitted);
  useEffect(() => {
    session.setAdvice(advice);
    return () => session.setAdvice(undefined);
  }, [session, advice]);
  if (!fit.scaled) {
    const dpi = believableDpi(fitted.sheet);
    return (
      <Card>
        <Words testID="fit-summary">{refusal ? sentenceFor(refusal.code, refusal.detail) : 'No scale yet. Point at the two ends of something you know, then type its length.'}</Words>
        {dpi === undefined ? null : <Button mode="outlined" compact icon="dots" style={{ alignSelf: 'flex-start' }} onPress={onResolution} testID="offer-resolution">{`The file says ${Number(dpi.toFixed(1))} dots an inch`}</Button>}
      </Card>
    );
  }
  const size = (sigma: number) => formatPlusMinus(sigma, units);
  return (
    <Card>
      <View style={{ gap: 4 }}>
        {refusal ? <Words testID="fit-refusal" style={{ fontSize: 14, lineHeight: 19, fontWeight: '700' }}>{`${sentenceFor(refusal.code, refusal.detail)} The fit without ${without.length === 1 ? 'the newest piece' : 'the newest pieces'} still stands.`}</Words> : null}
        <Words testID="fit-summary" style={{ fontSize: 14, lineHeight: 19 }}>{fitInWords(fitted, units).join(' ')}</Words>
        {fit.warnings.map((code) => <Words key={code} testID="fit-warning" style={{ fontSize: 14, lineHeight: 19, fontWeight: '700' }}>{sentenceFor(code)}</Words>)}
        {advice ? (
          <Button mode="outlined" compact icon="length" style={{ alignSelf: 'flex-start' }} testID="take-advice"
            onPress={() => session.pointAtEvidence('length', 'use', { points: [advice.from, advice.to].map((at) => ({ id: undefined, at, sigma: 1 })), last: 1 })}>
            {`Measure this: ${size(advice.worstSigmaNow)} to ${size(advice.worstSigmaThen)}`}
          </Button>
        ) : null}
      </View>
    </Card>
  );
}
