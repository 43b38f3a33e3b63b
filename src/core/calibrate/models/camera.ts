import { compose, type Homography } from '../homography';
import { focalOf, type PictureGeometry } from '../picture';
import type { NumbersOf, Shape } from './model';

export interface CameraDoubts {
  /** One sigma of the tilt about each axis, radians; absent: the evidence has to tell. */
  readonly tilt?: number | undefined;
  /** One sigma of the focal length as a share; absent: the evidence has to tell. */
  readonly focal?: number | undefined;
  readonly focalOrigin?: 'assumed' | 'stated';
}

/**
 * A pinhole camera with square pixels above the plane, looking through the middle of its lens: the logarithm of its perpendicular distance in mm, two angles out of
 * square-on, and the logarithm of its focal length in half diagonals. The plane's origin is the foot of the camera; what lies
 * at a height is met earlier by the same rays, which is the parallax.
 */
export function cameraShape(picture: PictureGeometry, doubts: CameraDoubts): Shape {
  const focal = Math.log(focalOf(picture));
  return {
    parts: [
      { id: 'scale', start: [Math.log(400)] },
      { id: 'tilt', start: picture.tilt ?? [0, 0], sigma: doubts.tilt === undefined ? undefined : [doubts.tilt, doubts.tilt] },
      { id: 'focal', start: [focal], sigma: doubts.focal === undefined ? undefined : [doubts.focal], origin: doubts.focalOrigin ?? 'assumed' },
    ],
    homographyAt,
  };
}

function homographyAt(numbersOf: NumbersOf, height: number): Homography {
  const [scale = 0] = numbersOf('scale');
  const [across = 0, up = 0] = numbersOf('tilt');
  const [logFocal = 0] = numbersOf('focal');
  const [x0 = 0, y0 = 0] = numbersOf('lens-centre');
  const distance = Math.exp(scale) - height;
  const [ca, sa, cu, su] = [Math.cos(across), Math.sin(across), Math.cos(up), Math.sin(up)];
  const turned: Homography = [ca, 0, sa, su * sa, cu, -su * ca, -cu * sa, su, cu * ca];
  const focal = Math.exp(logFocal);
  return compose([distance, 0, 0, 0, distance, 0, 0, 0, 1], compose(turned, [1 / focal, 0, -x0 / focal, 0, 1 / focal, -y0 / focal, 0, 0, 1]));
}
