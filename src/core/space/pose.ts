import type { Vec } from '../geometry';
import { axesSeenFrom, vectorOf, type Side } from './side';
import { add3, cross3, dot3, scale3, subtract3, type Vec3 } from './vec3';

/** Where a plane stands in the object frame: its zero, and the directions of its x and y (square, of length one). mm. Its outer side, x × y, looks at who looks at the plane. */
export interface Pose {
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
}

/** Of a plane that faces a side. */
export function poseFacing(side: Side, origin: Vec3 = [0, 0, 0]): Pose {
  const [x, y] = axesSeenFrom(side);
  return { origin, x: vectorOf(x), y: vectorOf(y) };
}

/** The way in which the outer side looks. */
export const normalOf = ({ x, y }: Pose): Vec3 => cross3(x, y);

/** Where a place of a plane lies in the object frame; `height` is how far it stands off on the outer side, mm. */
export const toSpace = (pose: Pose, [x, y]: Vec, height = 0): Vec3 =>
  add3(pose.origin, add3(add3(scale3(pose.x, x), scale3(pose.y, y)), scale3(normalOf(pose), height)));

/** The foot of a point on a plane, in the plane's own axes, and how far it stands off. */
export function fromSpace(pose: Pose, point: Vec3): { readonly at: Vec; readonly height: number } {
  const from = subtract3(point, pose.origin);
  return { at: [dot3(from, pose.x), dot3(from, pose.y)], height: dot3(from, normalOf(pose)) };
}

/** The same plane, shifted along its normal: a height above it is a pose too. */
export const raised = (pose: Pose, height: number): Pose => ({
  ...pose,
  origin: add3(pose.origin, scale3(normalOf(pose), height)),
});
