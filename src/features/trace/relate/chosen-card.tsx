import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { Measured } from '@/core/adjust';
import { measureSaid } from '@/core/derive';
import { addRelations, changeOutline } from '@/core/job';
import { withSmooth, type Chain, type Outline } from '@/core/outline';
import {
  hasValue,
  listNominals,
  listSlopes,
  type Relation,
  type RelationEnd,
  type RelationKind,
  type Verdict,
  type Nominal,
} from '@/core/relate';
import { HOLES, SHEETS } from '@/core/shelf';
import { formatAngle, formatLength, type Units } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { wordsForKind } from '@/ui/relation-words';
import { Words } from '@/ui/text';
import { UnderButton } from '../under-button';
import { refusalInWords } from './refusal';
import { elsewhereOf, findApart, listSayable, newRelation, otherViewsOf, type Relating } from './relate-actions';
import { SayingWorking } from './saying-working';
import { useSaying } from './use-saying';
import { isAngular, ValueField } from './value-field';

/** What can be said of what is chosen. */
export function ChosenCard({
  relating,
  chosen,
  within,
  free,
}: {
  relating: Relating;
  chosen: readonly RelationEnd[];
  within?: readonly RelationEnd[] | undefined;
  free?: boolean | undefined;
}) {
  const { jobs, session } = useDesk();
  const units = useUnits();
  const [refusal, setRefusal] = useState<{ readonly relation: Relation; readonly verdict: Verdict }>();
  const saying = useSaying();
  const sayable = listSayable(relating, chosen);
  const others = otherViewsOf(relating, chosen);
  const relate = (kind: RelationKind, on: readonly RelationEnd[], value?: number) => {
    const relation = newRelation(relating, kind, on, value);
    void saying.say(
      relation,
      () => {
        done();
        return addRelations([relation]);
      },
      (verdict) => setRefusal({ relation, verdict }),
    );
  };
  const done = () => session.setTool({ name: 'relate', state: { on: [], free } });
  const joint = findCurveJoint(chosen, relating.job.outlines);
  if (chosen.length === 0) return null;
  return (
    <Card testID="chosen-card">
      <ChosenHead relating={relating} chosen={chosen} others={others} isBusy={saying.isWorking} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        <UnderButton within={within} />
        {sayable.flatMap(({ kind, on }) =>
          hasValue(kind)
            ? []
            : [<SayButton key={kind} kind={kind} isBusy={saying.isWorking} onPress={() => relate(kind, on)} />],
        )}
      </View>
      {sayable
        .filter(({ kind }) => hasValue(kind))
        .map(({ kind, on }) => (
          <SayValue
            key={kind}
            relating={relating}
            kind={kind}
            on={on}
            units={units}
            onSaid={(value) => relate(kind, on, value)}
          />
        ))}
      {joint ? (
        <Button
          compact
          mode="outlined"
          onPress={() => {
            jobs.getState().run(changeOutline(withSmooth(joint.chain, joint.node, true), 'smooth-made'));
            done();
          }}
          testID="relate-smooth">
          Runs on smoothly
        </Button>
      ) : null}
      {sayable.length === 0 && !joint ? <NothingSayable relating={relating} chosen={chosen} others={others} /> : null}
      {refusal ? (
        <Words testID="relation-refused">{refusalInWords(refusal.relation, refusal.verdict, relating, units)}</Words>
      ) : null}
    </Card>
  );
}

interface ChosenProps {
  readonly relating: Relating;
  readonly chosen: readonly RelationEnd[];
  /** Names of the other views in which some of it is drawn. */
  readonly others: readonly string[];
}

const ChosenHead = ({ relating, chosen, others, isBusy }: ChosenProps & { readonly isBusy: boolean }) => (
  <>
    <Words style={{ fontWeight: '700' }}>
      {`${chosen.length} ${chosen.length === 1 ? 'thing' : 'things'} chosen${whereInWords(elsewhereOf(relating, chosen).length, chosen.length, others)}`}
    </Words>
    <SayingWorking isWorking={isBusy} />
  </>
);

