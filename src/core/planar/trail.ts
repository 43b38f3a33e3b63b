import {
  add,
  angleOf,
  cross,
  distance,
  dot,
  endOf,
  findDirection,
  norm,
  perpendicular,
  scale,
  signedAngle,
  startOf,
  subtract,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import { listBeside, polyline, type Beside } from './beside';

/** How a corner is gone around on its outer side. */
export type CornerStyle = 'round' | 'mitre' | 'square';

/** A pointed corner that reaches farther than this many offsets is cut square instead. */
const LONGEST_MITRE = 4;

/** A piece of a trail, and whether it lies beside the path: what goes by the path itself only shuts others out. */
export interface TrailPiece {
  readonly piece: Piece;
  readonly isBeside: boolean;
}

/**
 * Everything beside a path, `by` to its right, end to end and unrefined: where it doubles back or crosses itself the winding tells what belongs to the offset. At
 * inner corners and tight bends it goes by the path itself, so that what lies beyond is shut out with the right sign.
 */
export function trailBeside(
  { pieces, closed }: Path,
  by: number,
  corners: CornerStyle,
  tolerance: number,
): readonly TrailPiece[] {
  const runs = pieces.flatMap((piece) => listBeside(piece, by, tolerance));
  return runs.flatMap((run, i) => {
    const next = runs[i + 1] ?? (closed ? runs[0] : undefined);
    return [...marked(run.pieces, !run.onPath), ...(next ? between(run, next, by, corners, tolerance) : [])];
  });
}

const marked = (pieces: readonly Piece[], isBeside: boolean): readonly TrailPiece[] =>
  pieces.map((piece) => ({ piece, isBeside }));

/** From what lies beside one piece to what lies beside the next. */
function between(
  run: Beside,
  next: Beside,
  by: number,
  corners: CornerStyle,
  tolerance: number,
): readonly TrailPiece[] {
  const [from, to, corner] = [endOf(run.pieces.at(-1)!), startOf(next.pieces[0]!), run.to];
  const turnsOut = isOuter(run.arrive, next.leave, by);
  // A line back over what it joins would lie on both: only what is as good as one place is joined so.
  if (!run.onPath && !next.onPath && distance(from, to) <= (turnsOut ? tolerance : SAME * tolerance))
    return marked(distance(from, to) > 0 ? polyline([from, to]) : [], true);
  if (!turnsOut) return marked(polyline([from, corner, to]).filter(isLong), false);
  const [out, back] = [run.arrive, next.leave].map((direction) =>
    add(corner, scale(perpendicular(direction), -by)),
  ) as [Vec, Vec];
  const outer = around(corner, out, back, run.arrive, next.leave, by, corners);
  return [
    ...marked(polyline([from, out]), !run.onPath),
    ...marked(outer, true),
    ...marked(polyline([back, to]), !next.onPath),
  ].filter(({ piece }) => isLong(piece));
}

/** Whether a corner turns away from the side that is gone along; what turns straight back has an outer side only. */
function isOuter(arrive: Vec, leave: Vec, by: number): boolean {
  const turn = cross(arrive, leave);
  return turn * by > 0 || (Math.abs(turn) < BACK && dot(arrive, leave) < 0);
}

/** So small a share of what an offset may be off is no way back. */
const SAME = 1e-3;

/** Sine of the least turn. */
const BACK = 1e-9;

/** Whether a piece goes anywhere. */
export const isLong = (piece: Piece) => distance(startOf(piece), endOf(piece)) > 0;

/** Around the outer side of a corner. */
export function around(
  corner: Vec,
  from: Vec,
  to: Vec,
  arrive: Vec,
  leave: Vec,
  by: number,
  style: CornerStyle,
): readonly Piece[] {
  const turn = signedAngle(angleOf(leave) - angleOf(arrive));
  const sweep = turn * by < 0 ? Math.sign(by) * Math.abs(turn) : turn;
  if (style === 'round')
    return [{ kind: 'arc', centre: corner, radius: Math.abs(by), start: angleOf(subtract(from, corner)), sweep }];
  const reach = 1 / Math.max(1e-9, Math.cos(sweep / 2));
  if (style === 'mitre' && reach <= LONGEST_MITRE) {
    const bisector = add(subtract(from, corner), subtract(to, corner));
    return polyline([
      from,
      add(corner, scale(bisector, (by * by) / Math.max(1e-300, dot(bisector, subtract(from, corner))))),
      to,
    ]);
  }
  const along = Math.abs(by) * Math.tan(Math.min(Math.abs(sweep), Math.PI) / 4);
  return polyline([from, add(from, scale(arrive, along)), subtract(to, scale(leave, along)), to]);
}

/** How a strip ends. */
export type EndStyle = 'round' | 'flat' | 'square';

/** Across the end of a strip of which one side ends and the other begins. `ahead` is the direction in which the middle line ends. */
export function capOf(from: Vec, to: Vec, ahead: Vec, style: EndStyle): readonly Piece[] {
  if (style === 'flat') return polyline([from, to]);
  const half = norm(subtract(to, from)) / 2;
  const middle = scale(add(from, to), 0.5);
  if (style === 'round')
    return [{ kind: 'arc', centre: middle, radius: half, start: angleOf(subtract(from, middle)), sweep: Math.PI }];
  const out = scale(findDirection(ahead) ?? perpendicular(subtract(to, from)), half);
  return polyline([from, add(from, out), add(to, out), to]);
}
