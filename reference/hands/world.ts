import { optics, type Camera, type Optics } from '../../demo/generator/camera';
import type { Random } from '../../src/core/basics';
import { createRandom } from '../../src/core/calibrate/simulation';
import { ASSUMED, lensSigma, type PictureGeometry } from '../../src/core/calibrate';
import type { Vec } from '../../src/core/geometry';

/** A kind of photographer: what camera, and how it is held. Angles in degrees. */
export interface CameraKind {
  readonly focal35mm: readonly [number, number];
  readonly tilt: readonly [number, number];
  /** Whether the file tells the focal length. */
  readonly told: boolean;
  /** Share of the picture's width that 320 mm of the bench take up. */
  readonly fill: readonly [number, number];
}

export interface World {
  readonly camera: Camera;
  readonly optics: Optics;
  readonly picture: PictureGeometry;
  /** Where a place of the bench is seen; mm from its middle, z up. */
  see(at: Vec, z?: number): Vec;
  readonly random: Random;
}

const WIDTH = 4032;
const HEIGHT = 3024;
const REACH = 320;

/** Tangential errors of a lens, which no fit here knows, as a share of its bow. Assumed: what is glued together well. */
const TANGENTIAL = 0.03;

/**
 * A camera of a kind over the middle of a bench, turned any way. Its optics share nothing with the fit's own camera; only how far lenses and tags may be off
 * is drawn from what the fit assumes of such pictures.
 */
export function drawWorld(kind: CameraKind, seed: number): World {
  const random = createRandom(seed);
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random.uniform();
  const focal35mm = Math.exp(between([Math.log(kind.focal35mm[0]), Math.log(kind.focal35mm[1])]));
  const focalTold = kind.told ? Math.round(focal35mm * (1 + ASSUMED.focalTold * random.normal())) : undefined;
  const picture: PictureGeometry = { width: WIDTH, height: HEIGHT, kind: 'photo', focal35mm: focalTold };
  const [bow] = lensSigma(picture);
  const [tilt, way, turn] = [between(kind.tilt), 360 * random.uniform(), 360 * random.uniform()];
  const half = Math.hypot(WIDTH, HEIGHT) / 2;
  const distance = ((focal35mm / Math.hypot(36, 24)) * 2 * half * REACH) / (between(kind.fill) * WIDTH);
  const radians = (way * Math.PI) / 180;
  const off = ASSUMED.lensCentre * half;
  const lens = {
    k1: bow * random.normal(),
    k2: 0.5 * bow * random.normal(),
    p1: TANGENTIAL * bow * random.normal(),
    p2: TANGENTIAL * bow * random.normal(),
    shift: [off * random.normal(), off * random.normal()] as const,
  };
  const high = distance * Math.cos((tilt * Math.PI) / 180);
  const over: Camera = {
    width: WIDTH,
    height: HEIGHT,
    focal35mm,
    place: [0, 0, high],
    tilt: [tilt * Math.cos(radians), tilt * Math.sin(radians), turn],
    lens,
  };
  const met: [number, number] = [0, 0];
  optics(over)
    .ray(WIDTH / 2, HEIGHT / 2)
    .meet(0, met);
  const aside = 25 * random.normal();
  const camera: Camera = { ...over, place: [aside - met[0], 25 * random.normal() - met[1], high] };
  const seen = optics(camera);
  return { camera, optics: seen, picture, see: ([x, y], z = 0) => seen.project(x, y, z) as Vec, random };
}

/** The same camera with half as many pixels each way, and the middle of its lens as far off as its makers leave it. */
export const atHalfSize = (camera: Camera): Camera => ({
  ...camera,
  width: WIDTH / 2,
  height: HEIGHT / 2,
  lens: { ...camera.lens, shift: [3, -2] },
});
