import { point3d } from '@tarikjabiri/dxf';
import { UNMOVED, type Affine, type Vec } from '../geometry';
import { cross3, dot3, normalOf, scale3, toSpace, type Pose, type Vec3 } from '../space';

/** A plane as DXF has it: what lies on it is said in axes that follow from its normal alone, so far along that. */
export interface DxfPlane {
  /** From the plane's own axes to those. */
  readonly axes: Affine;
  readonly elevation: number;
  /** What entities on it say of it; nothing where it lies flat. */
  readonly options: { readonly extrusion?: ReturnType<typeof point3d> };
  toSpace(place: Vec): Vec3;
}

export const FLAT: DxfPlane = { axes: UNMOVED, elevation: 0, options: {}, toSpace: ([x, y]) => [x, y, 0] };

/** A normal nearer than this to z has its x from y (DXF reference, "Arbitrary Axis Algorithm"). */
const NEARLY_UP = 1 / 64;

/** A plane that stands in space. */
export function standingPlane(pose: Pose): DxfPlane {
  const normal = normalOf(pose);
  const isUp = Math.abs(normal[0]) < NEARLY_UP && Math.abs(normal[1]) < NEARLY_UP;
  const right = cross3(isUp ? [0, 1, 0] : [0, 0, 1], normal);
  const x = scale3(right, 1 / Math.sqrt(dot3(right, right)));
  const y = cross3(normal, x);
  return {
    axes: [
      dot3(pose.x, x),
      dot3(pose.x, y),
      dot3(pose.y, x),
      dot3(pose.y, y),
      dot3(pose.origin, x),
      dot3(pose.origin, y),
    ],
    elevation: dot3(pose.origin, normal),
    options: { extrusion: point3d(...normal) },
    toSpace: (place) => toSpace(pose, place),
  };
}
