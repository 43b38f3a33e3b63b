import type { PictureGeometry } from '../picture';

/**
 * What auto takes for granted about a kind of sheet until the evidence says otherwise. One sigma each; docs/accuracy.md says
 * where they come from. All are assumptions, none is measured on the picture at hand.
 */
export const ASSUMED = {
  /** A hand's tilt about each axis, radians: "square-on within 3°". */
  tilt: (1.5 * Math.PI) / 180,
  /** The same about each axis when the phone measured it: half a degree for its sensors, half a degree for a table that is taken as level. */
  tiltMeasured: (0.7 * Math.PI) / 180,
  /** k1 and k2 of a phone's lens after its own correction: a corner is off by less than 1 %. */
  lens: [0.005, 0.0025],
  /** Where a lens has its middle, from the picture's middle, in half diagonals. */
  lensCentre: 0.03,
  /** Share of the focal length: when the camera told its 35 mm equivalent (a whole number), and when nobody did. */
  focalTold: 0.02,
  focalUntold: 0.3,
  /** Difference between the scales along and across, and how far from square the two are (radians). */
  stretch: { photo: 0, scan: 0.001, drawing: 0.008 },
  skew: { photo: 0, scan: 0.0005, drawing: 0.001 },
  /** Height between what is traced and what was measured, when nobody said it. mm. */
  lift: 1.5,
} as const;

export const focalSigma = (picture: PictureGeometry) => (picture.focal35mm === undefined ? ASSUMED.focalUntold : ASSUMED.focalTold);
