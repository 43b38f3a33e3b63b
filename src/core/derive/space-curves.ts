import { spaceCurveOf, type SeenCurve, type SpaceCurve } from '../arrange';
import { done, isSameList, refused, type Result } from '../basics';
import { movedPath, type Path } from '../geometry';
import type { DrawnSpaceCurve, Job } from '../job';
import type { Shape } from '../outline';
import { DIRECTIONS, type SpacePiece, type Vec3 } from '../space';
import type { Arranged } from './arranged';
import type { FittedView } from './fits';
import { inFrameOf, standsBySide, type StandingBySide } from './standing';

/** A curve in space as its two views have it. mm, object frame. */
export interface StandingCurve extends SpaceCurve {
  /** The same on the other side of the line that it is mirrored about; undefined where it is not, or nothing tells where that lies. */
  readonly mirrored: readonly SpacePiece[] | undefined;
}

/** What curves in space are made of. */
export interface CurveSources {
  readonly job: Pick<Job, 'outlines' | 'features'>;
  readonly derived: {
    readonly views: ReadonlyMap<string, FittedView>;
    readonly shapes: ReadonlyMap<string, Shape>;
    readonly arranged: Pick<Arranged, 'stands' | 'coordinate'>;
  };
}

/** How far a curve in space may lie off what its two outlines say exactly. mm */
const TOLERANCE = 0.005;

/** An outline that is one of the two, in the view that it stands in. */
export interface CurveSide {
  readonly standing: StandingBySide;
  readonly fitted: FittedView;
  /** On the view's plane, mm. */
  readonly path: Path;
}

/** One of the two outlines of a curve as its view shows it. Refused: no view of its plane stands, or it is of several paths. */
export function curveSideOf(id: string, { job, derived }: CurveSources): Result<CurveSide> {
  const plane = job.outlines.find((outline) => outline.id === id)?.plane;
  const there = [...derived.arranged.stands.values()].filter(standsBySide).flatMap((standing) => {
    const fitted = derived.views.get(standing.view);
    return fitted && fitted.view.plane === plane ? [{ standing, fitted }] : [];
  });
  const [path, ...more] = (derived.shapes.get(id)?.paths ?? []).filter(({ pieces }) => pieces.length > 0);
  if (!there[0]) return refused('curve-view-apart');
  if (!path) return refused('curve-empty');
  return more.length > 0 ? refused('curve-of-several-paths') : done({ ...there[0], path });
}

const seenFrom = ({ standing, path }: CurveSide): SeenCurve => ({
  side: standing.side,
  path: movedPath(path, inFrameOf(standing)),
});

function curveOf(drawn: DrawnSpaceCurve, sides: readonly Result<CurveSide>[], about: About): Result<StandingCurve> {
  const [first, second] = sides as [Result<CurveSide>, Result<CurveSide>];
  if (!first.ok) return first;
  if (!second.ok) return second;
  const made = spaceCurveOf(seenFrom(first.value), seenFrom(second.value), TOLERANCE);
  return made.ok ? done({ ...made.value, mirrored: about && mirroredAbout(made.value.pieces, about) }) : made;
}

/** A plane square to one of the three directions. */
type About = { readonly axis: 0 | 1 | 2; readonly at: number } | undefined;

function aboutOf({ mirrored }: DrawnSpaceCurve, { job, derived }: CurveSources): About {
  const along = job.features.find(({ id }) => id === mirrored)?.along;
  const known = along && derived.arranged.coordinate(mirrored!, along);
  return known && { axis: DIRECTIONS.indexOf(along) as 0 | 1 | 2, at: known.value };
}

function mirroredAbout(pieces: readonly SpacePiece[], { axis, at }: NonNullable<About>): readonly SpacePiece[] {
  const across = (place: Vec3) => place.map((value, i) => (i === axis ? 2 * at - value : value)) as unknown as Vec3;
  return pieces.map((piece) =>
    piece.kind === 'line'
      ? { kind: 'line', a: across(piece.a), b: across(piece.b) }
      : { kind: 'cubic', a: across(piece.a), b: across(piece.b), c: across(piece.c), d: across(piece.d) },
  );
}

/** Makes the curves in space of a job when they are asked for. Remembers what their outlines and views were, by identity and by number. */
export function createSpaceCurves() {
  const made = new Map<string, { readonly of: readonly unknown[]; readonly curve: Result<StandingCurve> }>();
  return (job: Pick<Job, 'outlines' | 'features' | 'spaceCurves'>, derived: CurveSources['derived']) =>
    (id: string): Result<StandingCurve> | undefined => {
      const drawn = job.spaceCurves.find((curve) => curve.id === id);
      if (!drawn) return undefined;
      const sources = { job, derived };
      const sides = drawn.of.map((outline) => curveSideOf(outline, sources));
      const about = aboutOf(drawn, sources);
      const of = [about?.axis, about?.at, ...sides.flatMap(whatItIsOf)];
      const before = made.get(id);
      if (before && isSameList(before.of, of)) return before.curve;
      const curve = curveOf(drawn, sides, about);
      made.set(id, { of, curve });
      return curve;
    };
}

function whatItIsOf(side: Result<CurveSide>): readonly unknown[] {
  if (!side.ok) return [side.code];
  const { side: from, pose } = side.value.standing;
  return [side.value.path, from, ...pose.origin, ...pose.x, ...pose.y];
}
