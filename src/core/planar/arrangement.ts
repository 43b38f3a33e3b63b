import {
  enclosedArea,
  findUnion,
  mostLengthOf,
  moved,
  pieceBounds,
  placed,
  reversed,
  startOf,
  windingNumber,
  type Bounds,
  type Piece,
  type Vec,
} from '../geometry';
import { boxIndexOf } from './cuts';
import { networkOf, type ArrangedEdge } from './edges';
import { aroundPlace } from './order';

/** An edge in one of its directions: 2·edge forward, 2·edge + 1 backward. */
export type HalfEdge = number;

export const twin = (half: HalfEdge): HalfEdge => half ^ 1;
export const edgeOf = (half: HalfEdge): number => half >> 1;
export const isForward = (half: HalfEdge): boolean => (half & 1) === 0;

/** The face without end, around everything. */
export const OUTSIDE = -1;

/** Half edges that run around a face with it on their left. */
export interface Cycle {
  readonly halves: readonly HalfEdge[];
  /** Positive around a face, not so around a hole in one. */
  readonly area: number;
  readonly bounds: Bounds;
}

/** How pieces divide their plane. */
export interface Arrangement {
  readonly edges: readonly ArrangedEdge[];
  /** The edge's stretch in the direction of a half edge. */
  pieceOf(half: HalfEdge): Piece;
  /** The next half edge around the same face. */
  readonly next: readonly HalfEdge[];
  /** Half edges that leave where one ends, counter-clockwise, its twin among them. */
  leavingEnd(half: HalfEdge): readonly HalfEdge[];
  /** Faces by number: the cycle around each, and those of its holes. */
  readonly faces: readonly { readonly around: Cycle; readonly holes: readonly Cycle[] }[];
  /** The face to the left of a half edge, or OUTSIDE. */
  readonly faceOf: readonly number[];
}

/**
 * Divides the plane by pieces of any kinds, any number of which may cross, touch or lie on each other. What is nearer than `tolerance` (the pieces' unit) is one
 * place. Where pieces all but lie on each other that fineness may tell nothing apart that hangs together (Euler's formula fails); then coarser and finer ones are
 * tried. Weak: pieces that touch at a place where they also bend alike are told apart by where they lie a quarter of their length further.
 * Source: half-edges and their cycles as in de Berg et al., Computational Geometry, 3rd edition, chapter 2.
 */
export function arrange(given: readonly Piece[], tolerance: number): Arrangement {
  return findReading(given, tolerance, (arrangement) => arrangement) ?? arrangedAt(given, tolerance);
}

/** Shares of the tolerance, tried in turn. */
const FINENESS = [1, 0.01, 30, 0.0001, 1000];

/** So many steps of a number places that are worked out from it may be off. */
const ROUNDED = 8 * Number.EPSILON;

/** How far places of pieces may be off for the rounding of their numbers alone: that of an almost straight arc whose middle lies far away is large. */
const roundingOf = (pieces: readonly Piece[]): number =>
  ROUNDED *
  pieces.reduce((most, piece) => ('centre' in piece ? Math.max(most, ...piece.centre.map(Math.abs)) : most), 0);

