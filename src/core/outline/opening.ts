import {
  add,
  distance,
  endOf,
  findDirection,
  parameterAt,
  partOf,
  perpendicular,
  pieceLength,
  scale,
  startOf,
  subtract,
  tangentAt,
  type Line,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import type { StripWidth } from '../planar';
import type { Chain } from './outline';
import type { Opening } from './recipe';

/** A stretch of one piece, in its own parameter. */
interface Gap {
  readonly opening: Opening;
  readonly piece: number;
  readonly from: number;
  readonly to: number;
}

/** Which segment an opening is in, counted from the chain's first; undefined where its corner is gone, or nothing leaves or arrives there. */
export function segmentOf(
  { corner, way }: Pick<Opening, 'corner' | 'way'>,
  { nodes, segments, closed }: Pick<Chain, 'nodes' | 'segments' | 'closed'>,
): number | undefined {
  const at = nodes.findIndex(({ id }) => id === corner);
  const segment = way === 'on' ? at : at === 0 && closed ? segments.length - 1 : at - 1;
  return at >= 0 && segments[segment] ? segment : undefined;
}

/** The same opening, counted from the other end of its segment, which is so long. */
export function countedFromOther(opening: Opening, chain: Chain, length: number): Opening {
  const segment = segmentOf(opening, chain);
  if (segment === undefined) return opening;
  const other = chain.nodes[opening.way === 'on' ? (segment + 1) % chain.nodes.length : segment]!;
  return {
    ...opening,
    corner: other.id,
    way: opening.way === 'on' ? 'back' : 'on',
    distance: Math.max(0, length - opening.distance - opening.width),
  };
}

function findGap(opening: Opening, chain: Chain, { pieces }: Path): Gap | undefined {
  const piece = segmentOf(opening, chain);
  const whole = piece === undefined ? undefined : pieces[piece];
  if (piece === undefined || !whole) return undefined;
  const length = pieceLength(whole);
  const [near, far] = [opening.distance, opening.distance + opening.width];
  const [from, to] = opening.way === 'on' ? [near, far] : [length - far, length - near];
  return to > 0 && from < length
    ? { opening, piece, from: parameterAt(whole, Math.max(0, from)), to: parameterAt(whole, Math.min(length, to)) }
    : undefined;
}

const listGaps = (path: Path, chain: Chain, openings: readonly Opening[]): readonly Gap[] =>
  openings
    .flatMap((opening) => findGap(opening, chain, path) ?? [])
    .sort((a, b) => a.piece + a.from - b.piece - b.from);

/**
 * The line of a wall in pieces between its openings, laid out along it. Weak: a line whose corners are finished has its openings on its sharp shape.
 */
export function betweenOpenings(path: Path, chain: Chain, openings: readonly Opening[]): readonly Path[] {
  const gaps = listGaps(path, chain, openings);
  if (gaps.length === 0) return [path];
  const runs: Piece[][] = [[]];
  path.pieces.forEach((piece, i) => {
    let at = 0;
    for (const gap of gaps.filter((other) => other.piece === i)) {
      if (gap.from > at) runs.at(-1)!.push(partOf(piece, at, gap.from));
      if (gap.to > at) runs.push([]);
      at = Math.max(at, gap.to);
    }
    if (at < 1) runs.at(-1)!.push(partOf(piece, at, 1));
  });
  // Around the start of a closed line the last run goes on into the first.
  const joined = path.closed && runs.length > 1 ? [[...runs.at(-1)!, ...runs[0]!], ...runs.slice(1, -1)] : runs;
  return joined.filter((pieces) => pieces.length > 0).map((pieces) => ({ closed: false, pieces }));
}

/** Where an opening is in its wall: the ends of what is left out of the wall's line, how that runs there, straight across from one to the other, and the wall's thickness to both sides. Plane unit; directions have length 1. */
export interface OpeningSpan extends StripWidth {
  readonly opening: Opening;
  /** The corner that it is counted from, and the end that is nearer to it. */
  readonly corner: Vec;
  readonly near: Vec;
  readonly start: Vec;
  readonly end: Vec;
  readonly leaves: Vec;
  readonly arrives: Vec;
  readonly along: Vec;
  readonly length: number;
}

/** The openings that a wall's line has, in their order along it. */
export function listSpans(
  path: Path,
  chain: Chain,
  openings: readonly Opening[],
  sides: StripWidth,
): readonly OpeningSpan[] {
  return listGaps(path, chain, openings).flatMap(({ opening, piece, from, to }) => {
    const whole = path.pieces[piece]!;
    const part = partOf(whole, from, to);
    const [start, end] = [startOf(part), endOf(part)];
    const along = findDirection(subtract(end, start));
    const [corner, near] = opening.way === 'on' ? [startOf(whole), start] : [endOf(whole), end];
    return along
      ? [
          {
            ...sides,
            opening,
            corner,
            near,
            start,
            end,
            leaves: tangentAt(part, 0),
            arrives: tangentAt(part, 1),
            along,
            length: distance(start, end),
          },
        ]
      : [];
  });
}

/** The middle of an opening on the wall's line, and whether a place lies in it. */
export const middleOf = ({ start, end }: Pick<OpeningSpan, 'start' | 'end'>): Vec => [
  (start[0] + end[0]) / 2,
  (start[1] + end[1]) / 2,
];

/** Across the wall at both ends of an opening, from its left face to its right one. */
export function endsAcross({ start, end, leaves, arrives, left, right }: OpeningSpan): readonly [Line, Line] {
  const across = (at: Vec, along: Vec): Line => {
    const aside = perpendicular(along);
    return { kind: 'line', a: add(at, scale(aside, left)), b: add(at, scale(aside, -right)) };
  };
  return [across(start, leaves), across(end, arrives)];
}

export function isInOpening({ start, along, length, left, right }: OpeningSpan, place: Vec): boolean {
  const [x, y] = subtract(place, start);
  const [on, aside] = [x * along[0] + y * along[1], y * along[0] - x * along[1]];
  return on >= 0 && on <= length && aside >= -right && aside <= left;
}
