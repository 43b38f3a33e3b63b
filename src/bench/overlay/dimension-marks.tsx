import { findSpan, type Derived, type FittedView } from '@/core/derive';
import { add, distance, perpendicular, scale, subtract, type Vec } from '@/core/geometry';
import type { Dimension as Kept, Job } from '@/core/job';
import { formatAngle, formatLength, formatSlope, type Units } from '@/core/units';
import { measuredIn } from '../measured';
import { toScreen } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { Dimension } from './dimension';

interface MarksProps extends DrawnProps {
  readonly units: Units;
}

/** Sizes that stay on the drawing, each stood aside from what it is read between, with thin lines to it. */
export function DimensionMarks({ job, derived, fitted, viewport, palette, units }: MarksProps) {
  const screen = (plane: Vec) => toScreen(viewport, fitted.fit.toSheet(plane));
  return (
    <g data-testid="dimensions">
      {job.dimensions.filter(({ view }) => view === fitted.view.id).map((dimension) => {
        const span = findSpan(dimension, job.outlines, derived.shapes);
        if (!span) return null;
        const aside = asideOf(span.from, span.to, dimension);
        const [from, to] = [add(span.from, aside), add(span.to, aside)];
        const leaders = dimension.aside === 0 ? '' : `M${screen(span.from).join(' ')}L${screen(from).join(' ')}M${screen(span.to).join(' ')}L${screen(to).join(' ')}`;
        return (
          <g key={dimension.id}>
            <path d={leaders} stroke={palette.halo} strokeWidth={2.6} strokeOpacity={0.7} fill="none" />
            <path d={leaders} stroke={palette.ink} strokeWidth={0.9} fill="none" />
            <Dimension palette={palette} look="measure" from={screen(from)} to={screen(to)} label={labelOf(dimension, job, derived, fitted, units)} testID={`dimension-${dimension.id}`} />
          </g>
        );
      })}
    </g>
  );
}

function asideOf(from: Vec, to: Vec, { aside, kind }: Kept): Vec {
  const size = distance(from, to);
  return aside === 0 || size === 0 || kind === 'diameter' || kind === 'radius' || kind === 'angle' || kind === 'slope' ? [0, 0] : scale(perpendicular(subtract(to, from)), aside / size);
}

function labelOf(dimension: Kept, job: Job, derived: Derived, { fit }: FittedView, units: Units): string {
  const measured = measuredIn(job, derived, dimension);
  if (!measured) return '–';
  if (dimension.kind === 'angle') return formatAngle(measured.value, measured.sigma);
  if (dimension.kind === 'slope') return formatSlope(measured.value, measured.sigma);
  if (!fit.scaled) return 'no scale yet';
  const sign = dimension.kind === 'diameter' ? '⌀ ' : dimension.kind === 'radius' ? 'R ' : '';
  return `${sign}${formatLength(measured.value, units, measured.sigma)}`;
}
