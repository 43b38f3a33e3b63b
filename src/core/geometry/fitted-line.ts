import { subtract, type Vec } from './vec';

/** A line closest to points. */
export interface FittedLine {
  /** Direction of the normal, radians, and its distance from zero. */
  readonly normal: number;
  readonly offset: number;
}

/** The line closest to points in the square sense; through both when there are two. */
export function lineThrough(points: readonly Vec[]): FittedLine {
  const n = points.length;
  const mean: Vec = [points.reduce((sum, p) => sum + p[0], 0) / n, points.reduce((sum, p) => sum + p[1], 0) / n];
  let [xx, xy, yy] = [0, 0, 0];
  for (const point of points) {
    const [x, y] = subtract(point, mean);
    xx += x * x;
    xy += x * y;
    yy += y * y;
  }
  const normal = Math.atan2(2 * xy, xx - yy) / 2 + Math.PI / 2;
  return { normal, offset: mean[0] * Math.cos(normal) + mean[1] * Math.sin(normal) };
}

/** How far a place lies off the line, on the side of its normal. */
export function awayFrom({ normal, offset }: FittedLine, [x, y]: Vec): number {
  return x * Math.cos(normal) + y * Math.sin(normal) - offset;
}

/** Where two lines cross; not finite when they are parallel. */
export function crossingOfLines(a: FittedLine, b: FittedLine): Vec {
  const [ca, sa, cb, sb] = [Math.cos(a.normal), Math.sin(a.normal), Math.cos(b.normal), Math.sin(b.normal)];
  const determinant = ca * sb - sa * cb;
  return [(a.offset * sb - sa * b.offset) / determinant, (ca * b.offset - a.offset * cb) / determinant];
}
