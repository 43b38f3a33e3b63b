import { circleProfile, type Point, type Profile } from '../generator/profile';
import type { Color, Material } from '../generator/materials';
import { smooth } from '../generator/noise';
import type { Scene, Thing } from '../generator/render';
import { clubCard } from './blade';

/** The watering can, mm: its body is round, the spout rises to the side. */
export const CAN = { diameter: 180, height: 200, spout: 330, handle: 110 } as const;

const polygon = (points: readonly Point[]): Profile => ({
  start: points[0]!,
  strokes: [...points.slice(1), points[0]!].map((to) => ({ kind: 'line' as const, to })),
});
const tin: Material = (x, y): Color => {
  const shade = 0.82 + 0.22 * smooth(x * 0.02, y * 0.02, 31) + 0.06 * smooth(x * 0.4, y * 3, 33);
  return [72 * shade, 108 * shade, 92 * shade];
};
const board: Material = (x, y): Color => {
  const shade = 0.95 + 0.06 * smooth(x * 0.01, y * 0.01, 37);
  return [226 * shade, 222 * shade, 212 * shade];
};

const r = CAN.diameter / 2;
const body: readonly Point[] = [
  [-r, 0],
  [r, 0],
  [r, CAN.height],
  [-r, CAN.height],
];
const sides: Readonly<
  Record<'front' | 'side' | 'top', { readonly outer: Profile; readonly holes: readonly Profile[] }>
> = {
  front: {
    outer: polygon([
      ...body.slice(0, 3),
      [30, CAN.height],
      [30, CAN.height + CAN.handle],
      [-30, CAN.height + CAN.handle],
      [-30, CAN.height],
      [-r, CAN.height],
    ]),
    holes: [
      polygon([
        [-18, CAN.height + 12],
        [18, CAN.height + 12],
        [18, CAN.height + 92],
        [-18, CAN.height + 92],
      ]),
    ],
  },
  side: {
    outer: polygon([
      [-r, 0],
      [r, 0],
      [r, 60],
      [CAN.spout - r, CAN.height + 40],
      [CAN.spout - r - 34, CAN.height + 52],
      [r, 110],
      [r, CAN.height],
      [40, CAN.height],
      [20, CAN.height + CAN.handle],
      [-60, CAN.height + CAN.handle],
      [-r, CAN.height],
    ]),
    holes: [
      polygon([
        [-66, CAN.height + 10],
        [20, CAN.height + 10],
        [6, CAN.height + 90],
        [-50, CAN.height + 90],
      ]),
    ],
  },
  top: {
    outer: polygon([
      ...Array.from({ length: 60 }, (_, i): Point => [
        r * Math.cos(((i + 2) / 64) * 2 * Math.PI),
        r * Math.sin(((i + 2) / 64) * 2 * Math.PI),
      ]),
      [r + 40, -10],
      [CAN.spout - r, -26],
      [CAN.spout - r, 26],
      [r + 40, 10],
    ]),
    holes: [circleProfile([-20, 0], 42)],
  },
};

/** A side as it is seen before a plain board: a little off square, a card beside it. */
function seen(side: keyof typeof sides, tilt: readonly [number, number, number], place: Point): Scene {
  const can: Thing = { name: `can ${side}`, ...sides[side], height: 4, bevel: 0.6, place, turn: 0, material: tin };
  const card: Thing = { ...clubCard, place: [-230, -20], turn: 2 };
  return {
    name: `can-${side}`,
    camera: {
      width: 1800,
      height: 1350,
      focal35mm: 40,
      place: [30, 130, 760],
      tilt,
      lens: { k1: -0.003, k2: 0, p1: 0, p2: 0, shift: [3, -2] },
    },
    ground: board,
    things: [can, card],
    light: [0.7, -0.6],
    grain: 1.8,
  };
}

export const canScenes: readonly Scene[] = [
  seen('front', [0.4, -0.3, 0.6], [30, 0]),
  seen('side', [-0.5, 0.6, -0.8], [0, 0]),
  seen('top', [0.3, 0.5, 0.2], [20, 130]),
];
