import { Matrix } from 'ml-matrix';
import type { AdjustedView } from './adjust-view';
import type { Judged } from './odd-one-out';

/**
 * Joint covariance of the numbers of the map and, after them, of observed blocks, over every way in which the picture can have been taken:
 * what each says of itself, and how far each lies from the one that is reported (second moment of a mixture about one of its members). So a size
 * that two ways see differently has both within its plus-minus, and nothing jumps where the odds change sides.
 */
export function jointOf(
  { adjusted, others }: Pick<Judged, 'adjusted' | 'others'>,
  observed: readonly string[],
): Matrix {
  const numbersOf = (view: AdjustedView) => [
    ...view.values,
    ...observed.flatMap((id) => [...view.solution.values.get(id)!]),
  ];
  const base = numbersOf(adjusted);
  const mixed = others.reduce(
    (sum, { adjusted: other, weight }) => {
      const away = Matrix.columnVector(numbersOf(other).map((value, i) => value - base[i]!));
      return sum.add(covarianceOf(other, observed).add(away.mmul(away.transpose())).mul(weight));
    },
    covarianceOf(adjusted, observed),
  );
  return mixed.div(1 + others.reduce((sum, { weight }) => sum + weight, 0));
}

function covarianceOf({ covariance, solution, values }: AdjustedView, observed: readonly string[]): Matrix {
  const joint = covariance.withObserved(observed);
  const first = solution.layout.unknowns;
  const kept = [...values.keys(), ...Array.from({ length: joint.rows - first }, (_, i) => first + i)];
  return joint.selection(kept, kept);
}
