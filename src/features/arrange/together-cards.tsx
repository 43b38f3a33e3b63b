import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { useWorked } from '@/bench/use-worked';
import { isSide } from '@/core/derive';
import { isUpright, type Facing } from '@/core/arrange';
import { mirrorView, setJoins, setSide, together, turnOnEdge, type View as JobView } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { SIDE_WORDS } from '@/ui/feature-words';
import { Icon } from '@/ui/icon';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { fitWorker } from '@/workers';
import { LiesAt } from './lies-at';
import { StandsOnEdge } from './on-edge';
import { apartInWords, grownInWords, oddOnes, standingInWords } from './together-words';

/** How the views stand together, what each leaves over, and which of them take part in the one fit of all. */
export function TogetherCards() {
  const views = useJob(({ job }) => job.views);
  return (
    <>
      <AllCard views={views} />
      {views.map((view) => (
        <ViewCard key={view.id} view={view} />
      ))}
    </>
  );
}

/** Whether a view could take part: it shows something shared. */
function useCanJoin(): (view: JobView) => boolean {
  const arranged = useJob(({ derived }) => derived.arranged);
  return ({ id }) => arranged.stands.has(id) || arranged.apart.get(id)?.why === 'without-scale';
}

function AllCard({ views }: { views: readonly JobView[] }) {
  const { jobs } = useDesk();
  const arranged = useJob(({ derived }) => derived.arranged);
  const job = useJob((state) => state.job);
  const units = useUnits();
  const palette = usePalette();
  const canJoin = useCanJoin();
  const able = views.filter(canJoin);
  const waiting = able.filter(({ joins }) => !joins);
  const isWhole = [...arranged.apart.values()].every(({ why }) => why !== 'fits-none');
  const joinAll = () => {
    const [first, ...others] = waiting.map(({ id }) => setJoins(id, true)).reverse();
    if (first) jobs.getState().run(together([...others, first]));
  };
  return (
    <Card testID="together">
      {arranged.refusal ? (
        <Words testID="together-refused">{sentenceFor(arranged.refusal.code, arranged.refusal.detail)}</Words>
      ) : (
        <Words>
          {able.length < 2
            ? 'Two views that show the same line or place stand together. Point at it in both.'
            : waiting.length === 0
              ? `All that is known of ${isWhole ? 'these' : 'the other'} views is one fit.`
              : `${able.length} views show what they share. Each stands by its own fit until it joins.`}
        </Words>
      )}
      {oddOnes(job, arranged, units).map((says) => (
        <Words key={says} style={{ color: palette.berry }} testID="odd-one">
          {says}
        </Words>
      ))}
      {arranged.pending.length > 0 ? (
        <Words quiet testID="together-pending">
          Being worked out …
        </Words>
      ) : null}
      {arranged.suspectsKept ? (
        <Words>
          Some of what is said contradicts the rest, and nothing tells which is wrong: all of it is in, and the
          plus-minus is wider.
        </Words>
      ) : null}
      <TurnedRoundRows />
      {able.length > 1 && waiting.length > 0 ? (
        <Button mode="contained" compact onPress={joinAll} testID="join-all">
          Fit them together
        </Button>
      ) : null}
    </Card>
  );
}

/** Where one view turned round would put all right: it may show the opposite side, or be mirrored. */
function TurnedRoundRows() {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const views = useJob(({ job }) => job.views);
  const { scene, isDoubted } = useJob(({ derived }) => derived.arranged);
  const found = useWorked(
    'turned-round',
    'all',
    [scene],
    (signal) => fitWorker.call('turnedRound', scene!, { signal }),
    isDoubted,
  );
  if (!isDoubted || found.isWorking) return null;
  return (found.value ?? []).map(({ view, side }) => {
    const name = views.find(({ id }) => id === view)?.name ?? '';
    const { seenFrom, label, turn } = turningTo(view, side);
    return (
      <View key={view} style={{ gap: 4 }} testID={`turned-round-${name}`}>
        <Words>{`Everything agrees once ${name} is seen from ${seenFrom}, or mirrored.`}</Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
          <Button mode="outlined" compact onPress={() => run(turn)} testID="turn-side">
            {label}
          </Button>
          <Button mode="outlined" compact onPress={() => run(mirrorView(view))} testID="turn-mirror">
            Mirror it
          </Button>
        </View>
      </View>
    );
  });
}

/** How a view is turned to be seen from the other side, or from the other side of its edge. */
function turningTo(view: string, side: Facing) {
  if (isUpright(side))
    return { seenFrom: 'the other side of its edge', label: 'Turn it round', turn: turnOnEdge(view) };
  const seen = SIDE_WORDS[side].toLowerCase();
  return { seenFrom: `the opposite side (${seen})`, label: `It shows: ${seen}`, turn: setSide(view, side) };
}

function ViewCard({ view }: { view: JobView }) {
  const { jobs, session } = useDesk();
  const palette = usePalette();
  const units = useUnits();
  const arranged = useJob(({ derived }) => derived.arranged);
  const current = useSession(({ viewId }) => viewId);
  const canJoin = useCanJoin()(view);
  const standing = arranged.stands.get(view.id);
  const grown = arranged.grown.get(view.id);
  const joins = standing?.joins ?? false;
  // What stands on an edge by its zero says so itself.
  const isAlone = view.standsOn !== undefined && !view.standsOn.ends && !isSide(view.side);
  const sayings = standing
    ? standingInWords(standing, units)
    : isAlone
      ? []
      : [apartInWords(arranged.apart.get(view.id)?.why)];
  const isOdd = standing?.seen.some(({ suspect }) => suspect) ?? false;
  return (
    <Card chosen={view.id === current} testID={`stands-${view.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <Icon
          name={isOdd ? 'warn' : joins ? 'arrange' : 'sides'}
          color={isOdd ? palette.berry : joins ? palette.hedge : palette.quiet}
          size={20}
        />
        <Words style={{ fontWeight: '700', flex: 1 }} lines={1}>
          {isSide(view.side) && !view.standsOn?.ends
            ? `${view.name}: ${SIDE_WORDS[view.side].toLowerCase()}`
            : view.name}
        </Words>
        {view.id === current ? null : (
          <Button compact onPress={() => session.chooseView(view.id)}>
            Look at it
          </Button>
        )}
      </View>
      {sayings.map((says) => (
        <Words key={says} style={{ fontSize: 14, lineHeight: 19 }}>
          {says}
        </Words>
      ))}
      {grown && standing ? (
        <Words quiet style={{ fontSize: 13, lineHeight: 17 }} testID="grown">
          {grownInWords(grown, joins)}
        </Words>
      ) : null}
      {standing?.side ? <LiesAt view={view} /> : <StandsOnEdge view={view} />}
      {canJoin || view.joins ? (
        <Button
          compact
          mode="outlined"
          onPress={() => jobs.getState().run(setJoins(view.id, !view.joins))}
          testID={view.joins ? 'leave' : 'join'}>
          {view.joins ? 'Stand by its own fit' : 'Join the one fit'}
        </Button>
      ) : null}
    </Card>
  );
}
