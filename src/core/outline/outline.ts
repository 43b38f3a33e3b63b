import type { Vec } from '../geometry';
import type { Corner } from './corner';
import type { Place } from './place';
import { mapRecipePlaces, placesOfRecipe, type Opening, type Recipe } from './recipe';

/** A node of a chain. Handles are sheet pixels relative to the node; without them a curve finds its own way through. */
export interface Node {
  readonly id: string;
  readonly place: Place;
  /** Where curves meet: a smooth node shares one tangent on both sides, a corner does not. */
  readonly smooth: boolean;
  /** How the corner here is finished when it is cut; not without scale. */
  readonly corner?: Corner | undefined;
  readonly handleIn?: Vec | undefined;
  readonly handleOut?: Vec | undefined;
  /** The direction in which curves run through it, radians on the view plane; a pulled handle goes before it. */
  readonly direction?: number | undefined;
  /** How tightly curves are drawn past it: at 1 they are as good as straight, below 0 they swing out. */
  readonly tension?: number | undefined;
}

export type Segment =
  | { readonly kind: 'line' }
  | { readonly kind: 'arc'; readonly through: Place }
  /** An arc that leaves its first node along the end of the segment before it. */
  | { readonly kind: 'tangent' }
  /** A curve through the nodes: neighbouring curve segments are one curve with through-points. */
  | { readonly kind: 'curve' }
  /** A piece of an ellipse: its tangents at both nodes meet in `apex`, and over it the ellipse's own parameter runs over `sweep` (radians, signed, less than half a turn). */
  | { readonly kind: 'ellipse'; readonly apex: Place; readonly sweep: number };

/** The kinds that are drawn by hand: pieces of ellipses come of cutting one. */
export type SegmentKind = Exclude<Segment['kind'], 'ellipse'>;

interface Owned {
  readonly id: string;
  readonly layer: string;
  readonly plane: string;
  /** Drawn as an aid: caught by the aim like everything else, but never cut, counted or handed over. */
  readonly aid?: boolean | undefined;
}

export interface Chain extends Owned {
  readonly shape: 'chain';
  readonly closed: boolean;
  /** Its curves bend evenly: without a jump in curvature from one through-point to the next. */
  readonly even?: boolean | undefined;
  readonly nodes: readonly Node[];
  /** Segment i runs from node i to node i + 1; a closed chain has one more, back to node 0. */
  readonly segments: readonly Segment[];
}

export type CircleBy =
  | { readonly kind: 'rim'; readonly centre: Place; readonly rim: Place }
  | { readonly kind: 'two'; readonly a: Place; readonly b: Place }
  | { readonly kind: 'three'; readonly a: Place; readonly b: Place; readonly c: Place };

export interface CircleOutline extends Owned {
  readonly shape: 'circle';
  readonly by: CircleBy;
}

/** An ellipse by its centre, the end of one of its axes, and any place as far from that axis as the other one reaches. */
export interface EllipseOutline extends Owned {
  readonly shape: 'ellipse';
  readonly centre: Place;
  readonly end: Place;
  readonly side: Place;
}

/** An outline that is made from others by a recipe, and follows them. */
export interface MadeOutline extends Owned {
  readonly shape: 'made';
  readonly recipe: Recipe;
}

/** An outline that stands on places of its own. */
export type DrawnOutline = Chain | CircleOutline | EllipseOutline;
export type Outline = DrawnOutline | MadeOutline;

/** The place that a segment stands on besides its nodes. */
function findOwnPlace(segment: Segment): Place | undefined {
  return segment.kind === 'arc' ? segment.through : segment.kind === 'ellipse' ? segment.apex : undefined;
}

function withOwnPlace(segment: Segment, change: (place: Place) => Place): Segment {
  if (segment.kind === 'arc') return { ...segment, through: change(segment.through) };
  return segment.kind === 'ellipse' ? { ...segment, apex: change(segment.apex) } : segment;
}

export function placesOf(outline: Outline): readonly Place[] {
  if (outline.shape === 'chain') {
    return [
      ...outline.nodes.map((node) => node.place),
      ...outline.segments.flatMap((segment) => findOwnPlace(segment) ?? []),
    ];
  }
  if (outline.shape === 'made') return placesOfRecipe(outline.recipe);
  if (outline.shape === 'ellipse') return [outline.centre, outline.end, outline.side];
  const { by } = outline;
  if (by.kind === 'rim') return [by.centre, by.rim];
  return by.kind === 'two' ? [by.a, by.b] : [by.a, by.b, by.c];
}

/** The same outline with every place replaced. */
export function mapPlaces<O extends Outline>(outline: O, change: (place: Place) => Place): O {
  return withPlaces(outline, change) as O;
}

function withPlaces(outline: Outline, change: (place: Place) => Place): Outline {
  if (outline.shape === 'chain') {
    return {
      ...outline,
      nodes: outline.nodes.map((node) => ({ ...node, place: change(node.place) })),
      segments: outline.segments.map((segment) => withOwnPlace(segment, change)),
    };
  }
  if (outline.shape === 'made') return { ...outline, recipe: mapRecipePlaces(outline.recipe, change) };
  if (outline.shape === 'ellipse')
    return { ...outline, centre: change(outline.centre), end: change(outline.end), side: change(outline.side) };
  const { by } = outline;
  if (by.kind === 'rim') return { ...outline, by: { ...by, centre: change(by.centre), rim: change(by.rim) } };
  if (by.kind === 'two') return { ...outline, by: { ...by, a: change(by.a), b: change(by.b) } };
  return { ...outline, by: { ...by, a: change(by.a), b: change(by.b), c: change(by.c) } };
}

/** Whether an outline can be moved by itself: what is made of others follows them, but for a part that was stood elsewhere. */
export const isMovable = (outline: Outline): boolean => outline.shape !== 'made' || outline.recipe.kind === 'placed';

/** The same outline with the places replaced that it moves by: of a part stood elsewhere, where that is. */
export function mapMovedPlaces<O extends Outline>(outline: O, change: (place: Place) => Place): O {
  if (outline.shape !== 'made') return mapPlaces(outline, change);
  return outline.recipe.kind === 'placed'
    ? { ...outline, recipe: { ...outline.recipe, to: change(outline.recipe.to) } }
    : outline;
}

/** The nodes at which a segment of a chain begins and ends; undefined where it has no such segment. */
export function endsOfSegment<N>(
  { nodes, segments }: { readonly nodes: readonly N[]; readonly segments: readonly unknown[] },
  index: number,
): readonly [N, N] | undefined {
  const [from, to] = [nodes[index], nodes[(index + 1) % nodes.length]];
  return segments[index] && from && to ? [from, to] : undefined;
}

/** The openings of a wall; of what is none, none. */
export const openingsOf = (outline: Outline | undefined): readonly Opening[] =>
  outline?.shape === 'made' && outline.recipe.kind === 'strip' ? (outline.recipe.openings ?? []) : [];
