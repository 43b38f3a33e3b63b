import { EigenvalueDecomposition, type Matrix } from 'ml-matrix';
import { scale, subtract, type Vec } from '../geometry';
import type { Fit } from './fit';
import { toPlane, toSheet } from './sheet-map';

/** Doubts smaller than this share of the largest move nothing that shows. */
const NEGLIGIBLE = 1e-9;
/** Share of a sigma by which the map is varied for a slope. */
const STEP = 0.1;

const roots = new WeakMap<Matrix, readonly (readonly number[])[]>();

/** The doubts of a fit's numbers as independent directions of sigma one: the columns of a root of their covariance, which views that share it share. */
function listDoubted({ values, covariance }: Fit): readonly (readonly number[])[] {
  if (values.length === 0) return [];
  const known = roots.get(covariance);
  if (known) return known;
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(covariance, { assumeSymmetric: true });
  const largest = Math.max(...realEigenvalues);
  const root = realEigenvalues.flatMap((variance, column) =>
    variance > NEGLIGIBLE * NEGLIGIBLE * largest
      ? [values.map((_, i) => Math.sqrt(variance) * eigenvectorMatrix.get(i, column))]
      : [],
  );
  roots.set(covariance, root);
  return root;
}

/** How many doubts a fit has. */
export const countFreedoms = (fit: Fit): number => listDoubted(fit).length;

/**
 * The doubts of a fit: how a place of the sheet moves on the plane when one of them goes by one sigma. The sum of their squares is the
 * covariance of the map. mm. None where the fit is without scale, since nothing is claimed there.
 */
export function listMapDoubts(fit: Fit): readonly ((sheet: Vec) => Vec)[] {
  return listDoubted(fit).map((direction) => {
    const [ahead, behind] = [STEP, -STEP].map((share) =>
      fit.mapWith(fit.values.map((value, i) => value + share * direction[i]!)),
    );
    return (sheet: Vec) => scale(subtract(toPlane(ahead!, sheet), toPlane(behind!, sheet)), 1 / (2 * STEP));
  });
}

/** A fit after its doubts, in the order of `listFreedoms`, went by so many sigmas each. Its stated doubt stays: what moved it is not evidence that is listed. */
export function movedFit(fit: Fit, sigmas: readonly number[]): Fit {
  const directions = listDoubted(fit);
  const values = fit.values.map((value, i) =>
    directions.reduce((sum, direction, k) => sum + direction[i]! * (sigmas[k] ?? 0), value),
  );
  const map = fit.mapWith(values);
  return { ...fit, values, map, toPlane: (sheet) => toPlane(map, sheet), toSheet: (plane) => toSheet(map, plane) };
}
