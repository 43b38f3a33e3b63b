import Flatbush from 'flatbush';
import { pieceBounds, type Vec } from '../geometry';
import type { SnapTarget } from './snap';

/** Finds what can catch the aim within a distance of it. Plane unit. */
export type SnapSearch = (aim: Vec, reach: number) => readonly SnapTarget[];

/** Many targets, sorted by where they are; what is round is there by its centre too. */
export function createSnapSearch(targets: readonly SnapTarget[]): SnapSearch {
  if (targets.length === 0) return () => [];
  const index = new Flatbush(targets.length);
  for (const { piece } of targets) {
    const { min, max } = pieceBounds(piece);
    const [x, y] = 'centre' in piece ? piece.centre : min;
    index.add(Math.min(min[0], x), Math.min(min[1], y), Math.max(max[0], x), Math.max(max[1], y));
  }
  index.finish();
  return ([x, y], reach) =>
    index
      .search(x - reach, y - reach, x + reach, y + reach)
      .sort((a, b) => a - b)
      .map((i) => targets[i]!);
}
