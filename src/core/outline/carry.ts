import {
  distance,
  endOf,
  listCrossings,
  partOf,
  pieceLength,
  pointAt,
  reversed,
  subtract,
  type Piece,
  type Vec,
} from '../geometry';
import { withHeldEnd } from './cut';
import { reversedChain, withNodePlace } from './edit';
import type { Chain, CircleOutline, Node } from './outline';
import { pointedAt, segmentFor, type Editing } from './segment';
import { shapeOfPaths, type Shape } from './shape';

/** A curve is not carried on farther than this many of its own lengths: its polynomial runs away. */
const FARTHEST_CURVE = 1;

/** What a piece would be beyond its end: a line straight on for `reach`, a circle or an ellipse around, a curve along its own polynomial. */
function beyond(piece: Piece, reach: number): Piece | undefined {
  if (piece.kind === 'line')
    return pieceLength(piece) > 0 ? partOf(piece, 1, 1 + reach / pieceLength(piece)) : undefined;
  if (piece.kind === 'cubic') return partOf(piece, 1, 1 + FARTHEST_CURVE);
  const rest = 2 * Math.PI - Math.abs(piece.sweep);
  return rest > 1e-9 ? partOf(piece, 1, 1 + rest / Math.abs(piece.sweep)) : undefined;
}

/** How far a piece has to be carried on to reach a place beyond its end, in its own parameter. */
function parameterBeyond(piece: Piece, t: number, reach: number): number {
  if (piece.kind === 'line') return 1 + (t * reach) / pieceLength(piece);
  return piece.kind === 'cubic'
    ? 1 + t * FARTHEST_CURVE
    : 1 + (t * (2 * Math.PI - Math.abs(piece.sweep))) / Math.abs(piece.sweep);
}

/**
 * An open chain carried on at one of its ends to where it first meets one of the others, along its own line, arc or curve; undefined when it meets none within `reach`.
 * Everything else of it stays as it is. Weak: a curve is carried on by its own length at the most.
 */
export function carriedOn(
  chain: Chain,
  shape: Shape,
  end: 'start' | 'end',
  others: readonly Piece[],
  reach: number,
  editing: Editing,
): Chain | undefined {
  if (end === 'start') {
    const turned = reversedChain(chain, shape, editing);
    const pieces = shape.pieces.map(reversed).reverse();
    const longer = carriedOn(
      turned,
      { ...shapeOfPaths(chain.id, [{ closed: false, pieces }]), nodes: [...shape.nodes].reverse() },
      'end',
      others,
      reach,
      editing,
    );
    return longer && reversedChain(longer, shape, editing);
  }
  const last = shape.pieces.at(-1);
  const ahead = last && beyond(last, reach);
  if (!last || !ahead) return undefined;
  const from = endOf(last);
  const [nearest] = others
    .flatMap((other) => listCrossings(ahead, other))
    .filter(({ point }) => distance(point, from) > 1e-6)
    .sort((a, b) => a.ta - b.ta);
  return (
    nearest &&
    withEnd(
      last.kind === 'cubic' ? withHeldEnd(chain, shape, editing) : chain,
      partOf(last, 0, parameterBeyond(last, nearest.ta, reach)),
      nearest.point,
      editing,
    )
  );
}

/** The chain whose last segment is another piece. */
function withEnd(chain: Chain, piece: Piece, at: Vec, editing: Editing): Chain {
  const [index, node] = [chain.segments.length - 1, chain.nodes.at(-1)!];
  const ended = withNodePlace(chain, node.id, pointedAt(at, editing));
  const { kind } = chain.segments[index]!;
  if (kind === 'ellipse') return { ...ended, segments: [...chain.segments.slice(0, -1), segmentFor(piece, editing)] };
  if (kind !== 'curve' || piece.kind !== 'cubic') return ended;
  const sheet = (from: Vec, to: Vec) => subtract(editing.toSheet(to), editing.toSheet(from));
  const pulled = (other: Node, i: number): Node =>
    i === index
      ? { ...other, handleOut: sheet(piece.a, piece.b) }
      : i === index + 1
        ? { ...other, handleIn: sheet(piece.d, piece.c) }
        : other;
  return { ...ended, nodes: ended.nodes.map(pulled) };
}

/** The whole circle of a chain that is one arc: the one through its ends and a third place of it. */
export function asCircle(chain: Chain, shape: Shape, editing: Editing): CircleOutline | undefined {
  const [piece] = shape.pieces;
  if (shape.pieces.length !== 1 || piece?.kind !== 'arc') return undefined;
  const [a, b, first] = [chain.nodes[0]!.place, chain.nodes[1]!.place, chain.segments[0]!];
  const through = first.kind === 'arc' ? first.through : pointedAt(pointAt(piece, 0.5), editing);
  const { id, layer, plane, aid } = chain;
  return { shape: 'circle', id, layer, plane, ...(aid ? { aid } : {}), by: { kind: 'three', a, b: through, c: b } };
}
