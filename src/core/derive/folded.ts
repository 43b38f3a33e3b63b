import { lookAtPlane, standingFolded, type Extents } from '../arrange';
import { applied, boxAround, composed, type Affine, type Box, type Vec } from '../geometry';
import type { Job } from '../job';
import { axesSeenFrom, raised, type Direction, type Side } from '../space';
import type { Arranged } from './arranged';
import type { FittedView } from './fits';
import { inFrameOf, standsBySide, type StandingBySide } from './standing';
import { movedAside, shiftsSideBySide } from './variants';

/** How views are looked at together: how far their sheet is folded up (0 laid out, 1 around the thing), and from where. Radians. */
export interface Folding {
  readonly fold: number;
  readonly turn: number;
  readonly tip: number;
}

/** A view among the others as one looks at them. */
export interface FoldedView {
  readonly fitted: FittedView;
  readonly standing: StandingBySide;
  /** From its plane to what is looked at: mm, x right, y up. */
  readonly look: Affine;
  /** How near its middle is: what is farther is drawn first. */
  readonly near: number;
  /** What it shows of its picture, on its plane. */
  readonly rim: readonly Vec[];
}

type Arrangement = {
  readonly job: Pick<Job, 'projection' | 'variants'>;
  readonly derived: { readonly views: ReadonlyMap<string, FittedView>; readonly arranged: Pick<Arranged, 'stands'> };
};

/** A view that is shown, and how its plane lies in what its side shows. */
interface Lying {
  readonly stands: StandingBySide;
  readonly fitted: FittedView;
  readonly rim: readonly Vec[];
  readonly inSide: Affine;
}

/** All views that stand and are not hidden, the farthest first. Each is drawn affinely: a look from afar keeps what is straight and parallel. */
export function foldedViews({ job, derived }: Arrangement, { fold, turn, tip }: Folding): readonly FoldedView[] {
  const lying = sideBySide(listLying(derived), job);
  const extents = extentsOf(lying.map(({ stands: { side }, ...view }) => ({ side, box: boxOf(view) })));
  return lying
    .map(({ stands, fitted, rim, inSide }): FoldedView => {
      const standing = standingFolded(stands.side, extents, job.projection ?? 'third', fold);
      const { look: onLook, depth } = lookAtPlane(raised(standing, fitted.source.standOff?.out ?? 0), turn, tip);
      const { min, max } = boxOf({ rim, inSide });
      const middle: Vec = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
      return { fitted, standing: stands, rim, look: composed(onLook, inSide), near: depth(middle) };
    })
    .sort((a, b) => a.near - b.near);
}

function listLying({ views, arranged }: Arrangement['derived']): readonly Lying[] {
  return [...arranged.stands.values()].filter(standsBySide).flatMap((stands): readonly Lying[] => {
    const fitted = views.get(stands.view);
    if (!fitted || fitted.source.hidden) return [];
    const { standOff = { right: 0, up: 0 } } = fitted.source;
    return [{ stands, fitted, rim: rimOf(fitted), inSide: composed(movedAside(standOff), inFrameOf(stands)) }];
  });
}

const boxOf = ({ rim, inSide }: Pick<Lying, 'rim' | 'inSide'>): Box => boxAround(rim.map((at) => applied(inSide, at)));

/** Views of sides whose variants lie side by side, one after the other to the right. */
function sideBySide(lying: readonly Lying[], { variants }: Pick<Job, 'variants'>): readonly Lying[] {
  return variants.reduce((all, { side, gap }) => {
    const row = all.filter(({ stands }) => stands.side === side);
    const shifts = shiftsSideBySide(row.map(boxOf), gap);
    return all.map((view) => {
      const right = shifts[row.indexOf(view)] ?? 0;
      return right === 0 ? view : { ...view, inSide: composed(movedAside({ right, up: 0 }), view.inSide) };
    });
  }, lying);
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
