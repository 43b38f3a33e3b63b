import { findGuideLine } from '@/core/outline';
import type { FittedView } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import type { Job } from '@/core/job';
import type { Palette } from '@/ui/palette';
import { acrossFrom } from '../laying';
import { toScreen, type Viewport } from '../viewport';

interface MarksProps {
  readonly job: Job;
  readonly fitted: FittedView;
  readonly viewport: Viewport;
  readonly palette: Palette;
}

/** Guides as long dashes across the view, cut to what is seen so that single precision is enough for the screen. */
export function GuideMarks({ job, fitted, viewport, palette }: MarksProps) {
  const reach =
    3 *
    Math.max(
      ...[
        [0, 0],
        [fitted.sheet.width, fitted.sheet.height],
      ].map((p) => Math.hypot(...fitted.placing.toPlane(p as unknown as Vec))),
    );
  return (
    <g fill="none">
      {job.guides
        .filter((guide) => guide.plane === fitted.view.plane)
        .map((guide) => {
          const line = findGuideLine(guide, fitted.placing, reach);
          const seen =
            line &&
            clipped(
              toScreen(viewport, fitted.fit.toSheet(line.a)),
              toScreen(viewport, fitted.fit.toSheet(line.b)),
              viewport,
            );
          if (!seen) return null;
          const d = `M${seen[0][0]} ${seen[0][1]}L${seen[1][0]} ${seen[1][1]}`;
          return (
            <g key={guide.id} data-testid={`guide-${guide.id}`}>
              <path d={d} stroke={palette.halo} strokeWidth={3.4} strokeOpacity={0.7} />
              <path d={d} stroke={palette.straw} strokeWidth={1.3} strokeDasharray="18 7" />
            </g>
          );
        })}
    </g>
  );
}

/** Liang and Barsky's clipping of a segment to the bench (A new concept and method for line clipping, 1984). */
export function clipped(a: Vec, b: Vec, { width, height }: Viewport): readonly [Vec, Vec] | undefined {
  let [from, to] = [0, 1];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  for (const [p, q] of [
    [-dx, a[0]],
    [dx, width - a[0]],
    [-dy, a[1]],
    [dy, height - a[1]],
  ] as const) {
    if (p === 0) {
      if (q < 0) return undefined;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  return from < to
    ? [
        [a[0] + from * dx, a[1] + from * dy],
        [a[0] + to * dx, a[1] + to * dy],
      ]
    : undefined;
}

/** The zero of the view plane, with the direction that is level: one tick across, three up. */
export function DatumMark({ fitted, viewport, palette }: Omit<MarksProps, 'job'>) {
  const at = zeroSeen(fitted);
  const [x, y] = toScreen(viewport, at);
  const along = toScreen(viewport, acrossFrom(at, fitted.fit));
  const turn = (Math.atan2(along[1] - y, along[0] - x) * 180) / Math.PI;
  const d = 'M0 0H44M30 -5V5M0 0V-44M-5 -24H5M-5 -29H5M-5 -34H5';
  return (
    <g transform={`translate(${x} ${y}) rotate(${turn})`} fill="none" data-testid="datum">
      <path d={d} stroke={palette.halo} strokeWidth={4.5} strokeOpacity={0.8} />
      <path d={d} stroke={palette.straw} strokeWidth={1.6} />
      <circle r={4} stroke={palette.straw} strokeWidth={1.6} fill={palette.paper} />
    </g>
  );
}

/** The zero of the plane where the sheet shows it, else the datum's: so that its directions are always there. Sheet px. */
function zeroSeen({ fit, sheet, view }: MarksProps['fitted']): Vec {
  const [x, y] = fit.toSheet([0, 0]);
  const isSeen = x >= 0 && y >= 0 && x <= sheet.width && y <= sheet.height;
  return isSeen ? [x, y] : view.datum.origin;
}
