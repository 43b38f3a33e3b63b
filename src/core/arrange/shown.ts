import { axesSeenFrom, type Direction } from '../space';
import { readCoordinates, type Read } from './coordinates';
import { isUpright, type Facing } from './facing';
import { directionsOf, type SceneFeature } from './scene';

/** What one axis of a view (0 to the right, 1 upwards) tells of a feature: a coordinate, along or against it; or how far it lies along an edge from where that begins. */
export type ShownAxis =
  | { readonly axis: 0 | 1; readonly direction: Direction; readonly sign: 1 | -1 }
  | { readonly axis: 0; readonly edge: readonly [SceneFeature, SceneFeature] };

/** What a view tells of a feature; `features`: all that there are. */
export function axesShown(
  facing: Facing,
  feature: SceneFeature,
  features: readonly SceneFeature[],
): readonly ShownAxis[] {
  const have = directionsOf(feature);
  if (!isUpright(facing))
    return axesSeenFrom(facing)
      .map(({ direction, sign }, axis) => ({ axis: axis as 0 | 1, direction, sign }))
      .filter(({ direction }) => have.includes(direction));
  const edge = [facing.from, facing.to].map((end) => features.find(({ id }) => id === end));
  return [
    ...(feature.only === undefined && edge[0] && edge[1] ? [{ axis: 0, edge: [edge[0], edge[1]] } as const] : []),
    ...(have.includes('up') ? [{ axis: 1, direction: 'up', sign: 1 } as const] : []),
  ];
}

/** The directions that a plan shows, and along which an edge runs in it. */
export const LEVEL_DIRECTIONS = ['across', 'deep'] as const;
/** Shorter an edge has no direction. mm */
const SHORTEST = 1e-6;

/** Where a feature lies on an axis of a view, mm. */
export function readShown(feature: SceneFeature, shown: ShownAxis): Read {
  if ('direction' in shown) {
    const read = readCoordinates([[feature, shown.direction]]);
    return { ...read, numbers: (values) => read.numbers(values).map((value) => shown.sign * value) };
  }
  const [from, to] = shown.edge;
  if (feature.id === from.id) return { blocks: [], numbers: () => [0] };
  const read = readCoordinates(
    [feature, from, to].flatMap((each) => LEVEL_DIRECTIONS.map((direction) => [each, direction] as const)),
  );
  return {
    ...read,
    numbers(values) {
      const [x, y, fromX, fromY, toX, toY] = read.numbers(values) as [number, number, number, number, number, number];
      const [dx, dy] = [toX - fromX, toY - fromY];
      return [((x - fromX) * dx + (y - fromY) * dy) / Math.max(Math.hypot(dx, dy), SHORTEST)];
    },
  };
}
