import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { measuredIn } from '@/bench/measured';
import { startTool, type DimensionState } from '@/bench/tools';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { compare, findSpan, kindsFor } from '@/core/derive';
import { addDimension, changeDimension, removeDimension, type Dimension, type DimensionKind } from '@/core/job';
import { formatAngle, formatLength, formatSlope, parseAngle, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { newId } from '@/store';
import { useState } from 'react';
import { Card } from '@/ui/card';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

const KIND_WORDS: Readonly<Record<DimensionKind, string>> = { distance: 'Distance', across: 'Across', up: 'Up', length: 'Length', diameter: 'Diameter', radius: 'Radius', angle: 'Angle', slope: 'Slope' };
/** How far a dimension stands aside, as a share of its size. */
const ASIDE = 0.15;

/** Sizes that stay on the drawing: what is read between what, what it should be, and how the two agree. */
export function DimensionPanel({ state }: { state: DimensionState }) {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const { job, derived } = useJob((whole) => whole);
  if (!fitted) return null;
  const kinds = kindsFor(state.on, job.outlines, derived.shapes);
  const kept = job.dimensions.filter(({ view }) => view === fitted.view.id);
  const keep = (kind: DimensionKind) => {
    const size = findSpan({ kind, on: state.on }, job.outlines, derived.shapes)?.value ?? 0;
    jobs.getState().run(addDimension({ id: newId(), view: fitted.view.id, kind, on: state.on, aside: kind === 'angle' || kind === 'slope' ? 0 : ASIDE * size }));
    session.setTool(startTool('dimension'));
  };
  return (
    <>
      <Card width={300} testID="dimension-card">
        <Words quiet>{state.on.length === 0 ? 'Point at a line, an arc or a circle, or at two things one after the other.' : 'Keep one of these on the drawing, or point at a second thing.'}</Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
          {kinds.map((kind) => <Button key={kind} mode="outlined" compact onPress={() => keep(kind)} testID={`keep-${kind}`}>{KIND_WORDS[kind]}</Button>)}
        </View>
      </Card>
      {kept.length > 0 ? (
        <Card width={420} testID="sizes">
          <Words style={{ fontWeight: '700' }}>{`${kept.length} ${kept.length === 1 ? 'size' : 'sizes'} on the drawing`}</Words>
          {kept.map((dimension) => <SizeRow key={dimension.id} dimension={dimension} scaled={fitted.fit.scaled} />)}
        </Card>
      ) : null}
    </>
  );
}

/** One row of the table: measured, what it should be, and the difference. */
function SizeRow({ dimension, scaled }: { dimension: Dimension; scaled: boolean }) {
  const { jobs } = useDesk();
  const { job, derived } = useJob((whole) => whole);
  const units = useUnits();
  const palette = usePalette();
  const measured = measuredIn(job, derived, dimension);
  const isAngle = dimension.kind === 'angle' || dimension.kind === 'slope';
  const written = (value: number, sigma?: number) => (dimension.kind === 'slope' ? formatSlope(value, sigma) : isAngle ? formatAngle(value, sigma) : formatLength(value, units, sigma));
  const [text, setText] = useState(dimension.should === undefined ? '' : written(dimension.should));
  const run = jobs.getState().run;
  const compared = measured && dimension.should !== undefined ? compare(measured, dimension.should) : undefined;
  const parse = (said: string) => {
    if (isAngle) return parseAngle(said);
    const read = parseSize(said, units.style);
    return read.ok ? { ok: true as const, value: read.value.mm } : read;
  };
  return (
    <View style={{ borderTopWidth: 1, borderColor: palette.rule, paddingTop: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Words style={{ flex: 1 }}>{KIND_WORDS[dimension.kind]}</Words>
        <Figures testID="size-measured">{!measured ? 'gone' : isAngle || scaled ? written(measured.value, measured.sigma) : 'no scale yet'}</Figures>
        <RoundButton icon="trash" name={`Take the ${KIND_WORDS[dimension.kind].toLowerCase()} away`} size={36} onPress={() => run(removeDimension(dimension.id))} />
      </View>
      {scaled || isAngle ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <WrittenField label="Should be" value={text} onChange={setText} parse={parse} onSubmit={(should) => run(changeDimension({ ...dimension, should }))} testID="size-should" />
          {compared ? <Words testID="size-verdict" style={{ flex: 1, fontSize: 14, color: compared.isWithin ? palette.hedge : palette.berry }}>{compared.isWithin ? (Math.abs(compared.difference) < 5e-4 ? 'Is what it should be.' : `Agrees within its plus-minus (${signed(compared.difference, written)}).`) : `Off by ${signed(compared.difference, written)}.`}</Words> : null}
        </View>
      ) : null}
    </View>
  );
}

const signed = (value: number, written: (value: number) => string) => `${value < 0 ? '−' : '+'}${written(Math.abs(value))}`;
