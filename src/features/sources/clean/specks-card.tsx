import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import { done, refused, type Result } from '@/core/basics';
import { scaleInMiddle } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { setCleaning } from '@/core/job';
import type { Cleaning } from '@/core/raster';
import { parseLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { activeSteps, newId, openPicture, repository, shownPicture } from '@/store';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { pictureWorker } from '@/workers';

const LARGEST = 64;

/** A size of specks in pixels, or as a length where the view has a scale. Result in sheet px. */
function parseSpeck(text: string, { fit }: FittedView): Result<number> {
  const plain = /^\s*(\d+(?:[.,]\d+)?)\s*(?:px)?\s*$/i.exec(text);
  const length = plain ? undefined : parseLength(text, 'mm');
  if (length && !length.ok) return length;
  if (length && !fit.scaled) return refused('specks-without-scale');
  const size = plain ? Number(plain[1]!.replace(',', '.')) : length!.value.mm * scaleInMiddle(fit);
  return size >= 1 && size <= LARGEST ? done(size) : refused('specks-size', { most: LARGEST });
}

/** Specks up to a size: how many would go is told before anything does. */
export function SpecksCard({ fitted }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const [text, setText] = useState('');
  const { view, sheet } = fitted;
  const read = text.trim() === '' ? undefined : parseSpeck(text, fitted);
  const size = read?.ok ? Number(read.value.toFixed(2)) : undefined;
  const before = activeSteps(view.cleaning);
  const { data: count, isFetching } = useQuery({
    queryKey: ['specks', shownPicture(view, sheet).key, size],
    enabled: size !== undefined,
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      countOf(shownPicture(view, sheet).source, [...before, { kind: 'specks', size: size! }], signal),
  });
  const remove = () => {
    if (size === undefined) return;
    jobs
      .getState()
      .run(
        setCleaning(
          view.id,
          [...(view.cleaning ?? []), { id: newId(), on: true, kind: 'specks', size }],
          'specks-removed',
        ),
      );
    setText('');
  };
  const label = fitted.fit.scaled
    ? `Specks up to (px, or ${units.style === 'mm' ? 'mm' : 'a length'})`
    : 'Specks up to (px)';
  return (
    <Card testID="specks-card">
      <WrittenField
        label={label}
        value={text}
        onChange={setText}
        parse={(typed) => parseSpeck(typed, fitted)}
        onSubmit={remove}
        testID="specks-field"
      />
      <Words testID="specks-count" quiet style={{ fontSize: 13.5 }}>
        {size === undefined
          ? 'Dots and short dashes of the drawing are specks too: look at the count.'
          : countInWords(count, isFetching)}
      </Words>
      <Button mode="outlined" disabled={!count} onPress={remove} testID="remove-specks">
        {count ? `Take ${count} away` : 'Take them away'}
      </Button>
    </Card>
  );
}

function countInWords(count: number | null | undefined, isFetching: boolean): string {
  if (isFetching) return 'Counting …';
  if (count === null || count === undefined) return 'They could not be counted.';
  return count === 0 ? 'There are none of that size.' : `${count} would go.`;
}

async function countOf(hash: string, steps: readonly Cleaning[], signal: AbortSignal): Promise<number | null> {
  if (!(await openPicture(hash, repository))) return null;
  const counted = await pictureWorker.call('specks', { hash, steps }, { signal });
  return counted.kind === 'done' ? (counted.value ?? null) : null;
}
