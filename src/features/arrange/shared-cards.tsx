import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useFitted, useJob, useSession } from '@/bench/use-session';
import { facingOf } from '@/core/derive';
import { changeFeature, removeFeature, unseeFeature, type Feature } from '@/core/job';
import { DIRECTIONS, type Direction } from '@/core/space';
import { useUnits } from '@/features/job/use-units';
import { NameField } from '@/features/trace/make/fields';
import { Card } from '@/ui/card';
import { RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { BoxCard } from './box-card';
import { CoordinateField } from './coordinate-field';
import { ProposedLinesCard } from './proposed-lines-card';
import { rankOf, seenInWords, whereInWords } from './shared-words';
import { SpanRows } from './span-rows';

const ORDER: readonly Direction[] = ['up', 'across', 'deep'];

/** What several views show, each with where it lies and what is said of it. */
export function SharedCards() {
  const features = useJob(({ job }) => job.features);
  const arranged = useJob(({ derived }) => derived.arranged);
  const source = useFitted()?.source;
  const { session } = useDesk();
  const chosen = useSession(({ tool }) => (tool.name === 'share' ? tool.state.feature : undefined));
  // What is pointed at first, then levels from the top down, as on a section, then what runs upright, then places.
  const orderOf = ({ id, along }: Feature) => (id === chosen ? -1 : along ? ORDER.indexOf(along) : ORDER.length);
  return (
    <>
      {chosen ? (
        <Card testID="share-going-on">
          <Words>{`Pointing at “${features.find(({ id }) => id === chosen)?.name ?? ''}”. It goes along when you choose another view.`}</Words>
          <Button mode="contained-tonal" compact testID="share-done" onPress={() => session.input({ kind: 'cancel' })}>
            Done
          </Button>
        </Card>
      ) : null}
      <ProposedLinesCard />
      {features.length === 0 ? (
        <Card>
          <Words>
            {source && facingOf(source, features)
              ? 'Nothing is shared yet. Choose Level line and point at what the thing stands on, here and in another view.'
              : 'Say first which side each view shows, under Sides.'}
          </Words>
        </Card>
      ) : null}
      {[...features]
        .sort((a, b) => orderOf(a) - orderOf(b) || rankOf(b, arranged) - rankOf(a, arranged))
        .map((feature) => (
          <FeatureCard key={feature.id} feature={feature} isChosen={feature.id === chosen} />
        ))}
      <BoxCard />
    </>
  );
}

function FeatureCard({ feature, isChosen }: { feature: Feature; isChosen: boolean }) {
  const { jobs, session } = useDesk();
  const { run } = jobs.getState();
  const units = useUnits();
  const arranged = useJob(({ derived }) => derived.arranged);
  const pointOn = () =>
    session.setTool({
      name: 'share',
      state: isChosen ? { shape: 'level' } : { shape: 'level', feature: feature.id },
    });
  return (
    <Card chosen={isChosen} testID={`feature-${feature.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 2 }}>
        <NameField
          label={feature.along ? 'Shared line' : 'Shared place'}
          name={feature.name}
          onChange={(name) => run(changeFeature({ ...feature, name: name.slice(0, 80) }))}
          testID="feature-name"
        />
        <RoundButton
          icon="share"
          name={isChosen ? `Stop pointing at ${feature.name}` : `Point at ${feature.name} again, or in another view`}
          size={40}
          onPress={pointOn}
          testID="feature-point"
        />
        <RoundButton
          icon="trash"
          name={`Remove ${feature.name}`}
          size={40}
          onPress={() => run(removeFeature(feature.id))}
          testID="feature-remove"
        />
      </View>
      <Words testID="feature-where">{whereInWords(feature, arranged, units)}</Words>
      <SeenRows feature={feature} />
      <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
        {(feature.along ? [feature.along] : DIRECTIONS).map((direction) => (
          <CoordinateField key={direction} feature={feature} direction={direction} />
        ))}
      </View>
      <SpanRows feature={feature} />
    </Card>
  );
}

/** In which views it was pointed at, and taking the last of those back. */
function SeenRows({ feature }: { feature: Feature }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const views = useJob(({ job }) => job.views);
  const arranged = useJob(({ derived }) => derived.arranged);
  if (feature.seen.length === 0) return <Words quiet>No view shows it.</Words>;
  return views.map(({ id, name }) => {
    const seen = feature.seen.filter(({ view }) => view === id);
    const last = seen.at(-1);
    if (!last) return null;
    return (
      <View key={id} style={{ flexDirection: 'row', alignItems: 'center' }} testID="seen-row">
        <Words quiet style={{ fontSize: 13, flex: 1 }}>
          {seenInWords(name, seen.length, arranged.stands.get(id), feature.id, units)}
        </Words>
        <RoundButton
          icon="undo"
          size={36}
          name={`Take back where ${feature.name} is seen in ${name}`}
          onPress={() => jobs.getState().run(unseeFeature(feature.id, last.id))}
          testID="seen-back"
        />
      </View>
    );
  });
}
