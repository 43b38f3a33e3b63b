import type { Measured } from '../adjust';
import { LEVEL_SIGMA } from '../arrange';
import { distance, mix, outermostOf, type Vec } from '../geometry';
import type { Feature, Job, Seen } from '../job';
import type { Outline, Place, Shape } from '../outline';
import { axesSeenFrom, DIRECTIONS, type Direction, type SeenAxis } from '../space';
import type { Derived } from './derived';
import type { FittedView } from './fits';
import { isSide } from './scene';

/** Where what is drawn ends along a direction: lowest, at the left, at the front; or at the other end. */
export type End = 'least' | 'most';

/** An end of what is drawn, in several views: most likely one line of the thing. */
export interface ProposedLine {
  readonly along: Direction;
  readonly end: End;
  /** The shared line that it is in one of the views already; undefined where it would be a new one. */
  readonly feature: string | undefined;
  /** Where further views show it, sheet px: at both ends of it where it is straight. */
  readonly seen: readonly Omit<Seen, 'id'>[];
  /** How far what is drawn reaches along the direction in each view that has a scale, mm and one sigma, and whether that is the same in all of them within what is known. */
  readonly reaches: readonly ({ readonly view: string } & Measured)[];
  readonly agrees: boolean;
}

interface Point {
  readonly at: Vec;
  readonly sigma: number;
  /** As the outline's own node was pointed at; undefined of what lies on a curve. */
  readonly pointed: Pick<Seen, 'at' | 'sigma' | 'edge'> | undefined;
  /** Nodes to which straight edges lead from here. */
  joined(): readonly Point[];
}

/** A view that shows a side, with all that is drawn in it. */
interface Drawn {
  readonly fitted: FittedView;
  readonly axes: readonly [SeenAxis, SeenAxis];
  readonly points: readonly Point[];
}

/** Places are one and the same end, and reaches as far as each other, within so many sigmas. */
const SURELY = 3;
/** A shared line is that end where it lies within this share of what is drawn. */
const NEAR = 0.005;

/**
 * Ends of what is drawn that several views show along one direction, and that are no shared line yet, from the base up, then across and deep. Only what is drawn by hand counts, on layers that are shown. What it is that reaches farthest may be another thing in each view: where the views have
 * scales, `agrees` says whether it reaches as far in all of them.
 */
export function listProposedLines(
  job: Pick<Job, 'views' | 'layers' | 'outlines' | 'features'>,
  derived: Pick<Derived, 'views' | 'shapes'>,
): readonly ProposedLine[] {
  const drawn = job.views.flatMap(({ id }) => drawnIn(derived.views.get(id), job, derived) ?? []);
  const order: readonly Direction[] = [...DIRECTIONS].sort((a, b) => Number(b === 'up') - Number(a === 'up'));
  return order.flatMap((along) => {
    const showing = drawn.filter(({ axes }) => axes.some(({ direction }) => direction === along));
    const ends: readonly End[] = ['least', 'most'];
    return showing.length < 2 ? [] : ends.flatMap((end) => proposedAt(showing, along, end, job.features) ?? []);
  });
}

function drawnIn(
  fitted: FittedView | undefined,
  { layers, outlines }: Pick<Job, 'layers' | 'outlines'>,
  { shapes }: Pick<Derived, 'shapes'>,
): Drawn | undefined {
  const side = fitted?.source.side;
  if (!fitted || !isSide(side) || fitted.source.lookOnly) return undefined;
  const shown = new Set(layers.filter(({ show }) => show).map(({ id }) => id));
  const points = outlines
    .filter(({ plane, layer }) => plane === fitted.source.plane && shown.has(layer))
    .flatMap((outline) => pointsOf(outline, shapes, fitted.source.id));
  return points.length > 0 ? { fitted, axes: axesSeenFrom(side), points } : undefined;
}

/** Nodes of an outline, and where its curves reach farthest, on its plane. */
function pointsOf(outline: Outline, shapes: Pick<Derived['shapes'], 'get'>, view: string): readonly Point[] {
  const shape = shapes.get(outline.id);
  if (!shape || outline.shape === 'made') return [];
  const places: readonly Place[] = outline.shape === 'chain' ? outline.nodes.map(({ place }) => place) : [];
  const sigma = Math.max(1, ...places.map((place) => (place.kind === 'pointed' ? place.sigma : 0)));
  const nodes = shape.nodes.map((at, i): Point => {
    const place = places[i];
    const isHere = place?.kind === 'pointed' && (place.view ?? view) === view;
    const pointed = isHere ? { at: place.at, sigma: place.sigma, ...edgeOf(place) } : undefined;
    return { at, sigma, pointed, joined: () => neighboursOf(shape, i).map((k) => nodes[k]!) };
  });
  const bent = shape.pieces
    .flatMap(outermostOf)
    .map((at): Point => ({ at, sigma, pointed: undefined, joined: () => [] }));
  // A circle's own places say little of where it ends.
  return outline.shape === 'chain' ? [...nodes, ...bent] : bent;
}

