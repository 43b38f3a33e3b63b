/** How a phone is held, as its sensors say. Degrees. */
export interface Tilt {
  /** Out of square-on across and up the picture: where the camera looks to, right and down positive. */
  readonly across: number;
  readonly up: number;
}

export type ShootingWay = 'above' | 'front';

const DEGREE = Math.PI / 180;

/**
 * From the angles of a device (W3C Device Orientation: beta about its x axis, gamma about its y axis, degrees) and how its screen is turned to where its camera
 * looks beside straight down, or beside level for what stands upright.
 */
export function tiltOf(
  { beta, gamma }: { readonly beta: number; readonly gamma: number },
  screenAngle: number,
  way: ShootingWay,
): Tilt {
  // Straight out of the back: the device's −z, in the device's own upright frame.
  const [across, up] = way === 'above' ? [-gamma, -beta] : [leanOf(beta, gamma), 90 - beta];
  const [c, s] = [Math.cos(screenAngle * DEGREE), Math.sin(screenAngle * DEGREE)];
  return way === 'above' ? { across: c * across + s * up, up: c * up - s * across } : { across, up };
}

/** How far a picture of something upright leans: gamma says it while the phone stands. */
const leanOf = (beta: number, gamma: number) => gamma * Math.sin(beta * DEGREE);

export const sizeOfTilt = ({ across, up }: Tilt) => Math.hypot(across, up);

/** Within this a hand cannot do better. */
export const GOOD_TILT = 1.5;
export const FAIR_TILT = 4;
