/** What would help most, as the bench shows it. */
import { createDeriver, type FittedView } from '@/core/derive';
import { distance } from '@/core/geometry';
import { adviceFor } from './advice';
import { HandBench } from './tools/bench-for-tests';

const fittedOf = (bench: HandBench): FittedView => createDeriver()(bench.history.job).views.get('v')!;

it('is a length within the picture, away from its rim, that makes the worst size better', () => {
  const fitted = fittedOf(new HandBench('select'));
  const { from, to, worstSigmaNow, worstSigmaThen } = adviceFor(fitted)!;
  for (const [x, y] of [from, to]) {
    expect(x).toBeGreaterThanOrEqual(0.12 * 2000 - 1e-6);
    expect(x).toBeLessThanOrEqual(0.88 * 2000 + 1e-6);
    expect(y).toBeGreaterThanOrEqual(0.12 * 1000 - 1e-6);
    expect(y).toBeLessThanOrEqual(0.88 * 1000 + 1e-6);
  }
  expect(distance(from, to)).toBeGreaterThan(500);
  expect(worstSigmaThen).toBeLessThan(worstSigmaNow);
});

it('is worked out once for a fit, and there is none without a scale', () => {
  const fitted = fittedOf(new HandBench('select'));
  expect(adviceFor({ ...fitted })).toBe(adviceFor(fitted));
  expect(adviceFor(fittedOf(new HandBench('select', false)))).toBeUndefined();
});
