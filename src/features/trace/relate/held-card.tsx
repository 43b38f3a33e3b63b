import { View } from 'react-native';
import { useDesk } from '@/bench/use-session';
import type { FittedView, RelatedPlanes } from '@/core/derive';
import { distance } from '@/core/geometry';
import { directionOfOne, doubtsAt, TOO_FAR, type Relation } from '@/core/relate';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { goToPlace } from '../go-to';
import { FarthestRow } from './farthest-row';
import { HeldRow } from './held-row';
import { planesOf, relationsOf, type Relating } from './relate-actions';

/** Less than this share shows nowhere. */
const UNSEEN = 5e-5;

/** By how many of their own sigmas typed sizes moved the fits, all doubts together. */
const pullOf = ({ groups }: RelatedPlanes): number => Math.hypot(...groups.flatMap(({ solved }) => doubtsAt(solved)));

/** By how much typed sizes changed the scale of a view, across its picture; undefined where they did not. */
function stretchOf(
  { relating }: RelatedPlanes,
  { view, fit, sheet: { width, height } }: FittedView,
): number | undefined {
  const plane = relating(view.plane);
  const [a, b] = [
    [0, height / 2],
    [width, height / 2],
  ] as const;
  const change =
    distance(fit.toPlane(a), fit.toPlane(b)) / distance(plane.toPlane(a, view.id), plane.toPlane(b, view.id)) - 1;
  return Math.abs(change) > UNSEEN ? change : undefined;
}

/** Of relations that count for nothing now, how many wait for views to stand, and how many are about what is gone. */
function countDead(dead: readonly Relation[], relating: Relating): readonly [waiting: number, gone: number] {
  const waiting = dead.filter(({ kind, on }) => directionOfOne(kind) || planesOf(relating, on).length > 1).length;
  return [waiting, dead.length - waiting];
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
  const moves = related.moves
    .filter(({ plane }) => plane === relating.fitted.view.plane)
    .sort((a, b) => b.sigmas - a.sigmas);
  const far = moves.filter(({ sigmas }) => sigmas > TOO_FAR);
  const [stretch, pull] = [stretchOf(related, relating.fitted), pullOf(related)];
  const live = new Set(related.groups.flatMap(({ solved }) => solved.live.map(({ relation }) => relation)));
  const [waiting, gone] = countDead(
    held.filter((relation) => !live.has(relation)),
    relating,
  );
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
          quiet={!(pull > TOO_FAR)}
          style={{ fontSize: 13, ...(pull > TOO_FAR ? { color: palette.berry } : {}) }}
          testID="stretched">{`The sizes that hold scale this view by ${stretch > 0 ? '+' : '−'}${Math.abs(100 * stretch).toFixed(2)} %, ${pull > TOO_FAR ? `more than its evidence allows, by ${Math.round(pull)} times its doubt: look at what was typed` : 'within what its evidence leaves open'}.`}</Words>
      )}
      {gone > 0 ? (
        <Words
          quiet
          style={{
            fontSize: 13,
          }}>{`${gone} of them ${gone === 1 ? 'is' : 'are'} about something that is gone.`}</Words>
      ) : null}
      {waiting > 0 ? (
        <Words
          quiet
          style={{ fontSize: 13 }}
          testID="held-waits">{`${waiting} of them ${waiting === 1 ? 'waits' : 'wait'}: what is said between views holds while each of them joins the others in Arrange and shows the direction.`}</Words>
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
