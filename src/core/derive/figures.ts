import { measureEachBy, type Cause, type Measured } from '../adjust';
import { enclosedArea, findCentroid, pieceLength } from '../geometry';
import type { Job } from '../job';
import {
  asPointed,
  bySteadyHand,
  type Knowing,
  findTimes,
  listPointed,
  mapPlaces,
  mapPointed,
  placesOf,
  shapeOf,
  type Copies,
  type DrawnOutline,
  type Guide,
  type MadeOutline,
  type Outline,
  type Place,
  type PointedPlace,
  type Shape,
  type Siting,
} from '../outline';
import { outlineAt } from '../relate';
import {
  causesOfFits,
  causesOfHold,
  causesOfPlace,
  causesOfSolved,
  solvedAmong,
  toldBySizes,
  unknownsAt,
  type Otherwise,
  type SolvedOutlines,
} from './causes';
import type { Derived, SeenPlane } from './derived';
import { drawnSourcesOf, madeSourcesOf, guideReachOn, reshaped } from './made';
import { knowingOf, movedPlane } from './planes';
import { sitingOf } from './sited';

/** What figures are read from: the outlines of a job, and what is known of its planes. */
export interface Figured {
  readonly job: Pick<Job, 'outlines' | 'guides' | 'sitings'>;
  readonly derived: Pick<Derived, 'planes' | 'related'>;
}

