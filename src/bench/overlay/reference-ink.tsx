import { useMemo, useState } from 'react';
import type { FittedView } from '@/core/derive';
import { pieceAt } from '@/core/formats';
import { boxAround, pieceBounds, type Box, type Piece, type Vec } from '@/core/geometry';
import type { LoadedReference } from '@/store';
import type { Palette } from '@/ui/palette';
import { shownOn } from '../ground';
import { layingOf, type Laid, type Laying } from '../laying';
import { sheetUnder, type Viewport } from '../viewport';
import { pathData } from './path-data';
import { benchTransform } from './selection';

interface ReferenceInkProps {
  readonly references: readonly LoadedReference[];
  readonly fitted: FittedView;
  readonly viewport: Viewport;
  readonly palette: Palette;
}

/** Reference geometry of the view's plane in quiet ink: what is near the part that is seen, made anew when that part is left or zoomed. */
export function ReferenceInk({ references, fitted, viewport, palette }: ReferenceInkProps) {
  const shown = useMemo(() => (fitted.fit.scaled ? shownOn(references, fitted.ground) : []), [references, fitted]);
  const window = useWindow(viewport, fitted);
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const path = useMemo(
    () => (shown.length > 0 ? shown.map((one) => inkOf(one, window, fromPlane)).join('') : ''),
    [shown, window, fromPlane],
  );
  if (path === '') return null;
  return (
    <g
      transform={benchTransform(viewport)}
      fill="none"
      strokeLinejoin="round"
      strokeLinecap="round"
      data-testid="reference-ink"
      role="img"
      aria-label="Reference geometry">
      <path d={path} stroke={palette.halo} strokeWidth={3.2} strokeOpacity={0.6} vectorEffect="non-scaling-stroke" />
      <path d={path} stroke={palette.quiet} strokeWidth={1.3} vectorEffect="non-scaling-stroke" />
    </g>
  );
}

/** A part of the plane, and the zoom it was made for. */
interface Window {
  readonly box: Box;
  readonly zoom: number;
}

/** What is made reaches this far beyond what is seen, as a share of that. */
const BEYOND = 0.75;

/** The part of the plane that ink is made for: kept while what is seen stays inside and the zoom near. */
function useWindow(viewport: Viewport, fitted: FittedView): Window {
  const [last, keep] = useState<{
    readonly window: Window;
    readonly fitted: FittedView;
    readonly laid: Laid | undefined;
  }>();
  const { min, max } = seenOf(viewport, fitted);
  const stays =
    last?.fitted === fitted &&
    last.laid === viewport.laid &&
    viewport.zoom < 2 * last.window.zoom &&
    viewport.zoom > last.window.zoom / 2 &&
    min[0] >= last.window.box.min[0] &&
    min[1] >= last.window.box.min[1] &&
    max[0] <= last.window.box.max[0] &&
    max[1] <= last.window.box.max[1];
  if (stays) return last.window;
  const [w, h] = [(max[0] - min[0]) * BEYOND, (max[1] - min[1]) * BEYOND];
  const window: Window = { box: { min: [min[0] - w, min[1] - h], max: [max[0] + w, max[1] + h] }, zoom: viewport.zoom };
  keep({ window, fitted, laid: viewport.laid });
  return window;
}

function seenOf(viewport: Viewport, { fit }: FittedView): Box {
  const steps = [0, 0.5, 1];
  return boxAround(
    steps.flatMap((u) =>
      steps.map((v): Vec => fit.toPlane(sheetUnder(viewport, [u * viewport.width, v * viewport.height]))),
    ),
  );
}

/** Beyond so many pieces those that are smaller than a pixel of the screen are drawn once for each pixel. */
const MANY = 20_000;

function inkOf({ geometry, search }: LoadedReference, { box, zoom }: Window, fromPlane: Laying['fromPlane']): string {
  const found = search(box.min, box.max);
  const pieces = found.map((i) => pieceAt(geometry, i));
  return (found.length > MANY ? thinned(pieces, zoom, fromPlane) : pieces)
    .map((piece) => pathData([piece], false, fromPlane))
    .join('');
}

function thinned(pieces: readonly Piece[], zoom: number, fromPlane: Laying['fromPlane']): Piece[] {
  const taken = new Set<number>();
  return pieces.filter((piece) => {
    const { min, max } = pieceBounds(piece);
    const [a, b] = [fromPlane(min), fromPlane(max)];
    if (Math.hypot(b[0] - a[0], b[1] - a[1]) * zoom > 1.5) return true;
    const pixel = Math.round(a[0] * zoom) * 65_536 + Math.round(a[1] * zoom);
    return !taken.has(pixel) && taken.add(pixel);
  });
}
