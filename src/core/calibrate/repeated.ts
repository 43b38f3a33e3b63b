import { add, lineAngle, type Vec } from '../geometry';
import { pointFrame, type SheetPoint } from './evidence';

/** One pointing at a place. Sheet px, one sigma. */
export type Pointing = Pick<SheetPoint, 'at' | 'sigma' | 'edge'>;

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
export function steadinessOf(places: readonly (readonly Pointing[])[]): Steadiness {
  let [squares, repetitions] = [0, 0];
  for (const readings of places.filter(({ length }) => length > 1)) {
    const frame = readings.find(({ edge }) => edge) ?? readings[0]!;
    const numbers = readings.map((reading) => handNumbers(reading, frame));
    const axes = numbers[0]!.length;
    repetitions += axes * (readings.length - 1);
    for (let axis = 0; axis < axes; axis++) squares += squaresAboutMean(numbers.map((row) => row[axis]!));
  }
  return { factor: Math.sqrt((ASSUMPTION_WEIGHT + squares) / (ASSUMPTION_WEIGHT + repetitions)), repetitions };
}

/** What the hand alone decided, in its own assumed sigmas and the frame of one of the readings: both coordinates, or the one along an edge. */
function handNumbers({ at, sigma }: Pointing, frame: Pointing): number[] {
  const { axes } = pointFrame(frame);
  return axes.slice(0, frame.edge ? 1 : 2).map(([x, y]) => (x * at[0] + y * at[1]) / sigma);
}

function squaresAboutMean(values: readonly number[]): number {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
}

/** Edges whose normals differ by less than this, radians, are one edge that was caught again. */
const SAME_EDGE = 0.1;

/**
 * The place that several pointings make together: their mean, each with the weight of what it is known by (along an edge of the picture the hand's, by its steadiness; across
 * it the edge's own), and narrower the more there are. An edge of the picture is the same edge every time: what is not known across it stays. So a pointing beside an edge hardly moves a place off
 * the edge on which others caught it. Best linear unbiased estimate (Förstner & Wrobel, Photogrammetric Computer Vision, 2016, section 4.1).
 */
export function averagedPoint(readings: readonly Pointing[], { factor }: Steadiness): Pointing {
  const [first, ...others] = groupedByEdge(readings).map((group) => alongOneEdge(group, factor));
  return others.reduce(fused, first!);
}

function groupedByEdge(readings: readonly Pointing[]): readonly (readonly Pointing[])[] {
  const groups: Pointing[][] = [];
  for (const reading of readings) {
    const known = groups.find(([first]) =>
      first!.edge && reading.edge
        ? Math.abs(lineAngle(first!.edge.normal - reading.edge.normal)) < SAME_EDGE
        : !first!.edge && !reading.edge,
    );
    if (known) known.push(reading);
    else groups.push([reading]);
  }
  return groups;
}

/** Readings on one edge, or on none: the hand's mean. */
function alongOneEdge(readings: readonly Pointing[], factor: number): Pointing {
  const weights = readings.map(({ sigma }) => 1 / sigma ** 2);
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const mean = (axis: 0 | 1) => readings.reduce((sum, { at }, i) => sum + weights[i]! * at[axis], 0) / whole;
  const at: Vec = readings.length === 1 ? readings[0]!.at : [mean(0), mean(1)];
  return { at, sigma: factor / Math.sqrt(whole), edge: readings[0]!.edge };
}

/** What two independent places are together, in the axes of what is left unknown: the better known one is across. */
function fused(a: Pointing, b: Pointing): Pointing {
  const [p, q] = [informationOf(a), informationOf(b)];
  const [xx, xy, yy] = [p[0] + q[0], p[1] + q[1], p[2] + q[2]];
  const determinant = xx * yy - xy * xy;
  const pull = ([first, second, third]: readonly [number, number, number], [x, y]: Vec): Vec => [
    first * x + second * y,
    second * x + third * y,
  ];
  const sum = add(pull(p, a.at), pull(q, b.at));
  const at: Vec = [(yy * sum[0] - xy * sum[1]) / determinant, (xx * sum[1] - xy * sum[0]) / determinant];
  const [middle, reach] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)];
  const normal = Math.atan2(2 * xy, xx - yy) / 2;
  return {
    at,
    sigma: 1 / Math.sqrt(middle - reach),
    edge: reach < ROUND * middle ? undefined : { normal, sigma: 1 / Math.sqrt(middle + reach) },
  };
}

/** A place that is known equally well both ways has no edge. */
const ROUND = 1e-9;

/** Inverse of a reading's covariance: xx, xy, yy. */
function informationOf(reading: Pointing): readonly [number, number, number] {
  const {
    axes: [along, across],
    sigmas: [sigmaAlong, sigmaAcross],
  } = pointFrame(reading);
  const [u, v] = [1 / sigmaAlong ** 2, 1 / sigmaAcross ** 2];
  return [
    u * along[0] ** 2 + v * across[0] ** 2,
    u * along[0] * along[1] + v * across[0] * across[1],
    u * along[1] ** 2 + v * across[1] ** 2,
  ];
}
