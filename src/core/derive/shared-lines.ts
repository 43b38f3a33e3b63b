import type { Measured } from '../adjust';
import type { Line, Vec } from '../geometry';
import type { Feature, Job, Seen } from '../job';
import { add3, DIRECTIONS, fromSpace, scale3, type Direction, type Vec3 } from '../space';
import type { Arranged } from './arranged';
import type { FittedView } from './fits';
import { guideReach } from './made';
import { canShow, facingOf } from './scene';
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
  const { id } = fitted.source;
  const facing = facingOf(fitted.source, job.features);
  if (!facing) return [];
  const standing = arranged.stands.get(id);
  return job.features
    .filter((feature) => canShow(facing, feature))
    .map((feature) => {
      const { along } = feature;
      const value = along && arranged.coordinate(feature.id, along);
      return {
        feature,
        value,
        line: standing && value && along ? lineAt(standing, fitted, along, value.value) : undefined,
        place: standing && along === undefined ? placeAt(standing, feature.id, arranged) : undefined,
        seen: feature.seen.filter(({ view }) => view === id),
      };
    })
    .filter(({ line, place, seen }) => line || place || seen.length > 0);
}

/** Less a direction does not count in. */
const NONE = 1e-9;
const countsIn = (vector: Vec3, direction: Direction) => Math.abs(vector[DIRECTIONS.indexOf(direction)]!) > NONE;

/** Undefined where nothing tells a coordinate that counts in what the view shows. */
function placeAt({ pose, frame }: Standing, feature: string, { coordinate }: Arranged): Vec | undefined {
  const known = DIRECTIONS.map((direction) => coordinate(feature, direction)?.value);
  const isTold = DIRECTIONS.every(
    (direction, i) => known[i] !== undefined || (!countsIn(frame.x, direction) && !countsIn(frame.y, direction)),
  );
  return isTold ? fromSpace(pose, known.map((value) => value ?? 0) as unknown as Vec3).at : undefined;
}

/** All of the picture long, about the foot of the frame's zero on it. */
function lineAt({ pose, frame }: Standing, fitted: FittedView, along: Direction, value: number): Line {
  const reach = 2 * guideReach(fitted);
  const runs = countsIn(frame.x, along) ? frame.y : frame.x;
  const foot = frame.origin.with(DIRECTIONS.indexOf(along), value) as unknown as Vec3;
  const [from, to] = [-reach, reach].map((far) => fromSpace(pose, add3(foot, scale3(runs, far))).at) as [Vec, Vec];
  return { kind: 'line', a: from, b: to };
}
