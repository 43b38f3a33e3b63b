import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import { directionOfSpan, type SpanRead } from '@/core/derive';
import { addSpan, changeSpan, removeSpan, type Feature, type Span } from '@/core/job';
import { formatLength, parseSize, type Units } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { newId } from '@/store';
import { DIRECTION_WORDS } from '@/ui/feature-words';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { measuredInWords } from './shared-words';

const NEXT: Readonly<Record<Span['role'], { readonly role: Span['role']; readonly label: string }>> = {
  use: { role: 'check', label: 'Hold back' },
  check: { role: 'off', label: 'Off' },
  off: { role: 'use', label: 'Use it' },
};

/** The sizes from one shared line or place to others, and typing a further one. */
export function SpanRows({ feature }: { feature: Feature }) {
  const job = useJob((state) => state.job);
  const arranged = useJob(({ derived }) => derived.arranged);
  const others = job.features.filter((other) => other.id !== feature.id && canSpan(feature, other));
  return (
    <>
      {job.spans
        .filter(({ from }) => from === feature.id)
        .map((span) => (
          <SpanRow key={span.id} span={span} read={arranged.spans.get(span.id)} features={job.features} />
        ))}
      {others.length > 0 ? <NewSpan feature={feature} others={others} /> : null}
    </>
  );
}

/** A size lies between two places, two lines along one direction, or a line and a place. */
const canSpan = (a: Feature, b: Feature) => a.along === undefined || b.along === undefined || a.along === b.along;

function spanInWords({ said, role }: Span, read: SpanRead | undefined, units: Units): string {
  if (role === 'off') return 'Switched off.';
  if (!read?.comesTo) return 'No view shows both yet along that way.';
  const comes = `Comes to ${measuredInWords(read.comesTo, units)}`;
  const off = Math.abs(read.difference!);
  const apart = `, ${formatLength(off, units)} ${read.difference! > 0 ? 'more' : 'less'} than said`;
  if (read.suspect) return `${comes}${apart}. It does not belong with the others.`;
  if (role === 'check') return off > 2 * read.sigma! ? `${comes}${apart}: look why.` : `${comes}: it agrees.`;
  return `${comes}.`;
}

function SpanRow({ span, read, features }: { span: Span; read: SpanRead | undefined; features: readonly Feature[] }) {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const units = useUnits();
  const palette = usePalette();
  const to = features.find(({ id }) => id === span.to)?.name ?? '';
  const along = directionOfSpan(span, features);
  const color = read?.suspect ? palette.berry : span.role === 'check' ? palette.plum : palette.tide;
  return (
    <View testID="span-row">
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Words style={{ flex: 1, color }}>
          {`To ${to}${along ? `, ${DIRECTION_WORDS[along]}` : ''}: ${span.said.written}`}
        </Words>
        <Button compact onPress={() => run(changeSpan({ ...span, role: NEXT[span.role].role }))} testID="span-role">
          {NEXT[span.role].label}
        </Button>
        <RoundButton
          icon="trash"
          size={36}
          name={`Remove the size to ${to}`}
          onPress={() => run(removeSpan(span.id))}
        />
      </View>
      <Words quiet style={{ fontSize: 13 }} testID="span-says">
        {spanInWords(span, read, units)}
      </Words>
    </View>
  );
}

/** To which other, and how far. */
function NewSpan({ feature, others }: { feature: Feature; others: readonly Feature[] }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const [to, setTo] = useState<string>();
  const [text, setText] = useState('');
  if (to === undefined || !others.some(({ id }) => id === to))
    return (
      <Choice
        name="A size to"
        named
        value={''}
        options={others.slice(0, 12).map(({ id, name }) => [id, name] as const)}
        onChange={setTo}
      />
    );
  const name = others.find(({ id }) => id === to)!.name;
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-start', gap: 4 }}>
      <WrittenField
        label={`From here to ${name}`}
        value={text}
        autoFocus
        onChange={setText}
        parse={(written) => parseSize(written, units.style)}
        echo={({ mm }) => formatLength(mm, units)}
        onSubmit={({ mm, plusMinus, guess }) => {
          jobs.getState().run(
            addSpan({
              id: newId(),
              from: feature.id,
              to,
              said: { value: mm, written: text.slice(0, 80) },
              ...(plusMinus === undefined ? {} : { plusMinus }),
              guess,
              role: 'use',
            }),
          );
          setText('');
          setTo(undefined);
        }}
        testID="span-length"
      />
      <RoundButton icon="close" size={40} name="No size" onPress={() => setTo(undefined)} />
    </View>
  );
}
