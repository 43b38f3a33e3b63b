import type { Measured } from '../adjust';
import { pieceLength, windingNumber, type Path, type Piece, type Vec } from '../geometry';
import { isSign, type Shape } from '../outline';
import type { Job, NamedRegion } from '../job';
import { listRegions, measureMoved, type Boundary, type Region, type RegionMeasure } from '../planar';
import type { Derived } from './derived';
import { measureEachOfShapes, type Figured } from './figures';

/** What is nearer than this is one place: mm, or px without scale. */
export const SAME_PLACE = 1e-6;

/** What of a shape shuts something in: doors are shut. */
const rimsOf = (shape: Shape): readonly Piece[] => shape.shut?.flatMap(({ pieces }) => pieces) ?? shape.finished;

/** A region with the outlines that run along its rim, by id. Its rim counts the pieces of these outlines alone, in the order of the job. */
export interface ViewRegion extends Region {
  readonly outlines: readonly string[];
}

/** The shapes of a plane that shut something in: those of its shown outlines; aids and what stands in openings shut nothing in. */
export function shapesShownIn(
  job: Pick<Job, 'outlines' | 'layers'>,
  derived: Pick<Derived, 'shapes'>,
  plane: string,
): readonly Shape[] {
  const shown = new Set(job.layers.filter(({ show }) => show).map(({ id }) => id));
  return job.outlines
    .filter((outline) => outline.plane === plane && !outline.aid && shown.has(outline.layer))
    .flatMap(({ id }) => derived.shapes.get(id) ?? [])
    .filter((shape) => !isSign(shape));
}

/** The shapes of a plane that are looked through for what keeps them from being cut. */
export const shapesCutIn = (
  { outlines }: Pick<Job, 'outlines'>,
  { shapes }: Pick<Derived, 'shapes'>,
  plane: string,
): readonly Shape[] =>
  outlines
    .filter((outline) => outline.plane === plane && !outline.aid)
    .flatMap(({ id }) => shapes.get(id) ?? [])
    .filter((shape) => !isSign(shape));

/** A piece of a rim, with its outline by id. */
export interface RimPiece {
  readonly id: string;
  readonly piece: Piece;
}

/** What of shapes shuts something in. */
export const listRims = (shapes: readonly Shape[]): readonly RimPiece[] =>
  shapes.flatMap((shape) => rimsOf(shape).map((piece) => ({ id: shape.id, piece })));

/** The regions that were listed of pieces of rims, with their outlines. */
export const withOutlines = (regions: readonly Region[], rims: readonly RimPiece[]): readonly ViewRegion[] =>
  regions.map((region) => {
    const outlines = new Set(region.of.map((i) => rims[i]!.id));
    const own = rims.flatMap(({ id }, i) => (outlines.has(id) ? [i] : []));
    return { ...recounted(region, new Map(own.map((i, at) => [i, at]))), outlines: [...outlines] };
  });

/** A region of the same pieces, which stand elsewhere among others. */
function recounted(region: Region, places: ReadonlyMap<number, number>): Region {
  const rim = (boundary: Boundary): Boundary => ({
    ...boundary,
    sources: boundary.sources.map((stretch) => ({ ...stretch, of: places.get(stretch.of)! })),
  });
  return {
    ...region,
    around: rim(region.around),
    holes: region.holes.map(rim),
    of: region.of.map((i) => places.get(i)!),
  };
}

export const isInRegion = ({ around, holes }: Pick<Region, 'around' | 'holes'>, place: Vec): boolean =>
  windingNumber(around.pieces, place) + holes.reduce((sum, { pieces }) => sum + windingNumber(pieces, place), 0) === 1;

/** The region around a place; undefined outside of all. */
export const findRegionAt = <R extends Region>(regions: readonly R[], place: Vec): R | undefined =>
  regions.find((region) => isInRegion(region, place));

/** The named regions of a plane, with their places there as it is now: what was seen on a sheet moves with the scale, as what is drawn there does. */
export function namesIn(
  { regions }: Pick<Job, 'regions'>,
  { planes }: Pick<Derived, 'planes'>,
  plane: string,
): readonly NamedRegion[] {
  const placing = planes.get(plane)?.placing;
  return regions
    .filter((named) => named.plane === plane)
    .map((named) => (named.seen && placing ? { ...named, at: placing.toPlane(named.seen, named.view) } : named));
}

/** The name of a region: the newest that was given to a place in it. */
export const findNameOf = (region: Region, named: readonly NamedRegion[]): NamedRegion | undefined =>
  [...named].reverse().find(({ at }) => isInRegion(region, at));

const measureOf = ({ around, holes, area }: Region): RegionMeasure => ({
  area,
  around: [around, ...holes].reduce((sum, path) => sum + lengthOf(path), 0),
});

const lengthOf = ({ pieces }: Path) => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);

/**
 * The area of a region, and the length around it and its holes, with their plus-minus: from everything that its rim stands on. One sigma, in each figure's unit. What is shut in is listed anew only where a rim moves
 * into another drawing.
 */
export function measureRegion(
  region: ViewRegion,
  figured: Figured,
): { readonly [Figure in keyof RegionMeasure]: Measured } {
  const rim = figured.job.outlines.filter(({ id }) => region.outlines.includes(id));
  const [area, around] = measureEachOfShapes(rim, figured, (shapes) => {
    const pieces = rim.flatMap(({ id }) => (shapes.has(id) ? rimsOf(shapes.get(id)!) : []));
    const measure = measureMoved(region, pieces) ?? listedAnew(region, pieces);
    return [measure.area, measure.around] as const;
  });
  return { area, around };
}

function listedAnew(region: Region, pieces: readonly Piece[]): RegionMeasure {
  return measureOf(findRegionAt(listRegions(pieces, SAME_PLACE), region.inside) ?? region);
}
