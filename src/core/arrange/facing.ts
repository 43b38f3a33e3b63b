import { showsAlong, type Direction, type Side } from '../space';

/** Upright on the line from one place to another, by their ids, which runs to the right as one looks at it: how a view of a wall stands on its edge in a plan. Along it is measured from the first. */
export interface Upright {
  readonly from: string;
  readonly to: string;
}

/** How a flat view looks at a thing: from one of the six sides, or at what stands upright on an edge. */
export type Facing = Side | Upright;

export const isUpright = (facing: Facing): facing is Upright => typeof facing !== 'string';

/** Whether a view shows by itself where along a direction something lies: one that stands on an edge mixes how deep and how far across it is, wherever the edge runs. */
export const tellsAlong = (facing: Facing, direction: Direction): boolean =>
  isUpright(facing) ? direction === 'up' : showsAlong(facing, direction);

/** The same seen from behind. */
export const turnedUpright = ({ from, to }: Upright): Upright => ({ from: to, to: from });
