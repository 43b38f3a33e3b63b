import type { Measured } from '../adjust';
import { composed, findUnion, moved, pieceBounds, type Affine, type Bounds } from '../geometry';
import type { Job, StandOff } from '../job';
import type { Outline, Shape } from '../outline';
import { SIDES, type Side } from '../space';
import type { Derived } from './derived';
import { outlinesLeaving } from './drawing';
import { measureEachOfShapes } from './figures';
import type { FittedView } from './fits';
import { inFrameOf, type Standing } from './standing';

interface Drawn {
  readonly job: Job;
  readonly derived: Derived;
}

/** A side of the thing that several views show: alternatives of it. */
export interface VariantsOfSide {
  readonly side: Side;
  /** In the job's order. */
  readonly views: readonly FittedView[];
}

/** Sides that more than one of the views that stand shows. */
export function listVariants({
  job,
  derived: { views, arranged },
}: {
  readonly job: Pick<Job, 'views'>;
  readonly derived: Pick<Derived, 'views' | 'arranged'>;
}): readonly VariantsOfSide[] {
  const standing = job.views.flatMap(({ id }) => arranged.stands.get(id) ?? []);
  return SIDES.map((side) => ({
    side,
    views: standing.filter((stands) => stands.side === side).flatMap(({ view }) => views.get(view) ?? []),
  })).filter((variants) => variants.views.length > 1);
}

/** From the plane of a view to that of another which shows the same side: where both stand, nothing else moves. */
export const ontoVariant = (from: Standing, to: Standing): Affine => composed(undone(inFrameOf(to)), inFrameOf(from));

/** The other way round of a map that only turns and moves. */
const undone = ([a, b, c, d, e, f]: Affine): Affine => [a, c, b, d, -(a * e + b * f), -(c * e + d * f)];

/** Where a view lies that was moved aside: in what its side shows, mm. */
export const movedAside = ({ right, up }: Pick<StandOff, 'right' | 'up'>): Affine => [1, 0, 0, 1, right, up];

/**
 * How far each of a row of views has to go to its right so that all lie side by side, the first where it stands. `boxes`: what each takes up as its side shows it; mm. Their
 * heights stay: all stand on the one base line.
 */
export function shiftsSideBySide(boxes: readonly Bounds[], gap: number): readonly number[] {
  let free: number | undefined;
  return boxes.map(({ min, max }) => {
    const shift = free === undefined ? 0 : free - min[0];
    free = max[0] + shift + gap;
    return shift;
  });
}

/** How wide and high what is drawn in a view is, as its side shows it. mm, one sigma */
export interface VariantSize {
  readonly width: Measured;
  readonly height: Measured;
}

/** Two variants beside each other. */
export interface VariantsCompared {
  readonly first: VariantSize;
  readonly second: VariantSize;
  /** By how much the second is wider and higher: what both doubt alike is counted once. */
  readonly more: VariantSize;
}

/** More outlines than this are not measured each time something changes. */
const MOST = 60;

/** Undefined where nothing is drawn in one of them, or too much to be measured at once. Weak: how the views are turned to each other is taken as it is. */
export function compareVariants(first: FittedView, second: FittedView, drawn: Drawn): VariantsCompared | undefined {
  const both = [first, second].map((view) => drawnIn(view, drawn));
  const outlines = both.flatMap((each) => each?.outlines ?? []);
  if (both.some((each) => !each || each.outlines.length === 0) || outlines.length > MOST) return undefined;
  const [one, other] = both as [DrawnVariant, DrawnVariant];
  const [width, height, itsWidth, itsHeight, wider, higher] = measureEachOfShapes(
    outlines,
    drawn,
    (shapes) => {
      const [a, b] = [sizeOf(one, shapes), sizeOf(other, shapes)] as const;
      return [a[0], a[1], b[0], b[1], b[0] - a[0], b[1] - a[1]] as const;
    },
    { copies: 'outermost' },
  );
  return {
    first: { width, height },
    second: { width: itsWidth, height: itsHeight },
    more: { width: wider, height: higher },
  };
}

interface DrawnVariant {
  readonly outlines: readonly Outline[];
  readonly inSide: Affine;
}

function drawnIn({ source, view }: FittedView, { job, derived }: Drawn): DrawnVariant | undefined {
  const standing = derived.arranged.stands.get(source.id);
  return standing && { outlines: outlinesLeaving(job, { plane: view.plane }), inSide: inFrameOf(standing) };
}

function sizeOf({ outlines, inSide }: DrawnVariant, shapes: ReadonlyMap<string, Shape>): readonly [number, number] {
  const pieces = outlines.flatMap(({ id }) => shapes.get(id)?.finished ?? []);
  const box = findUnion(pieces.map((piece) => pieceBounds(moved(piece, inSide))));
  return box ? [box.max[0] - box.min[0], box.max[1] - box.min[1]] : [NaN, NaN];
}
