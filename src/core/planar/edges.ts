import { distance, endOf, findFoot, isRound, partOf, pointAt, startOf, type Piece, type Vec } from '../geometry';
import { listCuts } from './cuts';

/** A stretch of one of the given pieces. `to` is before `from` where it runs against the piece. */
export interface Stretch {
  readonly of: number;
  readonly from: number;
  readonly to: number;
}

/** A stretch between two vertices that meets others at its ends only. Stretches that lie on each other are one edge with several sources. */
export interface ArrangedEdge {
  readonly piece: Piece;
  readonly from: number;
  readonly to: number;
  /** Each as it runs along the edge. */
  readonly sources: readonly Stretch[];
}

export interface Network {
  readonly vertices: readonly Vec[];
  readonly edges: readonly ArrangedEdge[];
}

/** Cuts pieces at everything they share. What is nearer than `tolerance` is one place; pieces shorter than that are left out. */
export function networkOf(pieces: readonly Piece[], tolerance: number): Network {
  const cuts = listCuts(pieces, tolerance);
  const places = createPlaces(2 * tolerance);
  const between = new Map<number, number[]>();
  const edges: { piece: Piece; from: number; to: number; sources: Stretch[] }[] = [];
  pieces.forEach((whole, of) => {
    for (const [from, to] of stretchesOf(whole, cuts[of]!, tolerance)) {
      const piece = partOf(whole, from, to);
      const ends = [places.at(startOf(piece)), places.at(endOf(piece))] as const;
      if (ends[0] === ends[1] && distance(startOf(piece), pointAt(piece, 0.5)) <= 2 * tolerance) continue;
      const key = Math.min(...ends) * MOST_PLACES + Math.max(...ends);
      const rivals = between.get(key) ?? [];
      between.set(key, rivals);
      const same = rivals.find((rival) => isSame(edges[rival]!.piece, piece, 2 * tolerance));
      if (same !== undefined) {
        const runsAlong = ends[0] === ends[1] ? isAlong(edges[same]!.piece, piece) : edges[same]!.from === ends[0];
        edges[same]!.sources.push(runsAlong ? { of, from, to } : { of, from: to, to: from });
      } else {
        rivals.push(edges.length);
        edges.push({ piece, from: ends[0], to: ends[1], sources: [{ of, from, to }] });
      }
    }
  });
  return { vertices: places.list, edges };
}

/** From cut to cut; cuts nearer to one another than the tolerance are one. */
function stretchesOf(piece: Piece, cuts: readonly number[], tolerance: number): readonly (readonly [number, number])[] {
  const stops = [0];
  const last = endOf(piece);
  for (const t of [...cuts].sort((a, b) => a - b)) {
    if (t <= 0 || t >= 1) continue;
    const at = pointAt(piece, t);
    const isAtEnd = !isRound(piece) && t > 0.5 && distance(at, last) <= tolerance;
    const before = stops.at(-1)!;
    if (
      !isAtEnd &&
      (distance(at, pointAt(piece, before)) > tolerance || distance(pointAt(piece, (t + before) / 2), at) > tolerance)
    )
      stops.push(t);
  }
  stops.push(1);
  return stops.slice(1).map((to, i) => [stops[i]!, to] as const);
}

function isSame(a: Piece, b: Piece, tolerance: number): boolean {
  return [0.5, 0.2, 0.8].every((t) => findFoot(a, pointAt(b, t), tolerance) !== undefined);
}

function isAlong(a: Piece, b: Piece): boolean {
  return distance(pointAt(a, 0.25), pointAt(b, 0.25)) < distance(pointAt(a, 0.25), pointAt(b, 0.75));
}

/** Names places by number; one that is nearer than `reach` to a known one is that one. */
function createPlaces(reach: number): { readonly list: readonly Vec[]; at(place: Vec): number } {
  const list: Vec[] = [];
  const cells = new Map<number, number[]>();
  const side = 2 * reach;
  const near = (place: Vec): number | undefined => {
    const [i, j] = [Math.floor(place[0] / side), Math.floor(place[1] / side)];
    for (const [di, dj] of NEIGHBOURS) {
      if (isBeyond(place[0] / side - i, di) || isBeyond(place[1] / side - j, dj)) continue;
      const known = cells.get(cellAt(i + di, j + dj))?.find((index) => distance(list[index]!, place) <= reach);
      if (known !== undefined) return known;
    }
    return undefined;
  };
  return {
    list,
    at(place) {
      const known = near(place);
      if (known !== undefined) return known;
      const key = cellAt(Math.floor(place[0] / side), Math.floor(place[1] / side));
      const beside = cells.get(key);
      if (beside) beside.push(list.length);
      else cells.set(key, [list.length]);
      return list.push(place) - 1;
    },
  };
}

/** More places than an arrangement ever has: a pair of them is one number. */
const MOST_PLACES = 2 ** 26;

/** A cell's number. Some far apart have the same one: what is found in it is looked at anyway. Source: Teschner et al., Optimized spatial hashing for collision detection of deformable objects, 2003. */
const cellAt = (i: number, j: number): number => Math.imul(i, 73856093) ^ Math.imul(j, 19349663);

/** Whether the next cell that way is farther off than half a cell, for a place at a share of its own. The little more is for what the division rounds away. */
const isBeyond = (share: number, way: number): boolean => (way < 0 ? share > 0.51 : way > 0 && share < 0.49);

const NEIGHBOURS = [0, -1, 1].flatMap((i) => [0, -1, 1].map((j) => [i, j] as const));
