import { useState } from 'react';
import { View } from 'react-native';
import { measuredIn } from '@/bench/measured';
import { useDesk, useJob } from '@/bench/use-session';
import { compare, type Compared } from '@/core/derive';
import { changeDimension, removeDimension, type Dimension, type DimensionKind } from '@/core/job';
import { formatAngle, formatLength, formatSlope, parseAngle, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { UsualRow } from './usual-row';

export const DIMENSION_WORDS: Readonly<Record<DimensionKind, string>> = {
  distance: 'Distance',
  across: 'Across',
  up: 'Up',
  length: 'Length',
  diameter: 'Diameter',
  radius: 'Radius',
  angle: 'Angle',
  slope: 'Slope',
  gap: 'Gap between outlines',
};

/** One row of the table of sizes: measured, what it should be, and the difference. */
export function SizeRow({ dimension, scaled }: { dimension: Dimension; scaled: boolean }) {
  const { jobs } = useDesk();
  const { job, derived } = useJob((whole) => whole);
  const units = useUnits();
  const palette = usePalette();
  const measured = measuredIn(job, derived, dimension);
  const isAngle = dimension.kind === 'angle' || dimension.kind === 'slope';
  const written = (value: number, sigma?: number) =>
    dimension.kind === 'slope'
      ? formatSlope(value, sigma)
      : isAngle
        ? formatAngle(value, sigma)
        : formatLength(value, units, sigma);
  const [text, setText] = useState(dimension.should === undefined ? '' : written(dimension.should));
  const run = jobs.getState().run;
  const compared =
    measured && dimension.should !== undefined ? compare(measured, dimension.should, dimension.least) : undefined;
  const parse = (said: string) => {
    if (isAngle) return parseAngle(said);
    const read = parseSize(said, units.style);
    return read.ok ? { ok: true as const, value: read.value.mm } : read;
  };
  return (
    <View style={{ borderTopWidth: 1, borderColor: palette.rule, paddingTop: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Words style={{ flex: 1 }}>{DIMENSION_WORDS[dimension.kind]}</Words>
        <Figures testID="size-measured">
          {!measured ? 'gone' : isAngle || scaled ? written(measured.value, measured.sigma) : 'no scale yet'}
        </Figures>
        <RoundButton
          icon="trash"
          name={`Take the ${DIMENSION_WORDS[dimension.kind].toLowerCase()} away`}
          size={36}
          onPress={() => run(removeDimension(dimension.id))}
        />
      </View>
      {scaled || isAngle ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <WrittenField
            label={dimension.kind === 'gap' ? 'At least' : 'Should be'}
            value={text}
            onChange={setText}
            parse={parse}
            onSubmit={(should) =>
              run(changeDimension({ ...dimension, should, ...(dimension.kind === 'gap' ? { least: true } : {}) }))
            }
            testID="size-should"
          />
          {compared ? (
            <Words
              testID="size-verdict"
              style={{ flex: 1, fontSize: 14, color: compared.isWithin ? palette.hedge : palette.berry }}>
              {verdictOf(compared, dimension.least ?? false, written)}
            </Words>
          ) : null}
        </View>
      ) : null}
      {scaled && !isAngle && measured ? (
        <UsualRow
          measured={measured}
          usual={dimension.usual}
          units={units}
          onChange={(usual) => run(changeDimension({ ...dimension, usual }))}
        />
      ) : null}
    </View>
  );
}

function verdictOf({ difference, isWithin }: Compared, least: boolean, written: (value: number) => string): string {
  if (least && difference >= 0) return `Keeps it, with ${written(difference)} to spare.`;
  if (least)
    return isWithin
      ? `Too near to tell: ${written(-difference)} short, within its plus-minus.`
      : `Too near by ${written(-difference)}.`;
  if (!isWithin) return `Off by ${signed(difference, written)}.`;
  return Math.abs(difference) < 5e-4
    ? 'Is what it should be.'
    : `Agrees within its plus-minus (${signed(difference, written)}).`;
}

const signed = (value: number, written: (value: number) => string) =>
  `${value < 0 ? '−' : '+'}${written(Math.abs(value))}`;
