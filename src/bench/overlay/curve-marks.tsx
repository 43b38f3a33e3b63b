import { curvesSeenIn, type CurveSeen } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import type { Palette } from '@/ui/palette';
import { layingOf } from '../laying';
import type { DrawnProps } from './drawn-props';
import { pathData } from './path-data';
import { benchTransform } from './selection';

/** Curves in space as this view sees them: those of other views always, in full also those of its own outlines, on which they lie. */
export function CurveMarks({ full, ...drawn }: DrawnProps & { full: boolean }) {
  const { job, derived, fitted, viewport, palette } = drawn;
  if (job.spaceCurves.length === 0) return null;
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const isOwn = (of: readonly string[]) =>
    job.outlines.some(({ id, plane }) => of.includes(id) && plane === fitted.view.plane);
  return (
    <g fill="none" transform={benchTransform(viewport)} data-testid="curve-marks">
      {curvesSeenIn(fitted, { job, derived })
        .filter(({ curve }) => full || !isOwn(curve.of))
        .map(({ curve, paths }) => (
          <CurveInk key={curve.id} name={`curve-${curve.name}`} paths={paths} fromPlane={fromPlane} palette={palette} />
        ))}
    </g>
  );
}

interface CurveInkProps {
  readonly name: string;
  readonly paths: CurveSeen['paths'];
  fromPlane(place: Vec): Vec;
  readonly palette: Palette;
  /** Of what is drawn so, to the screen. */
  readonly transform?: string;
}

/** A curve in space as it is seen: long dashes and short ones, on a halo. */
export function CurveInk({ name, paths, fromPlane, palette, transform }: CurveInkProps) {
  const d = paths.map((pieces) => pathData(pieces, false, fromPlane)).join('');
  return (
    <g data-testid={name} fill="none" transform={transform}>
      <path d={d} stroke={palette.halo} strokeWidth={5} strokeOpacity={0.75} vectorEffect="non-scaling-stroke" />
      <path
        d={d}
        stroke={palette.berry}
        strokeWidth={2.4}
        strokeDasharray="9 3 2 3"
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
}
