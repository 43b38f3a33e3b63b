import { subtract, type Vec } from '../../geometry';
import type { Points } from './context';
import type { Observation, ObservationOf } from './evidence';

const TURN = 2 * Math.PI;

/**
 * A rectangle whose corners, or sides, run around it, in whatever order they were pointed at: those that do not are put in order about their middle, from the first one
 * towards the second. Everything else comes back as it is.
 */
export function inOrder(piece: Observation, points: Points): Observation {
  if (piece.kind !== 'rectangle') return piece;
  const at = (names: readonly string[]): Vec => {
    const places = names.map((name) => points[name]?.at ?? [NaN, NaN]);
    return [0, 1].map((axis) => places.reduce((sum, place) => sum + place[axis]!, 0) / places.length) as unknown as Vec;
  };
  if (piece.corners) return { ...piece, corners: around(piece.corners, (name) => at([name])) };
  return piece.sides ? { ...piece, sides: around(piece.sides, at) } : piece;
}

function around<Item>(items: readonly Item[], placeOf: (item: Item) => Vec): readonly Item[] {
  const places = items.map(placeOf);
  if (items.length !== 4 || isAround(places)) return items;
  const middle: Vec = [0, 1].map((axis) => places.reduce((sum, place) => sum + place[axis]!, 0) / 4) as unknown as Vec;
  const angles = places.map((place) => Math.atan2(...(subtract(place, middle) as [number, number])));
  const from = (i: number) => (((angles[i]! - angles[0]!) % TURN) + TURN) % TURN;
  const order = [0, 1, 2, 3].sort((a, b) => from(a) - from(b));
  // Towards the second one that was pointed at, when it is a neighbour of the first.
  const way = order[3] === 1 ? [order[0]!, order[3]!, order[2]!, order[1]!] : order;
  return way.map((i) => items[i]!);
}

/** Whether places run around a convex shape, one way or the other. */
export function isAround(places: readonly Vec[]): boolean {
  const turns = places.map((place, i) => {
    const [a, b] = [subtract(places[(i + 1) % 4]!, place), subtract(places[(i + 2) % 4]!, places[(i + 1) % 4]!)];
    return a[0] * b[1] - a[1] * b[0];
  });
  return turns.every((turn) => turn > 0) || turns.every((turn) => turn < 0);
}

/** The same rectangle, begun on its other side: width is what was height. */
export function begunOnOtherSide(piece: ObservationOf<'rectangle'>): Observation {
  const later = <Item>(items: readonly Item[] | undefined) => items && [...items.slice(1), items[0]!];
  return { ...piece, corners: later(piece.corners), sides: later(piece.sides) };
}

/** Whether it matters on which side a rectangle was begun. */
export function hasTwoSizes(piece: Observation): piece is ObservationOf<'rectangle'> {
  if (piece.kind !== 'rectangle') return false;
  return piece.proportion === undefined
    ? piece.widthMm !== undefined && piece.heightMm !== undefined && piece.widthMm !== piece.heightMm
    : piece.proportion !== 1;
}
