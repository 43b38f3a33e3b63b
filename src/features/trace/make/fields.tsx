import { useState } from 'react';
import { View } from 'react-native';
import { done, refused, type Result } from '@/core/basics';
import { formatAngle, formatLength, parseAngle, parseLength, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { WrittenField } from '@/ui/written-field';

interface FieldProps {
  readonly label: string;
  readonly testID: string;
}

interface Written {
  readonly text: string;
  write(text: string): void;
  /** What was typed holds: what holds is shown again, also when it is taken back later. */
  settle(): void;
}

/** Text that is typed over what holds now, and is what holds again when that changes elsewhere. */
function useWritten(shown: string): Written {
  const [draft, setDraft] = useState<{ readonly of: string; readonly text: string }>();
  return {
    text: draft?.of === shown ? draft.text : shown,
    write: (text) => setDraft({ of: shown, text }),
    settle: () => setDraft(undefined),
  };
}

/** A length that holds as soon as Enter is pressed, empty where there is none yet; `signed` ones may be nothing or run the other way. */
export function LengthField({
  label,
  mm,
  plusMinus,
  onChange,
  testID,
  signed = false,
}: FieldProps & {
  mm: number | undefined;
  /** Two sigma, where they may be typed along. */
  plusMinus?: number | undefined;
  onChange: (mm: number, plusMinus: number | undefined) => void;
  signed?: boolean;
}) {
  const units = useUnits();
  const { text, write, settle } = useWritten(
    mm === undefined ? '' : formatLength(mm, units, plusMinus === undefined ? undefined : plusMinus / 2),
  );
  const parse = (written: string) => (signed ? parseLength : parseSize)(written, units.style);
  return (
    <WrittenField
      label={label}
      value={text}
      onChange={write}
      parse={parse}
      onSubmit={(said) => (settle(), onChange(said.mm, said.plusMinus))}
      testID={testID}
    />
  );
}

export function AngleField({
  label,
  radians,
  onChange,
  testID,
}: FieldProps & { radians: number; onChange: (radians: number) => void }) {
  const { text, write, settle } = useWritten(formatAngle(radians));
  return (
    <WrittenField
      label={label}
      value={text}
      onChange={write}
      parse={parseAngle}
      onSubmit={(said) => (settle(), onChange(said))}
      testID={testID}
    />
  );
}

/** A name that is not empty. */
export const parseName = (text: string): Result<string> =>
  text.trim() === '' ? refused('name-empty') : done(text.trim().slice(0, 200));

/** A name that holds when Enter is pressed; `parse` where it may be empty. */
export function NameField({
  label,
  name,
  onChange,
  testID,
  parse = parseName,
}: FieldProps & { name: string; onChange: (name: string) => void; parse?: (text: string) => Result<string> }) {
  const { text, write, settle } = useWritten(name);
  return (
    <WrittenField
      label={label}
      value={text}
      onChange={write}
      parse={parse}
      onSubmit={(said) => (settle(), onChange(said))}
      testID={testID}
    />
  );
}

const MOST = 500;

function parseCount(text: string): Result<number> {
  const count = Number(text.trim());
  return Number.isInteger(count) && count >= 1 && count <= MOST
    ? done(count)
    : refused('count-not-understood', { most: MOST });
}

export function CountField({
  label,
  count,
  onChange,
  testID,
}: FieldProps & { count: number; onChange: (count: number) => void }) {
  const { text, write, settle } = useWritten(String(count));
  return (
    <WrittenField
      label={label}
      value={text}
      onChange={write}
      parse={parseCount}
      onSubmit={(said) => (settle(), onChange(said))}
      testID={testID}
    />
  );
}

/** Amounts across and up, one of which may be left out; they hold when Enter is pressed. */
export function ByFields({
  label,
  onSubmit,
  testID,
}: {
  label: string;
  onSubmit: (by: readonly [number, number]) => void;
  testID: string;
}) {
  const units = useUnits();
  const [written, setWritten] = useState<readonly [string, string]>(['', '']);
  const parse = (text: string) => parseLength(text, units.style);
  const submit = () => {
    const [x, y] = written.map((text) => (text.trim() === '' ? done({ mm: 0 }) : parse(text)));
    if (!x!.ok || !y!.ok || (x!.value.mm === 0 && y!.value.mm === 0)) return;
    onSubmit([x!.value.mm, y!.value.mm]);
    setWritten(['', '']);
  };
  return (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      <WrittenField
        label={`${label} across`}
        value={written[0]}
        onChange={(text) => setWritten([text, written[1]])}
        parse={parse}
        onSubmit={submit}
        testID={`${testID}-across`}
      />
      <WrittenField
        label={`${label} up`}
        value={written[1]}
        onChange={(text) => setWritten([written[0], text])}
        parse={parse}
        onSubmit={submit}
        testID={`${testID}-up`}
      />
    </View>
  );
}
