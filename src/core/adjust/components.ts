import { LuDecomposition, Matrix } from 'ml-matrix';

/** Which rows of a symmetric matrix hang together, directly or through others, by what is not zero between them. In order, each row once. */
export function componentsOf(matrix: Matrix): readonly (readonly number[])[] {
  const found: number[][] = [];
  const seen = new Uint8Array(matrix.rows);
  for (let first = 0; first < matrix.rows; first++) {
    if (seen[first]) continue;
    seen[first] = 1;
    const component = [first];
    for (const row of component)
      for (let other = first + 1; other < matrix.rows; other++)
        if (!seen[other] && matrix.get(row, other) !== 0) {
          seen[other] = 1;
          component.push(other);
        }
    found.push(component.sort((a, b) => a - b));
  }
  return found;
}

/**
 * Solves a symmetric system component by component: what hangs together with nothing else costs only its own size. Undefined where it is singular. Gives the very digits of a solution as a whole, whose pivots and products are the same but for zeros.
 */
export function solveByComponents(matrix: Matrix, right: Matrix): Matrix | undefined {
  const solution = Matrix.zeros(matrix.rows, right.columns);
  const columns = Array.from({ length: right.columns }, (_, k) => k);
  for (const rows of componentsOf(matrix)) {
    const own = [...rows];
    const lu = new LuDecomposition(matrix.selection(own, own));
    if (lu.isSingular()) return undefined;
    const solved = lu.solve(right.selection(own, columns));
    own.forEach((row, i) => columns.forEach((column) => solution.set(row, column, solved.get(i, column))));
  }
  return solution;
}

/** The inverse of a symmetric matrix, component by component: between them it is zero. Throws where it is singular: its rank has to be looked at before. */
export function invertByComponents(matrix: Matrix): Matrix {
  const inverse = Matrix.zeros(matrix.rows, matrix.rows);
  for (const rows of componentsOf(matrix)) {
    const own = [...rows];
    const solved = new LuDecomposition(matrix.selection(own, own)).solve(Matrix.eye(own.length));
    own.forEach((row, i) => own.forEach((column, k) => inverse.set(row, column, solved.get(i, k))));
  }
  return inverse;
}
