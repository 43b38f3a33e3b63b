import { cross, dot, mix, subtract, type Vec } from '../geometry';

/** A hand that lays a thing along another leaves it askew by so much at least, radians; what is printed is true to less. Common practice: half a degree. */
export const LEAST_ASKEW = 0.007;
/** Turned by more than this, and drawn together, sides may seem to be turned either way. */
const CLEARLY = 0.5;

/**
 * Whether a four-cornered shape lies askew on another as it is seen, from the side or not: each of its sides runs past the place where what is parallel to the other's sides would meet. A
 * thing that a hand laid on another does; what is printed on a thing runs along its sides. Corners in turn, of both; `least` is less where they were seen coarsely.
 */
export function liesAskew(corners: readonly Vec[], on: readonly Vec[], least = LEAST_ASKEW): boolean {
  const vanishing = [0, 1].map((i) => meetingOf([on[i]!, on[i + 1]!], [on[i + 2]!, on[(i + 3) % 4]!]));
  const turnsBy = (pairing: 0 | 1) =>
    corners.map((from, i) => turnAgainst(from, corners[(i + 1) % 4]!, vanishing[(i + pairing) % 2]!));
  const [turns] = [turnsBy(0), turnsBy(1)].sort((a, b) => mostOf(a) - mostOf(b)) as [number[], number[]];
  const isTurnedAsOne = turns.every((turn) => turn > 0) || turns.every((turn) => turn < 0);
  return turns.every((turn) => Math.abs(turn) > least) && (isTurnedAsOne || mostOf(turns) > CLEARLY);
}

const mostOf = (turns: readonly number[]) => Math.max(...turns.map(Math.abs));

type Homogeneous = readonly [number, number, number];

/** Where the lines through two pairs of places meet, in homogeneous coordinates: parallel ones meet in a direction. */
function meetingOf(first: readonly [Vec, Vec], second: readonly [Vec, Vec]): Homogeneous {
  const [[a, b, c], [d, e, f]] = [first, second].map(([p, q]): Homogeneous => [
    p[1] - q[1],
    q[0] - p[0],
    cross(p, q),
  ]) as [Homogeneous, Homogeneous];
  return [b * f - c * e, c * d - a * f, a * e - b * d];
}

/** From the direction in which a place lies to that of a side, seen from the side's middle, radians; a line has no head. */
function turnAgainst(from: Vec, to: Vec, [x, y, w]: Homogeneous): number {
  const [u, v] = mix(from, to, 0.5);
  const way: Vec = [x - w * u, y - w * v];
  const side = subtract(to, from);
  return Math.atan(cross(way, side) / dot(way, side));
}
