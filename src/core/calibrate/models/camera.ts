import { compose, type Homography } from '../homography';
import { focalOf, type PictureGeometry } from '../picture';
import type { RayBundle } from '../projection';
import type { Assumed, NumbersOf, MapShape } from './model';

export interface CameraDoubts {
  /** What is assumed of the tilt about each axis, radians, and of the logarithm of the focal length; absent: the evidence has to tell. */
  readonly tilt?: Assumed | undefined;
  readonly focal?: Assumed | undefined;
  readonly focalOrigin?: 'assumed' | 'stated';
}

/** Where a camera's plane has its origin, and what its scale is the logarithm of. */
interface Seat {
  /** Perpendicular distance of the camera from the plane, mm; and the origin, as seen from the camera's foot. */
  readonly distance: number;
  readonly origin: readonly [number, number];
}

type SeatOf = (scale: number, focal: number, across: number, up: number) => Seat;

/** The camera's foot, and its perpendicular distance in mm. */
export const atFoot: SeatOf = (scale) => ({ distance: Math.exp(scale), origin: [0, 0] });

/**
 * The place that the camera looks at, and how many mm half a picture's diagonal spans there, square to the line of sight. So the numbers hardly depend on one
 * another, however long the lens and steep the slant: from the foot of a camera far aside everything lies far away.
 */
export const atAim: SeatOf = (scale, focal, across, up) => {
  const away = Math.exp(scale) * focal;
  return {
    distance: away * Math.cos(across) * Math.cos(up),
    origin: [away * Math.sin(across), -away * Math.sin(up) * Math.cos(across)],
  };
};

/**
 * A pinhole camera with square pixels above the plane, looking through the middle of its lens: a scale by its seat, two angles out of
 * square-on, and the logarithm of its focal length in half diagonals. What lies at a height is met earlier by the same rays through its middle, which is the parallax.
 */
export function cameraShape(picture: PictureGeometry, doubts: CameraDoubts, seatOf: SeatOf): MapShape {
  return {
    parts: [
      { id: 'scale', start: [Math.log(400)] },
      { id: 'tilt', start: picture.tilt ?? [0, 0], ...doubts.tilt, inUnitsOf: seatOf === atAim ? 'focal' : undefined },
      { id: 'focal', start: [Math.log(focalOf(picture))], ...doubts.focal, origin: doubts.focalOrigin ?? 'assumed' },
    ],
    projectionAt: (numbersOf) => projectionAt(numbersOf, seatOf),
  };
}

function projectionAt(numbersOf: NumbersOf, seatOf: SeatOf): RayBundle {
  const [scale = 0] = numbersOf('scale');
  const [across = 0, up = 0] = numbersOf('tilt');
  const [logFocal = 0] = numbersOf('focal');
  const [x0 = 0, y0 = 0] = numbersOf('lens-centre');
  const focal = Math.exp(logFocal);
  const {
    distance,
    origin: [x, y],
  } = seatOf(scale, focal, across, up);
  const [ca, sa, cu, su] = [Math.cos(across), Math.sin(across), Math.cos(up), Math.sin(up)];
  const turned: Homography = [ca, 0, sa, su * sa, cu, -su * ca, -cu * sa, su, cu * ca];
  return {
    rays: compose(turned, [1 / focal, 0, -x0 / focal, 0, 1 / focal, -y0 / focal, 0, 0, 1]),
    centre: [-x, -y, distance, 1],
  };
}
