import type { SpanState } from '@/bench/tools';
import { useDesk, useFitted } from '@/bench/use-session';
import { measuredLength, measureFrom } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { findTurn, subtract } from '@/core/geometry';
import { formatAngle, formatLength, type Units } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';

const MODES = [
  ['distance', 'Distance'],
  ['angle', 'Angle'],
] as const;

/** A distance or an angle between pointed places, with its plus-minus. Nothing of it enters the job. */
export function MeasurePanel({ tool, state }: { tool: 'distance' | 'angle'; state: SpanState }) {
  const { session } = useDesk();
  const fitted = useFitted();
  const units = useUnits();
  if (!fitted) return null;
  return (
    <Card>
      <Choice name="What to measure" value={tool} options={MODES} onChange={(name) => session.chooseTool(name)} />
      <Figures testID="measured" style={{ fontSize: 20, lineHeight: 28 }}>
        {tool === 'distance' ? distanceOf(fitted, state, units) : angleOf(fitted, state)}
      </Figures>
      <Words quiet>
        {tool === 'distance' ? 'Point at two places.' : 'Point at the corner, then at a place along each side.'}
      </Words>
    </Card>
  );
}

function distanceOf(fitted: FittedView, { points: [a, b] }: SpanState, units: Units): string {
  if (!a || !b) return '–';
  const { value, sigma } = measuredLength(fitted.fit, a, b);
  return fitted.fit.scaled ? formatLength(value, units, sigma) : 'no scale yet';
}

function angleOf({ fit }: FittedView, { points }: SpanState): string {
  if (points.length < 3) return '–';
  const { value, sigma } = measureFrom(fit, points, ([o, u, v]) => {
    return Math.abs(findTurn(subtract(u!, o!), subtract(v!, o!)) ?? 0);
  });
  return formatAngle(value, sigma);
}
