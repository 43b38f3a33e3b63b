import { useMemo } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { declineProposals, proposeAgain } from '@/core/job';
import { isRelatable, listProposals, type Proposal, type RelationEnd, type RelationKind } from '@/core/relate';
import { Card } from '@/ui/card';
import { wordsForKind } from '@/ui/relation-words';
import { Words } from '@/ui/text';
import { newRelation, outlinesOf, planeOf, relationsOf, takingOf, type Relating } from './relate-actions';

const THINGS: Partial<Record<RelationKind, readonly [one: string, several: string]>> = {
  level: ['edge is', 'edges are'], upright: ['edge is', 'edges are'], tangent: ['joint is', 'joints are'], square: ['corner is', 'corners are'],
};

const nameOf = ({ kind, on }: Pick<Proposal, 'kind' | 'on'>) => `${kind} ${on.map(({ outline, segment = '', node = '' }) => `${outline}.${segment}.${node}`).join(' ')}`;

/** What may be meant to be true, of all outlines of the view or of one: within what pointing allows. Taken or refused kind by kind, or all at once. */
export function ProposalsCard({ relating, only }: { relating: Relating; only?: string | undefined }) {
  const { jobs } = useDesk();
  const { fitted, job: { outlines, relations, declined } } = relating;
  const proposals = useMemo(() => {
    const about = (on: readonly RelationEnd[]) => only === undefined || on.every(({ outline }) => outline === only);
    return listProposals(outlinesOf(relating).filter(({ id }) => only === undefined || id === only), relationsOf(relating).filter(({ on }) => about(on)), planeOf(relating));
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [outlines, relations, fitted, only]);
  const left = new Set(declined.map(nameOf));
  const open = proposals.filter((proposal) => !left.has(nameOf(proposal)));
  const kept = proposals.length - open.length;
  const kinds = [...new Set(open.map(({ kind }) => kind))];
  const take = (some: readonly Proposal[]) => {
    const command = takingOf(relating, some.map(({ kind, on }) => newRelation(relating, kind, on)));
    if (command) jobs.getState().run(command);
  };
  if (only === undefined ? proposals.length === 0 : open.length === 0) return null;
  const run = jobs.getState().run;
  return (
    <Card width={350} testID="proposals">
      {open.length > 0 ? <Words style={{ fontWeight: '700' }}>{only === undefined ? 'Within what you can point' : 'Of what you drew last, within what you can point'}</Words> : null}
      {kinds.map((kind) => {
        const some = open.filter((proposal) => proposal.kind === kind);
        return <ProposedRow key={kind} kind={kind} count={some.length} onTake={() => take(some)} onLeave={() => run(declineProposals(some.map(({ on }) => ({ kind, on }))))} />;
      })}
      {kinds.length > 1 ? <Button mode="contained" onPress={() => take(open)} testID="take-all">Make all of them so</Button> : null}
      {kept > 0 ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
          <Words quiet style={{ flex: 1 }}>{`${kept} left as ${kept === 1 ? 'it was' : 'they were'} drawn.`}</Words>
          <Button compact onPress={() => run(proposeAgain(fitted.view.id))} testID="propose-again">Propose again</Button>
        </View>
      ) : null}
    </Card>
  );
}

function ProposedRow({ kind, count, onTake, onLeave }: { kind: RelationKind; count: number; onTake: () => void; onLeave: () => void }) {
  const [one, several] = THINGS[kind] ?? ['pair is', 'pairs are'];
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }} testID={`proposed-${kind}`}>
      <Words style={{ flex: 1 }}>{`${count} ${count === 1 ? one : several} ${wordsForKind(kind)}.`}</Words>
      <Button compact mode="outlined" onPress={onTake} testID={`take-${kind}`}>Make it so</Button>
      <Button compact onPress={onLeave} testID={`leave-${kind}`}>Leave</Button>
    </View>
  );
}

/** What may be meant to be true of the outline that was drawn last. */
export function LastDrawnCard() {
  const fitted = useFitted();
  const { job, derived } = useJob((whole) => whole);
  const last = job.outlines.findLast((outline) => outline.view === fitted?.view.id && isRelatable(outline) && !outline.aid);
  return fitted && last ? <ProposalsCard relating={{ job, derived, fitted }} only={last.id} /> : null;
}
