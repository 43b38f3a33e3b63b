import { done, refused, type Result } from '../basics';
import {
  add,
  cross,
  distance,
  dot,
  endOf,
  perpendicular,
  pieceLength,
  reversedPath,
  scale,
  startOf,
  tangentAt,
  reversed,
  withoutFalseBow,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import { findReading } from './arrangement';
import { polyline } from './beside';
import { findBoundaries, type Boundary } from './boundary';
import { capOf, isLong, trailBeside, type CornerStyle, type EndStyle, type TrailPiece } from './trail';
import type { Stretch } from './edges';
import { findWindings } from './winding';

/** `precision`: how far an offset curve may lie from where it belongs. `tolerance`: what is nearer is one place. Both in the paths' unit. */
export interface OffsetLimits {
  readonly corners: CornerStyle;
  readonly precision: number;
  readonly tolerance: number;
}

/**
 * Closed paths grown by a distance, shrunk where it is below nothing: outer ones counter-clockwise, holes clockwise. What crosses itself is taken away, what falls
 * apart is several loops, what shrinks away is none. Lines and arcs stay what they are.
 */
export function offsetClosed(paths: readonly Path[], by: number, limits: OffsetLimits): Result<readonly Path[]> {
  const given = paths.flatMap((path) =>
    withoutSpecks(
      trailBeside(whole(path, limits), by, limits.corners, limits.precision).map(({ piece }) => piece),
      limits.tolerance,
    ),
  );
  return found(loopsOf(given, limits.tolerance));
}

/** How far a strip reaches to the right and to the left of its middle line, seen along it. */
export interface StripWidth {
  readonly right: number;
  readonly left: number;
}

/** A strip along paths as its outlines, several that meet as one: an open middle line gives one loop with ends, a closed one a ring. */
export function strip(
  paths: readonly Path[],
  width: StripWidth,
  ends: EndStyle,
  limits: OffsetLimits,
): Result<readonly Path[]> {
  const given = paths.flatMap((path) =>
    withoutSpecks(
      aroundOf(whole(path, limits), width, ends, limits).map(({ piece }) => piece),
      limits.tolerance,
    ),
  );
  return found(loopsOf(given, limits.tolerance));
}

/** Loops, or the refusal that stands for none that could be told. */
const found = (loops: readonly Boundary[] | undefined): Result<readonly Path[]> =>
  loops ? done(loops) : refused('offset-unclear');

type Side = 'right' | 'left' | 'end' | 'path';

/** Both sides of a path and what joins them. */
function aroundOf(
  path: Path,
  width: StripWidth,
  ends: EndStyle,
  { corners, precision }: OffsetLimits,
): readonly { readonly piece: Piece; readonly side: Side }[] {
  const [right, left] = [
    trailBeside(path, width.right, corners, precision),
    trailBeside(reversedPath(path), width.left, corners, precision),
  ];
  const tagged = (trail: readonly TrailPiece[], side: Side) =>
    trail.map(({ piece, isBeside }) => ({ piece, side: isBeside ? side : 'path' }));
  const [first, last] = [path.pieces[0], path.pieces.at(-1)];
  if (path.closed || !first || !last) return [...tagged(right, 'right'), ...tagged(left, 'left')];
  const across = (
    ahead: Piece,
    toRight: number,
    toLeft: number,
    from: readonly TrailPiece[],
    to: readonly TrailPiece[],
  ) => {
    const [at, direction] = [endOf(ahead), tangentAt(ahead, 1)];
    const [out, back] = [-toRight, toLeft].map((by) => add(at, scale(perpendicular(direction), by))) as [Vec, Vec];
    const ended = (pieces: readonly Piece[]) => pieces.map((piece) => ({ piece, side: 'end' as const }));
    // A trail that ends on the path itself, in a bend that is too tight, goes out to its end first.
    return [
      ...ended(polyline([endOf(from.at(-1)!.piece), out])),
      ...ended(capOf(out, back, direction, ends)),
      ...ended(polyline([back, startOf(to[0]!.piece)])),
    ].filter(({ piece }) => isLong(piece));
  };
  return [
    ...tagged(right, 'right'),
    ...across(last, width.right, width.left, right, left),
    ...tagged(left, 'left'),
    ...across(reversed(first), width.left, width.right, left, right),
  ];
}

/** The line beside an open path, `by` to its right (left where below nothing), where nothing of the path is nearer, its own ends included: in pieces where it is interrupted. It ends beside the path's ends. */
export function offsetOpen(path: Path, by: number, limits: OffsetLimits): Result<readonly Path[]> {
  const forward = whole(by >= 0 ? path : reversedPath(path), limits);
  const around = aroundOf(forward, { right: Math.abs(by), left: Math.abs(by) }, 'round', limits).filter(({ piece }) =>
    isSeen(piece, limits.tolerance),
  );
  const loops = loopsOf(
    around.map(({ piece }) => piece),
    limits.tolerance,
  );
  if (!loops) return refused('offset-unclear');
  const runs = loops.flatMap((loop) => runsOf(loop, (of) => around[of]!.side === 'right'));
  return done(by >= 0 ? runs : runs.map(reversedPath));
}

/** Stretches of a loop whose pieces come from what was asked for. */
function runsOf({ pieces, sources }: Boundary, isAsked: (of: number) => boolean): readonly Path[] {
  const asked = sources.map(({ of }) => isAsked(of));
  if (asked.every(Boolean)) return [{ closed: true, pieces }];
  const first = asked.indexOf(false);
  const runs: Piece[][] = [];
  for (let i = 1; i <= pieces.length; i++) {
    const at = (first + i) % pieces.length;
    if (!asked[at]) continue;
    if (asked[(at + pieces.length - 1) % pieces.length]) runs.at(-1)!.push(pieces[at]!);
    else runs.push([pieces[at]!]);
  }
  return runs.map((run) => ({ closed: false, pieces: run }));
}

/** Everything that trails run around more often one way than the other. */
function loopsOf(given: readonly Piece[], tolerance: number): readonly Boundary[] | undefined {
  return findReading(given, tolerance, (arrangement) => {
    const winding = findWindings(arrangement, () => 1);
    const loops = winding && findBoundaries(arrangement, given, tolerance, (face) => winding(face) > 0);
    return loops?.map((loop) => tidied(loop));
  });
}

/** Lines that go on straight are one: pointed corners are drawn in several steps. */
function tidied({ closed, pieces, sources }: Boundary): Boundary {
  const [kept, from]: [Piece[], Stretch[]] = [[], []];
  pieces.forEach((piece, i) => {
    const longer = kept.length > 0 ? findLonger(kept.at(-1)!, piece) : undefined;
    if (longer) kept.splice(-1, 1, longer);
    else {
      kept.push(piece);
      from.push(sources[i]!);
    }
  });
  const around = closed && kept.length > 2 ? findLonger(kept.at(-1)!, kept[0]!) : undefined;
  return around
    ? { closed, pieces: [around, ...kept.slice(1, -1)], sources: from.slice(0, -1) }
    : { closed, pieces: kept, sources: from };
}

/** Two lines as one, where the second goes straight on. */
function findLonger(a: Piece, b: Piece): Piece | undefined {
  if (a.kind !== 'line' || b.kind !== 'line') return undefined;
  const [u, v] = [tangentAt(a, 0), tangentAt(b, 0)];
  return Math.abs(cross(u, v)) < STRAIGHT && dot(u, v) > 0 ? { kind: 'line', a: a.a, b: b.b } : undefined;
}

/** Sine of the least turn. */
const STRAIGHT = 1e-9;

/** No piece is shorter than what lies between its ends. */
const isSeen = (piece: Piece, tolerance: number) =>
  distance(startOf(piece), endOf(piece)) > tolerance || pieceLength(piece, 1e-3) > tolerance;
const withoutSpecks = (pieces: readonly Piece[], tolerance: number) =>
  pieces.filter((piece) => isSeen(piece, tolerance));
/** A path without pieces that are too short to have a direction, or that bow where no bow can be told. */
const whole = ({ closed, pieces }: Path, { tolerance }: OffsetLimits): Path => ({
  closed,
  pieces: withoutSpecks(pieces, tolerance).map(withoutFalseBow),
});
