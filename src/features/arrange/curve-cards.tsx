import { useMemo } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { curveSideOf, doubtOfCurve, type StandingCurve } from '@/core/derive';
import { changeSpaceCurve, removeSpaceCurve, type DrawnSpaceCurve } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { NameField } from '@/features/trace/make/fields';
import { Card } from '@/ui/card';
import { FigureRow } from '@/ui/figure-row';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { missingInWords, plusMinusInWords, worstAlong } from './curve-words';
import { measuredInWords } from './shared-words';

/** Curves in space: what one is made of, and each with its length, its plus-minus and what only one view shows. */
export function CurveCards() {
  const { session } = useDesk();
  const curves = useJob(({ job }) => job.spaceCurves);
  const outlines = useJob(({ job }) => job.outlines);
  const views = useJob(({ job }) => job.views);
  const first = useSession(({ tool }) => (tool.name === 'spaceCurve' ? tool.state.first : undefined));
  const plane = outlines.find(({ id }) => id === first)?.plane;
  const seenIn = views.find((view) => view.plane === plane)?.name;
  return (
    <>
      {seenIn !== undefined ? (
        <Card testID="curve-going-on">
          <Words>{`An outline in ${seenIn} is chosen. Choose a view from a neighbouring side, and tap the outline that shows the same curve there.`}</Words>
          <Button
            mode="contained-tonal"
            compact
            onPress={() => session.input({ kind: 'cancel' })}
            testID="curve-cancel">
            Choose another
          </Button>
        </Card>
      ) : curves.length === 0 ? (
        <Card testID="curve-none">
          <Words>
            A curve that bends in space is drawn twice: as it is seen from one side, and from a neighbouring one. Tap
            both outlines, one in each view, and they become one.
          </Words>
        </Card>
      ) : null}
      {curves.map((curve) => (
        <CurveCard key={curve.id} curve={curve} />
      ))}
    </>
  );
}

function CurveCard({ curve }: { curve: DrawnSpaceCurve }) {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const made = useJob(({ derived }) => derived.spaceCurve(curve.id));
  return (
    <Card testID={`space-curve-${curve.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 2 }}>
        <NameField
          label="Curve in space"
          name={curve.name}
          onChange={(name) => run(changeSpaceCurve({ ...curve, name: name.slice(0, 80) }))}
          testID="curve-name"
        />
        <RoundButton
          icon="trash"
          name={`Remove ${curve.name}`}
          size={40}
          onPress={() => run(removeSpaceCurve(curve.id))}
          testID="curve-remove"
        />
      </View>
      {made?.ok ? (
        <Standing curve={curve} made={made.value} />
      ) : (
        <Words testID="curve-says">{made ? sentenceFor(made.code, made.detail) : ''}</Words>
      )}
    </Card>
  );
}

function Standing({ curve, made }: { curve: DrawnSpaceCurve; made: StandingCurve }) {
  const units = useUnits();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const doubt = useMemo(() => doubtOfCurve(curve, job, derived), [curve, job, derived]);
  const views = curve.of.map((id) => {
    const side = curveSideOf(id, { job, derived });
    return side.ok ? side.value.fitted.source.name : '';
  }) as [string, string];
  return (
    <>
      <Words quiet>{`Of an outline in ${views[0]} and one in ${views[1]}`}</Words>
      {doubt ? <FigureRow name="Length" value={measuredInWords(doubt.length, units)} testID="curve-length" /> : null}
      <FigureRow name="Lies true within" value={plusMinusInWords(worstAlong(doubt), units)} testID="curve-plus-minus" />
      {missingInWords(made, doubt, views, units).map((sentence) => (
        <Words key={sentence} testID="curve-missing">
          {sentence}
        </Words>
      ))}
      <MirrorChoice curve={curve} />
    </>
  );
}

/** About which shared line it stands once more, mirrored. */
function MirrorChoice({ curve }: { curve: DrawnSpaceCurve }) {
  const { jobs } = useDesk();
  const features = useJob(({ job }) => job.features);
  const coordinate = useJob(({ derived }) => derived.arranged.coordinate);
  const lines = features.filter(({ id, along }) => along !== undefined && coordinate(id, along) !== undefined);
  if (lines.length === 0) return null;
  const { mirrored, ...plain } = curve;
  return (
    <View style={{ gap: 4 }}>
      <Words quiet>Mirrored about</Words>
      <Choice
        name={`Line that ${curve.name} is mirrored about`}
        value={mirrored ?? ''}
        options={[['', 'None'], ...lines.map(({ id, name }) => [id, name] as const)]}
        onChange={(id) => jobs.getState().run(changeSpaceCurve(id === '' ? plain : { ...plain, mirrored: id }))}
      />
    </View>
  );
}
