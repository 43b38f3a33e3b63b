import type { Piece, Vec } from '../geometry';
import { lookedAt } from '../arrange';
import type { DrawnSpaceCurve, Job } from '../job';
import { fromSpace, type SpacePiece, type Vec3 } from '../space';
import type { Derived } from './derived';
import type { FittedView } from './fits';
import type { Folding } from './folded';

/** A curve in space as it is seen: it, and its mirror image where it has one. mm, x right, y up. */
export interface CurveSeen {
  readonly curve: DrawnSpaceCurve;
  readonly paths: readonly (readonly Piece[])[];
}

interface CurvesIn {
  readonly job: Pick<Job, 'spaceCurves'>;
  readonly derived: Pick<Derived, 'spaceCurve' | 'arranged'>;
}

/** Curves in space on the plane of a view that stands; none in one that does not. */
export function curvesSeenIn({ source }: FittedView, { job, derived }: CurvesIn): readonly CurveSeen[] {
  const standing = derived.arranged.stands.get(source.id);
  return standing ? curvesSeen(job, derived, (place) => fromSpace(standing.pose, place).at) : [];
}

/** Curves in space as one looks at them among views that are folded up around the thing. */
export const curvesLookedAt = ({ job, derived }: CurvesIn, { turn, tip }: Folding): readonly CurveSeen[] =>
  curvesSeen(job, derived, (place) => {
    const [x, y] = lookedAt(place, turn, tip);
    return [x, y];
  });

/** A look from afar, and a plane that something is laid on squarely, keep what is straight and what is a cubic. */
function curvesSeen(
  { spaceCurves }: Pick<Job, 'spaceCurves'>,
  { spaceCurve }: Pick<Derived, 'spaceCurve'>,
  see: (place: Vec3) => Vec,
): readonly CurveSeen[] {
  return spaceCurves.flatMap((curve) => {
    const made = spaceCurve(curve.id);
    if (!made?.ok) return [];
    const { pieces, mirrored } = made.value;
    return [
      {
        curve,
        paths: [pieces, ...(mirrored ? [mirrored] : [])].map((all) => all.map((piece) => seenPiece(piece, see))),
      },
    ];
  });
}

function seenPiece(piece: SpacePiece, see: (place: Vec3) => Vec): Piece {
  const [a, b] = [see(piece.a), see(piece.b)];
  return piece.kind === 'line' ? { kind: 'line', a, b } : { kind: 'cubic', a, b, c: see(piece.c), d: see(piece.d) };
}
