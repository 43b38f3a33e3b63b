import { add, distance, signedAngle, type Vec } from '../geometry';
import type { Chain, Node, Outline, Segment } from './outline';
import { mapMovedPlaces, mapPlaces } from './outline';
import { mapPointed, movedByHand, onAnother, type Place } from './place';
import { segmentFor, type Editing } from './segment';
import type { Shape } from './shape';

export function withNodePlace(chain: Chain, id: string, place: Place): Chain {
  return { ...chain, nodes: chain.nodes.map((node) => (node.id === id ? { ...node, place } : node)) };
}

/** A handle pulled to a new place; on a smooth node the other side turns with it and keeps its own length. */
export function withHandle(chain: Chain, id: string, side: 'in' | 'out', to: Vec, opposite: Vec | undefined): Chain {
  const turned = (): Vec | undefined => {
    const length = opposite && Math.hypot(...opposite);
    const size = Math.hypot(...to);
    return length && size ? [(-to[0] * length) / size, (-to[1] * length) / size] : opposite;
  };
  return {
    ...chain,
    nodes: chain.nodes.map((node): Node => {
      if (node.id !== id) return node;
      const other = node.smooth ? turned() : side === 'in' ? node.handleOut : node.handleIn;
      return side === 'in' ? { ...node, handleIn: to, handleOut: other } : { ...node, handleOut: to, handleIn: other };
    }),
  };
}

/** Turns a corner into a smooth point and back; pulled handles are let go, so that the curve finds its way anew. */
export function withSmooth(chain: Chain, id: string, smooth: boolean): Chain {
  return {
    ...chain,
    nodes: chain.nodes.map((node) => (node.id === id ? { id: node.id, place: node.place, smooth } : node)),
  };
}

/** Places that referred to a node now carry that node's own place, so that nothing hangs on what is about to go. */
export function inlined(chain: Chain, id: string): Chain {
  const gone = chain.nodes.find((node) => node.id === id)?.place;
  if (!gone) return chain;
  const resolve = (place: Place): Place => {
    if (place.kind === 'node') return place.id === id ? gone : place;
    return onAnother(place, resolve);
  };
  return mapPlaces(chain, resolve);
}

/** No place refers to another node any more. */
export const flattened = (chain: Chain): Chain =>
  chain.nodes.reduce<Chain>((rest, node) => inlined(rest, node.id), chain);

/** Takes a node out; the segment before it goes on to the next node. Undefined when fewer than two nodes would be left. */
export function findWithoutNode(chain: Chain, id: string): Chain | undefined {
  const index = chain.nodes.findIndex((node) => node.id === id);
  if (index < 0 || chain.nodes.length <= 2) return undefined;
  const rest = inlined(chain, id);
  const gone = chain.closed ? index : Math.min(index, chain.segments.length - 1);
  return {
    ...rest,
    nodes: rest.nodes.filter((node) => node.id !== id),
    segments: rest.segments.filter((_, i) => i !== gone),
  };
}

/** Closes an open chain: ends nearer than `merge` become one node, else a line is drawn. Undefined with too little to close. */
export function findClosed(chain: Chain, shape: Shape, merge: number): Chain | undefined {
  if (chain.closed || chain.nodes.length < 2) return undefined;
  const [first, last] = [shape.nodes[0]!, shape.nodes.at(-1)!];
  if (distance(first, last) > merge) {
    return chain.nodes.length < 3 && chain.segments[0]?.kind === 'line'
      ? undefined
      : { ...chain, closed: true, segments: [...chain.segments, { kind: 'line' }] };
  }
  const ending = chain.nodes.at(-1)!;
  const enough = chain.nodes.length >= 3 || chain.segments.some((s) => s.kind !== 'line');
  if (!enough || chain.nodes.length < 3) return undefined;
  const rest = inlined(chain, ending.id);
  const nodes = rest.nodes
    .slice(0, -1)
    .map((node, i) => (i === 0 && ending.handleIn ? { ...node, handleIn: ending.handleIn } : node));
  return { ...rest, closed: true, nodes };
}

/** The same chain from its other end. Tangent arcs become arcs through their middle, since what they leaned on is now behind. */
export function reversedChain(chain: Chain, shape: Shape, editing: Editing): Chain {
  const flat = flattened(chain);
  const segments = flat.segments.map((segment, i): Segment => {
    if (segment.kind === 'ellipse') return { ...segment, sweep: -segment.sweep };
    return segment.kind === 'tangent' ? segmentFor(shape.pieces[i]!, editing) : segment;
  });
  const nodes = flat.nodes.map((node): Node => ({
    ...node,
    handleIn: node.handleOut,
    handleOut: node.handleIn,
    ...(node.direction === undefined ? {} : { direction: signedAngle(node.direction + Math.PI) }),
  }));
  return { ...flat, nodes: nodes.reverse(), segments: segments.reverse() };
}

/** Two open chains as one, the end of `a` to the start of `b`: merged when nearer than `merge`, else joined by a line. */
export function joinedChains(a: Chain, b: Chain, gap: number, merge: number): Chain {
  if (gap > merge)
    return { ...a, nodes: [...a.nodes, ...b.nodes], segments: [...a.segments, { kind: 'line' }, ...b.segments] };
  const [first, ...others] = b.nodes;
  const meeting = { ...a.nodes.at(-1)!, handleOut: first!.handleOut };
  const rest = inlined(b, first!.id);
  return {
    ...a,
    nodes: [...a.nodes.slice(0, -1), meeting, ...rest.nodes.slice(others.length ? 1 : 0)],
    segments: [...a.segments, ...rest.segments],
  };
}

/** Moved by typed amounts: every place is shifted by `by` (mm). `seen` gives the sheet place of each, for when the scale goes. */
export function shiftedOutline<O extends Outline>(outline: O, by: Vec, seen: (place: Place) => Vec): O {
  const flat = outline.shape === 'chain' ? (flattened(outline) as O) : outline;
  return mapMovedPlaces(flat, (place) => shiftedPlace(place, by, seen(place)));
}

/** A place moved by a typed amount, mm. */
export const shiftedPlace = (place: Place, by: Vec, seen: Vec): Place =>
  place.kind === 'shifted' ? { ...place, by: add(place.by, by), seen } : { kind: 'shifted', from: place, by, seen };

/** Moved by hand on the sheet: everything pointed moves by `by` (px); what was typed keeps its relation to it. */
export function draggedOutline<O extends Outline>(outline: O, by: Vec): O {
  return mapMovedPlaces(outline, (place) => mapPointed(place, (pointed) => movedByHand(pointed, by)));
}

/** A copy with fresh ids for itself and its nodes, references included. */
export function copiedOutline(outline: Outline, newId: () => string): Outline {
  if (outline.shape !== 'chain') return { ...outline, id: newId() };
  const ids = new Map(outline.nodes.map((node) => [node.id, newId()]));
  const rename = (place: Place): Place => {
    if (place.kind === 'node') return { ...place, id: ids.get(place.id) ?? place.id };
    return onAnother(place, rename);
  };
  const copy = mapPlaces(outline, rename);
  return { ...copy, id: newId(), nodes: copy.nodes.map((node) => ({ ...node, id: ids.get(node.id)! })) };
}
