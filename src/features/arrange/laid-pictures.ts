import { useQueries } from '@tanstack/react-query';
import { useLayoutEffect, useRef } from 'react';
import { alongFrame } from '@/bench/laying';
import { squaredFrame, type Fit, type SquaredFrame } from '@/core/calibrate';
import type { FoldedView, FittedView } from '@/core/derive';
import { boxAround, type Vec } from '@/core/geometry';
import { openShown, repository, shownPicture } from '@/store';
import { pictureWorker } from '@/workers';

/** Pixels of all pictures that are looked at together: about so much is seen of a screen, twice over. */
const MOST_PIXELS = 8e6;
/** Of one of them at the most. */
const MOST_OF_ONE = 2e6;

/** A view's picture squared up, and how it lies on the view's plane. */
export interface SquaredPicture {
  readonly png: Blob;
  readonly frame: SquaredFrame;
}

const named = new WeakMap<Fit, number>();
let count = 0;

/** The same fit has the same name. */
function nameOf(fit: Fit): number {
  const known = named.get(fit) ?? ++count;
  named.set(fit, known);
  return known;
}

/** The frame on the plane of what a view shows of its sheet. */
function frameOf(
  { fit, view: { frame } }: FittedView,
  most: number,
): { readonly frame: SquaredFrame; readonly cut?: readonly Vec[] } {
  const whole = squaredFrame(fit, most);
  if (!frame) return { frame: whole };
  const rim = alongFrame(frame).map(fit.toPlane);
  const { min, max } = boxAround(rim);
  const [wide, high] = [max[0] - min[0], max[1] - min[1]];
  const native = squaredFrame(fit, Infinity).perMm;
  const perMm = Math.min(native, Math.sqrt(most / (wide * high)));
  return {
    frame: { corner: [min[0], max[1]], perMm, width: Math.ceil(wide * perMm), height: Math.ceil(high * perMm) },
    cut: rim.map(([x, y]): Vec => [(x - min[0]) * perMm, (max[1] - y) * perMm]),
  };
}

/** The pictures of views, squared up by their fits and cut to their frames, as they come. */
export function useLaidPictures(views: readonly FoldedView[]): ReadonlyMap<string, SquaredPicture> {
  const shown = [...views].map(({ fitted }) => fitted).filter(({ sheet, view }) => sheet.bytes > 0 && !view.hidden);
  const most = Math.min(MOST_OF_ONE, MOST_PIXELS / Math.max(1, shown.length));
  const found = useQueries({
    queries: shown.map((fitted) => ({
      queryKey: ['laid', shownPicture(fitted.view, fitted.sheet).key, nameOf(fitted.fit), fitted.view.frame, most],
      queryFn: ({ signal }: { signal: AbortSignal }) => laidPicture(fitted, most, signal),
      staleTime: Infinity,
      gcTime: 60_000,
    })),
  });
  return new Map(
    shown.flatMap((fitted, i) => {
      const picture = found[i]?.data;
      return picture ? [[fitted.source.id, picture] as const] : [];
    }),
  );
}

async function laidPicture(fitted: FittedView, most: number, signal: AbortSignal): Promise<SquaredPicture | null> {
  const picture = shownPicture(fitted.view, fitted.sheet);
  if (!(await openShown(picture, repository, { signal }))) return null;
  const { frame, cut } = frameOf(fitted, most);
  const request = { hash: picture.key, map: fitted.fit.map, frame, ...(cut ? { cut } : {}) };
  const made = await pictureWorker.call('straighten', request, { signal });
  if (made.kind !== 'done' || !made.value) return null;
  return { png: new Blob([made.value], { type: 'image/png' }), frame };
}

/** For the ref of an image: it shows a picture for as long as that is the one. */
export function useShown(png: Blob | undefined) {
  const image = useRef<HTMLImageElement>(null);
  useLayoutEffect(() => {
    const shown = image.current;
    if (!png || !shown) return;
    const address = URL.createObjectURL(png);
    shown.src = address;
    return () => URL.revokeObjectURL(address);
  }, [png]);
  return image;
}
