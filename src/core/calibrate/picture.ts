import type { Vec } from '../geometry';

/** What may be wrong with a picture: a hand-held photo is never quite square-on, a scan or a copy may be stretched. */
export type PictureKind = 'photo' | 'scan' | 'drawing';

/** What is known of the picture as a whole. Pixels; `focal35mm` is the 35 mm equivalent from the camera, if it told. */
export interface PictureGeometry {
  readonly width: number;
  readonly height: number;
  readonly kind: PictureKind;
  readonly focal35mm?: number | undefined;
  /** It is seen from behind: a transparency that lay the wrong way round, a rubbing. Left and right are exchanged. */
  readonly mirrored?: boolean | undefined;
  /** How the camera was tilted out of square-on as its own sensors said, across and up, radians; absent: nobody measured it. */
  readonly tilt?: Vec | undefined;
}

/** Origin and direction of x of the view plane, in sheet pixels; `direction` is clockwise on the sheet, in radians. */
export interface Datum {
  readonly origin: Vec;
  readonly direction: number;
}

/** How far what is traced stands above what was measured. mm, one sigma. */
export interface Lift {
  readonly mm: number;
  readonly sigma: number;
}

/** Half the diagonal of the 36 × 24 mm frame that a "35 mm equivalent" refers to. */
const HALF_FRAME = Math.hypot(36, 24) / 2;
/** What a phone's main camera usually has (common practice). */
const USUAL_FOCAL_35MM = 26;

/** Focal length in units of half the picture's diagonal. */
export function focalOf(picture: PictureGeometry): number {
  return (picture.focal35mm ?? USUAL_FOCAL_35MM) / HALF_FRAME;
}
