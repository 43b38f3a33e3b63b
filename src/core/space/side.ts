import type { Vec3 } from './vec3';

/** The directions of the object frame, in the order of its coordinates. */
export const DIRECTIONS = ['across', 'deep', 'up'] as const;
export type Direction = (typeof DIRECTIONS)[number];

/** From where a flat view looks at a thing. */
export const SIDES = ['front', 'back', 'left', 'right', 'top', 'bottom'] as const;
export type Side = (typeof SIDES)[number];

/** A coordinate of the object frame as a view shows it: growing to the right or upwards there, or the other way. */
export interface SeenAxis {
  readonly direction: Direction;
  readonly sign: 1 | -1;
}

const axis = (direction: Direction, sign: 1 | -1 = 1): SeenAxis => ({ direction, sign });

/** What of the object frame runs to the right, and what upwards, in a view from each side (ISO 128-3: the six principal views). */
const SEEN: Readonly<Record<Side, readonly [SeenAxis, SeenAxis]>> = {
  front: [axis('across'), axis('up')],
  back: [axis('across', -1), axis('up')],
  right: [axis('deep'), axis('up')],
  left: [axis('deep', -1), axis('up')],
  top: [axis('across'), axis('deep')],
  bottom: [axis('across'), axis('deep', -1)],
};

export const axesSeenFrom = (side: Side): readonly [SeenAxis, SeenAxis] => SEEN[side];

/** Whether a view from a side shows where along a direction something lies. */
export const showsAlong = (side: Side, direction: Direction): boolean =>
  SEEN[side].some((seen) => seen.direction === direction);

/** The direction that a flat view from a side does not show. */
export const directionUnseen = (side: Side): Direction => DIRECTIONS.find((direction) => !showsAlong(side, direction))!;

export const vectorAlong = (direction: Direction): Vec3 =>
  DIRECTIONS.map((other) => Number(other === direction)) as unknown as Vec3;

export const vectorOf = ({ direction, sign }: SeenAxis): Vec3 =>
  DIRECTIONS.map((other) => (other === direction ? sign : 0)) as unknown as Vec3;

const OPPOSITE: Readonly<Record<Side, Side>> = {
  front: 'back',
  back: 'front',
  left: 'right',
  right: 'left',
  top: 'bottom',
  bottom: 'top',
};

/** The side from which one looks the other way. */
export const oppositeOf = (side: Side): Side => OPPOSITE[side];