/** How a figure is measured: with places as they were pointed, as if edges of things were where they are seen, or as if nobody doubted them at all; and with which copies. */
export interface Measuring {
  readonly places?: 'as pointed' | 'as seen' | 'exact';
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
 * Any figure of outlines (a length, a radius, an area), on whichever planes they lie, with its plus-minus: what every independent cause of doubt moves it by, each counted once: the
 * doubts of the fits, every place that was pointed, by a hand as steady as its view shows it, and what relations leave open. Typed sizes carry no doubt of their own. One sigma, in the
 * figure's unit.
 */
export function measureShapes(
  outlines: readonly Outline[],
  figured: Figured,
  figure: (shapes: ReadonlyMap<string, Shape>) => number,
  how: Measuring = {},
): Measured {
  return measureEachOfShapes(outlines, figured, (shapes) => [figure(shapes)] as const, how)[0];
}

/** Several figures that are had together, as `measureShapes`: the outlines are made anew once for all of them. */
export function measureEachOfShapes<Figures extends readonly number[]>(
  outlines: readonly Outline[],
  figured: Figured,
  figures: (shapes: ReadonlyMap<string, Shape>) => Figures,
  { places = 'as pointed', copies = 'all' }: Measuring = {},
): { readonly [I in keyof Figures]: Measured } {
  const traced = tracedOf(outlines, figured, places);
  return measureEachBy((otherwise: Otherwise) => figures(shapesAt(outlines, traced, copies, otherwise)), {}, [
    ...causesOfFits(traced.planes, traced.groups, traced.told),
    ...causesOfPointing(traced, places),
  ]);
}

const causesOfPointing = (
  { groups, pointed, sitings }: Traced,
  places: Measuring['places'],
): readonly Cause<Otherwise>[] => [
  ...groups.flatMap(causesOfSolved),
  ...sitings.flatMap(({ holds }) => holds).flatMap(causesOfHold),
  ...(places === 'exact' ? [] : pointed.flatMap(causesOfPlace)),
];

/** Outlines as they follow what is doubted of their own places, with the causes of that: for what stands on more than the doubts of their fits. */
export function pointedAlone(
  outlines: readonly Outline[],
  figured: Figured,
): { readonly causes: readonly Cause<Otherwise>[]; shapesAt(otherwise: Otherwise): ReadonlyMap<string, Shape> } {
  const traced = tracedOf(outlines, figured);
  return {
    causes: causesOfPointing(traced, 'as pointed'),
    shapesAt: (otherwise) => shapesAt(outlines, traced, 'all', otherwise),
  };
}

/** What outlines stand on, each with the doubt of the hand that pointed there. */
interface Traced {
  readonly planes: readonly SeenPlane[];
  /** Drawn outlines that relations hold, group by group, and those that stand by themselves. */
  readonly groups: readonly SolvedOutlines[];
  /** What sizes tell of the fits that are said of other outlines. */
  readonly told: readonly SolvedOutlines[];
  readonly held: readonly DrawnOutline[];
  readonly free: readonly Standing<DrawnOutline>[];
  readonly made: readonly Standing<MadeOutline>[];
  readonly guides: readonly Standing<Guide>[];
  /** How drawings of other planes are set on these. */
  readonly sitings: readonly Siting[];
  /** Places that were pointed, but for those of outlines that relations hold. */
  readonly pointed: readonly PointedPlace[];
}

/** Something that stands on places, with all of them that were pointed, each once. */
interface Standing<E> {
  readonly entity: E;
  readonly pointed: readonly PointedPlace[];
}

/** Weak: what lies on a plane that no view shows is left out. */
function tracedOf(outlines: readonly Outline[], { job, derived }: Figured, places?: Measuring['places']): Traced {
  const isSeen = ({ plane }: Pick<Outline, 'plane'>) => derived.planes.has(plane);
  const knowingOn = (plane: string): Knowing => ({
    ...knowingOf(derived.planes.get(plane)!),
    ...(places === 'as seen' ? { edgesKnownTo: () => 0 } : {}),
  });
  const known = <O extends Outline>(outline: O): O => asPointed(outline, knowingOn(outline.plane));
  const drawn = [...new Set(outlines.flatMap((outline) => drawnSourcesOf(outline, job)))].filter(isSeen);
  const groups = solvedAmong(drawn, derived);
  const isHeld = ({ id }: Outline) => groups.some(({ known }) => known.has(id));
  const made = madeSourcesOf(outlines, job)
    .filter(isSeen)
    .map((outline) => standing(known(outline), listPointedOf));
  const guides = job.guides
    .filter(isSeen)
    .filter(({ id }) => made.some(({ entity: { recipe } }) => recipe.kind === 'mirrored' && recipe.guide === id))
    .map((guide) =>
      standing(
        changedGuide(guide, (place) => bySteadyHand(place, knowingOn(guide.plane))),
        pointedOfGuide,
      ),
    );
  const sitings = new Set(made.flatMap(({ entity: { recipe } }) => sitingOf(recipe, job.sitings) ?? []));
  const free = drawn.filter((outline) => !isHeld(outline)).map((outline) => standing(known(outline), listPointedOf));
  const ids = new Set([...drawn, ...outlines].map(({ plane }) => plane));
  const planes = [...ids].flatMap((id) => derived.planes.get(id) ?? []);
  return {
    planes,
    groups,
    told: toldBySizes(planes, groups, derived),
    held: drawn.filter(isHeld),
    free,
    made,
    guides,
    sitings: [...sitings],
    pointed: [...new Set([...free, ...made, ...guides].flatMap(({ pointed }) => pointed))],
  };
}

const standing = <E>(entity: E, listPlaces: (entity: E) => readonly PointedPlace[]): Standing<E> => ({
  entity,
  pointed: listPlaces(entity),
});

/** The shapes of outlines where things are otherwise. */
function shapesAt(
  outlines: readonly Outline[],
  { planes, groups, held, free, made, guides, sitings }: Traced,
  copies: Copies,
  otherwise: Otherwise,
): ReadonlyMap<string, Shape> {
  const moved = new Map(planes.map((plane) => [plane.id, movedPlane(plane, otherwise.doubts?.get(plane.id) ?? [])]));
  const drawn = new Map<string, Shape>();
  for (const source of free) {
    const outline = changed(source, otherwise, mapOutline);
    drawn.set(outline.id, shapeOf(outline, moved.get(outline.plane)!.placing));
  }
  for (const group of groups) {
    const values = group.spread.valuesFrom(unknownsAt(group, otherwise.unknowns?.get(group), otherwise));
    // Solved places are on the plane already; pulled handles are still the sheet's.
    for (const source of held.flatMap(({ id }) => group.known.get(id) ?? [])) {
      const placing = { ...moved.get(source.plane)!.placing, scaled: true };
      drawn.set(source.id, shapeOf(outlineAt(source, values), placing));
    }
  }
  if (made.length === 0) return drawn;
  const among = {
    outlines: [
      ...free.map(({ entity }) => entity),
      ...held,
      ...made.map((source) => changed(source, otherwise, mapOutline)),
    ],
    guides: guides.map((guide) => changed(guide, otherwise, changedGuide)),
    sitings: sitings.map((siting) => heldOtherwise(siting, otherwise)),
  };
  return new Map(
    outlines.flatMap((outline) => {
      const plane = moved.get(outline.plane);
      const shape =
        drawn.get(outline.id) ??
        (plane && reshaped(outline.id, among, plane.placing, drawn, guideReachOn(plane), copies));
      return shape ? [[outline.id, shape] as const] : [];
    }),
  );
}

/** Shares of a figure's variance: of where its outline was pointed, edges and all, the rest being the fit's; and of that what edges of things leave open, whoever points. */
export interface Shares {
  readonly pointed: number;
  readonly edges: number;
}

/** Where a figure's variance comes from. Undefined where relations hold the outline: there pointing and fit cannot be told apart so. */
export function sharesOf(outline: Outline, figured: Figured, figure: (shape: Shape) => number): Shares | undefined {
  if (solvedAmong(drawnSourcesOf(outline, figured.job), figured.derived).length > 0) return undefined;
  const [whole, asSeen, ofFit] = (['as pointed', 'as seen', 'exact'] as const).map(
    (places) => measureOutline(outline, figured, figure, { places, copies: 'first' }).sigma ** 2,
  ) as [number, number, number];
  return whole > 0 ? { pointed: 1 - ofFit / whole, edges: 1 - asSeen / whole } : undefined;
}

type Change = (place: PointedPlace) => PointedPlace;

/** Something with those of its places moved that were pointed otherwise; itself where none was. */
function changed<E>({ entity, pointed }: Standing<E>, { places }: Otherwise, map: (entity: E, change: Change) => E): E {
  if (!places || !pointed.some((place) => places.has(place))) return entity;
  return map(entity, (place) => ({ ...place, at: places.get(place) ?? place.at }));
}

/** A siting after what holds it is said otherwise. */
const heldOtherwise = (siting: Siting, { holds }: Otherwise): Siting =>
  holds
    ? { ...siting, holds: siting.holds.map((hold) => ({ ...hold, value: hold.value + (holds.get(hold) ?? 0) })) }
    : siting;

const mapOutline = <O extends Outline>(outline: O, change: Change): O =>
  mapPlaces(outline, (place) => mapPointed(place, change));

function changedGuide(guide: Guide, change: Change): Guide {
  return {
    ...guide,
    through: mapPointed(guide.through, change),
    ...(guide.towards ? { towards: mapPointed(guide.towards, change) } : {}),
  };
}

const pointedOfGuide = ({ through, towards }: Guide): readonly PointedPlace[] =>
  [through, towards].flatMap((place) => (place ? listPointed(place, () => undefined, new Set()) : []));

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
  /** Where the doubt of its radius, or else its length, comes from. */
  readonly shares: Shares | undefined;
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
    shares: sharesOf(outline, figured, isCircle ? radiusOf : lengthOf),
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
