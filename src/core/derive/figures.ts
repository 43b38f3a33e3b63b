import type { Measured } from '../adjust';
import { measureThrough, pointFrame, toPlane } from '../calibrate';
import { add, enclosedArea, findCentroid, pieceLength, scale, type Vec } from '../geometry';
import type { Job } from '../job';
import {
  asPointed,
  findTimes,
  listPointed,
  mapPlaces,
  mapPointed,
  placesOf,
  shapeOf,
  type Copies,
  type DrawnOutline,
  type Guide,
  type Outline,
  type Place,
  type Placing,
  type PointedPlace,
  type Shape,
} from '../outline';
import { outlineAt } from '../relate';
import type { Derived } from './derive';
import type { FittedView } from './fits';
import { drawnSourcesOf, guideReach, madeSourcesOf, reshaped } from './made';
import type { RelatedView } from './related';
import { followed, measureVaried, placingBy, solvedAmong, type Varied } from './varied';

/** What figures are read from: the outlines of a job, and what relations make of their view. */
export interface Figured {
  readonly job: Pick<Job, 'outlines' | 'guides'>;
  readonly fitted: FittedView;
  readonly related?: RelatedView | undefined;
}

/** What the figures of a view's outlines are read from. */
export function figuredIn(
  job: Figured['job'],
  { views, related }: Pick<Derived, 'views' | 'related'>,
  view: string,
): Figured {
  return { job, fitted: views.get(view)!, related: related.get(view) };
}

/** How a figure is measured: with places as they were pointed, or as if nobody doubted them; and with which copies. */
export interface Measuring {
  readonly places?: 'as pointed' | 'exact';
  readonly copies?: Copies;
}

/** A figure of one outline with its plus-minus: see `measureShapes`. */
export function measureOutline(
  outline: Outline,
  figured: Figured,
  figure: (shape: Shape) => number,
  how: Measuring = {},
): Measured {
  return measureShapes(
    [outline],
    figured,
    (shapes) => {
      const shape = shapes.get(outline.id);
      return shape ? figure(shape) : NaN;
    },
    how,
  );
}

/**
 * Any figure of outlines (a length, a radius, an area) with its plus-minus: from the fit and from every place that was pointed, by a hand as steady as the view shows
 * it, also where an outline is made of others or mirrored about a guide. Typed sizes carry no doubt of their own. Where relations hold, what they say takes part. One
 * sigma, in the figure's unit.
 */
export function measureShapes(
  outlines: readonly Outline[],
  figured: Figured,
  figure: (shapes: ReadonlyMap<string, Shape>) => number,
  { places = 'as pointed', copies = 'all' }: Measuring = {},
): Measured {
  const traced = tracedOf(outlines, figured, copies, figure);
  const groups = solvedAmong(traced.sources, figured.related);
  return groups.length > 0
    ? measureRelated(traced, groups, figured.fitted)
    : measureUnrelated(traced, figured.fitted.fit, places);
}

/** How sheet places come to the plane where the figure is read. */
type Laying = Omit<Placing, 'nodeAt'>;

/** What outlines stand on: what is drawn, what is made of it and about which guides, each with the doubt of this view's hand. */
interface Traced {
  readonly sources: readonly DrawnOutline[];
  readonly made: readonly Outline[];
  readonly guides: readonly Guide[];
  /** The figure where drawn outlines have these shapes, and pointed places of guides and recipes are changed. */
  figureAt(shapes: ReadonlyMap<string, Shape>, laying: Laying, change: Change): number;
}

