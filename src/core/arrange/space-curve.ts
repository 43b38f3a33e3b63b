import { done, refused, type Result } from '../basics';
import {
  accelerationAt,
  endOf,
  movedPath,
  pointAt,
  startOf,
  velocityAt,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import {
  axesSeenFrom,
  DIRECTIONS,
  distance3,
  endInSpace,
  fittedCubics,
  type Direction,
  type SeenAxis,
  type Side,
  type SmoothCurve,
  type SpacePiece,
  type Vec3,
} from '../space';
import { runsUpright, parameterAlong, stretchesOf, type MonotoneStretch } from './stretches';

/** A curve as a view shows it, in the view's own axes, mm. */
export interface SeenCurve {
  readonly side: Side;
  readonly path: Path;
}

/** Two curves in neighbouring views as one in space. */
export interface SpaceCurve {
  readonly closed: boolean;
  readonly pieces: readonly SpacePiece[];
  /** The direction that both views show. */
  readonly along: Direction;
  /** What one of them shows and the other does not: from where to where along the shared direction, mm. It is left away. */
  readonly missing: readonly { readonly of: 'first' | 'second'; readonly from: number; readonly to: number }[];
}

/**
 * The curve that is seen as one path from one side and as another from a neighbouring one. Both are parted where the direction that they share turns back, and matched stretch by stretch, in order; where one has a single
 * stretch it is behind all of the other's (a curve that is seen edge-on). Lines stay lines, all else becomes cubics within `tolerance` (mm) of what the two paths say exactly. Refused: sides that do not share one
 * direction, paths without pieces, numbers of stretches that do not match, stretches with nothing in common, a step in both at one place. Weak: which end of an open path belongs to which end of the other is told by how far they reach.
 */
export function spaceCurveOf(first: SeenCurve, second: SeenCurve, tolerance: number): Result<SpaceCurve> {
  const frame = frameOf(first.side, second.side);
  if (!frame) return refused('curve-sides-share-nothing');
  if (first.path.pieces.length === 0 || second.path.pieces.length === 0) return refused('curve-empty');
  const [one, other] = [stretchesOf(along(first, frame.shared)), stretchesOf(along(second, frame.shared))];
  const pairs = matched(one, other, second.path.closed);
  if (!pairs) return refused('curve-stretches-differ', { first: one.length, second: other.length });
  const missing: SpaceCurve['missing'][number][] = [];
  const pieces: SpacePiece[] = [];
  for (const [a, b, isTurned] of pairs) {
    const [low, high] = [Math.max(a.from, b.from), Math.min(a.to, b.to)];
    if (!(high - low > tolerance)) return refused('curve-nothing-shared');
    missing.push(...missingOf(a, b, tolerance));
    const made = joined(a, b, low, high, frame.place, tolerance);
    if (!made.ok) return made;
    pieces.push(...(isTurned ? made.value.map(turned).reverse() : made.value));
  }
  const closed = one.length >= other.length ? first.path.closed : second.path.closed;
  return done({ closed, pieces: endToEnd(pieces, closed, tolerance), along: frame.shared, missing });
}

interface Frame {
  readonly shared: Direction;
  /** Where something is at a coordinate along what is shared, and at one in each view across that. */
  place(shared: number, first: number, second: number): Vec3;
}

function frameOf(a: Side, b: Side): Frame | undefined {
  const [one, other] = [axesSeenFrom(a), axesSeenFrom(b)];
  const shared = one.filter(({ direction }) => other.some((axis) => axis.direction === direction));
  if (shared.length !== 1) return undefined;
  const own = (axes: readonly SeenAxis[]) =>
    axes.find(({ direction }) => direction !== shared[0]!.direction)!.direction;
  const order = [shared[0]!.direction, own(one), own(other)].map((direction) => DIRECTIONS.indexOf(direction));
  return {
    shared: shared[0]!.direction,
    place(...coordinates) {
      const place: [number, number, number] = [0, 0, 0];
      order.forEach((axis, i) => (place[axis] = coordinates[i]!));
      return place;
    },
  };
}

/** A path with the shared coordinate of the object frame as its x, and the other one as its y. */
function along({ side, path }: SeenCurve, shared: Direction): Path {
  const [x, y] = axesSeenFrom(side);
  return movedPath(path, x.direction === shared ? [x.sign, 0, 0, y.sign, 0, 0] : [0, x.sign, y.sign, 0, 0, 0]);
}

type Pair = readonly [first: MonotoneStretch, second: MonotoneStretch, isTurned: boolean];

/** Stretch by stretch: in order, or against it, or, of a closed one, begun anywhere, however they reach equally far. */
function matched(
  one: readonly MonotoneStretch[],
  other: readonly MonotoneStretch[],
  isClosed: boolean,
): Pair[] | undefined {
  if (other.length === 1) return one.map((a) => [a, other[0]!, a.isTurned]);
  if (one.length === 1) return other.map((b) => [one[0]!, b, b.isTurned]);
  if (one.length !== other.length) return undefined;
  const starts = isClosed ? one.map((_, i) => i) : [0];
  const orders = [other, [...other].reverse()].flatMap((list) =>
    starts.map((start) => list.map((_, i) => list[(i + start) % list.length]!)),
  );
  const apart = (order: readonly MonotoneStretch[]) =>
    order.reduce((sum, b, i) => sum + Math.abs(b.from - one[i]!.from) + Math.abs(b.to - one[i]!.to), 0);
  const best = orders.reduce((nearest, order) => (apart(order) < apart(nearest) ? order : nearest));
  return one.map((a, i) => [a, best[i]!, a.isTurned]);
}

function missingOf(a: MonotoneStretch, b: MonotoneStretch, tolerance: number): SpaceCurve['missing'] {
  const beyond = (of: 'first' | 'second', one: MonotoneStretch, other: MonotoneStretch) =>
    [
      { of, from: one.from, to: Math.min(one.to, other.from) },
      { of, from: Math.max(one.from, other.to), to: one.to },
    ].filter(({ from, to }) => to - from > tolerance);
  return [...beyond('first', a, b), ...beyond('second', b, a)];
}

/** Both stretches between two places of what they share: pieces end to end, and upright steps of one where the other waits. */
function joined(
  a: MonotoneStretch,
  b: MonotoneStretch,
  low: number,
  high: number,
  place: Frame['place'],
  tolerance: number,
): Result<SpacePiece[]> {
  const stops = [a, b].flatMap(({ pieces }) => pieces.flatMap((piece) => [startOf(piece)[0], endOf(piece)[0]]));
  const cuts = [...new Set([low, ...stops.filter((x) => x > low && x < high).sort((x, y) => x - y), high])];
  const kept = cuts.filter((x, i) => i === 0 || x - cuts[i - 1]! > 1e-9 || i === cuts.length - 1);
  const pieces: SpacePiece[] = [];
  for (const [i, x] of kept.entries()) {
    const steps = [a, b].map((stretch) =>
      stretch.pieces.filter((piece) => runsUpright(piece) && Math.abs(startOf(piece)[0] - x) <= 1e-9),
    );
    if (steps[0]!.length > 0 && steps[1]!.length > 0) return refused('curve-steps-in-both', { at: x });
    const waiting = (stretch: MonotoneStretch) => heightAt(stretch, x);
    steps[0]!.forEach((step) => pieces.push(upright(step, (y) => place(x, y, waiting(b)))));
    steps[1]!.forEach((step) => pieces.push(upright(step, (y) => place(x, waiting(a), y))));
    const next = kept[i + 1];
    if (next !== undefined)
      pieces.push(...between(partOver(a, x, next), partOver(b, x, next), x, next, place, tolerance));
  }
  return done(pieces);
}

const upright = (step: Piece, at: (y: number) => Vec3): SpacePiece => ({
  kind: 'line',
  a: at(startOf(step)[1]),
  b: at(endOf(step)[1]),
});

/** The piece of a stretch that runs from one x to another. */
function partOver({ pieces }: MonotoneStretch, from: number, to: number): Piece {
  const middle = (from + to) / 2;
  return pieces.find((piece) => startOf(piece)[0] <= middle && endOf(piece)[0] >= middle)!;
}

function heightAt({ pieces }: MonotoneStretch, x: number): number {
  const piece = pieces.find(
    (part) => !runsUpright(part) && startOf(part)[0] <= x + 1e-9 && endOf(part)[0] >= x - 1e-9,
  )!;
  return pointAt(piece, Math.min(1, Math.max(0, parameterAlong(piece, x))))[1];
}

function between(a: Piece, b: Piece, from: number, to: number, place: Frame['place'], tolerance: number): SpacePiece[] {
  const at = (piece: Piece, x: number) => pointAt(piece, parameterAlong(piece, x))[1];
  if (a.kind === 'line' && b.kind === 'line')
    return [{ kind: 'line', a: place(from, at(a, from), at(b, from)), b: place(to, at(a, to), at(b, to)) }];
  // At either end whichever of the two runs more upright leads.
  const [atFrom, atTo] = [from, to].map((x) => flatness(a, x) <= flatness(b, x)) as [boolean, boolean];
  const follow = (isFirst: boolean, low: number, high: number) =>
    isFirst
      ? led(a, b, low, high, place, tolerance)
      : led(b, a, low, high, (x, own, others) => place(x, others, own), tolerance);
  if (atFrom === atTo) return follow(atFrom, from, to);
  const middle = (from + to) / 2;
  return [...follow(atFrom, from, middle), ...follow(atTo, middle, to)];
}

/** How upright a piece runs where it has an x: 0 when it does. */
function flatness(piece: Piece, x: number): number {
  const [along, up] = velocityAt(piece, parameterAlong(piece, x));
  return Math.abs(along) / (Math.hypot(along, up) || 1);
}

/** A span by the parameter of the piece that runs more upright at its ends: there the other is a smooth function of it. */
function led(leader: Piece, follower: Piece, from: number, to: number, place: Frame['place'], tolerance: number) {
  const curve: SmoothCurve = {
    at(t) {
      const [x, y] = pointAt(leader, t);
      return place(x, y, pointAt(follower, parameterAlong(follower, x))[1]);
    },
    towards(t) {
      const [x, y] = velocityAt(leader, t);
      const tau = parameterAlong(follower, pointAt(leader, t)[0]);
      return place(x, y, velocityAt(follower, tau)[1] * pace(leader, t, follower, tau));
    },
  };
  return fittedCubics(curve, parameterAlong(leader, from), parameterAlong(leader, to), tolerance);
}

/** How fast the follower's parameter goes beside the leader's. Where both turn back, x goes with the square of either: their bends tell (l'Hôpital's rule). */
function pace(leader: Piece, t: number, follower: Piece, tau: number): number {
  const [x, others] = [velocityAt(leader, t)[0], velocityAt(follower, tau)[0]];
  const size = (velocity: Vec) => Math.hypot(...velocity);
  const isTurning =
    Math.abs(x) < 1e-5 * size(velocityAt(leader, t)) && Math.abs(others) < 1e-5 * size(velocityAt(follower, tau));
  if (!isTurning) return x / others;
  return Math.sqrt(Math.abs(accelerationAt(leader, t)[0] / accelerationAt(follower, tau)[0]));
}

const turned = (piece: SpacePiece): SpacePiece =>
  piece.kind === 'line'
    ? { kind: 'line', a: piece.b, b: piece.a }
    : { kind: 'cubic', a: piece.d, b: piece.c, c: piece.b, d: piece.a };

/** Pieces end to end: ends that all but meet are one; where a stretch is missing between them a line stands for it. */
function endToEnd(pieces: readonly SpacePiece[], closed: boolean, tolerance: number): SpacePiece[] {
  const chain: SpacePiece[] = [];
  for (const piece of closed ? [...pieces, pieces[0]!] : pieces) {
    const from = chain.length > 0 ? endInSpace(chain.at(-1)!) : piece.a;
    if (distance3(from, piece.a) > tolerance) chain.push({ kind: 'line', a: from, b: piece.a }, piece);
    else chain.push({ ...piece, a: from });
  }
  // Of a closed one the first piece was put on again, to begin where the last one ends.
  return closed ? [chain.at(-1)!, ...chain.slice(1, -1)] : chain;
}
