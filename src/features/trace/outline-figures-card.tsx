import { useMemo } from 'react';
import { View } from 'react-native';
import { useJob } from '@/bench/use-session';
import { figuresOf, type FittedView } from '@/core/derive';
import type { Outline } from '@/core/outline';
import { formatArea, formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Figures, Words } from '@/ui/text';

/** The sizes of an outline, each with its plus-minus. */
export function OutlineFiguresCard({ outline, fitted }: { outline: Outline; fitted: FittedView }) {
  const units = useUnits();
  const shape = useJob((state) => state.derived.shapes.get(outline.id));
  const related = useJob((state) => state.derived.related.get(outline.view));
  const figures = useMemo(() => shape && figuresOf(outline, fitted, shape, related), [outline, fitted, shape, related]);
  if (!figures || !shape) return null;
  const scaled = fitted.fit.scaled;
  const length = (of: { value: number; sigma: number }) => (scaled ? formatLength(of.value, units, of.sigma) : 'no scale yet');
  const { radius, area } = figures;
  return (
    <Card width={270} testID="figures">
      <Words style={{ fontWeight: '700' }}>{shape.closed ? 'Closed outline' : 'Open outline'}</Words>
      {radius ? <Row name="Diameter" value={length({ value: 2 * radius.value, sigma: 2 * radius.sigma })} testID="figure-diameter" /> : null}
      {radius ? <Row name="Radius" value={length(radius)} testID="figure-radius" /> : null}
      <Row name={shape.closed ? 'Perimeter' : 'Length along'} value={length(figures.length)} testID="figure-length" />
      {area ? <Row name="Area" value={scaled ? formatArea(area.value, units, area.sigma) : 'no scale yet'} testID="figure-area" /> : null}
    </Card>
  );
}

function Row({ name, value, testID }: { name: string; value: string; testID: string }) {
  return (
    <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 10 }}>
      <Words quiet>{name}</Words>
      <Figures testID={testID}>{value}</Figures>
    </View>
  );
}