function tracedOf(
  outlines: readonly Outline[],
  { job, fitted }: Figured,
  copies: Copies,
  figure: (shapes: ReadonlyMap<string, Shape>) => number,
): Traced {
  const { factor } = fitted.steadiness;
  const bySteadyHand: Change = (place) => ({ ...place, sigma: place.sigma * factor });
  const drawn = new Set(outlines.flatMap((outline) => drawnSourcesOf(outline, job.outlines)));
  const sources = [...drawn].map((outline) => asPointed(outline, factor));
  const made = madeSourcesOf(outlines, job.outlines).map((outline) => asPointed(outline, factor));
  const guides = job.guides
    .filter(({ id }) => made.some(({ recipe }) => recipe.kind === 'mirrored' && recipe.guide === id))
    .map((guide) => changedGuide(guide, bySteadyHand));
  return {
    sources,
    made,
    guides,
    figureAt(shapes, laying, change) {
      const among = [...sources, ...made.map((outline) => changed(outline, change))];
      const about = guides.map((guide) => changedGuide(guide, change));
      const all = outlines.flatMap((outline) => {
        const shape =
          shapes.get(outline.id) ?? reshaped(outline.id, among, about, laying, shapes, guideReach(fitted), copies);
        return shape ? [[outline.id, shape] as const] : [];
      });
      return figure(new Map(all));
    },
  };
}

const shapesAt = (drawn: readonly DrawnOutline[], laying: Laying): readonly (readonly [string, Shape])[] =>
  drawn.map((source) => [source.id, shapeOf(source, laying)]);

const pointedIn = (outlines: readonly Outline[], guides: readonly Guide[]): readonly PointedPlace[] => [
  ...new Set([...outlines.flatMap(listPointedOf), ...guides.flatMap(pointedOfGuide)]),
];

/** Where relations hold: through the numbers that they left free, and what was pointed beside them. */
function measureRelated(
  { sources, made, guides, figureAt }: Traced,
  groups: ReturnType<typeof solvedAmong>,
  fitted: FittedView,
): Measured {
  const free = sources.filter(({ id }) => !groups.some(({ known }) => known.has(id)));
  const at = (varied: Varied, change: Change) => {
    const laying = placingBy(fitted, varied.doubts);
    const solved = groups.flatMap(({ known, spread }, i) => {
      const values = spread.valuesFrom(followed(varied.x[i]!, spread.follows, varied.doubts));
      const held = sources.flatMap(({ id }) => known.get(id) ?? []).map((source) => outlineAt(source, values));
      // Solved places are on the plane already; pulled handles are still the sheet's.
      return shapesAt(held, { ...laying, scaled: true });
    });
    const unheld = free.map((source) => changed(source, change));
    return figureAt(new Map([...shapesAt(unheld, laying), ...solved]), laying, change);
  };
  const rest: Varied = { x: groups.map(({ spread }) => spread.x), doubts: [] };
  return measureVaried(
    groups.map(({ spread }) => spread),
    (varied) => at(varied, UNCHANGED),
    pointedIn([...free, ...made], guides).flatMap((place) => swings(place, (change) => at(rest, change))),
  );
}

/** Where nothing but the fit and the hand tells: through the map's numbers and every pointed place. */
function measureUnrelated(
  { sources, made, guides, figureAt }: Traced,
  fit: FittedView['fit'],
  places: Measuring['places'],
): Measured {
  const pointed = pointedIn([...sources, ...made], guides);
  const points = places === 'exact' ? pointed.map(({ at }) => ({ at, sigma: EXACT })) : pointed;
  return measureThrough(fit, points, (map, sheet) => {
    const moved = new Map(pointed.map((place, i) => [place, sheet[i]!]));
    const change: Change = (place) => ({ ...place, at: moved.get(place) ?? place.at });
    const laying = { scaled: fit.scaled, toPlane: (place: Vec) => toPlane(map, place) };
    const shapes = shapesAt(
      sources.map((source) => changed(source, change)),
      laying,
    );
    return figureAt(new Map(shapes), laying, change);
  });
}

/** Places that nobody doubts. Sheet px. */
const EXACT = 1e-9;

/** The share of a figure's variance that comes from where its outline was pointed; the rest is the fit's. Undefined where relations hold the outline: there the two cannot be told apart so. */
export function pointedShare(outline: Outline, figured: Figured, figure: (shape: Shape) => number): number | undefined {
  if (solvedAmong(drawnSourcesOf(outline, figured.job.outlines), figured.related).length > 0) return undefined;
  const [whole, ofFit] = (['as pointed', 'exact'] as const).map(
    (places) => measureOutline(outline, figured, figure, { places, copies: 'first' }).sigma ** 2,
  ) as [number, number];
  return whole > 0 ? 1 - ofFit / whole : undefined;
}

