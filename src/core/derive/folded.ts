import { lookAtPlane, standingFolded, type Extents } from '../arrange';
import { applied, boxAround, composed, type Affine, type Box, type Vec } from '../geometry';
import type { Job } from '../job';
import { axesSeenFrom, type Direction, type Side } from '../space';
import type { Arranged } from './arranged';
import type { FittedView } from './fits';
import { inSideOf, type Standing } from './standing';

/** How views are looked at together: how far their sheet is folded up (0 laid out, 1 around the thing), and from where. Radians. */
export interface Folding {
  readonly fold: number;
  readonly turn: number;
  readonly tip: number;
}

/** A view among the others as one looks at them. */
export interface FoldedView {
  readonly fitted: FittedView;
  readonly standing: Standing;
  /** From its plane to what is looked at: mm, x right, y up. */
  readonly look: Affine;
  /** How near its middle is: what is farther is drawn first. */
  readonly near: number;
  /** What it shows of its picture, on its plane. */
  readonly rim: readonly Vec[];
}

type Arrangement = {
  readonly job: Pick<Job, 'projection'>;
  readonly derived: { readonly views: ReadonlyMap<string, FittedView>; readonly arranged: Pick<Arranged, 'stands'> };
};

/** All views that stand, the farthest first. Each is drawn affinely: a look from afar keeps what is straight and parallel. */
export function foldedViews({ job, derived }: Arrangement, { fold, turn, tip }: Folding): readonly FoldedView[] {
  const standing = [...derived.arranged.stands.values()].map((stands) => {
    const fitted = derived.views.get(stands.view)!;
    return { stands, fitted, rim: rimOf(fitted), inSide: inSideOf(stands) };
  });
  const extents = extentsOf(
    standing.map(({ stands: { side }, rim, inSide }) => ({
      side,
      box: boxAround(rim.map((at) => applied(inSide, at))),
    })),
  );
  return standing
    .map(({ stands, fitted, rim, inSide }): FoldedView => {
      const pose = standingFolded(stands.side, extents, job.projection ?? 'third', fold);
      const { look: onLook, depth } = lookAtPlane(pose, turn, tip);
      const { min, max } = boxAround(rim.map((at) => applied(inSide, at)));
      const middle: Vec = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
      return {
        fitted,
        standing: stands,
        rim,
        look: composed(onLook, inSide),
        near: depth(middle),
      };
    })
    .sort((a, b) => a.near - b.near);
}

/** The corners of what a view shows of its picture, on its plane. */
function rimOf({ fit, sheet: { width, height }, view: { frame } }: FittedView): readonly Vec[] {
  const corners: readonly Vec[] = frame ?? [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ];
  return corners.map(fit.toPlane);
}

function extentsOf(shown: readonly { readonly side: Side; readonly box: Box }[]): Extents {
  const along = (direction: Direction): readonly [number, number] => {
    const ends = shown.flatMap(({ side, box }) =>
      axesSeenFrom(side).flatMap((axis, i) =>
        axis.direction === direction ? [axis.sign * box.min[i]!, axis.sign * box.max[i]!] : [],
      ),
    );
    return ends.length > 0 ? [Math.min(...ends), Math.max(...ends)] : [0, 0];
  };
  return { across: along('across'), deep: along('deep'), up: along('up') };
}
