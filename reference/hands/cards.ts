import { optics } from '../../demo/generator/camera';
import { wood, type Material } from '../../demo/generator/materials';
import { roundedRectangle, type Point } from '../../demo/generator/profile';
import type { Scene, Thing } from '../../demo/generator/render';
import { blade, steelRule } from '../../demo/scenes/blade';
import type { Vec } from '../../src/core/geometry';

/** A printed club card: a frame, a picture field of nearly its own proportion, a band, a patch of foil, rows of letters. */
const printed: Material = (x, y) => {
  const within = (left: number, low: number, right: number, high: number) =>
    x > left && x < right && y > low && y < high;
  if (within(8, 20, 14, 25) || within(15, 20, 21, 25)) return [196, 168, 92];
  if (within(40, 8, 80, 33)) return (Math.floor(x / 3) + Math.floor(y / 3)) % 2 === 0 ? [120, 60, 60] : [160, 96, 84];
  if (within(5, 38, 81, 48)) return [52, 70, 120];
  if (y > 8 && y < 16 && x > 6 && x < 34 && Math.sin(x * 4) > 0 && y % 3 < 1.4) return [40, 40, 44];
  return [222, 222, 214];
};
/** Dark slate with a light vein, and a sheet of squared paper. */
const slate: Material = (x, y) =>
  Math.abs(y - 0.3 * x - 40) < 1.2 ? [110, 112, 112] : [64 + 6 * Math.sin(x * 0.7) * Math.sin(y * 0.9), 68, 72];
const squared: Material = (x, y) =>
  Math.abs(((x + 500) % 5) - 2.5) > 2.38 || Math.abs(((y + 500) % 5) - 2.5) > 2.38 ? [170, 186, 206] : [236, 236, 230];

const PRINTED_CARD: Thing = {
  name: 'card',
  outer: roundedRectangle(85.6, 53.98, 3.18),
  holes: [],
  height: 0.76,
  bevel: 0,
  place: [-60, -20],
  turn: 14,
  material: printed,
};
const sheet: Thing = {
  name: 'sheet',
  outer: roundedRectangle(297, 210, 0.2),
  holes: [],
  height: 0.1,
  bevel: 0,
  place: [-150, -105],
  turn: -3,
  material: squared,
};
const plate: Thing = { ...blade, place: [40, -60], turn: 60 };
/** Lies over a corner of the card. */
const ruleOver: Thing = { ...steelRule, place: [-130, -52], turn: -9, height: 1.6 };

const lens = { k1: -0.01, k2: 0.002, p1: 0.0002, p2: -0.0003, shift: [6, -9] as const };
const [width, height] = [2016, 1512];

/** Photographs of it, square-on and from aside, on wood, slate and squared paper, alone and with a corner covered. */
export const CARD_SCENES = {
  'card-on-wood': {
    name: 'wood',
    camera: { width, height, focal35mm: 27, place: [5, -4, 330], tilt: [1, -1.5, 8], lens },
    ground: wood,
    things: [PRINTED_CARD, plate],
    light: [0.8, -0.6],
    grain: 3,
  },
  'card-on-paper': {
    name: 'paper',
    camera: { width, height, focal35mm: 27, place: [10, -200, 270], tilt: [36, 2, -3], lens },
    ground: wood,
    things: [sheet, PRINTED_CARD],
    light: [0.8, -0.6],
    grain: 3,
  },
  'card-on-slate': {
    name: 'slate',
    camera: { width, height, focal35mm: 85, place: [200, -150, 930], tilt: [9, 12, 20], lens: { ...lens, k1: 0.004 } },
    ground: slate,
    things: [PRINTED_CARD, ruleOver],
    light: [0.8, -0.6],
    grain: 3,
  },
} satisfies Record<string, Scene>;

/** Where a place of the card is seen. */
export function seeOnCard({ camera }: Scene, [u, v]: Vec): Vec {
  const angle = (PRINTED_CARD.turn * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const place: Point = [PRINTED_CARD.place[0] + c * u - s * v, PRINTED_CARD.place[1] + s * u + c * v];
  return optics(camera).project(...place, PRINTED_CARD.height) as Vec;
}
