import { useMemo } from 'react';
import { useJob } from '@/bench/use-session';
import { figuresOf, type FittedView, type Shares } from '@/core/derive';
import type { Outline } from '@/core/outline';
import { formatArea, formatLength, formatPlusMinus } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { FigureRow } from '@/ui/figure-row';
import { Words } from '@/ui/text';

/** Shares of the variance beyond which one of two is most of it. */
const MOST = 0.7;

/** Where most of the plus-minus comes from, and the one thing that lowers it most; undefined where several have their part. */
export function doubtInWords({ pointed, edges }: Shares): string | undefined {
  if (edges > MOST)
    return 'Most of the plus-minus is that edges of things are never quite sharp, and a photograph does not tell where they end. What has to be truer, measure on the thing.';
  if (pointed - edges > MOST)
    return 'Most of the plus-minus is from where it was pointed: come closer, let the edge catch the aim, and point again.';
  return pointed < 1 - MOST ? 'Most of the plus-minus is the fit’s: Fit says what would lower it.' : undefined;
}

/** The sizes of an outline, each with its plus-minus. */
export function OutlineFiguresCard({ outline, fitted }: { outline: Outline; fitted: FittedView }) {
  const units = useUnits();
  const { job, derived } = useJob((state) => state);
  const shape = derived.shapes.get(outline.id);
  const figures = useMemo(() => shape && figuresOf(outline, { job, derived }, shape), [outline, shape, job, derived]);
  if (!figures || !shape) return null;
  const scaled = fitted.fit.scaled;
  const length = (of: { value: number; sigma: number }) =>
    scaled ? formatLength(of.value, units, of.sigma) : 'no scale yet';
  const { radius, area, shares } = figures;
  const doubt = scaled && shares ? doubtInWords(shares) : undefined;
  return (
    <Card testID="figures">
      <Words style={{ fontWeight: '700' }}>{shape.closed ? 'Closed outline' : 'Open outline'}</Words>
      {radius ? (
        <FigureRow
          name="Diameter"
          value={length({ value: 2 * radius.value, sigma: 2 * radius.sigma })}
          testID="figure-diameter"
        />
      ) : null}
      {radius ? <FigureRow name="Radius" value={length(radius)} testID="figure-radius" /> : null}
      <FigureRow
        name={shape.closed ? 'Perimeter' : 'Length along'}
        value={length(figures.length)}
        testID="figure-length"
      />
      {figures.centre && scaled ? (
        <FigureRow
          name="Centre of area"
          value={`${figures.centre.map(({ value }) => formatLength(value, units)).join(', ')} ${formatPlusMinus(Math.max(...figures.centre.map(({ sigma }) => sigma)), units)}`}
          testID="figure-centre"
        />
      ) : null}
      {area ? (
        <FigureRow
          name="Area"
          value={scaled ? formatArea(area.value, units, area.sigma) : 'no scale yet'}
          testID="figure-area"
        />
      ) : null}
      {doubt ? (
        <Words quiet testID="figure-doubt" style={{ fontSize: 14 }}>
          {doubt}
        </Words>
      ) : null}
    </Card>
  );
}
