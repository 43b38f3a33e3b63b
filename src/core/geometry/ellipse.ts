import { EigenvalueDecomposition, inverse, Matrix } from 'ml-matrix';
import type { Vec } from './vec';

/** An ellipse: middle, half-axes (longer first), direction of the longer one. The unit and frame of its points. */
export interface Ellipse {
  readonly centre: Vec;
  readonly axes: readonly [number, number];
  readonly direction: number;
}

/**
 * The ellipse through many points, by algebraic distance (Halíř & Flusser, Numerically stable direct least squares fitting of
 * ellipses, 1998). Undefined for fewer than five points and where they lie on no ellipse. Weak: a short arc in noise comes out
 * too flat.
 */
export function findEllipse(points: readonly Vec[]): Ellipse | undefined {
  if (points.length < 5) return undefined;
  const middle: Vec = [0, 1].map(
    (axis) => points.reduce((sum, p) => sum + p[axis]!, 0) / points.length,
  ) as unknown as Vec;
  const size = Math.max(...points.map((p) => Math.hypot(p[0] - middle[0], p[1] - middle[1]))) || 1;
  const unit = points.map(([x, y]): Vec => [(x - middle[0]) / size, (y - middle[1]) / size]);
  const conic = conicThrough(unit);
  const found = conic && ellipseOf(conic);
  return (
    found && {
      ...found,
      centre: [middle[0] + size * found.centre[0], middle[1] + size * found.centre[1]],
      axes: [size * found.axes[0], size * found.axes[1]],
    }
  );
}

/** a x² + b xy + c y² + d x + e y + f = 0 with 4ac > b². */
function conicThrough(points: readonly Vec[]): readonly number[] | undefined {
  const sums = sumProducts(points);
  const [square, mixed, straight] = [
    sums.subMatrix(0, 2, 0, 2),
    sums.subMatrix(0, 2, 3, 5),
    sums.subMatrix(3, 5, 3, 5),
  ];
  let toStraight: Matrix;
  try {
    toStraight = inverse(straight).mmul(mixed.transpose()).mul(-1);
  } catch {
    return undefined;
  }
  const reduced = square.add(mixed.mmul(toStraight));
  const [first, second, third] = reduced.to2DArray() as [number[], number[], number[]];
  const { eigenvectorMatrix } = new EigenvalueDecomposition(
    new Matrix([third.map((v) => v / 2), second.map((v) => -v), first.map((v) => v / 2)]),
  );
  for (let k = 0; k < 3; k++) {
    const [a, b, c] = [0, 1, 2].map((i) => eigenvectorMatrix.get(i, k)) as [number, number, number];
    if (4 * a * c - b * b > 0) return [a, b, c, ...toStraight.mmul(Matrix.columnVector([a, b, c])).to1DArray()];
  }
  return undefined;
}

/** Of x², xy, y², x, y and 1 the products with each other, summed over points. Row by row, since a rim is fitted a hundred times. */
function sumProducts(points: readonly Vec[]): Matrix {
  const sums = Array.from({ length: 6 }, () => new Float64Array(6));
  for (const [x, y] of points) {
    const terms = [x * x, x * y, y * y, x, y, 1];
    for (let i = 0; i < 6; i++) for (let k = 0; k < 6; k++) sums[i]![k]! += terms[i]! * terms[k]!;
  }
  return new Matrix(sums.map((row) => [...row]));
}

function ellipseOf([a = 0, b = 0, c = 0, d = 0, e = 0, f = 0]: readonly number[]): Ellipse | undefined {
  const determinant = 4 * a * c - b * b;
  const centre: Vec = [(b * e - 2 * c * d) / determinant, (b * d - 2 * a * e) / determinant];
  const level = -(f + (d * centre[0] + e * centre[1]) / 2);
  const [mean, spread] = [(a + c) / 2, Math.hypot((a - c) / 2, b / 2)];
  const [p, q] = [level / (mean - spread), level / (mean + spread)];
  if (!(p > 0) || !(q > 0)) return undefined;
  const steep = Math.atan2(b, a - c) / 2;
  return p > q
    ? { centre, axes: [Math.sqrt(p), Math.sqrt(q)], direction: steep + Math.PI / 2 }
    : { centre, axes: [Math.sqrt(q), Math.sqrt(p)], direction: steep };
}

/** The place at a parameter of the ellipse (radians), and the direction straight out of it there. */
export function onEllipse(
  { centre, axes: [a, b], direction }: Ellipse,
  at: number,
): { readonly point: Vec; readonly outward: number } {
  const [c, s] = [Math.cos(direction), Math.sin(direction)];
  const turned = (x: number, y: number): Vec => [c * x - s * y, s * x + c * y];
  const [x, y] = turned(a * Math.cos(at), b * Math.sin(at));
  const [nx, ny] = turned(b * Math.cos(at), a * Math.sin(at));
  return { point: [centre[0] + x, centre[1] + y], outward: Math.atan2(ny, nx) };
}

/** How far a point lies outside the ellipse along its normal, to first order (Sampson 1982). */
export function outsideEllipse({ centre, axes: [a, b], direction }: Ellipse, [x, y]: Vec): number {
  const [c, s] = [Math.cos(direction), Math.sin(direction)];
  const [u, v] = [(c * (x - centre[0]) + s * (y - centre[1])) / a, (c * (y - centre[1]) - s * (x - centre[0])) / b];
  const slope = 2 * Math.hypot(u / a, v / b);
  return slope === 0 ? -b : (u * u + v * v - 1) / slope;
}
