import { optics, type Camera, type Ray } from './camera';
import { distanceField, type DistanceField } from './distance-field';
import type { Color, Material } from './materials';
import { createGrain, hash, smooth } from './noise';
import type { Point, Profile } from './profile';

/** A flat thing lying on the bench: a prism over its profile, with a small bevel around its upper edges. mm. */
export interface Thing {
  readonly name: string;
  readonly outer: Profile;
  readonly holes: readonly Profile[];
  readonly height: number;
  readonly bevel: number;
  /** Where its origin lies on the bench, and its turn in degrees. */
  readonly place: Point;
  readonly turn: number;
  readonly material: Material;
}

export interface Scene {
  readonly name: string;
  readonly camera: Camera;
  readonly ground: Material;
  readonly things: readonly Thing[];
  /** Direction that the light travels over the ground, for each mm of height. */
  readonly light: Point;
  readonly grain: number;
}

export interface Picture {
  readonly width: number;
  readonly height: number;
  /** RGBA. */
  readonly data: Uint8Array;
}

/** A thing made ready: its distance field and the turn of the world into its own coordinates. */
class Placed {
  private readonly field: DistanceField;
  private readonly cos: number;
  private readonly sin: number;
  private readonly radius: number;
  constructor(readonly thing: Thing) {
    this.field = distanceField(thing.outer, thing.holes);
    this.cos = Math.cos((thing.turn * Math.PI) / 180);
    this.sin = Math.sin((thing.turn * Math.PI) / 180);
    this.radius = Math.hypot(this.field.max[0], this.field.max[1]) + 20;
  }
  isFar(x: number, y: number): boolean {
    return Math.abs(x - this.thing.place[0]) > this.radius || Math.abs(y - this.thing.place[1]) > this.radius;
  }
  own(x: number, y: number): Point {
    const [dx, dy] = [x - this.thing.place[0], y - this.thing.place[1]];
    return [this.cos * dx + this.sin * dy, this.cos * dy - this.sin * dx];
  }
  distance(x: number, y: number): number {
    const dx = x - this.thing.place[0];
    const dy = y - this.thing.place[1];
    return this.field.at(this.cos * dx + this.sin * dy, this.cos * dy - this.sin * dx);
  }
}

/** Things that stand in several scenes are made ready once. */
const ready = new WeakMap<Thing, Placed>();
function placed(thing: Thing): Placed {
  const known = ready.get(thing) ?? new Placed(thing);
  ready.set(thing, known);
  return known;
}

const SAMPLES: readonly Point[] = [
  [0.125, 0.375],
  [0.625, 0.125],
  [0.375, 0.875],
  [0.875, 0.625],
];

/** The whole picture. Takes minutes; the result is kept. */
export function render(scene: Scene): Picture {
  const { width, height } = scene.camera;
  return createDarkroom(scene)(0, 0, width, height, 7);
}

/** Develops parts of a scene's picture: four rays a pixel, a penumbra, fall-off towards the corners, grain of its own for every seed. */
export function createDarkroom(
  scene: Scene,
): (left: number, top: number, width: number, height: number, seed: number) => Picture {
  const camera = optics(scene.camera);
  const things = scene.things.map(placed).sort((a, b) => b.thing.height - a.thing.height);
  return (left, top, width, height, seed) => {
    const grain = createGrain(seed);
    const data = new Uint8Array(width * height * 4);
    for (let row = 0; row < height; row++) {
      for (let column = 0; column < width; column++) {
        const [x, y] = [left + column, top + row];
        let [r, g, b] = [0, 0, 0];
        for (const [dx, dy] of SAMPLES) {
          const color = trace(scene, things, camera.ray(x + dx, y + dy));
          r += color[0];
          g += color[1];
          b += color[2];
        }
        const away = Math.hypot(x / scene.camera.width - 0.5, y / scene.camera.height - 0.5);
        const gain = (1.04 - 0.34 * away * away) / 4;
        const noise = scene.grain * grain();
        const at = (row * width + column) * 4;
        data[at] = clamp(r * gain + noise);
        data[at + 1] = clamp(g * gain + noise * 0.9);
        data[at + 2] = clamp(b * gain + noise * 1.1);
        data[at + 3] = 255;
      }
    }
    return { width, height, data };
  };
}

const clamp = (value: number) => Math.max(0, Math.min(255, Math.round(value)));
const spot: [number, number] = [0, 0];

/** By how much a ray goes down from one look to the next, mm. */
const STEP = 0.1;
/** How much a distance between samples may change over one millimetre, a little more than at most. */
const STEEPEST = 1.5;

/** How far a ray moves over the bench with one step down, mm. */
function shiftOf(ray: Ray, height: number): number {
  ray.meet(height, spot);
  const [x, y] = spot;
  ray.meet(height - STEP, spot);
  return Math.hypot(spot[0] - x, spot[1] - y);
}

/** Follows one ray down: through each thing's top, bevel and side, else to the ground with its shadows. */
function trace(scene: Scene, things: readonly Placed[], ray: Ray): Color {
  ray.meet(0, spot);
  const [gx, gy] = spot;
  for (const placed of things) {
    if (placed.isFar(gx, gy)) continue;
    const { height, bevel, material } = placed.thing;
    ray.meet(height, spot);
    const top = placed.distance(spot[0], spot[1]);
    if (top < -bevel)
      return lit(material(...placed.own(spot[0], spot[1])), 1 - shadow(scene, things, spot[0], spot[1], height));
    if (top > height + 1) continue;
    const shift = shiftOf(ray, height);
    for (let z = height; z >= 0; z -= STEP) {
      ray.meet(z, spot);
      const inset = Math.max(0, z - (height - bevel));
      const away = placed.distance(spot[0], spot[1]);
      // What is farther off than the next steps lead is not met by them.
      for (let k = 1; k < away / (STEEPEST * shift) && z >= 0; k++) z -= STEP;
      if (away < -inset) {
        // A hit at the bevel's lower end came through the bevel: the step before it was still above.
        const slope = z > height - bevel - 0.05 ? 1.22 : 0.42;
        return lit(
          material(...placed.own(spot[0], spot[1])),
          slope * (1 - 0.5 * shadow(scene, things, spot[0], spot[1], z)),
        );
      }
    }
  }
  const dust = hash(Math.round(gx * 3), Math.round(gy * 3), 5) > 0.9994 ? 0.7 : 1;
  return lit(
    scene.ground(gx, gy),
    dust * (1 - shadow(scene, things, gx, gy, 0)) * (0.96 + 0.08 * smooth(gx * 0.01, gy * 0.01, 77)),
  );
}

const lit = (color: Color, by: number): Color => [color[0] * by, color[1] * by, color[2] * by];

/** How much light a thing above takes from a place: a cast shadow with a soft rim, and a little where surfaces meet. */
function shadow(scene: Scene, things: readonly Placed[], x: number, y: number, z: number): number {
  let dark = 0;
  for (const placed of things) {
    const rise = placed.thing.height - z;
    if (rise <= 0.05 || placed.isFar(x, y)) continue;
    const away = placed.distance(x - scene.light[0] * rise, y - scene.light[1] * rise);
    const soft = 0.35 * rise + 0.15;
    dark = Math.max(dark, 0.55 * Math.min(1, Math.max(0, 0.5 - away / (2 * soft))));
    dark = Math.max(dark, 0.3 * Math.exp(-Math.max(0, placed.distance(x, y)) / (0.6 * rise)));
  }
  return dark;
}
