import { rootOf, type Cause } from '../adjust';
import { toPlane, type Adjustment, type SheetMap } from '../calibrate';
import { pointAt, subtract, type Vec } from '../geometry';
import type { Shape } from '../outline';
import { add3, scale3, type Vec3 } from '../space';
import type { Otherwise } from './causes';
import type { Standing } from './standing';

/** A place on an outline that stands in space. */
export interface PlaceInSpace {
  readonly outline: string;
  /** Which of its paths, and of that one's pieces, and where on that. */
  readonly path: number;
  readonly piece: number;
  readonly t: number;
  /** Where its view shows it, px. */
  readonly sheet: Vec;
  readonly standing: Standing;
  /** What the views came to among which its own stands. */
  readonly among: Adjustment;
}

/** What pointing, and the fits in which views stand, may be otherwise: the latter by the numbers of each. */
export interface OtherwiseInSpace extends Otherwise {
  readonly stands?: ReadonlyMap<Adjustment['covariance'], readonly number[]>;
}

/** The numbers of the fits in which views stand, each fit's once. */
export function causesOfStands(among: readonly Adjustment[]): readonly Cause<OtherwiseInSpace>[] {
  const each = new Map(among.map((one) => [one.covariance, one]));
  return [...each.values()].flatMap(({ covariance, values, mixed: { within, ways } }) => {
    const along =
      (direction: readonly number[], sigma = 1) =>
      (by: number): OtherwiseInSpace => ({
        stands: new Map([[covariance, values.map((value, i) => value + by * sigma * direction[i]!)]]),
      });
    return [
      ...rootOf(within).map((direction) => along(direction)),
      ...ways.map(({ away, weight }) =>
        Object.assign(along(away, Math.sqrt(weight)), { reach: 1 / Math.sqrt(weight) }),
      ),
    ];
  });
}

type Shapes = ReadonlyMap<string, Shape>;

/** A displacement on the plane of a view, in space. */
export const vectorOn = ({ pose }: Pick<Standing, 'pose'>, [x, y]: Vec): Vec3 =>
  add3(scale3(pose.x, x), scale3(pose.y, y));

/** How far places of outlines move in space under what is otherwise: their view's map moves them, and they move on it. No number where the outline is of other pieces then. mm */
export function shiftsUnder(
  otherwise: OtherwiseInSpace,
  asPointed: Shapes,
  shapes: Shapes,
): (place: PlaceInSpace) => Vec3 {
  const maps = new Map<Adjustment, readonly [SheetMap, SheetMap]>();
  const mapsOf = (among: Adjustment) => {
    const { values, covariance, mapAt } = among;
    const known = maps.get(among) ?? [mapAt(values), mapAt(otherwise.stands?.get(covariance) ?? values)];
    maps.set(among, known);
    return known;
  };
  return ({ outline, path, piece, t, sheet, standing, among }) => {
    const [was, is] = [asPointed, shapes].map((all) => all.get(outline)?.paths[path]?.pieces[piece]);
    const [before, after] = mapsOf(among).map((map) => toPlane(map, sheet)) as [Vec, Vec];
    const drawn = was && is ? subtract(pointAt(is, t), pointAt(was, t)) : ([NaN, NaN] as const);
    const [right, up] = subtract(after, before);
    const { x, y } = standing.frame;
    return add3(vectorOn(standing, drawn), add3(scale3(x, right), scale3(y, up)));
  };
}
