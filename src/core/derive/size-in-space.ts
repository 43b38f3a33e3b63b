import { measureEachBy, type Measured } from '../adjust';
import { angleOf, moved, placed, pointAt, turningsAlong, type Piece } from '../geometry';
import type { Job } from '../job';
import type { Outline } from '../outline';
import { DIRECTIONS, directionUnseen, toSpace, type Vec3 } from '../space';
import type { Derived } from './derived';
import { outlinesLeaving } from './drawing';
import { pointedAlone } from './figures';
import { causesOfStands, shiftsUnder, type OtherwiseInSpace, type PlaceInSpace } from './moved-in-space';
import { endsOfRise, levelOf, poseOnLayer } from './levels';
import { listStanding } from './on-sites';
import { standsBySide, type Standing, type StandingBySide } from './standing';

const AXES = [0, 1, 2] as const;
/** Less of a doubt is that of rounding. mm */
const EXACT = 1e-9;
type Axis = (typeof AXES)[number];

/** A place with where it is, mm. */
interface Extreme {
  readonly place: PlaceInSpace;
  readonly at: Vec3;
  /** The axis along which it lies at something shared that is not known to the last digit. */
  readonly doubtful: number | undefined;
}

/**
 * How far what stands in space reaches along each direction, with its plus-minus: by its outermost places, which move as their outlines do, and as the maps and stands of their views. mm, one sigma; undefined along a direction where
 * an outermost place is one of whose doubt nothing is known (on a view that stands on an edge, on a curve in space, at a level that was read), or nothing stands. First order: which place is outermost is taken as it is.
 */
export function sizeInSpace(job: Job, derived: Derived): readonly (Measured | undefined)[] {
  const all = [...derived.arranged.stands.values()]
    .filter(standsBySide)
    .flatMap((standing) => placesOf(standing, job, derived));
  if (all.length === 0 || hasMore(job, derived)) return AXES.map(() => undefined);
  const ends = AXES.map((axis) => [outermost(all, axis, -1), outermost(all, axis, 1)] as const);
  const outlines = ends.flat().flatMap(({ place }) => job.outlines.find(({ id }) => id === place.outline) ?? []);
  const pointed = pointedAlone([...new Set<Outline>(outlines)], { job, derived });
  const asPointed = pointed.shapesAt({});
  const read = measureEachBy<OtherwiseInSpace, readonly number[]>(
    (otherwise) => {
      const shift = shiftsUnder(otherwise, asPointed, pointed.shapesAt(otherwise));
      return ends.map(([low, high], axis) => {
        const along = ({ place, at }: Extreme) => at[axis as Axis] + shift(place)[axis as Axis];
        return along(high) - along(low);
      });
    },
    {},
    [...pointed.causes, ...causesOfStands(ends.flat().map(({ place }) => place.among))],
  );
  return read.map((size, axis) => (ends[axis]!.some(({ doubtful }) => doubtful === axis) ? undefined : size));
}

/** Whether anything leaves in space of whose doubt nothing is known here. */
const hasMore = (job: Job, derived: Derived): boolean =>
  job.spaceCurves.some(({ id }) => derived.spaceCurve(id)?.ok) ||
  listStanding(job, derived).length > [...derived.arranged.stands.values()].filter(standsBySide).length;

/** Of every outline that leaves on the plane of a view, the places that may be outermost along a direction. */
function placesOf(standing: StandingBySide, job: Job, derived: Derived): readonly Extreme[] {
  const fitted = derived.views.get(standing.view);
  const among = derived.arranged.among(standing.view);
  if (!fitted || !among) return [];
  const unseen = directionUnseen(standing.side);
  const drawn = outlinesLeaving(job, { plane: fitted.view.plane }).flatMap(({ id, layer }) =>
    endsOfRise(job.layers.find((each) => each.id === layer) ?? {}, standing.side, derived.arranged).map(
      (end) => [id, end] as const,
    ),
  );
  return drawn.flatMap(([id, layer]) => {
    const pose = poseOnLayer(standing, layer, derived.arranged);
    const [own, ofView] = [layer, fitted.source].map((lying) => levelOf(lying, standing.side, derived.arranged));
    const doubtful = ((own ?? ofView)?.sigma ?? 0) > EXACT ? DIRECTIONS.indexOf(unseen) : undefined;
    return (derived.shapes.get(id)?.paths ?? []).flatMap(({ pieces }, path) =>
      pieces.flatMap((drawn, piece) =>
        parametersOf(drawn, standing).map((t): Extreme => {
          const on = pointAt(drawn, t);
          const sheet = fitted.fit.toSheet(on);
          const place = { outline: id, path, piece, t, sheet, standing, among };
          return { place, at: toSpace(pose, on), doubtful };
        }),
      ),
    );
  });
}

/** Where a piece begins, ends, and turns back along any of the three directions. */
function parametersOf(piece: Piece, { pose }: Standing): readonly number[] {
  const turning = AXES.flatMap((axis) =>
    turningsAlong(moved(piece, placed([0, 0], -angleOf([pose.x[axis], pose.y[axis]]))), 0),
  );
  return [0, 1, ...turning];
}

const outermost = (all: readonly Extreme[], axis: Axis, way: 1 | -1): Extreme =>
  all.reduce((best, other) => (way * (other.at[axis] - best.at[axis]) > 0 ? other : best));
