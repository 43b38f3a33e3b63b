import { crossingOfLines, distance, lineThrough, subtract, type FittedLine, type Vec } from '../../geometry';

/** Direction of a line, radians. */
export function directionOf([a, b]: readonly [Vec, Vec]): number {
  const [x, y] = subtract(b, a);
  return Math.atan2(y, x);
}

/** An angle brought into (−turn/2, turn/2]. */
export function wrapped(angle: number, turn: number): number {
  return angle - turn * Math.round(angle / turn);
}

export interface FittedCircle {
  readonly centre: Vec;
  readonly radius: number;
}

/** Circle through points by linear least squares (Kåsa, A circle fitting procedure, 1976). Not finite for points in a line. */
export function circleThrough(points: readonly Vec[]): FittedCircle {
  const n = points.length;
  const mean: Vec = [points.reduce((sum, p) => sum + p[0], 0) / n, points.reduce((sum, p) => sum + p[1], 0) / n];
  let [uu, uv, vv, u3, v3] = [0, 0, 0, 0, 0];
  for (const point of points) {
    const [u, v] = subtract(point, mean);
    const square = u * u + v * v;
    uu += u * u;
    uv += u * v;
    vv += v * v;
    u3 += u * square;
    v3 += v * square;
  }
  const determinant = 2 * (uu * vv - uv * uv);
  const [x, y] = [(vv * u3 - uv * v3) / determinant, (uu * v3 - uv * u3) / determinant];
  return { centre: [mean[0] + x, mean[1] + y], radius: Math.sqrt(x * x + y * y + (uu + vv) / n) };
}

/** Twice the signed area of a polygon: positive when it runs counter-clockwise. */
export function doubleArea(corners: readonly Vec[]): number {
  return corners.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = corners[(i + 1) % corners.length]!;
    return sum + x * nextY - y * nextX;
  }, 0);
}

function lineAt([x, y]: Vec, normal: number): FittedLine {
  return { normal, offset: x * Math.cos(normal) + y * Math.sin(normal) };
}

/** Width and height of a quadrilateral: the means of its opposite sides. */
export function sizeOfCorners([a, b, c, d]: readonly Vec[]): { width: number; height: number } {
  return { width: (distance(a!, b!) + distance(c!, d!)) / 2, height: (distance(b!, c!) + distance(d!, a!)) / 2 };
}

/**
 * Corners of a shape that is given by points on its sides: corner 1 is where side 4 meets side 1. A side with one point runs as
 * the rectangle does by its longest side with two.
 */
export function cornersOfSides(sides: readonly (readonly Vec[])[]): Vec[] {
  const lengthOf = (side: readonly Vec[]) => distance(side[0]!, side.at(-1)!);
  const longest = sides.reduce((best, side, i) => (lengthOf(side) > lengthOf(sides[best]!) ? i : best), 0);
  const turn = lineThrough(sides[longest]!).normal;
  const lines = sides.map((side, i) =>
    side.length > 1 ? lineThrough(side) : lineAt(side[0]!, turn + ((i - longest) * Math.PI) / 2),
  );
  return lines.map((line, i) => crossingOfLines(lines[(i + 3) % 4]!, line));
}