const SayButton = ({ kind, isBusy, onPress }: { kind: RelationKind; isBusy: boolean; onPress: () => void }) => (
  <Button compact mode="outlined" disabled={isBusy} onPress={onPress} testID={`relate-${kind}`}>
    {sentenceCase(wordsForKind(kind))}
  </Button>
);

const NothingSayable = ({ relating, chosen, others }: ChosenProps) => (
  <Words quiet testID="nothing-sayable">
    {nothingInWords(relating, chosen, others)}
  </Words>
);

/** How many of some things are in other views. */
function whereInWords(count: number, all: number, others: readonly string[]): string {
  if (others.length === 0) return '';
  return `, ${count === all ? '' : `${count} of them `}in ${others.join(' and ')}`;
}

/** Why nothing can be said of things together, and what to do. */
function nothingInWords(relating: Relating, chosen: readonly RelationEnd[], others: readonly string[]): string {
  if (others.length === 0)
    return 'Nothing is said of these together. Choose two lines, a line and an arc, or two circles.';
  const apart = findApart(relating, chosen);
  if (apart?.isByZero)
    return `Nothing says yet how far along one direction “${apart.view}” stands. Point at a line or a place in Arrange that it shares with the others.`;
  return apart
    ? `“${apart.view}” does not join the other views, so that only lines can be as long and circles as large as there. Let it join in Arrange.`
    : 'Nothing is said of these together. Between views, choose places or edges along a direction that both show, two lines, or two circles.';
}

/** The point at which two chosen segments meet, where one of them is a curve and there is a corner: curves follow what they meet, so that smooth is said of the point. */
function findCurveJoint(
  chosen: readonly RelationEnd[],
  outlines: readonly Outline[],
): { readonly chain: Chain; readonly node: string } | undefined {
  const [a, b] = chosen;
  const chain = outlines.find(({ id }) => id === a?.outline);
  if (chosen.length !== 2 || !a?.segment || !b?.segment || a.outline !== b.outline || chain?.shape !== 'chain')
    return undefined;
  const [i, k] = [a, b].map(({ segment }) => chain.nodes.findIndex(({ id }) => id === segment)) as [number, number];
  const follows = (first: number, second: number) => (first + 1) % chain.nodes.length === second;
  const node = chain.nodes[follows(i, k) ? k : follows(k, i) ? i : -1];
  const hasCurve = [i, k].some((index) => chain.segments[index]?.kind === 'curve');
  return node && hasCurve && !node.smooth ? { chain, node: node.id } : undefined;
}

const sentenceCase = (words: string) => words[0]!.toUpperCase() + words.slice(1);

/** A size to type, with what it comes to now and what it may be meant to be. */
function SayValue({
  relating,
  kind,
  on,
  units,
  onSaid,
}: {
  relating: Relating;
  kind: RelationKind;
  on: readonly RelationEnd[];
  units: Units;
  onSaid: (value: number) => void;
}) {
  if (!isAngular(kind) && !relating.fitted.fit.scaled) return null;
  const { job, derived } = relating;
  const now = measureSaid(kind, on, { job, derived }, derived.shapes);
  return (
    <View style={{ gap: 4 }}>
      <ValueField kind={kind} units={units} now={now?.value} onSaid={onSaid} testID={`value-${kind}`} />
      {now ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 6 }}>
          <Words
            quiet
            style={{
              fontSize: 13,
            }}>{`Now ${isAngular(kind) ? formatAngle(now.value, now.sigma) : formatLength(now.value, units, now.sigma)}`}</Words>
          {nominalsOf(kind, now).map(({ value, written, name }) => (
            <Button
              key={written}
              compact
              mode="outlined"
              onPress={() => onSaid(kind === 'radius' ? value / 2 : value)}
              testID="nominal">
              {name ? `${written}, ${name}` : written}
            </Button>
          ))}
        </View>
      ) : null}
    </View>
  );
}

/** What a size may be meant to be: something round, or what holes are drilled and sheets are made in. */
function nominalsOf(kind: RelationKind, { value, sigma }: Measured): readonly Nominal[] {
  if (isAngular(kind)) return listSlopes(value, sigma);
  if (kind === 'across' || kind === 'up') return listNominals(value, sigma);
  return listNominals(value, sigma, kind === 'radius' ? HOLES : SHEETS);
}
