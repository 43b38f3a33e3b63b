import { useEffect } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { adviceFor } from '@/bench/advice';
import { useDesk, useJob } from '@/bench/use-session';
import type { Advice } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { setLift, setLookOnly, believableDpi } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { formatPlusMinus } from '@/core/units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { fitInWords, sigmaWithHeight } from './fit-words';

/** What the fit says in words: how good it is, what was found, where most of the doubt comes from, what would help most. */
export function FitSummary({
  fitted,
  onResolution,
  onHeight,
}: {
  fitted: FittedView;
  onResolution: () => void;
  onHeight: () => void;
}) {
  const units = useUnits();
  const { session } = useDesk();
  const { fit, refusal, without } = fitted;
  const joins = useJob(({ derived }) => derived.arranged.stands.get(fitted.source.id)?.joins ?? false);
  const advice = adviceFor(fitted);
  useEffect(() => {
    session.showAdvice(true);
    return () => session.showAdvice(false);
  }, [session]);
  if (fitted.view.lookOnly) return <LookedAt view={fitted.view.id} />;
  if (!fit.scaled && fitted.isPending)
    return (
      <Card>
        <Pending />
      </Card>
    );
  if (!fit.scaled) return <NoScale fitted={fitted} onResolution={onResolution} />;
  const size = (sigma: number) => formatPlusMinus(sigma, units);
  return (
    <Card>
      <View style={{ gap: 4 }}>
        {refusal ? (
          <Words
            testID="fit-refusal"
            style={{
              fontSize: 14,
              lineHeight: 19,
              fontWeight: '700',
            }}>{`${sentenceFor(refusal.code, refusal.detail)} The fit without ${without.length === 1 ? 'the newest piece' : 'the newest pieces'} still stands.`}</Words>
        ) : null}
        {fitted.isPending ? <Pending joins={joins} /> : null}
        <Words testID="fit-summary" style={{ fontSize: 14, lineHeight: 19 }}>
          {fitInWords(fitted, units).join(' ')}
        </Words>
        {joins ? (
          <Words quiet style={{ fontSize: 13, lineHeight: 18 }} testID="fit-joined">
            This is the one fit of all views that join; Arrange says how they stand together.
          </Words>
        ) : null}
        {fit.warnings.map((code) => (
          <Words key={code} testID="fit-warning" style={{ fontSize: 14, lineHeight: 19, fontWeight: '700' }}>
            {sentenceFor(code)}
          </Words>
        ))}
        {advice ? (
          <Button
            mode="outlined"
            compact
            icon="length"
            style={{ alignSelf: 'flex-start' }}
            testID="take-advice"
            onPress={() =>
              session.pointAtEvidence('length', 'use', {
                points: [advice.from, advice.to].map((at) => ({ id: undefined, at, sigma: 1 })),
                last: 1,
              })
            }>
            {isVague(advice)
              ? 'Measure this first: it settles the most'
              : `Measure this: ${size(advice.worstSigmaNow)} to ${size(advice.worstSigmaThen)}`}
          </Button>
        ) : null}
        <HeightQuestion fitted={fitted} onHeight={onHeight} />
      </View>
    </Card>
  );
}

/** Beyond this one sigma of a size, mm, a plus-minus is no figure to compare with another. */
const VAGUE = 25;
const isVague = ({ worstSigmaNow }: Advice) => worstSigmaNow > VAGUE;

/** Asked once, plainly, as long as nobody said it: most things that are traced lie flat, and then one tap is all. */
function HeightQuestion({ fitted, onHeight }: { fitted: FittedView; onHeight: () => void }) {
  const units = useUnits();
  const { jobs } = useDesk();
  const known = sigmaWithHeight(fitted);
  if (known === undefined) return null;
  return (
    <View style={{ gap: 2 }} testID="height-question">
      <Words
        style={{
          fontSize: 14,
          lineHeight: 19,
        }}>{`Does what you trace lie at the height of what you measured? Said, the ${formatPlusMinus(fitted.sigma!, units)} becomes ${formatPlusMinus(known, units)}.`}</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        <Button
          mode="outlined"
          compact
          onPress={() => jobs.getState().run(setLift(fitted.view.id, 0))}
          testID="height-flat">
          Yes, flat: 0
        </Button>
        <Button compact onPress={onHeight} testID="height-type">
          No, say how high
        </Button>
      </View>
    </View>
  );
}

function LookedAt({ view }: { view: string }) {
  const { jobs } = useDesk();
  return (
    <Card>
      <Words testID="fit-summary">
        This picture is kept only to look at. Nothing is drawn or measured on it, and what was known of it is left
        aside.
      </Words>
      <Button
        mode="outlined"
        compact
        style={{ alignSelf: 'flex-start' }}
        onPress={() => jobs.getState().run(setLookOnly(view, false))}
        testID="measure-with">
        Measure with it
      </Button>
    </Card>
  );
}

function NoScale({ fitted: { refusal, sheet }, onResolution }: { fitted: FittedView; onResolution: () => void }) {
  const dpi = believableDpi(sheet);
  return (
    <Card>
      <Words testID="fit-summary">
        {refusal
          ? sentenceFor(refusal.code, refusal.detail)
          : 'No scale yet. Point at the two ends of something you know, then type its length.'}
      </Words>
      {dpi === undefined ? null : (
        <Button
          mode="outlined"
          compact
          icon="dots"
          style={{ alignSelf: 'flex-start' }}
          onPress={onResolution}
          testID="offer-resolution">{`The file says ${Number(dpi.toFixed(1))} dots an inch`}</Button>
      )}
    </Card>
  );
}

/** What is known contradicts itself so much that it takes a while to tell what does not belong. */
function Pending({ joins = false }) {
  return (
    <Words testID="fit-pending" style={{ fontSize: 14, lineHeight: 19, fontWeight: '700' }}>
      {joins
        ? 'What the views come to together is still being worked out.'
        : 'Still working out which of them do not belong. Until then all of them count.'}
    </Words>
  );
}
