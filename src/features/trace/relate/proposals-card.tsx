import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { declineProposals, proposeAgain } from '@/core/job';
import { isRelatable, type Proposal, type RelationKind } from '@/core/relate';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { wordsForKind } from '@/ui/relation-words';
import { Words } from '@/ui/text';
import { FarthestRow } from './farthest-row';
import { newRelation, type Relating } from './relate-actions';
import { isMuch, useProposed, useSaying } from './use-saying';

const THINGS: Partial<Record<RelationKind, readonly [one: string, several: string]>> = {
  level: ['edge is', 'edges are'],
  upright: ['edge is', 'edges are'],
  tangent: ['joint is', 'joints are'],
  square: ['corner is', 'corners are'],
};

/** What may be meant to be true, of all outlines of the view or of one: within what pointing allows. Taken or refused one by one, kind by kind, or all at once. */
export function ProposalsCard({ relating, only }: { relating: Relating; only?: string | undefined }) {
  const { jobs } = useDesk();
  const { fitted } = relating;
  const { value, isWorking: isSeeking, isStopped, again } = useProposed(relating, only);
  const saying = useSaying();
  const isBusy = isSeeking || saying.isWorking;
  const { open = [], kept = 0, moves = [] } = value ?? {};
  const kinds = [...new Set(open.map(({ kind }) => kind))];
  const take = (some: readonly Proposal[]) =>
    void saying.take(
      some.map(({ kind, on }) => newRelation(relating, kind, on)),
      fitted.view.plane,
    );
  if (only === undefined && isStopped) return <Stopped onAgain={again} />;
  if (only === undefined && isSeeking && isMuch(relating.job) && kinds.length === 0) return <Seeking />;
  if (only === undefined ? open.length + kept === 0 : open.length === 0) return null;
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
            isBusy={isBusy}
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
        <Button mode="contained" disabled={isBusy} onPress={() => take(open)} testID="take-all">
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

const Seeking = () => (
  <Card>
    <Words quiet testID="proposals-seeking">
      Looking for what may be meant …
    </Words>
  </Card>
);

const Stopped = ({ onAgain }: { onAgain: () => void }) => (
  <Card>
    <Words testID="proposals-stopped">
      To find what may be meant took more than this device has. Nothing was changed.
    </Words>
    <Button compact mode="outlined" style={{ alignSelf: 'flex-start' }} onPress={onAgain}>
      Look again
    </Button>
  </Card>
);

interface ProposedProps {
  readonly kind: RelationKind;
  readonly some: readonly Proposal[];
  readonly relating: Relating;
  /** What is shown may be of what was drawn before. */
  readonly isBusy: boolean;
  onTake(these: readonly Proposal[]): void;
  onLeave(these: readonly Proposal[]): void;
}

/** Everything of a kind that is proposed; its words open to each by itself. */
function ProposedRow({ kind, some, relating, isBusy, onTake, onLeave }: ProposedProps) {
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
        <Button compact mode="outlined" disabled={isBusy} onPress={() => onTake(some)} testID={`take-${kind}`}>
          Make it so
        </Button>
        <Button compact disabled={isBusy} onPress={() => onLeave(some)} testID={`leave-${kind}`}>
          Leave
        </Button>
      </View>
      {isOpen
        ? some
            .slice(0, MOST_EACH)
            .map((proposal) => (
              <OneRow
                key={JSON.stringify(proposal.on)}
                proposal={proposal}
                relating={relating}
                isBusy={isBusy}
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
  isBusy,
  onTake,
  onLeave,
}: {
  proposal: Proposal;
  relating: Relating;
  isBusy: boolean;
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
      <Button compact mode="outlined" disabled={isBusy} onPress={onTake} testID="take-one">
        Make it so
      </Button>
      <Button compact disabled={isBusy} onPress={onLeave} testID="leave-one">
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
