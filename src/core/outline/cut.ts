import { distance, isRound, listCrossings, partOf, pointAt, subtract, type Piece, type Vec } from '../geometry';
import { inlined } from './edit';
import type { Chain, DrawnOutline, Node, Segment } from './outline';
import { pointedAt, segmentFor, type Editing } from './segment';
import { chainFrom } from './stand';
import type { Shape } from './shape';

/** A place along an outline: on which of its pieces, and where on that. */
export interface Along {
  readonly segment: number;
  readonly t: number;
}

/** A chain as it lies on its plane: its pieces are given, whatever its places say. */
interface Lying {
  readonly chain: Chain;
  readonly pieces: readonly Piece[];
}

const positionOf = ({ segment, t }: Along) => segment + t;

/** Where other pieces cross or touch an outline, along it in order. Places nearer to each other than `tolerance` are one. */
export function listCutsOn({ pieces }: Shape, others: readonly Piece[], tolerance: number): readonly Along[] {
  const cuts = pieces.flatMap((piece, segment) =>
    others.flatMap((other) =>
      other === piece
        ? []
        : listCrossings(piece, other, tolerance).map(({ ta }): Along => ({ segment, t: Math.min(1, Math.max(0, ta)) })),
    ),
  );
  const at = ({ segment, t }: Along) => pointAt(pieces[segment]!, t);
  return cuts
    .sort((a, b) => positionOf(a) - positionOf(b))
    .filter((cut, i, all) => i === 0 || distance(at(cut), at(all[i - 1]!)) > tolerance);
}

/**
 * An outline without the stretch from one place along it to another; undefined stands for its own end. What is left keeps its nodes, its arcs and its curves point for
 * point: of a closed outline one open chain, of an open one up to two, of which the first keeps its id. A circle leaves an arc, an ellipse pieces of it.
 */
export function cutAway(
  outline: DrawnOutline,
  shape: Shape,
  from: Along | undefined,
  to: Along | undefined,
  editing: Editing,
): readonly Chain[] {
  if (outline.shape !== 'chain') {
    const [piece] = shape.pieces;
    if (!piece || !isRound(piece) || !from || !to) return [];
    const until = from.t > to.t ? from.t : from.t + 1;
    const rest = chainFrom({ closed: false, pieces: [partOf(piece, to.t, until)] }, outline, editing);
    return [{ ...rest, id: outline.id, ...(outline.aid ? { aid: true } : {}) }];
  }
  const lying: Lying = { chain: loosened(outline, shape, editing), pieces: shape.pieces };
  if (outline.closed) return from && to ? [restOfClosed(lying, from, to, editing)] : [];
  const before = from && positionOf(from) > 0 ? [sliceOf(lying, undefined, from, editing, outline.id)] : [];
  const after =
    to && positionOf(to) < shape.pieces.length
      ? [sliceOf(lying, to, undefined, editing, before.length > 0 ? editing.newId() : outline.id)]
      : [];
  return [...before, ...after].filter(({ nodes }) => nodes.length > 1);
}

/** An open chain as two at a place along it; a closed one opened there. */
export function splitAt(chain: Chain, shape: Shape, at: Along, editing: Editing): readonly Chain[] {
  return chain.closed
    ? [restOfClosed({ chain: loosened(chain, shape, editing), pieces: shape.pieces }, at, at, editing)]
    : cutAway(chain, shape, at, at, editing);
}

/** Puts a node on segment `index` at t; every kind keeps its shape (a curve's handles become pulled ones). */
export function withNodeOn(chain: Chain, shape: Shape, index: number, t: number, editing: Editing): Chain {
  return noded({ chain: loosened(chain, shape, editing), pieces: shape.pieces }, { segment: index, t }, editing).lying
    .chain;
}

/** Curves that bend evenly lean on each other from end to end: where one is cut or joined, all of them are held as they are from then on. */
export function loosened(chain: Chain, shape: Shape, editing: Editing): Chain {
  if (!chain.even) return chain;
  const { even: _, ...rest } = chain.nodes.reduce<Lying>((lying, _, i) => pinned(lying, i, editing), {
    chain,
    pieces: shape.pieces,
  }).chain;
  return rest;
}

/** The chain with its last curve held as it is, and what runs smoothly into it, whatever happens to its end. */
export function withHeldEnd(chain: Chain, shape: Shape, editing: Editing): Chain {
  const last = chain.nodes.length - 1;
  return [last - 1, last].reduce<Lying>((lying, i) => pinned(lying, i, editing), {
    chain: loosened(chain, shape, editing),
    pieces: shape.pieces,
  }).chain;
}

/** A place this near to the end of its piece is the node there. */
const AT_NODE = 1e-9;

