import type { Vec } from '../geometry';
import { add3, dot3, normalOf, raised, scale3, type Pose, type Vec3 } from '../space';
import { compose, type Homography } from './homography';
import { turnAndShift } from './sheet-map';

/**
 * How straightened units (u, v) of a picture see the space over the view's own plane: x and y on the plane, z towards who looks, mm. All rays go through the centre, homogeneous: a camera's middle
 * (w = 1), or from afar the way in which all of them run (w = 0). `rays` maps (u, v, 1) to (a, b, c): a ray runs from a camera's middle along (a, b, −c), and from afar through the plane's (a / c, b / c).
 */
export interface RayBundle {
  readonly rays: Homography;
  readonly centre: Centre;
}
type Centre = readonly [x: number, y: number, z: number, w: 0 | 1];

/** Seen square to the plane from afar: what stands on it is seen at its foot. */
export const FROM_AFAR: Centre = [0, 0, 1, 0];

/** What left and right are exchanged in, along a plane that is seen from behind. */
export const fromBehind = ({ rays, centre: [x, y, z, w] }: RayBundle): RayBundle => ({
  rays: compose(EXCHANGED, rays),
  centre: [-x, y, z, w],
});
const EXCHANGED: Homography = [-1, 0, 0, 0, 1, 0, 0, 0, 1];

/** How the frame of a projection lies in that of the view: turned (radians), then shifted (mm) along the plane that both have. */
export interface TurnedAndShifted {
  readonly turn: number;
  readonly shift: Vec;
}

/** The plane that a view shows, in its own frame. */
export const OWN_PLANE: Pose = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0] };

/** What is parallel to it, so far towards who looks. mm */
export const atHeight = (height: number): Pose => (height === 0 ? OWN_PLANE : raised(OWN_PLANE, height));

/**
 * From straightened units to a plane that stands at a pose in the view's frame, in the pose's x and y: where the rays meet it. mm. Weak: a plane that is seen edge-on has no map; what lies behind a
 * camera is not told from what lies before it. Source: Hartley and Zisserman, Multiple View Geometry in Computer Vision, 2nd edition, section 3.2 (the join of two points, and where it meets a plane).
 */
export function mapOnto({ rays, centre }: RayBundle, pose: Pose, lying: TurnedAndShifted | undefined): Homography {
  const met = meeting(centre, pose, lying);
  const flat = compose([...met.x, ...met.y, ...met.w], rays);
  const placed = lying ? compose(turnAndShift(lying.turn, lying.shift), flat) : flat;
  return pose === OWN_PLANE ? placed : inPose(pose, placed, compose([...met.z, ...NONE, ...NONE], rays));
}

/** What a homogeneous coordinate is by a ray's a, b and c. */
type Row = Vec3;
const NONE: Row = [0, 0, 0];
const added = (to: Row, row: Row, times: number): Row => add3(to, scale3(row, times));

/** Where rays meet a pose's plane, in the frame of the projection: of ray and centre, each so many times as the other lies off the plane. */
function meeting([cx, cy, cz, cw]: Centre, pose: Pose, lying: TurnedAndShifted | undefined) {
  const [normal, offset] = planeOf(pose, lying);
  const kept = dot3(normal, [cx, cy, cz]) - cw * offset;
  const off: Row = [normal[0], normal[1], -(cw * normal[2] + (1 - cw) * offset)];
  return {
    x: added([kept, 0, 0], off, -cx),
    y: added([0, kept, 0], off, -cy),
    z: added([0, 0, -cw * kept], off, -cz),
    w: added([0, 0, (1 - cw) * kept], off, -cw),
  };
}

/** Normal and offset (normal · point) of a pose's plane, in the frame of the projection. */
function planeOf(pose: Pose, lying: TurnedAndShifted | undefined): readonly [Vec3, number] {
  const normal = normalOf(pose);
  const offset = dot3(normal, pose.origin);
  if (!lying) return [normal, offset];
  const {
    turn,
    shift: [x, y],
  } = lying;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [
    [c * normal[0] + s * normal[1], c * normal[1] - s * normal[0], normal[2]],
    offset - normal[0] * x - normal[1] * y,
  ];
}

/** Places in space, homogeneous, by x, y and w in one map and z in the first row of another, in a pose's own x and y. */
function inPose(pose: Pose, [a, b, c, d, e, f, g, h, i]: Homography, [p, q, r]: Homography): Homography {
  const along = (axis: Vec3): Row =>
    added(
      added(added(scale3([a, b, c], axis[0]), [d, e, f], axis[1]), [p, q, r], axis[2]),
      [g, h, i],
      -dot3(axis, pose.origin),
    );
  return [...along(pose.x), ...along(pose.y), g, h, i];
}
