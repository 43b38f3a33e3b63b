import type { LinearCondition } from '../../adjust';
import type { Vec } from '../../geometry';

/** Which end of a rectangle's width or height: −1 where it begins, 1 where it ends, about its middle. */
type End = 1 | -1;

/**
 * By how much a place lies beyond a side of a rectangle (middle, turn, width, height), along its width or its height, whose side `hand` says. Slopes by the place, then by the
 * rectangle's numbers.
 */
function beyondSide(
  [x, y]: Vec,
  [middleX = 0, middleY = 0, turn = 0, width = 0, height = 0]: readonly number[],
  hand: number,
  along: 'width' | 'height',
  end: End,
): { readonly residual: number; readonly slopes: readonly number[] } {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [dx, dy] = [x - middleX, y - middleY];
  const [across, up] = [c * dx + s * dy, hand * (c * dy - s * dx)];
  return along === 'width'
    ? { residual: across - (end * width) / 2, slopes: [c, s, -c, -s, hand * up, -end / 2, 0] }
    : {
        residual: up - (end * height) / 2,
        slopes: [-hand * s, hand * c, hand * s, -hand * c, -hand * across, 0, -end / 2],
      };
}

/** Sides in the order of a rectangle's corners: the first runs along its width where its height begins. */
const SIDES = [
  ['height', -1],
  ['width', 1],
  ['height', 1],
  ['width', -1],
] as const;

const CORNERS = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const;

/** What a place misses a side by. */
export function missOfSide(place: Vec, rectangle: readonly number[], hand: number, side: number): LinearCondition {
  const [along, end] = SIDES[side]!;
  const { residual, slopes } = beyondSide(place, rectangle, hand, along, end);
  return { residuals: [residual], slopes: [slopes] };
}

/** What a place misses a corner by, along width and height. */
export function missOfCorner(place: Vec, rectangle: readonly number[], hand: number, corner: number): LinearCondition {
  const [x, y] = CORNERS[corner]!;
  const misses = [
    beyondSide(place, rectangle, hand, 'width', x),
    beyondSide(place, rectangle, hand, 'height', y),
  ] as const;
  return { residuals: misses.map(({ residual }) => residual), slopes: misses.map(({ slopes }) => slopes) };
}
