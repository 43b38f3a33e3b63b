import type { Vec } from '../geometry';
import type { Corner } from './corner';
import type { Place } from './place';

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
}

export type Segment =
  | { readonly kind: 'line' }
  | { readonly kind: 'arc'; readonly through: Place }
  /** An arc that leaves its first node along the end of the segment before it. */
  | { readonly kind: 'tangent' }
  /** A curve through the nodes: neighbouring curve segments are one curve with through-points. */
  | { readonly kind: 'curve' };

export type SegmentKind = Segment['kind'];

export interface Chain {
  readonly shape: 'chain';
  readonly id: string;
  readonly layer: string;
  readonly view: string;
  readonly closed: boolean;
  readonly nodes: readonly Node[];
  /** Segment i runs from node i to node i + 1; a closed chain has one more, back to node 0. */
  readonly segments: readonly Segment[];
}

export type CircleBy =
  | { readonly kind: 'rim'; readonly centre: Place; readonly rim: Place }
  | { readonly kind: 'two'; readonly a: Place; readonly b: Place }
  | { readonly kind: 'three'; readonly a: Place; readonly b: Place; readonly c: Place };

export interface CircleOutline {
  readonly shape: 'circle';
  readonly id: string;
  readonly layer: string;
  readonly view: string;
  readonly by: CircleBy;
}

export type Outline = Chain | CircleOutline;

export function placesOf(outline: Outline): readonly Place[] {
  if (outline.shape === 'chain') {
    return [...outline.nodes.map((node) => node.place), ...outline.segments.flatMap((s) => (s.kind === 'arc' ? [s.through] : []))];
  }
  const { by } = outline;
  if (by.kind === 'rim') return [by.centre, by.rim];
  return by.kind === 'two' ? [by.a, by.b] : [by.a, by.b, by.c];
}

/** The same outline with every place replaced. */
export function mapPlaces(outline: Outline, change: (place: Place) => Place): Outline {
  if (outline.shape === 'chain') {
    return {
      ...outline,
      nodes: outline.nodes.map((node) => ({ ...node, place: change(node.place) })),
      segments: outline.segments.map((s) => (s.kind === 'arc' ? { ...s, through: change(s.through) } : s)),
    };
  }
  const { by } = outline;
  if (by.kind === 'rim') return { ...outline, by: { ...by, centre: change(by.centre), rim: change(by.rim) } };
  if (by.kind === 'two') return { ...outline, by: { ...by, a: change(by.a), b: change(by.b) } };
  return { ...outline, by: { ...by, a: change(by.a), b: change(by.b), c: change(by.c) } };
}
