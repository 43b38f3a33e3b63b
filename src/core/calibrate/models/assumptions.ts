import { focalOf, type PictureGeometry } from '../picture';
import type { Assumed } from './model';

/**
 * What auto takes for granted about a kind of sheet until the evidence says otherwise. One sigma each; docs/accuracy.md says
 * where they come from. All are assumptions, none is measured on the picture at hand.
 */
export const ASSUMED = {
  /** A hand's tilt about each axis, radians: "square-on within 3°". */
  tilt: (1.5 * Math.PI) / 180,
  /** The same about each axis when the phone measured it: half a degree for its sensors, half a degree for a table that is taken as level. */
  tiltMeasured: (0.7 * Math.PI) / 180,
  /**
   * k1 of a lens, the share by which a corner is drawn in or out: of a phone's main camera after its own correction, of other lenses, of wide ones and
   * of pictures about which no camera says anything; of those with less than a megapixel, as small cameras of all kinds make them. k2 is taken to be half as much.
   */
  lens: { phone: 0.007, other: 0.01, wide: 0.03, untold: 0.02, small: 0.12 },
  /** Where a lens has its middle, from the picture's middle, in half diagonals; of small cameras. */
  lensCentre: 0.03,
  lensCentreSmall: 0.06,
  /** Share of the focal length when the camera told its 35 mm equivalent (a whole number). */
  focalTold: 0.02,
  /** When nobody did: the middle of what cameras have, wide phones to long lenses, phones being the most, and one sigma of its logarithm. */
  focal35mm: 42,
  focalUntold: 0.55,
  /** Difference between the scales along and across, and how far from square the two are (radians). */
  stretch: { photo: 0, scan: 0.001, drawing: 0.008 },
  skew: { photo: 0, scan: 0.0005, drawing: 0.001 },
  /** Height between what is traced and what was measured, when nobody said it. mm. */
  lift: 1.5,
} as const;

/** The same where the evidence speaks against it: how far it may be off then (one sigma), and how rare that is (−2 log of the odds). */
const UNUSUAL = {
  tilt: { sigma: [0.45, 0.45], cost: 2 },
  lensCentre: { sigma: [0.1, 0.1], cost: 6 },
  focal: { sigma: [0.5], cost: 6 },
  stretch: { sigma: [0.03], cost: 2 },
  skew: { sigma: [0.02], cost: 3 },
} as const;

/** A lens that nobody corrected: twice as far as was assumed, and this at least. */
const BOWED = [0.08, 0.04];
const RARE = 8;

/** What is assumed of each part that a kind of sheet may suffer from. */
export function assumedOf(
  picture: PictureGeometry,
): Readonly<Record<'tilt' | 'focal' | 'lens' | 'lensCentre' | 'stretch' | 'skew', Assumed>> {
  const tilt = picture.tilt ? ASSUMED.tiltMeasured : ASSUMED.tilt;
  const told = picture.focal35mm !== undefined;
  const lens = lensSigma(picture);
  const centre = isSmall(picture) ? ASSUMED.lensCentreSmall : ASSUMED.lensCentre;
  return {
    tilt: { sigma: [tilt, tilt], unusual: UNUSUAL.tilt },
    focal: told
      ? { sigma: [ASSUMED.focalTold], unusual: UNUSUAL.focal }
      : { start: [Math.log(focalOf({ ...picture, focal35mm: ASSUMED.focal35mm }))], sigma: [ASSUMED.focalUntold] },
    lens: { sigma: lens, unusual: { sigma: lens.map((sigma, i) => Math.max(2 * sigma, BOWED[i]!)), cost: RARE } },
    lensCentre: { sigma: [centre, centre], unusual: UNUSUAL.lensCentre },
    stretch: { sigma: [ASSUMED.stretch[picture.kind]], unusual: UNUSUAL.stretch },
    skew: { sigma: [ASSUMED.skew[picture.kind]], unusual: UNUSUAL.skew },
  };
}

/** 35 mm equivalents of phones' main cameras (common practice): below them a lens is wide. */
const PHONES = [23, 30] as const;
const MEGAPIXEL = 1e6;

/** Made by a small camera of whatever kind, about which nothing is known. */
const isSmall = ({ width, height, focal35mm }: PictureGeometry) =>
  focal35mm === undefined && width * height < MEGAPIXEL;

/** One sigma of k1 and k2, by what is known of the camera. */
export function lensSigma(picture: PictureGeometry): readonly [number, number] {
  const { phone, other, wide, untold, small } = ASSUMED.lens;
  const told = (focal: number) => (focal < PHONES[0] ? wide : focal > PHONES[1] ? other : phone);
  const k1 = picture.focal35mm !== undefined ? told(picture.focal35mm) : isSmall(picture) ? small : untold;
  return [k1, k1 / 2];
}
