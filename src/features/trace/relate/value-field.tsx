import { useState } from 'react';
import type { Result } from '@/core/basics';
import type { RelationKind } from '@/core/relate';
import { findUnitSlip, formatLength, parseAngle, parseLength, type Units } from '@/core/units';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

/** Sizes are typed; circles by their diameter, angles in degrees. */
const LABELS: Partial<Record<RelationKind, string>> = {
  length: 'Length',
  radius: 'Diameter',
  angle: 'Angle between',
  direction: 'Angle against level',
  distance: 'Distance',
  across: 'Across from zero',
  up: 'Up from zero',
};

export const isAngular = (kind: RelationKind): boolean => kind === 'angle' || kind === 'direction';

/** A relation's value for what somebody wrote: mm or radians. */
function parseValue(kind: RelationKind, units: Units): (text: string) => Result<number> {
  return (text) => {
    if (isAngular(kind)) return parseAngle(text);
    const read = parseLength(text, units.style);
    return read.ok ? { ok: true, value: kind === 'radius' ? read.value.mm / 2 : read.value.mm } : read;
  };
}

/** What a size that was typed may have been meant as, by what it is now: off by what a wrong unit or a slipped point makes of it. */
export function findSlipped(
  kind: RelationKind,
  typed: number,
  now: number | undefined,
  units: Units,
): string | undefined {
  if (isAngular(kind) || now === undefined || now <= 0) return undefined;
  const mm = kind === 'radius' ? 2 * typed : typed;
  const slip = mm > 0 ? findUnitSlip(mm, now) : undefined;
  return slip && `It is ${formatLength(now, units)} now. Did you mean ${slip.says}? If not, say it once more.`;
}

/** A field for the value of a relation; `written` is what stands in it at first, `now` how large it is (mm, circles by their diameter): what would be a slip against that is asked about before it is said. */
export function ValueField({
  kind,
  units,
  written = '',
  label = LABELS[kind]!,
  now,
  onSaid,
  testID,
}: {
  kind: RelationKind;
  units: Units;
  written?: string;
  label?: string;
  now?: number | undefined;
  onSaid: (value: number) => void;
  testID: string;
}) {
  const [text, setText] = useState(written);
  const [asked, setAsked] = useState<{ readonly value: number; readonly question: string }>();
  const say = (value: number) => {
    const question = asked?.value === value ? undefined : findSlipped(kind, value, now, units);
    setAsked(question === undefined ? undefined : { value, question });
    if (question === undefined) onSaid(value);
  };
  return (
    <>
      <WrittenField
        label={label}
        value={text}
        onChange={setText}
        parse={parseValue(kind, units)}
        onSubmit={say}
        testID={testID}
      />
      {asked ? (
        <Words testID={`${testID}-slip`} style={{ fontSize: 13.5, lineHeight: 18, fontWeight: '700' }}>
          {asked.question}
        </Words>
      ) : null}
    </>
  );
}
