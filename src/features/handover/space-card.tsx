import { useEffect, useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useJob } from '@/bench/use-session';
import { drawingInSpace, listStanding, sizeInSpace } from '@/core/derive';
import { spaceBoundsOf, type Drawing, type FileUnit, type SpaceSummary } from '@/core/formats';
import { MILLIMETRES, formatLength, type Units } from '@/core/units';
import { Card } from '@/ui/card';
import { Icon } from '@/ui/icon';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { fileWorker } from '@/workers';
import { safeFileName, saveFile } from './download';

interface Written {
  readonly of: Drawing;
  readonly unit: FileUnit;
  readonly text: string;
  readonly readBack: SpaceSummary;
}

/** What is drawn on all views that stand, each in its place in space, as one DXF that was read back first. */
export function SpaceCard({ fileName, unit }: { fileName: string; unit: FileUnit }) {
  const palette = usePalette();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const drawing = useMemo(() => drawingInSpace(job, derived), [job, derived]);
  const sizes = useMemo(() => sizeInSpace(job, derived), [job, derived]);
  const isPending = derived.arranged.pending.length > 0;
  const { written, refusal } = useWrittenInSpace(drawing.ok && !isPending ? drawing.value : undefined, unit);
  if (listStanding(job, derived).length < 2) return null;
  const says = drawing.ok ? refusal : drawing.code;
  const agrees = written !== undefined && drawing.ok && isSame(drawing.value, written.readBack, unit);
  return (
    <Card testID="space-card">
      <Words style={{ fontWeight: '700' }}>All views, standing in space</Words>
      {says ? (
        <Words testID="space-says">{sentenceFor(says)}</Words>
      ) : (
        <>
          <View style={{ flexDirection: 'row', gap: 6, alignItems: 'center' }}>
            {written ? <Icon name={agrees ? 'tick' : 'warn'} color={agrees ? palette.hedge : palette.berry} /> : null}
            <Words style={{ flex: 1 }} testID="space-says">
              {!written
                ? 'Writing the file and reading it back…'
                : agrees
                  ? 'The file agrees with the job.'
                  : 'The file does not say what the job says, so it is held back.'}
            </Words>
          </View>
          {written ? <SizesInSpace summary={written.readBack} unit={unit} sizes={sizes} /> : null}
          <Button
            mode="outlined"
            icon="handover"
            disabled={!agrees}
            onPress={() => written && saveFile(`${safeFileName(fileName)}-in-space.dxf`, written.text, 'image/vnd.dxf')}
            testID="save-space">
            Save DXF in space
          </Button>
        </>
      )}
    </Card>
  );
}

const NAMES = ['across', 'deep', 'up'] as const;

function SizesInSpace({
  summary: { size, corner, closed, openEnds },
  unit,
  sizes,
}: {
  summary: SpaceSummary;
  unit: FileUnit;
  /** As they are known, with their plus-minus. */
  sizes: ReturnType<typeof sizeInSpace>;
}) {
  const units: Units = unit === 'mm' ? MILLIMETRES : { style: 'inch', denominator: 16 };
  return (
    <View style={{ gap: 2 }}>
      {NAMES.map((name, axis) => (
        <View key={name} style={{ flexDirection: 'row', gap: 6 }}>
          <Words style={{ flex: 1 }}>{`Size ${name}, from`}</Words>
          <Figures testID={`space-${name}`}>
            {`${formatLength(size[axis]!, units, sizes[axis]?.sigma)}, ${formatLength(corner[axis]!, units)}`}
          </Figures>
        </View>
      ))}
      <Words quiet style={{ fontSize: 13 }} testID="space-counts">
        {`${closed} closed, ${openEnds === 0 ? 'no' : openEnds} open ends. Across runs to the right, deep away from the front, up is z.`}
      </Words>
    </View>
  );
}

/** Written and read back again whenever what is drawn or the unit changes. */
function useWrittenInSpace(drawing: Drawing | undefined, unit: FileUnit) {
  const [made, setMade] = useState<
    Written | { readonly of: Drawing; readonly unit: FileUnit; readonly refusal: string }
  >();
  useEffect(() => {
    if (!drawing) return;
    const stop = new AbortController();
    void fileWorker.call('writeInSpace', { drawing, unit }, { signal: stop.signal }).then((outcome) => {
      if (outcome.kind === 'done') setMade({ of: drawing, unit, ...outcome.value });
      else if (outcome.kind === 'failed') setMade({ of: drawing, unit, refusal: outcome.code });
    });
    return () => stop.abort();
  }, [drawing, unit]);
  const now = made?.of === drawing && made?.unit === unit ? made : undefined;
  return {
    written: now && 'text' in now ? now : undefined,
    refusal: now && 'refusal' in now ? now.refusal : undefined,
  };
}

/** Sizes to a thousandth of a millimetre. */
function isSame(drawing: Drawing, { unit, size, corner }: SpaceSummary, wanted: FileUnit): boolean {
  const said = spaceBoundsOf(drawing);
  const near = (a: readonly number[], b: readonly number[]) => a.every((value, i) => Math.abs(value - b[i]!) < 1e-3);
  return said !== undefined && unit === wanted && near(said.size, size) && near(said.corner, corner);
}
