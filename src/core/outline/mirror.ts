import {
  dot,
  endOf,
  findEnds,
  findUnion,
  listCrossings,
  moved,
  norm,
  partOf,
  perpendicular,
  pieceBounds,
  reversedPath,
  scale,
  startOf,
  subtract,
  add,
  type Affine,
  type Line,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';

/** The map that mirrors a plane about a line. */
export function reflection({ a, b }: Line): Affine {
  const along = subtract(b, a);
  const square = dot(along, along);
  const [c, s] = [(along[0] ** 2 - along[1] ** 2) / square, (2 * along[0] * along[1]) / square];
  return [c, s, s, -c, a[0] - c * a[0] - s * a[1], a[1] - s * a[0] + c * a[1]];
}

/** An end this near to the axis, as a share of the path's size, is meant to lie on it. */
const MEANT = 0.02;

/**
 * Half an outline and its mirror image as one: ends that are meant to lie on the axis are brought onto it exactly, along their own line or arc where that meets it. An
 * open half with both ends there gives one closed path, with one of them an open one; what does not reach the axis is given with its image beside it.
 */
export function findWhole(half: Path, axis: Line): readonly Path[] {
  const image = (path: Path): Path => ({ ...path, pieces: path.pieces.map((piece) => moved(piece, reflection(axis))) });
  // A closed image runs around what it holds in the same direction as its half.
  const beside = () => [half, half.closed ? reversedPath(image(half)) : image(half)];
  const ends = half.closed ? undefined : findEnds(half);
  if (!ends) return beside();
  const box = findUnion(half.pieces.map(pieceBounds))!;
  const reach = MEANT * norm(subtract(box.max, box.min));
  const [startsThere, endsThere] = ends.map((end) => Math.abs(asideOf(end, axis)) <= reach) as [boolean, boolean];
  if (!startsThere && !endsThere) return beside();
  const whole = startsThere && !endsThere ? reversedPath(half) : half;
  const ended = endedOn(whole, axis, reach);
  const brought = startsThere && endsThere ? reversedPath(endedOn(reversedPath(ended), axis, reach)) : ended;
  return [{ closed: startsThere && endsThere, pieces: [...brought.pieces, ...reversedPath(image(brought)).pieces] }];
}

function asideOf(place: Vec, { a, b }: Line): number {
  const along = subtract(b, a);
  return dot(subtract(place, a), perpendicular(along)) / norm(along);
}

/** How much of itself a piece may be carried on to reach the axis. */
const CARRIED_ON = 1.5;

/** The path with its end on the axis. */
function endedOn({ closed, pieces }: Path, axis: Line, reach: number): Path {
  const last = pieces.at(-1)!;
  const end = endOf(last);
  const aside = asideOf(end, axis);
  if (aside === 0) return { closed, pieces };
  const longer = partOf(last, 0, CARRIED_ON);
  const near = listCrossings(longer, axis).filter(({ point }) => norm(subtract(point, end)) <= 2 * reach);
  const nearest = [...near].sort((p, q) => norm(subtract(p.point, end)) - norm(subtract(q.point, end)))[0];
  if (nearest)
    return { closed, pieces: [...pieces.slice(0, -1), onto(partOf(last, 0, nearest.ta * CARRIED_ON), nearest.point)] };
  const along = subtract(axis.b, axis.a);
  const foot = add(end, scale(perpendicular(along), -aside / norm(along)));
  return { closed, pieces: [...pieces, { kind: 'line', a: end, b: foot }] };
}

/** A line's end in all its digits. */
const onto = (piece: Piece, end: Vec): Piece =>
  piece.kind === 'line' ? { kind: 'line', a: startOf(piece), b: end } : piece;
