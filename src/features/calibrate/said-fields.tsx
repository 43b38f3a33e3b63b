import { useMemo, useState, type RefObject } from 'react';
import type { TextInput } from 'react-native';
import type { SaidSizes } from '@/bench/tools';
import type { Measured } from '@/core/adjust';
import { done, type Result } from '@/core/basics';
import type { Evidence, EvidenceKind, SaidName } from '@/core/job';
import { formatAngle, formatLength, parseAngle, parseLength, parseSize, type Units } from '@/core/units';
import { WrittenField } from '@/ui/written-field';
import { chooseCandidate, isUnsure } from '@/core/calibrate';
import { SIZE_WORDS } from './kinds';

type Written = Partial<Record<SaidName, string>>;

interface ReadSize {
  readonly value: number;
  readonly plusMinus: number | undefined;
  readonly guess: boolean;
}

const DEGREES = 180 / Math.PI;

/** One written size: an angle in degrees, a place that may lie left of zero, or a length with what is said about its doubt. */
export function readSize(name: SaidName, text: string, units: Units, comesTo?: Measured): Result<ReadSize> {
  if (name === 'length' && isUnsure(text)) return chooseCandidate(text, (part) => readSize(name, part, units), comesTo);
  if (name === 'angle') {
    const angle = parseAngle(text);
    return angle.ok ? done({ value: angle.value * DEGREES, plusMinus: undefined, guess: false }) : angle;
  }
  if (name === 'across' || name === 'up') {
    const place = parseLength(text, units.style);
    return place.ok
      ? done({ value: place.value.mm, plusMinus: place.value.plusMinus, guess: place.value.guess })
      : place;
  }
  const size = parseSize(text, units.style);
  return size.ok ? done({ value: size.value.mm, plusMinus: size.value.plusMinus, guess: size.value.guess }) : size;
}

/** All the sizes of a piece: what was left empty stays open where it may. */
export function readSizes(
  kind: EvidenceKind,
  names: readonly SaidName[],
  optional: boolean,
  written: Written,
  units: Units,
  comesTo?: Measured,
): Result<SaidSizes> {
  const sizes: { [name in SaidName]?: { value: number; written: string } } = {};
  let [plusMinus, guess]: [number | undefined, boolean] = [undefined, false];
  for (const name of names) {
    const text = (written[name] ?? '').trim();
    if (text === '' && optional) continue;
    const read = readSize(name, text, units, comesTo);
    if (!read.ok) return read;
    sizes[name] = { value: read.value.value, written: isUnsure(text) ? formatLength(read.value.value, units) : text };
    plusMinus = read.value.plusMinus ?? plusMinus;
    guess = guess || read.value.guess;
  }
  if (kind === 'level' && sizes.angle === undefined) sizes.angle = { value: 0, written: '0' };
  return done({ sizes: sizes as Evidence['said'], plusMinus, guess });
}

export function echoOf(name: SaidName, { value, plusMinus, guess }: ReadSize, units: Units): string {
  if (name === 'angle') return formatAngle(value / DEGREES);
  const doubt = plusMinus ? ` ±${formatLength(plusMinus, units)}` : guess ? ', taken as ±3 %' : '';
  return `${guess ? 'about ' : ''}${formatLength(value, units)}${doubt}`;
}

interface SaidFieldProps {
  readonly name: SaidName;
  readonly value: string;
  readonly units: Units;
  readonly onChange: (text: string) => void;
  readonly onSubmit: () => void;
  readonly inputRef?: RefObject<TextInput | null> | undefined;
  /** What the rest of the evidence makes of it. */
  readonly comesTo?: Measured | undefined;
  readonly testID: string;
}

export function SaidField({ name, value, units, onChange, onSubmit, inputRef, comesTo, testID }: SaidFieldProps) {
  return (
    <WrittenField
      label={SIZE_WORDS[name]}
      value={value}
      onChange={onChange}
      parse={(text) => readSize(name, text, units, comesTo)}
      echo={(read: ReadSize) => echoOf(name, read, units)}
      onSubmit={onSubmit}
      testID={testID}
      {...(inputRef ? { inputRef } : {})}
    />
  );
}

/** The written sizes of a piece as they are being typed, and what they come to. */
export function useWritten(
  kind: EvidenceKind,
  names: readonly SaidName[],
  optional: boolean,
  start: Written,
  units: Units,
  comesTo?: Measured,
) {
  const [written, setWritten] = useState<Written>(start);
  // What was changed elsewhere (undone, say) stands in the fields at once.
  const said = JSON.stringify(start);
  const [shown, setShown] = useState(said);
  if (shown !== said) {
    setShown(said);
    setWritten(start);
  }
  const read = useMemo(
    () => readSizes(kind, names, optional, written, units, comesTo),
    [kind, names, optional, written, units, comesTo],
  );
  return {
    written,
    read,
    write: (name: SaidName) => (text: string) => setWritten((before) => ({ ...before, [name]: text })),
  };
}
