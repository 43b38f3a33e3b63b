import type { FittedView } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import type { Palette } from '@/ui/palette';
import { toScreen, sheetUnder, type Viewport } from '../viewport';

interface GridProps {
  readonly step: number;
  readonly fitted: FittedView;
  readonly viewport: Viewport;
  readonly palette: Palette;
}

/** Nearer together than this they would be a tint, CSS px; more than this many would be too. */
const NEAREST = 7;
const MOST = 240;
/** Parts of which a line is drawn, so that it bends with the lens. */
const PARTS = 8;

/** A grid on the view plane, as far as it is seen, from zero. */
export function GridMarks({ step, fitted: { fit }, viewport, palette }: GridProps) {
  const corners = (
    [
      [0, 0],
      [viewport.width, 0],
      [viewport.width, viewport.height],
      [0, viewport.height],
    ] as const
  ).map((corner) => fit.toPlane(sheetUnder(viewport, corner)));
  const screen = (plane: Vec) => toScreen(viewport, fit.toSheet(plane));
  const middle: Vec = [0, 1].map(
    (axis) => corners.reduce((sum, corner) => sum + corner[axis]!, 0) / 4,
  ) as unknown as Vec;
  const [here, aside] = [screen(middle), screen([middle[0] + step, middle[1]])];
  if (!(Math.hypot(aside[0] - here[0], aside[1] - here[1]) >= NEAREST)) return null;
  const range = ([0, 1] as const).map(
    (axis) =>
      [Math.min(...corners.map((corner) => corner[axis])), Math.max(...corners.map((corner) => corner[axis]))] as const,
  );
  const lines = ([0, 1] as const).flatMap((axis) =>
    stepsIn(range[axis]!, step).map((at) => lineAt(axis, at, range[1 - axis]!)),
  );
  return (
    <path
      data-testid="grid"
      d={lines
        .map(
          (line) =>
            `M${line
              .map((place) =>
                screen(place)
                  .map((v) => v.toFixed(1))
                  .join(' '),
              )
              .join('L')}`,
        )
        .join('')}
      fill="none"
      stroke={palette.ink}
      strokeWidth={0.7}
      strokeOpacity={0.28}
    />
  );
}

function stepsIn([from, to]: readonly [number, number], step: number): readonly number[] {
  const count = Math.floor(to / step) - Math.ceil(from / step) + 1;
  return count > 0 && count <= MOST ? Array.from({ length: count }, (_, i) => (Math.ceil(from / step) + i) * step) : [];
}

function lineAt(axis: 0 | 1, at: number, [from, to]: readonly [number, number]): readonly Vec[] {
  return Array.from({ length: PARTS + 1 }, (_, i): Vec => {
    const along = from + ((to - from) * i) / PARTS;
    return axis === 0 ? [at, along] : [along, at];
  });
}
