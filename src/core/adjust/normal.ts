import { Matrix } from 'ml-matrix';
import type { Linearization } from './linearize';

/** The unknowns that a row of the Jacobian touches: a handful of many, which is what makes the sums below quick. */
export function touchedBy(jacobian: Matrix, row: number): readonly number[] {
  const touched: number[] = [];
  for (let k = 0; k < jacobian.columns; k++) if (jacobian.get(row, k) !== 0) touched.push(k);
  return touched;
}

/** JᵀJ and Jᵀr, summed row by row over what each row touches. */
export function normalEquations({ jacobian, residuals }: Linearization): { readonly normal: Matrix; readonly gradient: Matrix } {
  const width = jacobian.columns;
  const [normal, gradient] = [Matrix.zeros(width, width), Matrix.zeros(width, 1)];
  for (let row = 0; row < jacobian.rows; row++) {
    const touched = touchedBy(jacobian, row);
    for (const i of touched) {
      const slope = jacobian.get(row, i);
      gradient.set(i, 0, gradient.get(i, 0) + slope * residuals[row]!);
      for (const k of touched) normal.set(i, k, normal.get(i, k) + slope * jacobian.get(row, k));
    }
  }
  return { normal, gradient };
}