/** What is read from an arrangement, at the first fineness at which it hangs together and can be read, and not finer than numbers can tell; undefined where there is none. */
export function findReading<T>(
  given: readonly Piece[],
  tolerance: number,
  read: (arrangement: Arrangement) => T | undefined,
): T | undefined {
  const least = roundingOf(given);
  for (const share of FINENESS.filter((one) => one * tolerance > least)) {
    const arrangement = arrangedAt(given, share * tolerance);
    const found = hasEulersNumber(arrangement) ? read(arrangement) : undefined;
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Vertices less edges plus faces without the outer one are as many as the parts that hang together. */
function hasEulersNumber({ edges, faces }: Arrangement): boolean {
  const above = Int32Array.from(
    { length: edges.reduce((most, { from, to }) => Math.max(most, from, to), -1) + 1 },
    (_, i) => i,
  );
  const rootOf = (vertex: number): number => {
    let root = vertex;
    // Half-way on each time, so that long chains grow short.
    while (above[root] !== root) root = above[root] = above[above[root]!]!;
    return root;
  };
  const met = new Uint8Array(above.length);
  let [vertices, parts] = [0, 0];
  const meet = (vertex: number) => {
    if (met[vertex]) return;
    met[vertex] = 1;
    vertices++;
    parts++;
  };
  for (const { from, to } of edges) {
    meet(from);
    meet(to);
    const [a, b] = [rootOf(from), rootOf(to)];
    if (a !== b) parts--;
    above[a] = b;
  }
  return vertices - edges.length + faces.length === parts;
}

function arrangedAt(given: readonly Piece[], tolerance: number): Arrangement {
  const centre = middleOf(given);
  const pieces = given.map((piece) => moved(piece, placed([-centre[0], -centre[1]])));
  const { edges, vertices } = networkOf(pieces, tolerance);
  const halves = edges.flatMap(({ piece }) => [piece, reversed(piece)]);
  const pieceOf = (half: HalfEdge): Piece => halves[half]!;
  const fans = fansAt(vertices.length, edges, pieceOf);
  const endOfHalf = (half: HalfEdge) => (isForward(half) ? edges[edgeOf(half)]!.to : edges[edgeOf(half)]!.from);
  const leavingEnd = (half: HalfEdge) => fans[endOfHalf(half)]!;
  const next = Array.from({ length: 2 * edges.length }, (_, half) => {
    const fan = leavingEnd(half);
    return fan[(fan.indexOf(twin(half)) + fan.length - 1) % fan.length]!;
  });
  const cycles = listCycles(
    next,
    pieceOf,
    edges.map(({ piece }) => pieceBounds(piece)),
  );
  return {
    edges,
    pieceOf: (half) => moved(pieceOf(half), placed(centre)),
    next,
    leavingEnd,
    ...nested(cycles, next.length, pieceOf, tolerance),
  };
}

/** The middle of everything: about it areas lose the fewest digits. */
function middleOf(pieces: readonly Piece[]): Vec {
  const box = findUnion(pieces.map(pieceBounds));
  return box ? [(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2] : [0, 0];
}

function fansAt(
  count: number,
  edges: readonly ArrangedEdge[],
  pieceOf: (half: HalfEdge) => Piece,
): readonly (readonly HalfEdge[])[] {
  const fans = Array.from({ length: count }, (): HalfEdge[] => []);
  edges.forEach(({ from, to }, i) => {
    fans[from]!.push(2 * i);
    fans[to]!.push(2 * i + 1);
  });
  return fans.map((fan) => aroundPlace(fan.map(pieceOf)).map((i) => fan[i]!));
}

function listCycles(next: readonly HalfEdge[], pieceOf: (half: HalfEdge) => Piece, bounds: readonly Bounds[]): Cycle[] {
  const seen = new Uint8Array(next.length);
  const cycles: Cycle[] = [];
  for (let first = 0; first < next.length; first++) {
    if (seen[first]) continue;
    const halves: HalfEdge[] = [];
    for (let half = first; !seen[half]; half = next[half]!) {
      seen[half] = 1;
      halves.push(half);
    }
    cycles.push({
      halves,
      area: enclosedArea(halves.map(pieceOf)),
      bounds: findUnion(halves.map((half) => bounds[edgeOf(half)]!))!,
    });
  }
  return cycles;
}

/** Narrower than this share of the tolerance on average, a cycle runs around nothing. */
const NOTHING_WIDE = 1e-3;

/** Holes go to the smallest face that holds them. */
function nested(cycles: readonly Cycle[], halves: number, pieceOf: (half: HalfEdge) => Piece, tolerance: number) {
  const along = ({ halves: ofCycle }: Cycle) => ofCycle.reduce((sum, half) => sum + mostLengthOf(pieceOf(half)), 0);
  const isFace = cycles.map((cycle) => cycle.area > 0 && cycle.area > NOTHING_WIDE * tolerance * along(cycle));
  const around = cycles.filter((_, i) => isFace[i]);
  const faces = around.map((cycle) => ({ around: cycle, holes: [] as Cycle[] }));
  const faceOf = new Array<number>(halves).fill(OUTSIDE);
  around.forEach((cycle, face) => cycle.halves.forEach((half) => void (faceOf[half] = face)));
  const listHolders = createHolders(around, tolerance);
  cycles
    .filter((_, i) => !isFace[i])
    .forEach((hole) => {
      const [place, facing] = [startOf(pieceOf(hole.halves[0]!)), new Set(hole.halves.map(twin))];
      const holder = listHolders(hole).find((face) => {
        const rim = around[face]!.halves;
        return !rim.some((half) => facing.has(half)) && windingNumber(rim.map(pieceOf), place) > 0;
      });
      if (holder === undefined) return;
      faces[holder]!.holes.push(hole);
      hole.halves.forEach((half) => void (faceOf[half] = holder));
    });
  return { faces, faceOf };
}

/** Faces that are large enough for a hole and whose boxes hold its box, the smallest first. */
function createHolders(faces: readonly Cycle[], tolerance: number): (hole: Cycle) => readonly number[] {
  if (faces.length === 0) return () => [];
  const index = boxIndexOf(faces.map(({ bounds }) => bounds));
  return ({ bounds, area }) => {
    const [x, y] = bounds.min;
    const holds = (face: number) =>
      faces[face]!.area > Math.abs(area) && isWithin(bounds, faces[face]!.bounds, tolerance);
    return index
      .search(x - tolerance, y - tolerance, x + tolerance, y + tolerance, holds)
      .sort((a, b) => faces[a]!.area - faces[b]!.area);
  };
}

function isWithin(inner: Bounds, outer: Bounds, slack: number): boolean {
  return (
    inner.min[0] >= outer.min[0] - slack &&
    inner.min[1] >= outer.min[1] - slack &&
    inner.max[0] <= outer.max[0] + slack &&
    inner.max[1] <= outer.max[1] + slack
  );
}
