import {
  circle,
  isFullCircle,
  isRound,
  partOf,
  pointAt,
  startOf,
  endOf,
  distance,
  axesOf,
  add,
  subtract,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import type { Chain, DrawnOutline, Node } from './outline';
import { pointedAt, segmentFor, type Editing } from './segment';

/** Ends nearer than this are one node. mm */
const SAME = 1e-5;
/** The longest piece of an ellipse that one segment may be. */
const QUARTER = Math.PI / 2 + 1e-9;

/**
 * Paths as outlines that stand by themselves, on places as good as an edge can be pointed at: circles and ellipses where they are whole, else chains of the same
 * pieces.
 */
export function standingAlone(
  paths: readonly Path[],
  owned: Pick<Chain, 'layer' | 'plane'>,
  editing: Editing,
): readonly DrawnOutline[] {
  return paths.map((path) => {
    const [first] = path.pieces;
    if (path.pieces.length === 1 && first && isRound(first)) return roundFrom(first, owned, editing);
    return chainFrom(path, owned, editing);
  });
}

function roundFrom(
  piece: Extract<Piece, { kind: 'arc' | 'ellipse' }>,
  { layer, plane }: Pick<Chain, 'layer' | 'plane'>,
  editing: Editing,
): DrawnOutline {
  const own = { id: editing.newId(), layer, plane };
  const place = (at: Vec) => pointedAt(at, editing);
  if (isFullCircle(piece))
    return {
      ...own,
      shape: 'circle',
      by: {
        kind: 'three',
        a: place(pointAt(circle(piece.centre, piece.radius), 0)),
        b: place(pointAt(piece, 1 / 3)),
        c: place(pointAt(piece, 2 / 3)),
      },
    };
  const [major, minor] = axesOf(piece as Extract<Piece, { kind: 'ellipse' }>);
  return {
    ...own,
    shape: 'ellipse',
    centre: place(piece.centre),
    end: place(add(piece.centre, major)),
    side: place(add(piece.centre, minor)),
  };
}

/** A path as a chain on fresh nodes. */
export function chainFrom(
  { closed, pieces }: Path,
  { layer, plane }: Pick<Chain, 'layer' | 'plane'>,
  editing: Editing,
): Chain {
  const parts = pieces.flatMap(inParts).filter((piece) => piece.kind !== 'line' || distance(piece.a, piece.b) > SAME);
  const count = parts.length;
  const sheet = (from: Vec, to: Vec) => subtract(editing.toSheet(to), editing.toSheet(from));
  const nodes = Array.from({ length: closed ? count : count + 1 }, (_, i): Node => {
    const [before, after] = [closed ? parts[(i + count - 1) % count] : parts[i - 1], parts[i]];
    const at = after ? startOf(after) : endOf(before!);
    return {
      id: editing.newId(),
      place: pointedAt(at, editing),
      smooth: false,
      ...(before?.kind === 'cubic' ? { handleIn: sheet(before.d, before.c) } : {}),
      ...(after?.kind === 'cubic' ? { handleOut: sheet(after.a, after.b) } : {}),
    };
  });
  return {
    shape: 'chain',
    id: editing.newId(),
    layer,
    plane,
    closed,
    nodes,
    segments: parts.map((part) => segmentFor(part, editing)),
  };
}

/** Arcs that a segment can say: through its middle an arc of less than a whole turn, of an ellipse a quarter. */
function inParts(piece: Piece): readonly Piece[] {
  if (piece.kind !== 'arc' && piece.kind !== 'ellipse') return [piece];
  const count = Math.ceil(Math.abs(piece.sweep) / (piece.kind === 'ellipse' ? QUARTER : 1.5 * Math.PI) - 1e-9);
  return Array.from({ length: count }, (_, i) => partOf(piece, i / count, (i + 1) / count));
}
