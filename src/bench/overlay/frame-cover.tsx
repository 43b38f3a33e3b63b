import type { FittedView } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import type { Palette } from '@/ui/palette';
import { alongFrame } from '../laying';
import { toScreen, type Viewport } from '../viewport';

/** What lies outside a view's frame, covered with the bench; the picture under it is untouched. */
export function FrameCover({
  fitted,
  viewport,
  palette,
}: {
  fitted: FittedView;
  viewport: Viewport;
  palette: Palette;
}) {
  const { frame } = fitted.view;
  if (!frame) return null;
  const rim = alongFrame(frame).map((place): Vec => toScreen(viewport, place));
  const { width, height } = viewport;
  return (
    <path
      data-testid="frame-cover"
      d={`M-9 -9H${width + 9}V${height + 9}H-9ZM${rim.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}Z`}
      fill={palette.bench}
      fillRule="evenodd"
    />
  );
}