/** The chain with a node at a place along it, and which node that is. */
function noded(
  { chain, pieces }: Lying,
  { segment: index, t }: Along,
  editing: Editing,
): { readonly lying: Lying; readonly node: number } {
  if (t <= AT_NODE) return { lying: { chain, pieces }, node: index };
  if (t >= 1 - AT_NODE) return { lying: { chain, pieces }, node: index + 1 };
  const [whole, segment] = [pieces[index]!, chain.segments[index]!];
  const parts = [partOf(whole, 0, t), partOf(whole, t, 1)] as const;
  const pair: Segment[] =
    segment.kind === 'arc' || segment.kind === 'ellipse'
      ? parts.map((part) => segmentFor(part, editing))
      : [segment, segment];
  const node: Node = {
    id: editing.newId(),
    place: pointedAt(pointAt(whole, t), editing),
    smooth: segment.kind === 'curve',
  };
  const lain: Lying = {
    chain: {
      ...chain,
      nodes: inserted(chain.nodes, index + 1, 0, node),
      segments: inserted(chain.segments, index, 1, ...pair),
    },
    pieces: inserted(pieces, index, 1, ...parts),
  };
  return {
    lying:
      segment.kind === 'curve'
        ? [index, index + 1, index + 2].reduce<Lying>((rest, at) => pinned(rest, at, editing), lain)
        : lain,
    node: index + 1,
  };
}

const inserted = <T>(list: readonly T[], at: number, instead: number, ...items: readonly T[]): T[] => [
  ...list.slice(0, at),
  ...items,
  ...list.slice(at + instead),
];

/** A node whose curves no longer find their own way: their handles stay where they are now, whatever comes beside. */
function pinned({ chain, pieces }: Lying, index: number, editing: Editing): Lying {
  const count = chain.nodes.length;
  const at = index % count;
  if (at !== index && !chain.closed) return { chain, pieces };
  const [before, after] = [
    chain.closed || at > 0 ? pieces[(at + pieces.length - 1) % pieces.length] : undefined,
    pieces[at],
  ];
  const sheet = (from: Vec, to: Vec) => subtract(editing.toSheet(to), editing.toSheet(from));
  const handles = {
    ...(before?.kind === 'cubic' ? { handleIn: sheet(before.d, before.c) } : {}),
    ...(after?.kind === 'cubic' ? { handleOut: sheet(after.a, after.b) } : {}),
  };
  return {
    chain: { ...chain, nodes: chain.nodes.map((node, i) => (i === at ? { ...node, ...handles } : node)) },
    pieces,
  };
}

/** What is left of a closed chain without the stretch between two places; all of it, opened, where they are one. */
function restOfClosed(whole: Lying, from: Along, to: Along, editing: Editing): Chain {
  const [first, second] = positionOf(from) <= positionOf(to) ? [from, to] : [to, from];
  const later = noded(whole, second, editing);
  const isCut = first.segment === second.segment && later.lying.chain !== whole.chain;
  const sooner =
    positionOf(first) === positionOf(second)
      ? later
      : noded(later.lying, isCut ? { segment: first.segment, t: first.t / second.t } : first, editing);
  const added = sooner.lying.chain.nodes.length - later.lying.chain.nodes.length;
  const { chain, pieces } = sooner.lying;
  const count = chain.nodes.length;
  const [begin, end] = (
    positionOf(from) <= positionOf(to) ? [later.node + added, sooner.node] : [sooner.node, later.node + added]
  ).map((node) => node % count) as [number, number];
  const length = (end - begin + count) % count || count;
  return opened({ chain, pieces }, begin, length, editing, chain.id);
}

function sliceOf(whole: Lying, from: Along | undefined, to: Along | undefined, editing: Editing, id: string): Chain {
  const { lying, node } = noded(whole, (from ?? to)!, editing);
  return from
    ? opened(lying, node, lying.chain.segments.length - node, editing, id)
    : opened(lying, 0, node, editing, id);
}

/** So many segments of a chain from a node on, as an open chain that leans on nothing it has lost. */
function opened({ chain, pieces }: Lying, begin: number, length: number, editing: Editing, id: string): Chain {
  const count = chain.nodes.length;
  const loose = [begin, begin + length, ...leaning(chain)].map((at) => (chain.closed ? at % count : at));
  const ends = loose.reduce<Lying>((rest, at) => pinned(rest, at, editing), { chain, pieces }).chain;
  const kept = Array.from({ length: length + 1 }, (_, i) => (begin + i) % count);
  const free = ends.nodes
    .filter((_, i) => !kept.includes(i))
    .reduce<Chain>((rest, { id: gone }) => inlined(rest, gone), ends);
  const isAround = kept[0] === kept.at(-1);
  const nodes = kept
    .map((at, i) => (isAround && i === length ? { ...free.nodes[at]!, id: editing.newId() } : free.nodes[at]!))
    .map(({ corner, ...node }, i) => (i === 0 || i === length || !corner ? node : { ...node, corner }));
  const segments = Array.from({ length }, (_, i) => {
    const at = (begin + i) % chain.segments.length;
    return i === 0 && free.segments[at]!.kind === 'tangent' ? segmentFor(pieces[at]!, editing) : free.segments[at]!;
  });
  return { ...free, id, closed: false, nodes, segments };
}

/** Nodes at which a curve meets a tangent arc: what of the two leans on the other depends on where the chain begins. */
function leaning({ segments, nodes, closed }: Chain): readonly number[] {
  const kindAt = (i: number) => (closed ? segments[(i + segments.length) % segments.length] : segments[i])?.kind;
  return nodes.flatMap((_, i) =>
    [kindAt(i - 1), kindAt(i)].includes('tangent') && [kindAt(i - 1), kindAt(i)].includes('curve') ? [i] : [],
  );
}
