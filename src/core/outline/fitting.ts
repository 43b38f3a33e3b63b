import {
  add,
  dot,
  enclosedArea,
  perpendicular,
  reversedPath,
  scale,
  subtract,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import type { OpeningSpan } from './opening';
import type { Fill, FittingSet, Hanging } from './recipe';

/** Between the frame's two jambs: from where to where, the direction from one to the other, and how far apart. */
interface Light {
  readonly from: Vec;
  readonly to: Vec;
  readonly along: Vec;
  readonly width: number;
}

/**
 * What stands in an opening, in plan, on the wall's plane. A shut leaf lies in the face on whose side it opens, one that does not turn in the middle of the wall; opened, it stands out from its hinge.
 * No play between leaf and frame. Nothing where the frame takes all of the opening. Weak: in a bent wall a leaf is straight, from jamb to jamb.
 */
export function fittingsOf(span: OpeningSpan, set: FittingSet): readonly Path[] {
  const { fill } = span.opening;
  const light = fill && findLight(span, fill);
  if (!light) return [];
  if (set === 'frames')
    return fill.frame > 0
      ? [jamb(span, span.start, span.leaves, fill.frame), jamb(span, span.end, span.arrives, -fill.frame)]
      : [];
  const leaves = listLeaves(span, fill, light);
  if (set === 'leaves') return leaves.map(({ outline }) => outline);
  return [...leaves.flatMap(({ way }) => way ?? []), ...(fill.kind === 'window' ? sillOf(span, light) : [])].map(
    (piece) => ({ closed: false, pieces: [piece] }),
  );
}

/** The width that is free between the jambs of an opening; that of the opening without a frame. */
export const clearWidth = ({ width, fill }: Pick<OpeningSpan['opening'], 'width' | 'fill'>): number =>
  Math.max(0, width - 2 * (fill?.frame ?? 0));

function findLight({ start, end, leaves, arrives, along }: OpeningSpan, { frame }: Fill): Light | undefined {
  const [from, to] = [add(start, scale(leaves, frame)), subtract(end, scale(arrives, frame))];
  const width = dot(subtract(to, from), along);
  return width > 0 ? { from, to, along, width } : undefined;
}

/** Counter-clockwise, however its places go around: of several loops those the other way around are holes. */
function closed(places: readonly Vec[]): Path {
  const path: Path = {
    closed: true,
    pieces: places.map((a, i) => ({ kind: 'line', a, b: places[(i + 1) % places.length]! })),
  };
  return enclosedArea(path.pieces) < 0 ? reversedPath(path) : path;
}

/** One side of a frame: as deep as the wall, from the end of the opening so far along. */
function jamb({ left, right }: OpeningSpan, at: Vec, along: Vec, by: number): Path {
  const [aside, over] = [perpendicular(along), scale(along, by)];
  const [a, b] = [add(at, scale(aside, -right)), add(at, scale(aside, left))];
  return closed([a, add(a, over), add(b, over), b]);
}

interface Leaf {
  readonly outline: Path;
  /** The way of its far corner. */
  readonly way?: Piece | undefined;
}

function listLeaves(span: OpeningSpan, fill: Fill, { from, to, along, width }: Light): readonly Leaf[] {
  const { hung } = fill;
  const back = scale(along, -1);
  const each = width / fill.leaves;
  if (!hung)
    return Array.from({ length: fill.leaves }, (_, i) => ({
      outline: shutLeaf(span, fill, add(from, scale(along, i * each)), along, each),
    }));
  if (fill.leaves === 2)
    return [hungLeaf(span, fill, hung, from, along, each), hungLeaf(span, fill, hung, to, back, each)];
  return [
    hung.at === 'start' ? hungLeaf(span, fill, hung, from, along, each) : hungLeaf(span, fill, hung, to, back, each),
  ];
}

function shutLeaf({ left, right }: OpeningSpan, { leaf }: Fill, from: Vec, along: Vec, width: number): Path {
  const aside = perpendicular(along);
  const [a, over] = [add(from, scale(aside, (left - right - leaf) / 2)), scale(aside, leaf)];
  const b = add(a, scale(along, width));
  return closed([a, b, add(b, over), add(a, over)]);
}

function hungLeaf(
  { left, right, along }: OpeningSpan,
  { leaf }: Fill,
  { to, open }: Hanging,
  corner: Vec,
  outwards: Vec,
  width: number,
): Leaf {
  const side = to === 'left' ? 1 : -1;
  const aside = scale(perpendicular(along), side);
  const hinge = add(corner, scale(aside, to === 'left' ? left : right));
  const turn = side * open * Math.sign(dot(outwards, along));
  const turned = ([x, y]: Vec): Vec =>
    add(hinge, [x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn)]);
  const [tip, back] = [scale(outwards, width), scale(aside, -leaf)];
  return {
    outline: closed([[0, 0] as Vec, tip, add(tip, back), back].map(turned)),
    way:
      open === 0
        ? undefined
        : { kind: 'arc', centre: hinge, radius: width, start: Math.atan2(outwards[1], outwards[0]), sweep: turn },
  };
}

/** The edges of a sill, in both faces of the wall. */
function sillOf({ left, right }: OpeningSpan, { from, to, along }: Light): readonly Piece[] {
  const aside = perpendicular(along);
  return [left, -right].map((by) => ({ kind: 'line', a: add(from, scale(aside, by)), b: add(to, scale(aside, by)) }));
}
