import { View } from 'react-native';
import { useDesk } from '@/bench/use-session';
import type { FittedView, RelatedPlane } from '@/core/derive';
import { distance } from '@/core/geometry';
import { TOO_FAR } from '@/core/relate';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { goToPlace } from '../go-to';
import { FarthestRow } from './farthest-row';
import { HeldRow } from './held-row';
import { relationsOf, type Relating } from './relate-actions';

/** Less than this share shows nowhere. */
const UNSEEN = 5e-5;

/** By how much typed sizes changed the scale of a view, across its picture; undefined where they did not. */
function stretchOf({ plane }: RelatedPlane, { view, fit, sheet: { width, height } }: FittedView): number | undefined {
  const [a, b] = [
    [0, height / 2],
    [width, height / 2],
  ] as const;
  const change =
    distance(fit.toPlane(a), fit.toPlane(b)) / distance(plane.toPlane(a, view.id), plane.toPlane(b, view.id)) - 1;
  return Math.abs(change) > UNSEEN ? change : undefined;
}

/** What holds, how far it moved what was drawn, and how to take it away. */
export function HeldCard({ relating }: { relating: Relating }) {
  const { session } = useDesk();
  const units = useUnits();
  const palette = usePalette();
  const held = relationsOf(relating);
  const related = relating.derived.related.get(relating.fitted.view.plane);
  if (held.length === 0 || !related) return null;
  const scaled = relating.fitted.fit.scaled;
  const length = (value: number) => (scaled ? formatLength(value, units) : `${value.toFixed(1)} px`);
  const moves = [...related.moves].sort((a, b) => b.sigmas - a.sigmas);
  const far = moves.filter(({ sigmas }) => sigmas > TOO_FAR);
  const stretch = stretchOf(related, relating.fitted);
  const dead = held.length - related.groups.reduce((sum, { solved }) => sum + solved.live.length, 0);
  return (
    <Card testID="held-card">
      <Words
        style={{ fontWeight: '700' }}>{`${held.length} ${held.length === 1 ? 'thing holds' : 'things hold'}`}</Words>
      {related.holds ? (
        <FarthestRow moves={moves} fitted={relating.fitted} says="The farthest any place moved is" testID="moves" />
      ) : null}
      {related.holds ? null : (
        <Words testID="held-contradicts" style={{ color: palette.berry }}>
          These can no longer hold together, so everything stands where it was drawn. Take the newest away.
        </Words>
      )}
      {stretch === undefined ? null : (
        <Words
          quiet
          style={{ fontSize: 13 }}
          testID="stretched">{`The sizes that hold scale this view by ${stretch > 0 ? '+' : '−'}${Math.abs(100 * stretch).toFixed(2)} %, within what its evidence leaves open.`}</Words>
      )}
      {dead > 0 ? (
        <Words
          quiet
          style={{
            fontSize: 13,
          }}>{`${dead} of them ${dead === 1 ? 'is' : 'are'} about something that is gone.`}</Words>
      ) : null}
      {far.length > 0 ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }} testID="moved-far">
          <Words
            style={{
              flex: 1,
              fontSize: 14,
              color: palette.berry,
            }}>{`${far.length} ${far.length === 1 ? 'place' : 'places'} moved more than the picture allows. The worst went ${length(far[0]!.distance)}, ${Math.round(far[0]!.sigmas)} times its doubt.`}</Words>
          <RoundButton
            icon="seek"
            name="Go to the place that moved most against its doubt"
            size={36}
            onPress={() => goToPlace(session, relating.fitted, far[0]!.at)}
          />
        </View>
      ) : null}
      {held.map((relation) => (
        <HeldRow key={relation.id} relating={relating} relation={relation} />
      ))}
    </Card>
  );
}
