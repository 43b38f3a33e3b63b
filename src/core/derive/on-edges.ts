import type { Measured } from '../adjust';
import { distance, pieceLength } from '../geometry';
import type { Job, View } from '../job';
import type { Shape } from '../outline';
import { add3, normalOf, poseFacing, scale3, subtract3, toSpace, type Pose, type Side, type Vec3 } from '../space';
import type { Arranged } from './arranged';
import { poseOnLayer, type StandingPlane } from './levels';
import { measureOutline, type Figured } from './figures';
import type { FittedView } from './fits';
import { isSide } from './scene';
import { standsBySide } from './standing';

/** Why a view does not stand on the edge that it is said to: the view in which that is drawn does not stand or shows the same plane, it is gone or bent or of no length, or the view has no scale. */
export type OffEdge = 'edge-apart' | 'edge-gone' | 'edge-bent' | 'edge-short' | 'edge-without-scale';

/** Where the plane of a view stands. */
export interface Placed extends StandingPlane {
  readonly view: string;
}

/** A view that stands upright on an edge that is drawn in another one: among the others between the ends that they share, or by its zero. mm, object frame. */
export interface OnEdge {
  readonly view: string;
  /** The view in which the edge is drawn. */
  readonly under: Placed;
  readonly pose: Pose;
  /** How long the edge is. */
  readonly length: number;
}

/** What says where views stand that stand on edges. */
export interface Edges {
  readonly job: Pick<Job, 'layers' | 'outlines'>;
  readonly derived: {
    readonly views: ReadonlyMap<string, FittedView>;
    readonly shapes: Pick<ReadonlyMap<string, Shape>, 'get'>;
    readonly arranged: Pick<Arranged, 'stands' | 'coordinate'>;
  };
}

/** Shorter than this an edge says nothing of where it runs. mm */
const SHORTEST = 1e-6;

/** How a view stands on its edge; why it does not; undefined for one that stands on none, or by a side of its own. */
export function onEdge(view: View, edges: Edges): OnEdge | OffEdge | undefined {
  const { views, arranged } = edges.derived;
  const { standsOn } = view;
  const among = arranged.stands.get(view.id);
  if (!standsOn || standsBySide(among)) return undefined;
  if (!views.get(view.id)?.fit.scaled) return 'edge-without-scale';
  const outline = edges.job.outlines.find(({ id }) => id === standsOn.outline);
  const under = outline && outline.plane !== view.plane && placedUnder(outline.plane, edges);
  if (!under) return 'edge-apart';
  const ends = endsOf(standsOn, edges);
  if (typeof ends === 'string') return ends;
  const layer = edges.job.layers.find(({ id }) => id === outline.layer);
  const stands = standingOn(ends, standsOn, poseOnLayer(under, layer ?? {}, arranged));
  return { view: view.id, under, ...stands, pose: among?.pose ?? stands.pose };
}

/** Where the plane stands on which an edge is drawn: among the others, or, of a view that shows a side and shares nothing yet, by its own zero. */
export function placedUnder(plane: string, { derived: { views, arranged } }: Edges): Placed | undefined {
  const showing = [...views.values()].filter(({ view }) => view.plane === plane);
  const among = showing.flatMap(({ source }) => arranged.stands.get(source.id) ?? [])[0];
  if (among) return among;
  const alone = showing.find(({ source, fit }) => isSide(source.side) && fit.scaled && !source.lookOnly);
  const side = alone?.source.side as Side;
  return alone && { view: alone.source.id, side, pose: poseFacing(side) };
}

type Edge = NonNullable<View['standsOn']>;

/** Both ends of an edge, on its plane. */
function endsOf({ outline: id, from }: Edge, { job, derived }: Edges) {
  const outline = job.outlines.find((other) => other.id === id);
  const index = outline?.shape === 'chain' ? outline.nodes.findIndex((node) => node.id === from) : -1;
  const piece = derived.shapes.get(id)?.pieces[index];
  if (!piece) return 'edge-gone';
  if (piece.kind !== 'line') return 'edge-bent';
  return distance(piece.a, piece.b) > SHORTEST ? ([piece.a, piece.b] as const) : 'edge-short';
}

/** Upright on the plane of the edge, its zero at the end where the edge begins as one looks at the view. */
function standingOn(
  ends: readonly [Parameters<typeof toSpace>[1], Parameters<typeof toSpace>[1]],
  { along = 0, turned = false }: Edge,
  pose: Pose,
): { readonly pose: Pose; readonly length: number } {
  const [first, last] = ends.map((end) => toSpace(pose, end)) as [Vec3, Vec3];
  const [from, to] = turned ? [last, first] : [first, last];
  const way = subtract3(to, from);
  const length = Math.hypot(...way);
  const x = scale3(way, 1 / length);
  return { length, pose: { origin: add3(from, scale3(x, along)), x, y: normalOf(pose) } };
}

/** How long an edge is, with its plus-minus; undefined where there is none. mm, one sigma. */
export function lengthOfEdge({ outline: id, from }: Edge, figured: Figured): Measured | undefined {
  const outline = figured.job.outlines.find((other) => other.id === id);
  if (outline?.shape !== 'chain') return undefined;
  const index = outline.nodes.findIndex((node) => node.id === from);
  return index < 0
    ? undefined
    : measureOutline(outline, figured, ({ pieces }) => (pieces[index] ? pieceLength(pieces[index]) : NaN));
}

/** Views that stand on edges and not among the others, and those under any that stand by nothing else. */
export function listOnEdges(
  job: Pick<Job, 'layers' | 'outlines' | 'views'>,
  derived: Edges['derived'],
): readonly Placed[] {
  const standing = job.views.flatMap((view) => {
    const stands = onEdge(view, { job, derived });
    return stands && typeof stands !== 'string' ? [stands] : [];
  });
  const under = standing.map((stands) => stands.under).filter(({ view }) => !derived.arranged.stands.has(view));
  const apart = standing.filter(({ view }) => !derived.arranged.stands.has(view));
  return [...new Map([...apart, ...under].map((placed) => [placed.view, placed])).values()];
}
