import type { Measured } from '../adjust';
import type { Line, Vec } from '../geometry';
import type { Feature, Job, Seen } from '../job';
import { axesSeenFrom, DIRECTIONS, fromSpace, type Direction, type Vec3 } from '../space';
import type { Arranged } from './arranged';
import type { FittedView } from './fits';
import { guideReach } from './made';
import { isSide } from './scene';
import type { Standing } from './standing';

/** A shared line or place as a view shows it. */
export interface SharedMark {
  readonly feature: Feature;
  /** Where it runs, or lies, on the view's plane, mm; undefined where that is not known. */
  readonly line: Line | undefined;
  readonly place: Vec | undefined;
  /** Of a line: its coordinate, mm, one sigma. */
  readonly value: Measured | undefined;
  /** Where it was pointed at in this view. */
  readonly seen: readonly Seen[];
}

type Arrangement = { readonly job: Pick<Job, 'features'>; readonly derived: { readonly arranged: Arranged } };

/** Every shared line and place that a view shows: where all views together have it, also where it was not pointed at in this one. */
export function sharedIn(fitted: FittedView, { job, derived: { arranged } }: Arrangement): readonly SharedMark[] {
  const { id, side } = fitted.source;
  if (!isSide(side)) return [];
  const standing = arranged.stands.get(id);
  const shown = axesSeenFrom(side).map(({ direction }) => direction);
  return job.features
    .filter(({ along }) => along === undefined || shown.includes(along))
    .map((feature) => {
      const known = shown.map((direction) => arranged.coordinate(feature.id, direction));
      const value = feature.along && known[shown.indexOf(feature.along)];
      return {
        feature,
        value,
        line: standing && value && feature.along ? lineAt(standing, fitted, feature.along, value.value) : undefined,
        place: standing && feature.along === undefined ? placeAt(standing, shown, known) : undefined,
        seen: feature.seen.filter(({ view }) => view === id),
      };
    })
    .filter(({ line, place, seen }) => line || place || seen.length > 0);
}

const pointAt = (known: (direction: Direction) => number): Vec3 => DIRECTIONS.map(known) as unknown as Vec3;

function placeAt(
  { pose }: Standing,
  shown: readonly Direction[],
  known: readonly (Measured | undefined)[],
): Vec | undefined {
  if (!known.every((coordinate) => coordinate !== undefined)) return undefined;
  return fromSpace(
    pose,
    pointAt((direction) => known[shown.indexOf(direction)]?.value ?? 0),
  ).at;
}

/** All of the picture long, about the foot of zero on it. */
function lineAt({ pose, side }: Standing, fitted: FittedView, along: Direction, value: number): Line {
  const reach = 2 * guideReach(fitted);
  const other = axesSeenFrom(side).find(({ direction }) => direction !== along)!.direction;
  const [from, to] = [-reach, reach].map(
    (far) =>
      fromSpace(
        pose,
        pointAt((direction) => (direction === along ? value : direction === other ? far : 0)),
      ).at,
  ) as [Vec, Vec];
  return { kind: 'line', a: from, b: to };
}
