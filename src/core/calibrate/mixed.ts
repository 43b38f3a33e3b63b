import { Matrix } from 'ml-matrix';
import type { AdjustedView } from './adjust-view';
import type { Judged } from './odd-one-out';

/** Another way in which the picture can have been taken: how far its numbers lie from those that are reported, and what it weighs among all ways. */
export interface Way {
  readonly away: readonly number[];
  readonly weight: number;
}

/** What is known of numbers over every way in which the picture can have been taken: their covariance within one, and the others. */
export interface Mixed {
  readonly within: Matrix;
  readonly ways: readonly Way[];
}

/**
 * The numbers of the map and, after them, observed blocks over every way in which the picture can have been taken (second moment of a mixture about one of its members): what each way says of itself, and how
 * far each lies from the one that is reported. So a size that two ways see differently has both within its plus-minus, and nothing jumps where the odds change sides.
 */
export function mixedOf({ adjusted, others }: Pick<Judged, 'adjusted' | 'others'>, observed: readonly string[]): Mixed {
  const numbersOf = (view: AdjustedView) => [
    ...view.values,
    ...observed.flatMap((id) => [...view.solution.values.get(id)!]),
  ];
  const base = numbersOf(adjusted);
  const all = 1 + others.reduce((sum, { weight }) => sum + weight, 0);
  return {
    within: others
      .reduce(
        (sum, other) => sum.add(covarianceOf(other.adjusted, observed).mul(other.weight)),
        covarianceOf(adjusted, observed),
      )
      .div(all),
    ways: others.map((other) => ({
      away: numbersOf(other.adjusted).map((value, i) => value - base[i]!),
      weight: other.weight / all,
    })),
  };
}

/** Wider by a factor of the variance. */
export const widened = ({ within, ways }: Mixed, factor: number): Mixed => ({
  within: Matrix.mul(within, factor),
  ways: ways.map(({ away, weight }) => ({ away, weight: weight * factor })),
});

/** The covariance of the numbers over all ways. Good where ways lie near each other; what is measured over ways that lie far apart asks each of them. */
export function covarianceOver({ within, ways }: Mixed): Matrix {
  return ways.reduce((sum, { away, weight }) => {
    const column = Matrix.columnVector([...away]);
    return sum.add(column.mmul(column.transpose()).mul(weight));
  }, within.clone());
}

function covarianceOf({ covariance, solution, values }: AdjustedView, observed: readonly string[]): Matrix {
  const joint = covariance.withObserved(observed);
  const first = solution.layout.unknowns;
  const kept = [...values.keys(), ...Array.from({ length: joint.rows - first }, (_, i) => first + i)];
  return joint.selection(kept, kept);
}
