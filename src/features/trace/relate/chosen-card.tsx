import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import { measureOutline } from '@/core/derive';
import { distance } from '@/core/geometry';
import { addRelations } from '@/core/job';
import { hasValue, listNominals, type Relation, type RelationEnd, type RelationKind, type Verdict } from '@/core/relate';
import { formatLength, parseAngle, parseLength, type Units } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { markForRelation, wordsForKind } from '@/ui/relation-words';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { judge, listSayable, newRelation, relationsOf, type Relating } from './relate-actions';

/** Sizes are typed; circles by their diameter, angles in degrees. */
const FIELDS: Partial<Record<RelationKind, string>> = { length: 'Length', radius: 'Diameter', angle: 'Angle between', direction: 'Angle against level', distance: 'Distance', across: 'Across from zero', up: 'Up from zero' };

/** What can be said of what is chosen. */
export function ChosenCard({ relating, chosen }: { relating: Relating; chosen: readonly RelationEnd[] }) {
  const { jobs, session } = useDesk();
  const units = useUnits();
  const [refusal, setRefusal] = useState<{ readonly relation: Relation; readonly verdict: Verdict }>();
  const sayable = listSayable(relating, chosen);
  const relate = (kind: RelationKind, on: readonly RelationEnd[], value?: number) => {
    const relation = newRelation(relating, kind, on, value);
    const verdict = judge(relating, relation);
    if (verdict.kind !== 'holds') return setRefusal({ relation, verdict });
    jobs.getState().run(addRelations([relation]));
    session.chooseTool('relate');
  };
  if (chosen.length === 0) return null;
  return (
    <Card width={360} testID="chosen-card">
      <Words style={{ fontWeight: '700' }}>{`${chosen.length} ${chosen.length === 1 ? 'thing' : 'things'} chosen`}</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {sayable.filter(({ kind }) => !hasValue(kind)).map(({ kind, on }) => <Button key={kind} compact mode="outlined" onPress={() => relate(kind, on)} testID={`relate-${kind}`}>{sentenceCase(wordsForKind(kind))}</Button>)}
      </View>
      {sayable.filter(({ kind }) => hasValue(kind)).map(({ kind, on }) => <ValueField key={kind} relating={relating} kind={kind} on={on} units={units} onSaid={(value) => relate(kind, on, value)} />)}
      {sayable.length === 0 ? <Words quiet>Nothing is said of these together. Choose two lines, a line and an arc, or two circles.</Words> : null}
      {refusal ? <Words testID="relation-refused">{refusalInWords(refusal.relation, refusal.verdict, relating, units)}</Words> : null}
    </Card>
  );
}

const sentenceCase = (words: string) => words[0]!.toUpperCase() + words.slice(1);

/** A size to type, with what it comes to now and what it may be meant to be. */
function ValueField({ relating, kind, on, units, onSaid }: { relating: Relating; kind: RelationKind; on: readonly RelationEnd[]; units: Units; onSaid: (value: number) => void }) {
  const [text, setText] = useState('');
  const isAngle = kind === 'angle' || kind === 'direction';
  const now = isAngle ? undefined : figureOf(relating, kind, on[0]!);
  const toValue = (mm: number) => (kind === 'radius' ? mm / 2 : mm);
  if (isAngle) return <WrittenField label={FIELDS[kind]!} value={text} onChange={setText} parse={parseAngle} onSubmit={onSaid} testID={`value-${kind}`} />;
  if (!relating.fitted.fit.scaled) return null;
  return (
    <View style={{ gap: 4 }}>
      <WrittenField label={FIELDS[kind]!} value={text} onChange={setText} parse={(written) => parseLength(written, units.style)} onSubmit={({ mm }) => onSaid(toValue(mm))} testID={`value-${kind}`} />
      {now ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 6 }}>
          <Words quiet style={{ fontSize: 13 }}>{`Now ${formatLength(now.value, units, now.sigma)}`}</Words>
          {listNominals(now.value, now.sigma).map(({ mm, written }) => <Button key={written} compact mode="outlined" onPress={() => onSaid(toValue(mm))} testID="nominal">{written}</Button>)}
        </View>
      ) : null}
    </View>
  );
}

/** What a size comes to now: the length of a line, the diameter of what is round. */
function figureOf({ job, derived, fitted }: Relating, kind: RelationKind, end: RelationEnd) {
  const outline = job.outlines.find(({ id }) => id === end.outline);
  if (!outline || (kind !== 'length' && kind !== 'radius')) return undefined;
  const index = outline.shape === 'chain' ? outline.nodes.findIndex(({ id }) => id === end.segment) : 0;
  return measureOutline(outline, fitted, ({ pieces }) => {
    const piece = pieces[index];
    if (piece?.kind === 'arc') return 2 * piece.radius;
    return piece?.kind === 'line' ? distance(piece.a, piece.b) : 0;
  }, derived.related.get(fitted.view.id));
}

function refusalInWords(relation: Relation, verdict: Verdict, relating: Relating, units: Units): string {
  const mark = markForRelation(relation, units);
  if (verdict.kind !== 'contradicts') return 'This can no longer be said of these.';
  if (verdict.others.length === 0) return `“${mark}” is too far from what was drawn. Move it nearer first.`;
  const others = relationsOf(relating).filter(({ id }) => verdict.others.includes(id)).map((other) => `“${markForRelation(other, units)}”`);
  return `“${mark}” cannot hold together with ${others.join(', ')}. Take one of these away first. Nothing was changed.`;
}
