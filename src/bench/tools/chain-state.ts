import { type Chain, type Node, type PointedPlace, type Segment, type SegmentKind } from '@/core/outline';
import type { SaidOfSegment } from './drawn-up-to';
import type { ToolContext } from './tool';
import type { Wall } from './wall';

/** How an arc between two ends is said: by a place on it, by its centre, or by its radius. */
export type ArcBy = 'through' | 'centre' | 'radius';

/** An outline on its way. Plain data: it is saved with the job and comes back after a reload. */
export interface ChainState {
  readonly nodes: readonly Node[];
  readonly segments: readonly Segment[];
  /** The middle of an arc whose end is not set yet. */
  readonly through?: PointedPlace | undefined;
  readonly kind: SegmentKind;
  /** Segments run level or upright only. */
  readonly lock: boolean;
  readonly arcBy?: ArcBy | undefined;
  /** Radius of the arcs that are drawn by it, mm: to the left of their chord, below nothing to the right. */
  readonly radius?: number | undefined;
  /** What is pointed at next is touched: the line becomes tangent to it. */
  readonly touching?: boolean | undefined;
  readonly says?: readonly SaidOfSegment[] | undefined;
  /** What is drawn is the line of a wall. */
  readonly wall?: Wall | undefined;
  /** The open outline that is carried on, if any. */
  readonly carries?: { readonly id: string; readonly layer: string } | undefined;
}

export const START: ChainState = { nodes: [], segments: [], kind: 'line', lock: false };

/** The draft as an outline; undefined before there is a point. */
export function findDraft(state: ChainState, { fitted, layer }: ToolContext): Chain | undefined {
  if (state.nodes.length === 0) return undefined;
  return {
    shape: 'chain',
    id: state.carries?.id ?? 'draft',
    layer: state.carries?.layer ?? layer,
    plane: fitted.view.plane,
    closed: false,
    nodes: state.nodes,
    segments: state.segments,
  };
}

export const SAME_POINT = 1e-6;

/** A curve that is followed by a line or an arc keeps the way it came: it ends in a corner until somebody smooths it. */
export function settled({ nodes, segments }: ChainState, next: Segment): readonly Node[] {
  const ends = segments.at(-1)?.kind === 'curve' && (next.kind === 'line' || next.kind === 'arc');
  return ends ? [...nodes.slice(0, -1), { ...nodes.at(-1)!, smooth: false }] : nodes;
}