/** Which nodes are joined to one by a straight edge. */
const neighboursOf = ({ pieces, nodes }: Shape, node: number): readonly number[] =>
  pieces.flatMap(({ kind }, i) => {
    const next = (i + 1) % nodes.length;
    if (kind !== 'line' || (i !== node && next !== node)) return [];
    return [i === node ? next : i];
  });

const edgeOf = ({ edge }: Pick<Seen, 'edge'>) => (edge ? { edge } : {});

/** The end of what is drawn in a view, along one of its axes. */
interface Reached {
  readonly fitted: FittedView;
  /** How far a place of the view's plane lies beyond the end, or before it. */
  readonly missOf: (at: Vec) => number;
  readonly reach: number;
  /** One sigma of the reach. */
  readonly sigma: number;
  /** What lies at the end: one place, or both ends of an edge. */
  readonly places: readonly Point[];
}

function reachedIn({ fitted, axes, points }: Drawn, along: Direction, end: End): Reached {
  const axis = axes[0].direction === along ? 0 : 1;
  const coordinate = ({ at }: Pick<Point, 'at'>) => axes[axis].sign * at[axis];
  const outermost = (outward: 1 | -1): readonly Point[] => {
    const place = points.reduce((a, b) => (outward * (coordinate(b) - coordinate(a)) > 0 ? b : a));
    const aside = ({ at }: Point) => Math.abs(at[1 - axis]! - place.at[1 - axis]!);
    const level = place
      .joined()
      .filter((other) => Math.abs(coordinate(other) - coordinate(place)) <= LEVEL_SIGMA * aside(other));
    const [far] = level.sort((a, b) => aside(b) - aside(a));
    return far ? [place, far] : [place];
  };
  const [places, others] = end === 'most' ? [outermost(1), outermost(-1)] : [outermost(-1), outermost(1)];
  const [here, there] = [places, others].map((some) => mean(some.map(coordinate))) as [number, number];
  const pixel = pixelAt(fitted, places[0]!.at);
  return {
    fitted,
    missOf: (at) => coordinate({ at }) - coordinate({ at: onEdge(places, at, axis) }),
    reach: Math.abs(here - there),
    sigma: Math.hypot(fitted.sigma ?? 0, pixel * places[0]!.sigma, pixel * others[0]!.sigma),
    places,
  };
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/** The place of an end that lies where another place is, on the other axis. */
function onEdge([a, b]: readonly Point[], at: Vec, axis: 0 | 1): Vec {
  if (!b) return a!.at;
  const other = axis === 0 ? 1 : 0;
  return mix(a!.at, b.at, (at[other] - a!.at[other]) / (b.at[other] - a!.at[other]));
}

/** How large a pixel of the sheet is about a place of the plane. */
function pixelAt({ fit }: FittedView, at: Vec): number {
  const [x, y] = fit.toSheet(at);
  return distance(fit.toPlane([x + 1, y]), at);
}

function proposedAt(
  showing: readonly Drawn[],
  along: Direction,
  end: End,
  features: readonly Feature[],
): ProposedLine | undefined {
  const reached = showing.map((drawn) => reachedIn(drawn, along, end));
  const lines = features.filter((feature) => feature.along === along);
  const known = reached.map((each) => lines.find((line) => isSeenAt(line, each))?.id);
  const feature = known.find((id) => id !== undefined);
  const own = lines.find(({ id }) => id === feature);
  // A view that shows that line elsewhere says itself that its end is another.
  const further = reached.filter(
    ({ fitted }, i) => known[i] === undefined && !own?.seen.some(({ view }) => view === fitted.source.id),
  );
  if (further.length < (feature === undefined ? 2 : 1)) return undefined;
  const scaled = reached.filter(({ fitted }) => fitted.fit.scaled);
  return {
    along,
    end,
    feature,
    seen: further.flatMap(({ fitted, places }) => places.map((place) => seenPlace(fitted, place))),
    reaches: scaled.map(({ fitted, reach, sigma }) => ({ view: fitted.source.id, value: reach, sigma })),
    agrees: scaled.every((a) =>
      scaled.every((b) => Math.abs(a.reach - b.reach) <= SURELY * Math.hypot(a.sigma, b.sigma)),
    ),
  };
}

/** Whether a shared line was pointed at where what is drawn in a view ends. */
function isSeenAt({ seen }: Feature, { fitted, missOf, reach }: Reached): boolean {
  return seen
    .filter(({ view }) => view === fitted.source.id)
    .some(({ at, sigma }) => {
      const place = fitted.fit.toPlane(at);
      return Math.abs(missOf(place)) <= Math.max(NEAR * reach, SURELY * sigma * pixelAt(fitted, place));
    });
}

const seenPlace = ({ source, fit }: FittedView, { at, sigma, pointed }: Point): Omit<Seen, 'id'> => ({
  view: source.id,
  ...(pointed ?? { at: fit.toSheet(at), sigma }),
});
