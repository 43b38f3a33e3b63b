import { lookAtPlane, standingFolded, uprightFolded, type Extents } from '../arrange';
import { applied, boxAround, composed, type Affine, type Box, type Vec } from '../geometry';
import type { Job } from '../job';
import { axesSeenFrom, DIRECTIONS, raised, toSpace, type Direction, type Pose } from '../space';
import type { Arranged } from './arranged';
import type { FittedView } from './fits';
import { inFrameOf, standsBySide, type Standing, type StandingBySide } from './standing';
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
  readonly standing: Standing;
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

/** A view that is shown. */
interface Shown {
  readonly stands: Standing;
  readonly fitted: FittedView;
  readonly rim: readonly Vec[];
}

/** One that shows a side, and how its plane lies in what that shows. */
interface Lying extends Shown {
  readonly stands: StandingBySide;
  readonly inSide: Affine;
}

/** All views that stand and are not hidden, the farthest first. Each is drawn affinely: a look from afar keeps what is straight and parallel. */
export function foldedViews({ job, derived }: Arrangement, { fold, turn, tip }: Folding): readonly FoldedView[] {
  const shown = listShown(derived);
  const lying = sideBySide(shown.flatMap(lyingInSide), job);
  const upright = shown.filter(({ stands }) => !standsBySide(stands));
  const [extents, projection] = [extentsOf(lying, upright), job.projection ?? 'third'];
  const looked = (view: Shown, pose: Pose, inFrame: Affine): FoldedView => {
    const { look, depth } = lookAtPlane(raised(pose, view.fitted.source.standOff?.out ?? 0), turn, tip);
    const { min, max } = boxAround(view.rim.map((at) => applied(inFrame, at)));
    const middle: Vec = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
    return {
      fitted: view.fitted,
      standing: view.stands,
      rim: view.rim,
      look: composed(look, inFrame),
      near: depth(middle),
    };
  };
  return [
    ...lying.map((view) => looked(view, standingFolded(view.stands.side, extents, projection, fold), view.inSide)),
    ...upright.map((view) =>
      looked(view, uprightFolded(view.stands.pose, extents, projection, fold), movedAside(standOffOf(view))),
    ),
  ].sort((a, b) => a.near - b.near);
}

function listShown({ views, arranged }: Arrangement['derived']): readonly Shown[] {
  return [...arranged.stands.values()].flatMap((stands): readonly Shown[] => {
    const fitted = views.get(stands.view);
    return fitted && !fitted.source.hidden ? [{ stands, fitted, rim: rimOf(fitted) }] : [];
  });
}

const standOffOf = ({ fitted: { source } }: Shown) => source.standOff ?? { right: 0, up: 0 };

const lyingInSide = ({ stands, ...view }: Shown): readonly Lying[] =>
  standsBySide(stands)
    ? [{ ...view, stands, inSide: composed(movedAside(standOffOf({ ...view, stands })), inFrameOf(stands)) }]
    : [];

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

function extentsOf(lying: readonly Lying[], upright: readonly Shown[]): Extents {
  const boxes = lying.map((view) => ({ side: view.stands.side, box: boxOf(view) }));
  const corners = upright.flatMap(({ stands, rim }) => rim.map((at) => toSpace(stands.pose, at)));
  const along = (direction: Direction): readonly [number, number] => {
    const ends = [
      ...boxes.flatMap(({ side, box }) =>
        axesSeenFrom(side).flatMap((axis, i) =>
          axis.direction === direction ? [axis.sign * box.min[i]!, axis.sign * box.max[i]!] : [],
        ),
      ),
      ...corners.map((corner) => corner[DIRECTIONS.indexOf(direction)]!),
    ];
    return ends.length > 0 ? [Math.min(...ends), Math.max(...ends)] : [0, 0];
  };
  return { across: along('across'), deep: along('deep'), up: along('up') };
}
