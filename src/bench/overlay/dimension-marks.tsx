import { findSpan, type DimensionSpan } from '@/core/derive';
import { add, distance, perpendicular, scale, subtract, type Vec } from '@/core/geometry';
import type { Dimension as Kept, DimensionKind } from '@/core/job';
import { formatAngle, formatLength, formatSlope } from '@/core/units';
import { measuredIn } from '../measured';
import { toScreen } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { DimensionLine } from './dimension';
import { labelAt, type Labelling } from './labels';
import { placesAlong } from './place-labels';

interface Standing {
  readonly dimension: Kept;
  readonly span: DimensionSpan;
  /** Its line on the screen, and the thin ones that lead to it. CSS px */
  readonly from: Vec;
  readonly to: Vec;
  readonly leaders: readonly (readonly [Vec, Vec])[];
}

function listStanding({ job, derived, fitted, viewport }: DrawnProps): readonly Standing[] {
  const screen = (plane: Vec) => toScreen(viewport, fitted.fit.toSheet(plane));
  return job.dimensions
    .filter(({ plane }) => plane === fitted.view.plane)
    .flatMap((dimension): Standing[] => {
      const span = findSpan(dimension, job.outlines, derived.shapes);
      if (!span) return [];
      const [from, to] = standing(span, dimension);
      const [p, q] = span.feet ?? [span.from, span.to];
      const leaders =
        from === span.from
          ? []
          : ([
              [screen(p), screen(from)],
              [screen(q), screen(to)],
            ] as const);
      return [{ dimension, span, from: screen(from), to: screen(to), leaders }];
    });
}

/** Sizes that stay on the drawing, each stood aside from what it is read between, with thin lines to it. */
export function DimensionMarks(drawn: DrawnProps) {
  const { palette } = drawn;
  return (
    <g data-testid="dimensions">
      {listStanding(drawn).map(({ dimension: { id }, from, to, leaders }) => {
        const d = leaders.map(([a, b]) => `M${a.join(' ')}L${b.join(' ')}`).join('');
        return (
          <g key={id}>
            <path d={d} stroke={palette.halo} strokeWidth={2.6} strokeOpacity={0.7} fill="none" />
            <path d={d} stroke={palette.ink} strokeWidth={0.9} fill="none" />
            <DimensionLine palette={palette} look="measure" from={from} to={to} testID={`dimension-${id}`} />
          </g>
        );
      })}
    </g>
  );
}

/** Their figures; no other label hides their lines. */
export function dimensionLabels(drawn: DrawnProps): Labelling {
  const { palette, viewport } = drawn;
  const standing = listStanding(drawn);
  return {
    labels: standing.map(({ dimension, span, from, to }) =>
      labelAt((size) => placesAlong(from, to, size, [viewport.width, viewport.height]), {
        key: dimension.id,
        text: labelOf(dimension, span, drawn),
        color: palette.ink,
      }),
    ),
    lines: standing.flatMap(({ dimension: { id }, from, to, leaders }) =>
      [[from, to] as const, ...leaders].map(([a, b]) => ({ of: id, from: a, to: b })),
    ),
  };
}

/** Shorter from end to end than this share of itself, a length is told to be along a bend. */
const STRAIGHT = 1 - 1e-9;
const STANDS_ASIDE: readonly DimensionKind[] = ['distance', 'across', 'up', 'length'];

/** Where its line stands: along one that others share, aside of what it is read between, or right there. */
function standing({ from, to }: DimensionSpan, { aside, line, kind }: Kept): readonly [Vec, Vec] {
  if (line !== undefined && kind === 'across')
    return [
      [from[0], line],
      [to[0], line],
    ];
  if (line !== undefined && kind === 'up')
    return [
      [line, from[1]],
      [line, to[1]],
    ];
  const size = distance(from, to);
  if (aside === 0 || size === 0 || !STANDS_ASIDE.includes(kind)) return [from, to];
  const by = scale(perpendicular(subtract(to, from)), aside / size);
  return [add(from, by), add(to, by)];
}

function labelOf(dimension: Kept, span: DimensionSpan, { job, derived, fitted: { fit } }: DrawnProps): string {
  const measured = measuredIn(job, derived, dimension);
  if (!measured) return '–';
  if (dimension.kind === 'angle') return formatAngle(measured.value, measured.sigma);
  if (dimension.kind === 'slope') return formatSlope(measured.value, measured.sigma);
  if (!fit.scaled) return 'no scale yet';
  return `${signOf(dimension, span)}${formatLength(measured.value, job.units, measured.sigma)}`;
}

const SIGNS: Partial<Record<DimensionKind, string>> = { diameter: '⌀ ', radius: 'R ' };

/** What stands before the figure; a length along what bends is told from one straight across. */
function signOf({ kind }: Kept, span: DimensionSpan): string {
  const isAlong = kind === 'length' && distance(span.from, span.to) < span.value * STRAIGHT;
  return isAlong ? 'along ' : (SIGNS[kind] ?? '');
}
