import type { GrayPicture } from './gray-picture';
import { inkOf, inkThreshold } from './paper';

/** How a sheet lies: the angle by which its lines are off level or upright, radians, clockwise on the sheet; one sigma. */
export interface FoundTurn {
  readonly angle: number;
  readonly sigma: number;
}

const RADIANS = Math.PI / 180;
/** How far it is looked, and the steps of the first look. Radians. */
const REACH = 11 * RADIANS;
const STEP = 0.2 * RADIANS;
const MOST_PLACES = 60_000;
/** The best angle has to stand out from the usual one by this factor. */
const LEAST_PEAK = 1.25;
/** A part of the sheet tells nothing with fewer places of ink. */
const LEAST_PLACES = 400;
const AGREES = 0.5 * RADIANS;
/** What paper and scanner do that no counting takes away. Radians, assumed. */
const LEAST_SIGMA = 0.015 * RADIANS;

interface Places {
  readonly x: Float32Array;
  readonly y: Float32Array;
  readonly weight: Float32Array;
}

/**
 * The angle at which the rows and columns of a sheet's ink stand out most, from −11° to 11°: there the profile of the ink across
 * the lines is steepest (Postl, Detection of linear oblique structures and skew scan in digitized documents, 1986). Its sigma is
 * how well the quarters of the sheet agree. Undefined where nothing is level or upright. Weak: drawings with lines in
 * one oblique direction only, which are taken for level.
 */
export function findSheetTurn(picture: GrayPicture): FoundTurn | undefined {
  const ink = inkOf(picture);
  const all = placesOf(picture, ink, 0, 0, picture.width, picture.height);
  const angle = all && bestAngle(all);
  if (angle === undefined) return undefined;
  const [w, h] = [picture.width / 2, picture.height / 2];
  const quarters = [
    [0, 0],
    [w, 0],
    [0, h],
    [w, h],
  ]
    .map(([x, y]) => placesOf(picture, ink, x!, y!, x! + w, y! + h))
    .map((places) => (places ? bestAngle(places) : undefined))
    .filter((found) => found !== undefined);
  // Where the quarters of a sheet each have a mind of their own, nothing is level; one that shows only slopes is outvoted.
  const agreeing = quarters.filter((found) => Math.abs(found - angle) < AGREES);
  if (agreeing.length < Math.max(1, quarters.length / 2)) return undefined;
  const spread =
    agreeing.length > 1
      ? Math.sqrt(
          agreeing.reduce((sum, found) => sum + (found - angle) ** 2, 0) / (agreeing.length - 1) / agreeing.length,
        )
      : 0.1 * RADIANS;
  return { angle, sigma: Math.max(LEAST_SIGMA, spread) };
}

function placesOf(
  { width }: GrayPicture,
  ink: Float32Array,
  left: number,
  top: number,
  right: number,
  bottom: number,
): Places | undefined {
  const threshold = inkThreshold(ink);
  const found: number[] = [];
  for (let y = Math.ceil(top); y < bottom; y++)
    for (let x = Math.ceil(left); x < right; x++) if (ink[y * width + x]! > threshold) found.push(y * width + x);
  if (found.length < LEAST_PLACES) return undefined;
  const step = Math.max(1, found.length / MOST_PLACES);
  const used = Array.from({ length: Math.floor(found.length / step) }, (_, i) => found[Math.floor(i * step)]!);
  return {
    x: Float32Array.from(used, (at) => at % width),
    y: Float32Array.from(used, (at) => Math.floor(at / width)),
    weight: Float32Array.from(used, (at) => Math.min(1, ink[at]! / (2 * threshold))),
  };
}

function bestAngle(places: Places): number | undefined {
  const count = Math.round((2 * REACH) / STEP) + 1;
  const angles = Array.from({ length: count }, (_, i) => -REACH + i * STEP);
  const scores = angles.map((angle) => steepness(places, angle));
  const top = scores.indexOf(Math.max(...scores));
  const usual = [...scores].sort((a, b) => a - b)[Math.floor(count / 2)]!;
  if (top === 0 || top === count - 1 || scores[top]! < LEAST_PEAK * usual) return undefined;
  let [angle, step] = [angles[top]!, STEP];
  for (; step > 0.002 * RADIANS; step /= 2) {
    const around = [angle - step / 2, angle, angle + step / 2];
    const near = around.map((at) => steepness(places, at));
    angle = around[near.indexOf(Math.max(...near))]!;
  }
  return angle;
}

/** Squared steps of the profiles of the ink across level and across upright lines that are off by an angle. */
function steepness(places: Places, angle: number): number {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return profileSteps(places, -s, c) + profileSteps(places, c, s);
}

/** The profile along one direction, in steps of a pixel; each place is shared between the two nearest. */
function profileSteps({ x, y, weight }: Places, alongX: number, alongY: number): number {
  let [least, most] = [Infinity, -Infinity];
  for (let i = 0; i < x.length; i++) {
    const at = x[i]! * alongX + y[i]! * alongY;
    if (at < least) least = at;
    if (at > most) most = at;
  }
  const profile = new Float64Array(Math.ceil(most - least) + 3);
  for (let i = 0; i < x.length; i++) {
    const at = x[i]! * alongX + y[i]! * alongY - least;
    const bin = Math.floor(at);
    profile[bin]! += weight[i]! * (1 - at + bin);
    profile[bin + 1]! += weight[i]! * (at - bin);
  }
  let sum = 0;
  for (let i = 1; i < profile.length; i++) sum += (profile[i]! - profile[i - 1]!) ** 2;
  return sum;
}
