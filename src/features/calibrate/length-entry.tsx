import { useEffect, useRef, useState } from 'react';
import { View, type TextInput } from 'react-native';
import { Button } from 'react-native-paper';
import { commandForSpan, type SpanState } from '@/bench/tools';
import { useDesk } from '@/bench/use-session';
import { formatLength, parseSize, type WrittenLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

/** After two places are set: what their distance is, as people write it. */
export function LengthEntry({ check, state }: { check: boolean; state: SpanState }) {
  const { jobs, session } = useDesk();
  const units = useUnits();
  const [text, setText] = useState('');
  const field = useRef<TextInput>(null);
  // The field is ready for typing as soon as both places are set; nudging them does not take the focus again.
  useEffect(() => field.current?.focus(), []);
  const submit = ({ mm, plusMinus, guess }: WrittenLength) => {
    const context = session.findContext();
    const command = context && commandForSpan(state, { mm, plusMinus, guess, written: text }, check, context);
    if (!command) return;
    const before = jobs.getState().job;
    jobs.getState().run(command);
    if (jobs.getState().job === before) return session.say('read-only');
    session.chooseTool(check ? 'select' : 'check');
  };
  const parse = (written: string) => parseSize(written, units.style);
  const echo = ({ mm, plusMinus, guess }: WrittenLength) =>
    `${guess ? 'about ' : ''}${formatLength(mm, units)}${plusMinus ? ` ±${formatLength(plusMinus, units)}` : guess ? ', taken as ±3 %' : ''}`;
  const said = parse(text);
  return (
    <Card chosen testID="length-entry">
      <Words style={{ fontWeight: '700' }}>{check ? 'What should it be?' : 'How long is it?'}</Words>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
        <WrittenField label="Length" value={text} onChange={setText} parse={parse} echo={echo} onSubmit={submit} testID="length-field" inputRef={field} />
        <Button mode="contained" style={{ marginTop: 6 }} disabled={!said.ok} onPress={() => said.ok && submit(said.value)} testID="set-length">{check ? 'Compare' : 'Set'}</Button>
      </View>
      <Words quiet style={{ fontSize: 12.5, lineHeight: 16 }}>Write 85.6, 5/16 in, 1&apos; 4 1/2&quot;, 46 ± 0.2 or about 3 ft.</Words>
    </Card>
  );
}
