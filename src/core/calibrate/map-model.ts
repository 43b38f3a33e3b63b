import type { Observation } from '../adjust';
import type { Vec } from '../geometry';
import { applyHomography, compose, type Homography } from './homography';

/** What is known of the picture as a whole. Pixels; `focal35mm` is the 35 mm equivalent from the camera, if it told. */
export interface PictureGeometry {
  readonly width: number;
  readonly height: number;
  readonly kind: PictureKind;
  readonly focal35mm?: number | undefined;
}

/** What may be wrong with a picture: a hand-held photo is never quite square-on, a scan or a copy may be stretched. */
export type PictureKind = 'photo' | 'scan' | 'drawing';

/** Origin and direction of x of the view plane, in sheet pixels; `direction` is clockwise on the screen, in radians. */
export interface Datum {
  readonly origin: Vec;
  readonly direction: number;
}

/** How far what is traced stands above what was measured. mm, one sigma. */
export interface Lift {
  readonly mm: number;
  readonly sigma: number;
}

/**
 * A family of maps from sheet pixels to the view plane in mm. Its numbers: `logScale` is free; the others are held by
 * assumed observations, so that what the evidence does not show goes into the plus-minus instead of being ignored.
 */
export interface MapModel {
  readonly names: readonly string[];
  readonly start: readonly number[];
  readonly assumed: readonly { readonly name: string; readonly value: number; readonly sigma: number }[];
  /** Sheet px → mm about the picture's middle, y up, on the plane of the evidence (lift 0) or lifted above it. */
  homography(values: readonly number[], lifted: boolean): Homography;
}

/** One sigma of a hand's tilt about each axis: "square-on within 3°" on screen. An assumption, see docs/accuracy.md. */
export const ASSUMED_TILT = (1.5 * Math.PI) / 180;
/** One sigma of the height between what is traced and what was measured, when nobody said it. mm. */
export const ASSUMED_LIFT = 1.5;
/** One sigma of the difference between the scales along and across. */
const ASSUMED_STRETCH = { scan: 0.001, drawing: 0.005 } as const;
/** Diagonal of the 36 × 24 mm frame that a "35 mm equivalent" refers to. */
const FRAME_DIAGONAL = Math.hypot(36, 24);
/** What a phone's main camera usually has; used only for how strongly an unknown tilt could show. */
const USUAL_FOCAL_35MM = 26;

export function focalInPixels(picture: PictureGeometry): number {
  return ((picture.focal35mm ?? USUAL_FOCAL_35MM) / FRAME_DIAGONAL) * Math.hypot(picture.width, picture.height);
}

export function modelFor(picture: PictureGeometry, lift: Lift): MapModel {
  return picture.kind === 'photo' ? handHeldModel(picture, lift) : stretchedModel(picture, ASSUMED_STRETCH[picture.kind]);
}

/** Pixels about the middle of the picture, y turned over, divided by `unit`. */
function centred(picture: PictureGeometry, unit: number): Homography {
  return [1 / unit, 0, -picture.width / 2 / unit, 0, -1 / unit, picture.height / 2 / unit, 0, 0, 1];
}

/** A pinhole camera at distance e^logScale (mm) from the plane, turned by two small angles out of square-on. */
function handHeldModel(picture: PictureGeometry, lift: Lift): MapModel {
  const rays = centred(picture, focalInPixels(picture));
  return {
    names: ['logScale', 'tiltAcross', 'tiltUp', 'lift'],
    start: [Math.log(400), 0, 0, lift.mm],
    assumed: [
      { name: 'tiltAcross', value: 0, sigma: ASSUMED_TILT },
      { name: 'tiltUp', value: 0, sigma: ASSUMED_TILT },
      { name: 'lift', value: lift.mm, sigma: lift.sigma },
    ],
    homography([logScale = 0, across = 0, up = 0, height = 0], lifted) {
      const distance = Math.exp(logScale) - (lifted ? height : 0);
      const [ca, sa, cu, su] = [Math.cos(across), Math.sin(across), Math.cos(up), Math.sin(up)];
      const turned: Homography = [ca, 0, sa, su * sa, cu, -su * ca, -cu * sa, su, cu * ca];
      return compose([distance, 0, 0, 0, distance, 0, 0, 0, 1], compose(turned, rays));
    },
  };
}

/** A flat copy whose scales along and across may differ a little. */
function stretchedModel(picture: PictureGeometry, sigma: number): MapModel {
  const middle = centred(picture, 1);
  return {
    names: ['logScale', 'stretch'],
    start: [Math.log(0.1), 0],
    assumed: [{ name: 'stretch', value: 0, sigma }],
    homography([logScale = 0, stretch = 0]) {
      const [across, up] = [Math.exp(logScale + stretch / 2), Math.exp(logScale - stretch / 2)];
      return compose([across, 0, 0, 0, up, 0, 0, 0, 1], middle);
    },
  };
}

/** The same map turned and shifted so that the datum's origin is (0, 0) and its direction is +x, however the map changes. */
export function onDatum(map: Homography, datum: Datum): Homography {
  const reach = 100;
  const origin = applyHomography(map, datum.origin);
  const along = applyHomography(map, [
    datum.origin[0] + reach * Math.cos(datum.direction),
    datum.origin[1] + reach * Math.sin(datum.direction),
  ]);
  const angle = Math.atan2(along[1] - origin[1], along[0] - origin[0]);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return compose([c, s, -c * origin[0] - s * origin[1], -s, c, s * origin[0] - c * origin[1], 0, 0, 1], map);
}

/** The assumptions of a model as observations of the block that holds its numbers. */
export function assumedObservations(model: MapModel, block: string): Observation[] {
  return model.assumed.map(({ name, value, sigma }) => {
    const index = model.names.indexOf(name);
    return {
      group: `assumed:${name}`,
      origin: 'assumed',
      blocks: [block],
      residuals: ([map]) => [(map![index]! - value) / sigma],
    };
  });
}
