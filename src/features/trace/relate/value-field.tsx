import { useState } from 'react';
import type { Result } from '@/core/basics';
import type { RelationKind } from '@/core/relate';
import { parseAngle, parseLength, type Units } from '@/core/units';
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

/** A field for the value of a relation; `written` is what stands in it at first. */
export function ValueField({
  kind,
  units,
  written = '',
  label = LABELS[kind]!,
  onSaid,
  testID,
}: {
  kind: RelationKind;
  units: Units;
  written?: string;
  label?: string;
  onSaid: (value: number) => void;
  testID: string;
}) {
  const [text, setText] = useState(written);
  return (
    <WrittenField
      label={label}
      value={text}
      onChange={setText}
      parse={parseValue(kind, units)}
      onSubmit={onSaid}
      testID={testID}
    />
  );
}
