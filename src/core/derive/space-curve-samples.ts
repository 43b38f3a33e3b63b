import {
  distance,
  endOf,
  nearestOn,
  perpendicular,
  pointAt,
  startOf,
  velocityAt,
  type Path,
  type Vec,
} from '../geometry';
import { fromSpace, pointInSpace, scale3, velocityInSpace, type SpacePiece, type Vec3 } from '../space';
import { vectorOn } from './moved-in-space';
import type { CurveSide } from './space-curves';

/** Places along a curve at which it is asked how sure it is, at the least; one or more on each piece. */
const PLACES = 24;

/** A place of a curve in space. mm, object frame. */
export interface Sample {
  readonly at: Vec3;
  /** Of length one. */
  readonly towards: Vec3;
  readonly seen: readonly [SampleSeen, SampleSeen];
  /** Which of the two outlines ends here, and so says where the curve does. */
  readonly ends: 0 | 1 | undefined;
}

/** Where one of the two outlines shows it. */
export interface SampleSeen {
  readonly piece: number;
  readonly t: number;
  readonly sheet: Vec;
  /** Square to the outline, in the view's plane. */
  readonly normal: Vec3;
}

/** Places along a curve, from its beginning to its end, with where its two outlines show them. */
export function samplesOf(
  pieces: readonly SpacePiece[],
  closed: boolean,
  sides: readonly [CurveSide, CurveSide],
): readonly Sample[] {
  const each = Math.ceil(PLACES / pieces.length);
  const places = pieces.flatMap((piece, i) =>
    Array.from({ length: each + (i === pieces.length - 1 ? 1 : 0) }, (_, k) => ({ piece, t: k / each })),
  );
  return places.map(({ piece, t }, i) => {
    const at = pointInSpace(piece, t);
    const velocity = velocityInSpace(piece, t);
    const seen = sides.map((side) => seenAt(side, at)) as unknown as Sample['seen'];
    const isEnd = !closed && (i === 0 || i === places.length - 1);
    return {
      at,
      towards: scale3(velocity, 1 / (Math.hypot(...velocity) || 1)),
      seen,
      ends: isEnd ? endingIn(sides, at) : undefined,
    };
  });
}

const onPlaneOf = ({ standing }: CurveSide, at: Vec3): Vec => fromSpace(standing.pose, at).at;

function seenAt(side: CurveSide, at: Vec3): SampleSeen {
  const place = onPlaneOf(side, at);
  const nearest = side.path.pieces
    .map((piece, index) => ({ index, piece, ...nearestOn(piece, place) }))
    .reduce((best, other) => (other.distance < best.distance ? other : best));
  const normal = vectorOn(side.standing, perpendicular(velocityAt(nearest.piece, nearest.t)));
  return {
    piece: nearest.index,
    t: nearest.t,
    sheet: side.fitted.fit.toSheet(pointAt(nearest.piece, nearest.t)),
    normal: scale3(normal, 1 / (Math.hypot(...normal) || 1)),
  };
}

/** The outline whose own end is nearer to an end of the curve. */
function endingIn(sides: readonly [CurveSide, CurveSide], at: Vec3): 0 | 1 {
  const away = ({ pieces }: Path, place: Vec) =>
    Math.min(distance(startOf(pieces[0]!), place), distance(endOf(pieces.at(-1)!), place));
  const [first, second] = sides.map((side) => away(side.path, onPlaneOf(side, at))) as [number, number];
  return first <= second ? 0 : 1;
}
