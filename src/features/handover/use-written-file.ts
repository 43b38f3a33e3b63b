import { useEffect, useMemo, useState } from 'react';
import { useFitted, useJob } from '@/bench/use-session';
import { countMeantEnds, drawingOf } from '@/core/derive';
import { distance } from '@/core/geometry';
import { summarize, type Drawing, type FileSummary, type FileUnit } from '@/core/formats';
import { fileWorker, type DrawingFormat, type WrittenDrawing } from '@/workers';

export type WrittenFile =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'refused'; readonly code: string }
  /** `meantEnds`: so many of its ends are open as they should be. */
  | {
      readonly kind: 'ready';
      readonly file: WrittenDrawing;
      readonly job: FileSummary;
      readonly agrees: boolean;
      readonly meantEnds: number;
    };

/** Writes the file whenever the choice or the job changes, reads it back, and holds it against what the job says. */
export function useWrittenFile(
  format: DrawingFormat,
  unit: FileUnit,
  only: readonly string[] | undefined,
): WrittenFile {
  const fitted = useFitted();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const plane = fitted?.view.plane;
  const { drawing, meantEnds } = useMemo(() => {
    const choice = plane && { plane, only };
    return {
      drawing: choice ? drawingOf(job, derived, choice) : undefined,
      meantEnds: choice ? countMeantEnds(job, derived, choice) : 0,
    };
  }, [job, derived, plane, only]);
  const [made, setMade] = useState<{ readonly of: unknown; readonly written: WrittenFile }>();
  // What a file is made of; a new one makes what was written for the old one stale by itself.
  const of = useMemo(() => ({ drawing, format, unit, meantEnds }), [drawing, format, unit, meantEnds]);
  useEffect(() => {
    if (!of.drawing?.ok) return;
    const drawn = of.drawing.value;
    const stop = new AbortController();
    void fileWorker
      .call('writeDrawing', { drawing: drawn, format: of.format, unit: of.unit }, { signal: stop.signal })
      .then((outcome) => {
        if (outcome.kind !== 'cancelled')
          setMade({
            of,
            written:
              outcome.kind === 'failed'
                ? { kind: 'refused', code: outcome.code }
                : held(drawn, of.unit, outcome.value, of.meantEnds),
          });
      });
    return () => stop.abort();
  }, [of]);
  if (fitted?.isPending) return { kind: 'waiting' };
  if (drawing && !drawing.ok) return { kind: 'refused', code: drawing.code };
  return made?.of === of ? made.written : { kind: 'waiting' };
}

/** The written file held against what the job says of itself. */
function held(drawing: Drawing, unit: FileUnit, file: WrittenDrawing, meantEnds: number): WrittenFile {
  const paths = drawing.layers.flatMap((layer) => layer.paths.map((path) => ({ ...path, layer: layer.name })));
  const job = summarize({ unit, paths });
  return { kind: 'ready', file, job, agrees: isSame(job, file.readBack), meantEnds };
}

/** Sizes to a thousandth of a millimetre, counts exactly. */
function isSame(a: FileSummary, b: FileSummary): boolean {
  return (
    a.unit === b.unit &&
    distance(a.corner, b.corner) < 1e-3 &&
    Math.abs(a.width - b.width) < 1e-3 &&
    Math.abs(a.height - b.height) < 1e-3 &&
    a.closed === b.closed &&
    a.openEnds === b.openEnds
  );
}
