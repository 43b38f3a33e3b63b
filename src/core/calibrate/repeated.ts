import type { Vec } from '../geometry';
import { pointFrame, type SheetPoint } from './evidence';

/** One pointing at a place. Sheet px, one sigma. */
export type Reading = Pick<SheetPoint, 'at' | 'sigma' | 'edge'>;

/** How steady a hand is, from what was pointed at again. */
export interface Steadiness {
  /** Found over assumed: what the assumed sigmas of pointing are multiplied with. One while nothing was pointed at again. */
  readonly factor: number;
  /** Repetitions that it rests on: coordinates beyond the first of each place. */
  readonly repetitions: number;
}

/** The assumed sigma counts as much as this many repetitions. Assumed. */
const ASSUMPTION_WEIGHT = 4;

/**
 * The spread of places that were pointed at more than once, against what was assumed: the pooled variance of all of them, with the
 * assumption as so many repetitions more (the posterior mean of a variance under a scaled inverse chi-square prior; Gelman et
 * al., Bayesian Data Analysis, 3rd edition, section 2.6). Along an edge of the picture only the hand's own direction counts. Weak with
 * few repetitions: within a fifth with a length pointed at four times.
 */
export function steadinessOf(places: readonly (readonly Reading[])[]): Steadiness {
  let [squares, repetitions] = [0, 0];
  for (const readings of places.filter(({ length }) => length > 1)) {
    const numbers = readings.map((reading) => handNumbers(reading, readings[0]!));
    const axes = numbers[0]!.length;
    repetitions += axes * (readings.length - 1);
    for (let axis = 0; axis < axes; axis++) squares += squaresAboutMean(numbers.map((row) => row[axis]!));
  }
  return { factor: Math.sqrt((ASSUMPTION_WEIGHT + squares) / (ASSUMPTION_WEIGHT + repetitions)), repetitions };
}

/** What the hand alone decided, in its own assumed sigmas and the first reading's frame: both coordinates, or the one along an edge. */
function handNumbers({ at, sigma }: Reading, first: Reading): number[] {
  const { axes } = pointFrame(first);
  return axes.slice(0, first.edge ? 1 : 2).map(([x, y]) => (x * at[0] + y * at[1]) / sigma);
}

function squaresAboutMean(values: readonly number[]): number {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
}

/**
 * The place that several pointings make together: their weighted mean, with the hand's sigma by its steadiness and narrower the
 * more there are. An edge of the picture is the same edge every time: what is not known across it stays.
 */
export function averagedPoint(readings: readonly Reading[], { factor }: Steadiness): Reading {
  const weights = readings.map(({ sigma }) => 1 / sigma ** 2);
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const mean = (axis: 0 | 1) => readings.reduce((sum, { at }, i) => sum + weights[i]! * at[axis], 0) / whole;
  const at: Vec = readings.length === 1 ? readings[0]!.at : [mean(0), mean(1)];
  return { at, sigma: factor / Math.sqrt(whole), edge: readings[0]!.edge };
}
