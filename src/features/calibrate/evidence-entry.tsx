import { useEffect, useRef, useState } from 'react';
import { View, type TextInput } from 'react-native';
import { Button } from 'react-native-paper';
import { commandForEvidence, EVIDENCE_POINTING, wayOf, type EvidenceState } from '@/bench/tools';
import { useDesk, useFitted } from '@/bench/use-session';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { EVIDENCE_WORDS } from './kinds';
import { SpanField } from './piece-name';
import { SaidField, useWritten } from './said-fields';
import { findSizeQuestion, useRest } from './size-question';
import { ProposedStraight } from './straight-card';

/** After enough places are set: what the piece is known to be, as people write it. */
export function EvidenceEntry({ state }: { state: EvidenceState }) {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const units = useUnits();
  const { kind, role } = state;
  const { sizes, optional } = EVIDENCE_POINTING[wayOf(state)];
  const rest = useRest(fitted, state);
  const { written, read, write } = useWritten(kind, sizes, optional, state.written, units, rest);
  const [name, setName] = useState(state.name);
  const first = useRef<TextInput>(null);
  const check = role === 'check';
  const question = findSizeQuestion(rest, read.ok ? read.value : undefined, units, fitted);
  // The field is ready for typing as soon as the places are set; nudging them does not take the focus again.
  useEffect(() => first.current?.focus(), []);
  const submit = () => {
    const context = session.findContext();
    const command =
      context && read.ok
        ? commandForEvidence(
            { ...state, name: name?.trim() || undefined },
            { ...read.value, plusMinus: read.value.plusMinus ?? state.plusMinus },
            context,
          )
        : undefined;
    if (!command) return;
    const before = jobs.getState().job;
    jobs.getState().run(command);
    if (jobs.getState().job === before) return jobs.getState().readOnly ? session.say('read-only') : undefined;
    if (command.name.code === 'pointed-again') session.say('pointed-again');
    if (!check && kind === 'length' && !fitted?.fit.scaled) session.pointAtEvidence('length', 'check');
    else session.chooseTool('points');
  };
  return (
    <Card chosen testID="length-entry">
      <Words style={{ fontWeight: '700' }}>{titleOf(state)}</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'flex-start' }}>
        {sizes.map((name, i) => (
          <SaidField
            key={name}
            name={name}
            value={written[name] ?? ''}
            units={units}
            onChange={write(name)}
            onSubmit={submit}
            inputRef={i === 0 ? first : undefined}
            comesTo={rest}
            testID={`${name}-field`}
          />
        ))}
        <Button mode="contained" style={{ marginTop: 6 }} disabled={!read.ok} onPress={submit} testID="set-length">
          {check ? 'Compare' : sizes.length === 0 ? 'Use it' : 'Set'}
        </Button>
      </View>
      {kind === 'straight' && state.found ? <ProposedStraight /> : null}
      {state.way === 'box' ? <SpanField name={name ?? ''} onName={setName} /> : null}
      {question ? (
        <Words testID="size-question" style={{ fontSize: 13.5, lineHeight: 18, fontWeight: '700' }}>
          {question}
        </Words>
      ) : null}
      {sizes.length > 0 && !question ? (
        <Words quiet style={{ fontSize: 12.5, lineHeight: 16 }}>
          {howToWrite(kind, optional)}
        </Words>
      ) : null}
    </Card>
  );
}

function howToWrite(kind: EvidenceState['kind'], optional: boolean | undefined): string {
  if (kind === 'level') return '0 is level, 90 is upright.';
  if (optional) return 'Leave open what you do not know.';
  return kind === 'angle'
    ? 'Write 45 or 3 in 12.'
    : 'Write 85.6, 5/16 in, 1\u2032 4 1/2\u2033, 46 ± 0.2, about 3 ft; or what it may be: 240 or 249.';
}

function titleOf({ kind, role, name }: EvidenceState): string {
  if (name !== undefined) return `${name[0]!.toUpperCase()}${name.slice(1)}`;
  if (kind !== 'length') return EVIDENCE_WORDS[kind].title;
  return role === 'check' ? 'What should it be?' : 'How long is it?';
}
