import { findSpan, type Derived, type FittedView, type Span } from '@/core/derive';
import { add, distance, perpendicular, scale, subtract, type Vec } from '@/core/geometry';
import type { Dimension as Kept, DimensionKind, Job } from '@/core/job';
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
        const [from, to] = standing(span, dimension);
        const [p, q] = span.feet ?? [span.from, span.to];
        const leaders = from === span.from ? '' : `M${screen(p).join(' ')}L${screen(from).join(' ')}M${screen(q).join(' ')}L${screen(to).join(' ')}`;
        return (
          <g key={dimension.id}>
            <path d={leaders} stroke={palette.halo} strokeWidth={2.6} strokeOpacity={0.7} fill="none" />
            <path d={leaders} stroke={palette.ink} strokeWidth={0.9} fill="none" />
            <Dimension palette={palette} look="measure" from={screen(from)} to={screen(to)} label={labelOf(dimension, span, job, derived, fitted, units)} testID={`dimension-${dimension.id}`} />
          </g>
        );
      })}
    </g>
  );
}

/** Shorter from end to end than this share of itself, a length is told to be along a bend. */
const STRAIGHT = 1 - 1e-9;
const STANDS_ASIDE: readonly DimensionKind[] = ['distance', 'across', 'up', 'length'];

/** Where its line stands: along one that others share, aside of what it is read between, or right there. */
function standing({ from, to }: Span, { aside, line, kind }: Kept): readonly [Vec, Vec] {
  if (line !== undefined && kind === 'across') return [[from[0], line], [to[0], line]];
  if (line !== undefined && kind === 'up') return [[line, from[1]], [line, to[1]]];
  const size = distance(from, to);
  if (aside === 0 || size === 0 || !STANDS_ASIDE.includes(kind)) return [from, to];
  const by = scale(perpendicular(subtract(to, from)), aside / size);
  return [add(from, by), add(to, by)];
}

function labelOf(dimension: Kept, span: Span, job: Job, derived: Derived, { fit }: FittedView, units: Units): string {
  const measured = measuredIn(job, derived, dimension);
  if (!measured) return '–';
  if (dimension.kind === 'angle') return formatAngle(measured.value, measured.sigma);
  if (dimension.kind === 'slope') return formatSlope(measured.value, measured.sigma);
  if (!fit.scaled) return 'no scale yet';
  const isAlong = dimension.kind === 'length' && distance(span.from, span.to) < span.value * STRAIGHT;
  const sign = isAlong ? 'along ' : dimension.kind === 'diameter' ? '⌀ ' : dimension.kind === 'radius' ? 'R ' : '';
  return `${sign}${formatLength(measured.value, units, measured.sigma)}`;
}
