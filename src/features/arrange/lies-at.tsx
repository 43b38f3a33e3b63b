import { View } from 'react-native';
import { useDesk, useJob } from '@/bench/use-session';
import { isSide, type Arranged } from '@/core/derive';
import { setLiesAt, type Feature, type View as JobView } from '@/core/job';
import { directionUnseen, type Direction, type Side } from '@/core/space';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';

const ASKED: Readonly<Record<Direction, string>> = {
  up: 'How high what is drawn here lies',
  deep: 'How deep what is drawn here lies',
  across: 'How far across what is drawn here lies',
};

/** Shared lines and places of which it is known where they lie along what a side does not show. */
const placesFor = (side: Side, features: readonly Feature[], { coordinate }: Arranged): readonly Feature[] => {
  const unseen = directionUnseen(side);
  return features.filter(
    ({ id, along }) => (along === undefined || along === unseen) && coordinate(id, unseen) !== undefined,
  );
};

/** Where what is drawn in a view lies along what it does not show: at zero, or at something shared. */
export function LiesAt({ view }: { view: JobView }) {
  const { jobs } = useDesk();
  const features = useJob(({ job }) => job.features);
  const arranged = useJob(({ derived }) => derived.arranged);
  if (!isSide(view.side)) return null;
  const places = placesFor(view.side, features, arranged);
  if (places.length === 0) return null;
  const asked = ASKED[directionUnseen(view.side)];
  return (
    <View style={{ gap: 4 }} testID={`lies-at-${view.name}`}>
      <Words quiet style={{ fontSize: 13, lineHeight: 17 }}>
        {asked}
      </Words>
      <Choice
        name={`${asked}: ${view.name}`}
        value={view.liesAt ?? ''}
        options={[['', 'At zero'], ...places.map(({ id, name }) => [id, name] as const)]}
        onChange={(id) => jobs.getState().run(setLiesAt(view.id, id === '' ? undefined : id))}
      />
    </View>
  );
}