type Change = (place: PointedPlace) => PointedPlace;
const UNCHANGED: Change = (place) => place;

const changed = <O extends Outline>(outline: O, change: Change): O =>
  change === UNCHANGED ? outline : mapPlaces(outline, (place) => mapPointed(place, change));

function changedGuide(guide: Guide, change: Change): Guide {
  if (change === UNCHANGED) return guide;
  return {
    ...guide,
    through: mapPointed(guide.through, change),
    ...(guide.towards ? { towards: mapPointed(guide.towards, change) } : {}),
  };
}

const pointedOfGuide = ({ through, towards }: Guide): readonly PointedPlace[] =>
  [through, towards].flatMap((place) => (place ? listPointed(place, () => undefined, new Set()) : []));

/** By how much a figure swings as one place is pointed one sigma to either side, in each direction in which it is known by itself. */
function swings(place: PointedPlace, figureWith: (change: Change) => number): readonly number[] {
  const { axes, sigmas } = pointFrame(place);
  return axes.map((axis, i) => {
    const [ahead, back] = [1, -1].map((side) =>
      figureWith((other) =>
        other === place ? { ...other, at: add(other.at, scale(axis, side * sigmas[i]!)) } : other,
      ),
    );
    return (ahead! - back!) / 2;
  });
}

/** Every pointed place of an outline once, by identity: a place that two nodes lean on varies as one. */
function listPointedOf(outline: Outline): readonly PointedPlace[] {
  const nodes = new Map<string, Place>(
    outline.shape === 'chain' ? outline.nodes.map(({ id, place }) => [id, place]) : [],
  );
  const seen = new Set<string>();
  return [...new Set(placesOf(outline).flatMap((place) => listPointed(place, (id) => nodes.get(id), seen)))];
}

export interface OutlineFigures {
  readonly length: Measured;
  readonly area: Measured | undefined;
  readonly radius: Measured | undefined;
  /** Across and up from zero to the centre of its area; of very many pieces it is not measured. */
  readonly centre: readonly [Measured, Measured] | undefined;
  /** How much of the doubt of its radius, or else its length, comes from where it was pointed: see `pointedShare`. */
  readonly pointed: number | undefined;
}

const MOST_CENTRED = 400;

/** Length along an outline, area of what it holds when it is closed, radius when it is a circle. */
export function figuresOf(outline: Outline, figured: Figured, shape: Shape): OutlineFigures {
  const measure = (figure: (of: Shape) => number) => measureOutline(outline, figured, figure);
  // Copies are as long and as large as the first of them, which is all that is made again and again.
  const times = findTimes(outline, (id) => figured.job.outlines.find((other) => other.id === id));
  const measureAlike = (figure: (of: Shape) => number): Measured => {
    if (times === undefined) return measure(figure);
    const { value, sigma } = measureOutline(outline, figured, figure, { copies: 'first' });
    return { value: times * value, sigma: times * sigma };
  };
  const isCircle = outline.shape === 'circle' && shape.pieces[0]?.kind === 'arc';
  return {
    length: measureAlike(lengthOf),
    area: shape.closed ? measureAlike(areaOf) : undefined,
    centre:
      shape.closed && shape.pieces.length <= MOST_CENTRED ? [measure(centreOf(0)), measure(centreOf(1))] : undefined,
    radius: isCircle ? measure(radiusOf) : undefined,
    pointed: pointedShare(outline, figured, isCircle ? radiusOf : lengthOf),
  };
}

const lengthOf = ({ finished }: Shape): number => finished.reduce((sum, piece) => sum + pieceLength(piece), 0);
const radiusOf = ({ pieces: [piece] }: Shape): number => (piece?.kind === 'arc' ? piece.radius : 0);
const centreOf =
  (axis: 0 | 1) =>
  ({ paths }: Shape): number =>
    findCentroid(paths.map(({ pieces }) => pieces))?.[axis] ?? NaN;

/** What a shape holds: of several loops those around holes count against it. */
export const areaOf = ({ paths }: Shape): number =>
  Math.abs(paths.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0));
