import { edgeKept, innerSideOf, outlinesSited } from '@/core/derive';
import { add, findDirection, perpendicular, scale, subtract, type Vec } from '@/core/geometry';
import { formatLength } from '@/core/units';
import { clearancesOn, isOver, type KeptClear } from '../clearances';
import { toScreen } from '../viewport';
import { DimensionLine } from './dimension';
import type { DrawnProps } from './drawn-props';
import { labelAt, type Labelling } from './labels';
import { placesAlong } from './place-labels';

/** Lines beside edges, as far in as one has to keep, and where what is set here comes nearest to each. */
export function SitedMarks(drawn: DrawnProps) {
  const { job, derived, fitted, palette } = drawn;
  const screen = toScreenIn(drawn);
  return (
    <g fill="none" data-testid="sited-marks">
      {keptLines(drawn).map(({ id, from, to }) => {
        const d = `M${screen(from).join(' ')}L${screen(to).join(' ')}`;
        return (
          <g key={id} data-testid="setback-line">
            <path d={d} stroke={palette.halo} strokeWidth={3.4} strokeOpacity={0.75} />
            <path d={d} stroke={palette.plum} strokeWidth={1.5} strokeDasharray="14 4 2 4" />
          </g>
        );
      })}
      {clearancesOn(fitted.view.plane, job, derived).map((kept) => (
        <DimensionLine
          key={keyOf(kept)}
          palette={palette}
          look="check"
          color={isOver(kept) ? palette.berry : undefined}
          from={screen(kept.from)}
          to={screen(kept.to)}
          testID="clearance-line"
        />
      ))}
    </g>
  );
}

const keyOf = ({ setback, siting }: KeptClear) => `${setback.id}/${siting.id}`;
const toScreenIn =
  ({ viewport, fitted }: DrawnProps) =>
  (plane: Vec): Vec =>
    toScreen(viewport, fitted.fit.toSheet(plane));

function keptLines({ job, derived, fitted }: DrawnProps) {
  return job.setbacks.flatMap((setback) => {
    const edge = setback.plane === fitted.view.plane ? edgeKept(setback, job, derived.shapes) : undefined;
    const along = edge && findDirection(subtract(edge.b, edge.a));
    if (!edge || !along) return [];
    const sited = job.sitings
      .filter(({ plane }) => plane === setback.plane)
      .flatMap((siting) => outlinesSited(job, siting))
      .flatMap(({ id }) => derived.shapes.get(id)?.finished ?? []);
    const side = innerSideOf(edge, derived.shapes.get(setback.on[0].outline), sited);
    const aside = scale(perpendicular(along), side * setback.mm);
    return [{ id: setback.id, from: add(edge.a, aside), to: add(edge.b, aside) }];
  });
}

/** By how much each is clear, or over. */
export function sitedLabels(drawn: DrawnProps): Labelling {
  const { job, derived, fitted, palette, viewport } = drawn;
  const screen = toScreenIn(drawn);
  const kept = clearancesOn(fitted.view.plane, job, derived);
  return {
    labels: kept.map((one) =>
      labelAt((size) => placesAlong(screen(one.from), screen(one.to), size, [viewport.width, viewport.height]), {
        key: keyOf(one),
        text: `${isOver(one) ? 'over' : 'clear'} ${formatLength(Math.abs(one.margin.value), job.units, one.margin.sigma)}`,
        color: isOver(one) ? palette.berry : palette.plum,
      }),
    ),
    lines: kept.map((one) => ({ of: keyOf(one), from: screen(one.from), to: screen(one.to) })),
  };
}
