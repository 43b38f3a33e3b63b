import { EigenvalueDecomposition } from 'ml-matrix';
import { scale, subtract, type Vec } from '../geometry';
import type { Fit } from './fit';
import { toPlane } from './sheet-map';

/** Doubts smaller than this share of the largest move nothing that shows. */
const NEGLIGIBLE = 1e-9;
/** Share of a sigma by which the map is varied for a slope. */
const STEP = 0.1;

/**
 * The doubts of a fit as independent directions: how a place of the sheet moves on the plane when one of them goes by one sigma. The sum of
 * their squares is the covariance of the map. mm. None where the fit is without scale, since nothing is claimed there.
 */
export function listFreedoms(fit: Fit): readonly ((sheet: Vec) => Vec)[] {
  if (fit.values.length === 0) return [];
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(fit.covariance, { assumeSymmetric: true });
  const largest = Math.max(...realEigenvalues);
  return realEigenvalues.flatMap((variance, column) => {
    if (!(variance > NEGLIGIBLE * NEGLIGIBLE * largest)) return [];
    const [ahead, behind] = [STEP, -STEP].map((share) => fit.mapWith(fit.values.map((value, i) => value + share * Math.sqrt(variance) * eigenvectorMatrix.get(i, column))));
    return [(sheet: Vec) => scale(subtract(toPlane(ahead!, sheet), toPlane(behind!, sheet)), 1 / (2 * STEP))];
  });
}
