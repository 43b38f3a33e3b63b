import type { Bounds, Vec } from '../geometry';

/** Lined up with the first one: along which sides, or their middles. */
export const ALIGNMENTS = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** How far each box has to move to be lined up with the first one. */
export function listAlignment([first, ...others]: readonly Bounds[], how: Alignment): readonly Vec[] {
  if (!first) return [];
  return [
    [0, 0],
    ...others.map((box): Vec =>
      isAcross(how) ? [placeOf(first, how) - placeOf(box, how), 0] : [0, placeOf(first, how) - placeOf(box, how)],
    ),
  ];
}

const isAcross = (how: Alignment) => how === 'left' || how === 'centre' || how === 'right';

function placeOf({ min, max }: Bounds, how: Alignment): number {
  const [low, high] = isAcross(how) ? [min[0], max[0]] : [min[1], max[1]];
  if (how === 'left' || how === 'bottom') return low;
  return how === 'right' || how === 'top' ? high : (low + high) / 2;
}

/** How far each box has to move for all to stand at equal steps, middle to middle, between the two that stand farthest out along an axis (0 across, 1 up). */
export function listSpacing(boxes: readonly Bounds[], axis: 0 | 1): readonly Vec[] {
  const middles = boxes.map(({ min, max }) => (min[axis] + max[axis]) / 2);
  const order = middles.map((_, i) => i).sort((a, b) => middles[a]! - middles[b]!);
  const [from, to] = [middles[order[0]!] ?? 0, middles[order.at(-1)!] ?? 0];
  return middles.map((middle, i) => {
    const by = from + ((to - from) * order.indexOf(i)) / Math.max(1, order.length - 1) - middle;
    return axis === 0 ? [by, 0] : [0, by];
  });
}
