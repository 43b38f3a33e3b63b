import { useEffect, useMemo, useState } from 'react';
import { useFitted, useJob } from '@/bench/use-session';
import { drawingOf } from '@/core/derive';
import { summarize, type FileSummary, type FileUnit } from '@/core/formats';
import { fileWorker, type DrawingFormat, type WrittenDrawing } from '@/workers';

export type WrittenFile =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'refused'; readonly code: string }
  | { readonly kind: 'ready'; readonly file: WrittenDrawing; readonly job: FileSummary; readonly agrees: boolean };

/** Writes the file whenever the choice or the job changes, reads it back, and holds it against what the job says. */
export function useWrittenFile(format: DrawingFormat, unit: FileUnit, only: readonly string[] | undefined): WrittenFile {
  const fitted = useFitted();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const viewId = fitted?.view.id;
  const drawing = useMemo(() => (viewId ? drawingOf(job, derived, { view: viewId, only }) : undefined), [job, derived, viewId, only]);
  const [written, setWritten] = useState<WrittenFile>({ kind: 'waiting' });
  useEffect(() => {
    if (!drawing) return;
    if (!drawing.ok) return setWritten({ kind: 'refused', code: drawing.code });
    const stop = new AbortController();
    setWritten({ kind: 'waiting' });
    void fileWorker.call('writeDrawing', { drawing: drawing.value, format, unit }, { signal: stop.signal }).then((outcome) => {
      if (outcome.kind === 'cancelled') return;
      if (outcome.kind === 'failed') return setWritten({ kind: 'refused', code: outcome.code });
      const paths = drawing.value.layers.flatMap((layer) => layer.paths.map((path) => ({ ...path, layer: layer.name })));
      const own = summarize({ unit, paths });
      setWritten({ kind: 'ready', file: outcome.value, job: own, agrees: isSame(own, outcome.value.readBack) });
    });
    return () => stop.abort();
  }, [drawing, format, unit]);
  return written;
}

/** Sizes to a thousandth of a millimetre, counts exactly. */
function isSame(a: FileSummary, b: FileSummary): boolean {
  return a.unit === b.unit && Math.abs(a.width - b.width) < 1e-3 && Math.abs(a.height - b.height) < 1e-3 && a.closed === b.closed && a.openEnds === b.openEnds;
}
