import { add, distance, dot, findDirection, mix, polar, scale, subtract, type Vec } from '../geometry';

/**
 * Where a point came from. Sheet places are pixels, typed sizes are mm on the view plane. Millimetres of a point are
 * computed, never stored, so that a new fit moves what was pointed and keeps what was typed.
 */
export type Place =
  | PointedPlace
  /** Typed from the datum: mm on the view plane. `seen` is where that was on the sheet: used while there is no scale. */
  | { readonly kind: 'placed'; readonly at: Vec; readonly seen: Vec }
  /** Typed displacement from another place. `seen` is where it stood on the sheet when typed: used while there is no scale. */
  | { readonly kind: 'shifted'; readonly from: Place; readonly by: Vec; readonly seen: Vec }
  /** The foot of a pointed place on a line through another place at a typed angle (0 level, π/2 upright). */
  | { readonly kind: 'aligned'; readonly from: Place; readonly angle: number; readonly to: PointedPlace }
  /** At a typed distance from another place, towards a pointed one. */
  | { readonly kind: 'reach'; readonly from: Place; readonly length: number; readonly towards: PointedPlace }
  /** Half-way between two places. */
  | { readonly kind: 'middle'; readonly a: Place; readonly b: Place }
  /** Another node of the same outline. */
  | { readonly kind: 'node'; readonly id: string };

/** The picture's edge under a pointed place: direction of its normal on the sheet (radians, clockwise), one sigma across it (px). */
export interface PictureEdge {
  readonly normal: number;
  readonly sigma: number;
}

export interface PointedPlace {
  readonly kind: 'pointed';
  readonly at: Vec;
  /** One sigma of each sheet coordinate, or along the picture's edge on which it lies. */
  readonly sigma: number;
  readonly edge?: PictureEdge | undefined;
  /** The view in which it was pointed, where several show its plane; absent: the first of them. */
  readonly view?: string | undefined;
}

/** A place moved by hand, pointed as well as that hand does: it lies on its edge of the picture no longer. */
export function movedByHand<
  P extends { readonly at: Vec; readonly sigma: number; readonly edge?: PictureEdge | undefined },
>(place: P, by: Vec, sigma = place.sigma): P {
  return { ...place, at: add(place.at, by), sigma, edge: undefined };
}

/** What places are resolved with: the map, and the nodes of the outline that they may refer to. */
export interface Placing {
  readonly scaled: boolean;
  /** Where a place of a view's sheet lies; without a view of the first that shows the plane. */
  toPlane(sheet: Vec, view?: string): Vec;
  /** Whether what was pointed in a view has no place: it shows the plane without a scale where others have one. */
  isBlind?: ((view?: string) => boolean) | undefined;
  /** Where another node of the same outline lies; undefined when it is gone, or rests on itself. */
  nodeAt(id: string): Vec | undefined;
}

/** How often a place may stand on another within itself; nodes may lean on nodes as often as they like. */
export const MAX_DEPTH = 64;

/** The place on the view plane. Undefined when it refers to a node that is gone, or to itself. */
export function findPosition(place: Place, placing: Placing, depth = 0): Vec | undefined {
  if (depth > MAX_DEPTH) return undefined;
  if (place.kind === 'pointed') return findPointed(place, placing);
  if (place.kind === 'placed') return placing.scaled ? place.at : placing.toPlane(place.seen);
  if (place.kind === 'node') return placing.nodeAt(place.id);
  if (place.kind === 'middle') {
    const [a, b] = [findPosition(place.a, placing, depth + 1), findPosition(place.b, placing, depth + 1)];
    return a && b && mix(a, b, 0.5);
  }
  if (place.kind === 'shifted' && !placing.scaled) return placing.toPlane(place.seen);
  const from = findPosition(place.from, placing, depth + 1);
  if (!from) return undefined;
  if (place.kind === 'shifted') return add(from, place.by);
  const to = findPointed(place.kind === 'aligned' ? place.to : place.towards, placing);
  if (!to) return undefined;
  return place.kind === 'aligned'
    ? footOn(from, place.angle, to)
    : reach(from, placing.scaled ? place.length : undefined, to);
}

const findPointed = ({ at, view }: PointedPlace, placing: Placing): Vec | undefined =>
  placing.isBlind?.(view) ? undefined : placing.toPlane(at, view);

function footOn(from: Vec, angle: number, to: Vec): Vec {
  const along = polar(1, angle);
  return add(from, scale(along, dot(subtract(to, from), along)));
}

function reach(from: Vec, length: number | undefined, towards: Vec): Vec {
  const direction = findDirection(subtract(towards, from)) ?? [1, 0];
  return add(from, scale(direction, length ?? distance(from, towards)));
}

/** Every pointed place that a place rests on, its own outline's nodes included by way of `findNode`; nodes that were `seen` are passed over, and those that are gone through are added to them. */
export function listPointed(
  place: Place,
  findNode: (id: string) => Place | undefined,
  seen: Set<string>,
): readonly PointedPlace[] {
  switch (place.kind) {
    case 'pointed':
      return [place];
    case 'placed':
      return [];
    case 'middle':
      return [...listPointed(place.a, findNode, seen), ...listPointed(place.b, findNode, seen)];
    case 'node': {
      const node = seen.has(place.id) ? undefined : findNode(place.id);
      seen.add(place.id);
      return node ? listPointed(node, findNode, seen) : [];
    }
    case 'shifted':
      return listPointed(place.from, findNode, seen);
    case 'aligned':
      return [...listPointed(place.from, findNode, seen), place.to];
    case 'reach':
      return [...listPointed(place.from, findNode, seen), place.towards];
  }
}

/** The same place with what it stands on replaced. */
export function onAnother(place: Place, change: (from: Place) => Place): Place {
  if (place.kind === 'middle') return { ...place, a: change(place.a), b: change(place.b) };
  return 'from' in place ? { ...place, from: change(place.from) } : place;
}

/** The same place with every pointed place in it replaced: used to vary and to move them. */
export function mapPointed(place: Place, change: (pointed: PointedPlace) => PointedPlace): Place {
  switch (place.kind) {
    case 'pointed':
      return change(place);
    case 'node':
    case 'placed':
      return place;
    case 'middle':
      return { ...place, a: mapPointed(place.a, change), b: mapPointed(place.b, change) };
    case 'shifted':
      return { ...place, from: mapPointed(place.from, change) };
    case 'aligned':
      return { ...place, from: mapPointed(place.from, change), to: change(place.to) };
    case 'reach':
      return { ...place, from: mapPointed(place.from, change), towards: change(place.towards) };
  }
}
