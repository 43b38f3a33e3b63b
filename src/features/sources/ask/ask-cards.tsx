import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { setAsked, setLift, type Asked } from '@/core/job';
import { parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { saveFile, safeFileName } from '@/features/handover/download';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { Icon } from '@/ui/icon';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { messageFor, REQUESTS, type AskedFor } from './request';

const KINDS = Object.entries(REQUESTS).map(([kind, { title }]) => [kind as AskedFor, title] as const);

/** Begins to point at a size that somebody sent. */
export type PointAtAsked = (kind: 'length' | 'circle', what: string, written: string) => void;

/** A request to whoever is near the thing: how to photograph it, what to measure, and the answers as they come back. */
export function AskCards({ onPointAt }: { onPointAt: PointAtAsked }) {
  const { jobs } = useDesk();
  const job = useJob((state) => state.job);
  const [kind, setKind] = useState<AskedFor>('part');
  const asked = job.asked ?? [];
  const { photos, sizes } = REQUESTS[kind];
  const put = (next: readonly Asked[], code = 'asked-set') => jobs.getState().run(setAsked(next, code));
  const message = messageFor(
    { name: job.name, asked: asked.length > 0 ? asked : sizes.map((size) => ({ ...size, id: size.what })) },
    photos,
  );
  return (
    <>
      <Card testID="ask-card">
        <Words style={{ fontWeight: '700' }}>Ask whoever is near it</Words>
        <Choice name="What it is" value={kind} options={KINDS} onChange={setKind} />
        {photos.map((line) => (
          <Words key={line} style={{ fontSize: 13.5, lineHeight: 18 }}>{`• ${line}`}</Words>
        ))}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
          <Button
            mode="outlined"
            onPress={() =>
              put([
                ...asked,
                ...sizes
                  .filter(({ what }) => !asked.some((one) => one.what === what))
                  .map((size) => ({ ...size, id: newId() })),
              ])
            }
            testID="ask-usual">
            List the usual sizes
          </Button>
          <Button mode="outlined" onPress={() => void send(job.name, message)} testID="ask-send">
            Send or save it
          </Button>
        </View>
      </Card>
      <AskedList asked={asked} onPut={put} onPointAt={onPointAt} />
    </>
  );
}

/** To another program of the device where it can, else as a text file. */
async function send(name: string, text: string): Promise<void> {
  if (
    navigator.share &&
    (await navigator.share({ title: name, text }).then(
      () => true,
      (problem: DOMException) => problem.name === 'AbortError',
    ))
  )
    return;
  saveFile(`${safeFileName(name)}, please measure.txt`, text, 'text/plain');
}

function AskedList({
  asked,
  onPut,
  onPointAt,
}: {
  asked: readonly Asked[];
  onPut: (next: readonly Asked[], code?: string) => void;
  onPointAt: PointAtAsked;
}) {
  const palette = usePalette();
  const [what, setWhat] = useState('');
  const add = () => {
    if (what.trim() === '') return;
    onPut([...asked, { id: newId(), kind: 'length', what: what.trim() }]);
    setWhat('');
  };
  return (
    <Card testID="asked-list">
      <Words style={{ fontWeight: '700' }}>
        {asked.length === 0
          ? 'Nothing is asked for yet'
          : `${asked.filter(({ answer }) => answer).length} of ${asked.length} answered`}
      </Words>
      {asked.map((one, i) => (
        <AskedRow
          key={one.id}
          asked={one}
          onChange={(next, code) => onPut(asked.with(i, next), code)}
          onRemove={() => onPut(asked.filter(({ id }) => id !== one.id))}
          onPointAt={onPointAt}
        />
      ))}
      <View style={{ flexDirection: 'row', gap: 6, alignItems: 'center' }}>
        <TextInput
          mode="outlined"
          dense
          label="Another size"
          accessibilityLabel="Another size to ask for"
          value={what}
          maxLength={120}
          onChangeText={setWhat}
          onSubmitEditing={add}
          style={{ flex: 1, height: 42, backgroundColor: palette.paper }}
          testID="ask-other"
        />
        <RoundButton icon="plus" name="Ask for it" size={44} onPress={add} />
      </View>
    </Card>
  );
}

interface AskedRowProps {
  readonly asked: Asked;
  readonly onChange: (next: Asked, code?: string) => void;
  readonly onRemove: () => void;
  readonly onPointAt: PointAtAsked;
}

/** A size that was asked for: its answer when it comes, and what is made of it. */
function AskedRow({ asked, onChange, onRemove, onPointAt }: AskedRowProps) {
  const palette = usePalette();
  const { jobs } = useDesk();
  const fitted = useFitted();
  const units = useUnits();
  const [text, setText] = useState(asked.answer?.written ?? '');
  const { answer, kind, what } = asked;
  const use = () => {
    if (!answer || !fitted) return;
    if (kind === 'thickness') jobs.getState().run(setLift(fitted.view.id, answer.value));
    else onPointAt(kind === 'diameter' ? 'circle' : 'length', what, answer.written);
  };
  return (
    <View style={{ borderTopWidth: 1, borderTopColor: palette.rule, paddingTop: 4, gap: 2 }} testID="asked-row">
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <Icon name={answer ? 'tick' : 'seek'} color={answer ? palette.hedge : palette.quiet} size={18} />
        <Words style={{ flex: 1, fontSize: 14 }}>{what}</Words>
        <RoundButton icon="trash" name={`Do not ask for ${what}`} size={36} onPress={onRemove} />
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'flex-start', gap: 6 }}>
        <WrittenField
          label="What came back"
          value={text}
          onChange={setText}
          parse={(typed) => parseSize(typed, units.style)}
          onSubmit={({ mm }) => onChange({ ...asked, answer: { value: mm, written: text.trim() } }, 'asked-answered')}
          testID="answer-field"
        />
        {answer && fitted && kind !== 'depth' ? (
          <Button compact style={{ marginTop: 4 }} onPress={use} testID="use-answer">
            {kind === 'thickness' ? 'Height of what is traced' : 'Point at it'}
          </Button>
        ) : null}
      </View>
    </View>
  );
}
