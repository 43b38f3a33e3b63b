import { useMemo, useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { sayingOn } from '@/core/derive';
import { declineProposals, proposeAgain } from '@/core/job';
import { shapeOf } from '@/core/outline';
import {
  foreseeMoves,
  isRelatable,
  listProposals,
  type Proposal,
  type RelationEnd,
  type RelationKind,
} from '@/core/relate';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { wordsForKind } from '@/ui/relation-words';
import { Words } from '@/ui/text';
import { FarthestRow } from './farthest-row';
import { newRelation, takingOf, type Relating } from './relate-actions';

const THINGS: Partial<Record<RelationKind, readonly [one: string, several: string]>> = {
  level: ['edge is', 'edges are'],
  upright: ['edge is', 'edges are'],
  tangent: ['joint is', 'joints are'],
  square: ['corner is', 'corners are'],
};

const nameOf = ({ kind, on }: Pick<Proposal, 'kind' | 'on'>) =>
  `${kind} ${on.map(({ outline, segment = '', node = '' }) => `${outline}.${segment}.${node}`).join(' ')}`;

/** What may be meant to be true, of all outlines of the view or of one: within what pointing allows. Taken or refused one by one, kind by kind, or all at once. */
export function ProposalsCard({ relating, only }: { relating: Relating; only?: string | undefined }) {
  const { jobs } = useDesk();
  const {
    derived,
    fitted,
    job: { outlines, relations, declined },
  } = relating;
  const proposals = useMemo(() => {
    const saying = sayingOn([fitted.view.plane], relating.job, derived);
    const about = (on: readonly RelationEnd[]) => only === undefined || on.every(({ outline }) => outline === only);
    const here = new Set(outlines.filter(({ plane }) => plane === fitted.view.plane).map(({ id }) => id));
    return listProposals(
      saying.outlines.filter(({ id }) => only === undefined || id === only),
      saying.relations.filter(({ on }) => about(on)),
      saying.relating,
    ).filter(({ on }) => on.every(({ outline }) => here.has(outline)));
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [outlines, relations, fitted, only]);
  const left = new Set(declined.map(nameOf));
  const open = proposals.filter((proposal) => !left.has(nameOf(proposal)));
  const kept = proposals.length - open.length;
  const kinds = [...new Set(open.map(({ kind }) => kind))];
  const moves = useMemo(() => {
    const saying = sayingOn([fitted.view.plane], relating.job, derived);
    return foreseeMoves(open, saying.outlines, saying.relations, saying.relating, (outline) =>
      shapeOf(outline, derived.planes.get(outline.plane)!.placing),
    ).filter(({ plane }) => plane === fitted.view.plane);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [proposals, declined]);
  const take = (some: readonly Proposal[]) => {
    const command = takingOf(
      relating,
      some.map(({ kind, on }) => newRelation(relating, kind, on)),
    );
    if (command) jobs.getState().run(command);
  };
  if (only === undefined ? proposals.length === 0 : open.length === 0) return null;
  const run = jobs.getState().run;
  return (
    <Card testID="proposals">
      {open.length > 0 ? (
        <Words style={{ fontWeight: '700' }}>
          {only === undefined ? 'Within what you can point' : 'Of what you drew last, within what you can point'}
        </Words>
      ) : null}
      {kinds.map((kind) => {
        const some = open.filter((proposal) => proposal.kind === kind);
        return (
          <ProposedRow
            key={kind}
            kind={kind}
            some={some}
            relating={relating}
            onTake={take}
            onLeave={(these) => run(declineProposals(these.map(({ on }) => ({ kind, on }))))}
          />
        );
      })}
      {open.length > 0 ? (
        <FarthestRow
          moves={moves}
          fitted={fitted}
          says="With all of it, the farthest any place would move is"
          testID="would-move"
        />
      ) : null}
      {kinds.length > 1 ? (
        <Button mode="contained" onPress={() => take(open)} testID="take-all">
          Make all of them so
        </Button>
      ) : null}
      {kept > 0 ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
          <Words quiet style={{ flex: 1 }}>{`${kept} left as ${kept === 1 ? 'it was' : 'they were'} drawn.`}</Words>
          <Button compact onPress={() => run(proposeAgain(fitted.view.plane))} testID="propose-again">
            Propose again
          </Button>
        </View>
      ) : null}
    </Card>
  );
}

interface ProposedProps {
  readonly kind: RelationKind;
  readonly some: readonly Proposal[];
  readonly relating: Relating;
  onTake(these: readonly Proposal[]): void;
  onLeave(these: readonly Proposal[]): void;
}

/** Everything of a kind that is proposed; its words open to each by itself. */
function ProposedRow({ kind, some, relating, onTake, onLeave }: ProposedProps) {
  const [isOpen, setOpen] = useState(false);
  const [one, several] = THINGS[kind] ?? ['pair is', 'pairs are'];
  const says = `${some.length} ${some.length === 1 ? one : several} ${wordsForKind(kind)}.`;
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }} testID={`proposed-${kind}`}>
        <Pressable
          style={{ flex: 1, minHeight: 34, justifyContent: 'center' }}
          accessibilityRole="button"
          accessibilityLabel={`${says} One by one`}
          aria-expanded={isOpen}
          onPress={() => setOpen(!isOpen)}
          testID={`each-${kind}`}>
          <Words>{says}</Words>
        </Pressable>
        <Button compact mode="outlined" onPress={() => onTake(some)} testID={`take-${kind}`}>
          Make it so
        </Button>
        <Button compact onPress={() => onLeave(some)} testID={`leave-${kind}`}>
          Leave
        </Button>
      </View>
      {isOpen
        ? some
            .slice(0, MOST_EACH)
            .map((proposal) => (
              <OneRow
                key={nameOf(proposal)}
                proposal={proposal}
                relating={relating}
                onTake={() => onTake([proposal])}
                onLeave={() => onLeave([proposal])}
              />
            ))
        : null}
    </>
  );
}

const MOST_EACH = 30;

/** One of them: by how much it misses now; it is marked on the drawing when its words are pressed. */
function OneRow({
  proposal,
  relating,
  onTake,
  onLeave,
}: {
  proposal: Proposal;
  relating: Relating;
  onTake: () => void;
  onLeave: () => void;
}) {
  const { session } = useDesk();
  const units = useUnits();
  const miss = relating.fitted.fit.scaled
    ? formatLength(Math.abs(proposal.miss), units, proposal.sigma)
    : `${Math.abs(proposal.miss).toFixed(1)} px`;
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6, paddingLeft: 12 }} testID="proposed-one">
      <Pressable
        style={{ flex: 1, minHeight: 34, justifyContent: 'center' }}
        accessibilityRole="button"
        accessibilityLabel={`Show where it is off by ${miss}`}
        onPress={() => session.setTool({ name: 'relate', state: { on: proposal.on } })}>
        <Words quiet style={{ fontSize: 14 }}>{`Off by ${miss}`}</Words>
      </Pressable>
      <Button compact mode="outlined" onPress={onTake} testID="take-one">
        Make it so
      </Button>
      <Button compact onPress={onLeave} testID="leave-one">
        Leave
      </Button>
    </View>
  );
}

/** What may be meant to be true of the outline that was drawn last. */
export function LastDrawnCard() {
  const fitted = useFitted();
  const { job, derived } = useJob((whole) => whole);
  const last = job.outlines.findLast(
    (outline) => outline.plane === fitted?.view.plane && isRelatable(outline) && !outline.aid,
  );
  return fitted && last ? <ProposalsCard relating={{ job, derived, fitted }} only={last.id} /> : null;
}
