import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { startMatch, type MatchState, type Elsewhere } from '@/bench/tools';
import { useDesk, useFitted, useJob, useReferencesAtHand, useSession } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { changeEvidence, type Evidence, type Job } from '@/core/job';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { LedgeButton } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';

/** Lays a view onto existing geometry or onto another view: what it is laid on, the pairs so far, and what is left over at each. */
export function MatchCard() {
  const { session } = useDesk();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const tool = useSession((state) => state.tool);
  const viewId = useSession((state) => state.viewId);
  const references = useReferencesAtHand();
  const fitted = viewId === undefined ? undefined : derived.views.get(viewId);
  if (!fitted) return null;
  const state = tool.name === 'match' && tool.state.target ? tool.state : undefined;
  const targets = targetsFor(fitted, job, (id) => derived.views.get(id)?.fit.scaled === true);
  const choose = (target: Elsewhere) => session.setTool({ name: 'match', state: startMatch(fitted.view.id, target) });
  return (
    <Card chosen testID="match-card">
      <Words style={{ fontWeight: '700' }}>Lay it onto what exists</Words>
      {targets.length === 0 ? (
        <Words quiet style={{ fontSize: 14 }}>
          Bring in a survey or a plan under Sources (DXF, SVG, GeoJSON), or give another view a scale: then this one can
          be laid on it.
        </Words>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {targets.map(([target, name]) => (
          <Button
            key={`${target.kind}${target.id}`}
            mode={state?.target?.id === target.id ? 'contained' : 'outlined'}
            disabled={target.kind === 'plane' && references.length === 0}
            onPress={() => choose(target)}
            testID={`match-${target.kind}`}>
            {name}
          </Button>
        ))}
      </View>
      {state ? <Progress state={state} /> : null}
      <Pairs fitted={fitted} />
    </Card>
  );
}

/** Planes with references on them, and other views whose scale is known. */
function targetsFor(
  { view }: FittedView,
  { references, views }: Job,
  isScaled: (id: string) => boolean,
): readonly (readonly [Elsewhere, string])[] {
  const planes = [...new Set(references.map(({ plane }) => plane))];
  return [
    ...planes.map(
      (plane) =>
        [
          { kind: 'plane', id: plane } as const,
          references
            .filter((one) => one.plane === plane)
            .map(({ name }) => name)
            .join(', '),
        ] as const,
    ),
    ...views
      .filter(
        (other) => other.id !== view.id && other.id !== view.shares && other.shares !== view.id && isScaled(other.id),
      )
      .slice(0, 8)
      .map((other) => [{ kind: 'view', id: other.id } as const, other.name] as const),
  ];
}

/** By how many places are matched. */
const PROGRESS = [
  'Point at a place in the picture that is there too.',
  'One more place, far from the first.',
  'It lies there now. Further places are fitted, and what is left over is shown.',
];

function Progress({ state }: { state: MatchState }) {
  const { session } = useDesk();
  const set = state.pairs.filter(({ to }) => to).length;
  const says = state.looking === 'target' ? 'Now point at the same place here.' : PROGRESS[Math.min(set, 2)];
  return (
    <>
      <Words testID="match-says">{says}</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {state.pairs.length > state.laid ? (
          <Button compact onPress={() => session.input({ kind: 'back' })}>
            Take the last one back
          </Button>
        ) : null}
        <Button compact onPress={() => session.chooseTool('points')} testID="match-done">
          {set >= 2 ? 'Done' : 'Leave it'}
        </Button>
      </View>
    </>
  );
}

/** Every matched place with what is left over there; one of them can be held exactly where it is. */
function Pairs({ fitted }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const pieces = fitted.view.evidence.filter(({ kind, role }) => kind === 'known-point' && role === 'use');
  if (pieces.length < 2 || !fitted.fit.scaled) return null;
  const hold = (piece: Evidence) =>
    jobs.getState().run(changeEvidence(fitted.view.id, { ...piece, held: !piece.held }));
  return (
    <View style={{ gap: 2 }}>
      {pieces.map((piece, i) => {
        const off = leftoverOf(fitted, piece);
        return (
          <View key={piece.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }} testID="match-pair">
            <Words style={{ flex: 1, fontSize: 14 }}>{piece.name ?? `place ${i + 1}`}</Words>
            <Figures style={{ fontSize: 13 }}>
              {off === undefined ? 'held' : `off by ${formatLength(off, units)}`}
            </Figures>
            <Button compact onPress={() => hold(piece)} testID="hold-pair">
              {piece.held ? 'Let go' : 'Hold it'}
            </Button>
          </View>
        );
      })}
    </View>
  );
}

/** How far a matched place lies from where it was matched to, mm; undefined where it is held. */
function leftoverOf({ view, fit }: FittedView, { groups, said, held }: Evidence): number | undefined {
  const point = view.points.find(({ id }) => id === groups[0]![0]);
  if (!point || held) return undefined;
  const [x, y] = fit.toPlane(point.at);
  return Math.hypot(x - (said.across?.value ?? 0), y - (said.up?.value ?? 0));
}

/** Opens the matching, from the row of the fit. */
export function MatchButton({ chosen, onOpen }: { chosen: boolean; onOpen: () => void }) {
  const fitted = useFitted();
  return (
    <LedgeButton
      icon="match"
      label="Match"
      name="Lay it onto existing geometry"
      chosen={chosen}
      disabled={!fitted}
      onPress={onOpen}
      testID="panel-match"
    />
  );
}
