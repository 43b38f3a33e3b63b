import type { Measured } from '../adjust';
import { angleOf, lineAngle, subtract, type Line } from '../geometry';
import type { DimensionKind } from '../job';
import type { Shape } from '../outline';
import type { RelationEnd, RelationKind } from '../relate';
import { findSpan, measureDimension } from './dimensions';
import { measureShapes, type Figured } from './figures';

/** What is read like a size on the drawing; what is round by its diameter. */
const READ_AS: Partial<Record<RelationKind, DimensionKind>> = {
  length: 'length',
  radius: 'diameter',
  distance: 'distance',
  angle: 'angle',
};

/** Against level, −90° to 90°: a line has no front. `near` keeps it from leaping where it is upright. */
const slopeOf = ({ a, b }: Line, near = 0): number => near + lineAngle(angleOf(subtract(b, a)) - near);

/**
 * What a size or an angle that can be said of outlines comes to now: mm or radians, one sigma, from the fit and the pointing. Diameters of what is round, slopes against level
 * from −90° to 90°, places across and up from zero with their signs. Undefined of relations without a value, and of what is gone.
 */
export function measureSaid(
  kind: RelationKind,
  on: readonly RelationEnd[],
  figured: Figured,
  shapes: ReadonlyMap<string, Shape>,
): Measured | undefined {
  const read = READ_AS[kind];
  if (read) return measureDimension({ kind: read, on }, figured, shapes);
  const find =
    kind === 'direction'
      ? slopes(on, figured, shapes)
      : kind === 'across' || kind === 'up'
        ? placesOn(on, figured, kind === 'across' ? 0 : 1)
        : undefined;
  if (!find || find(shapes) === undefined) return undefined;
  const outlines = figured.job.outlines.filter(({ id }) => on.some(({ outline }) => outline === id));
  return measureShapes(outlines, figured, (varied) => find(varied) ?? NaN);
}

type Find = (shapes: ReadonlyMap<string, Shape>) => number | undefined;

function slopes([end]: readonly RelationEnd[], { job: { outlines } }: Figured, now: ReadonlyMap<string, Shape>): Find {
  const lineIn = (shapes: ReadonlyMap<string, Shape>): Line | undefined => {
    const span = end && findSpan({ kind: 'slope', on: [end] }, outlines, shapes);
    return span && { kind: 'line', a: span.from, b: span.to };
  };
  const line = lineIn(now);
  const near = line && slopeOf(line);
  return (shapes) => {
    const found = lineIn(shapes);
    return found && slopeOf(found, near);
  };
}

const placesOn =
  ([end]: readonly RelationEnd[], { job: { outlines } }: Figured, axis: 0 | 1): Find =>
  (shapes) =>
    end && findSpan({ kind: axis === 0 ? 'across' : 'up', on: [end] }, outlines, shapes)?.from[axis];
