import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { Vec3 } from './vec3';

/** A share of a direction that is less than this is missing from none. */
const NONE = 1e-9;

/**
 * Directions that all of some linear subspaces of the object frame hold, square to each other and of length one: each subspace is given by directions of that kind (a plane by the two that
 * run in it). Empty where there is none; where it is a plane that they share, which two of it is not said.
 */
export function sharedDirections(subspaces: readonly (readonly Vec3[])[]): readonly Vec3[] {
  const projectors = Matrix.zeros(3, 3);
  for (const directions of subspaces)
    for (const direction of directions) {
      const column = Matrix.columnVector([...direction]);
      projectors.add(column.mmul(column.transpose()));
    }
  // What lies in all of them is left as it is by every projector.
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(projectors, { assumeSymmetric: true });
  return realEigenvalues.flatMap((value, i) =>
    value > subspaces.length - NONE ? [eigenvectorMatrix.getColumn(i) as unknown as Vec3] : [],
  );
}

/** Whether a direction (of length one) lies in a subspace. */
export const holdsDirection = (subspace: readonly Vec3[], direction: Vec3): boolean =>
  sharedDirections([subspace, [direction]]).length > 0;
