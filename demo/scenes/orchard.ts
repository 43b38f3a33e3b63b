import { hash, smooth } from '../generator/noise';
import type { Point } from '../generator/profile';
import type { Picture } from '../generator/render';

/** Metres to a pixel of the aerial picture. */
export const PIXEL = 0.05;

const boundary: readonly Point[] = [
  [0, 0],
  [64_000, 6_000],
  [61_500, 31_000],
  [-2_500, 25_000],
];
const shed: readonly Point[] = [
  [48_000, 9_000],
  [54_000, 9_500],
  [53_600, 13_500],
  [47_600, 13_000],
];

/** The garden wall that a glasshouse is to stand along. */
const wall: readonly Point[] = [
  [40_000, 21_500],
  [58_000, 24_000],
];

/** An orchard strip beside a lane: its boundary, a shed, a ditch. mm, x east, y north. */
export const ORCHARD = {
  boundary,
  shed,
  wall,
  picture: { left: -6_000, top: 36_000, width: 1500, height: 860 },
  layers: [
    { layer: 'boundary', closed: true, points: boundary },
    { layer: 'building', closed: true, points: shed },
    {
      layer: 'ditch',
      closed: false,
      points: [
        [-4_000, 28_000],
        [20_000, 30_000],
        [66_000, 34_500],
      ] as readonly Point[],
    },
  ],
};

const isInside = (polygon: readonly Point[], [x, y]: Point) =>
  polygon.reduce((inside, [ax, ay], i) => {
    const [bx, by] = polygon[(i + 1) % polygon.length]!;
    return ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax) ? !inside : inside;
  }, false);

function edgeDistance(polygon: readonly Point[], [x, y]: Point): number {
  return Math.min(
    ...polygon.map(([ax, ay], i) => {
      const [bx, by] = polygon[(i + 1) % polygon.length]!;
      const t = Math.max(
        0,
        Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2)),
      );
      return Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay));
    }),
  );
}

/** Paints some rows of the orchard from above: grass, rows of trees, the shed's roof, a hedge along the boundary, the lane. In strips, since it takes a while. */
export function paintAerial({ width, data }: Picture, from: number, to: number): void {
  const { left, top } = ORCHARD.picture;
  for (let i = from * width; i < to * width; i++) {
    const at: Point = [left + ((i % width) + 0.5) * PIXEL * 1000, top - (Math.floor(i / width) + 0.5) * PIXEL * 1000];
    const colour = colourAt(at);
    const grain = 0.9 + 0.2 * hash(i % width, Math.floor(i / width), 3);
    for (let c = 0; c < 3; c++) data[4 * i + c] = Math.min(255, Math.round(colour[c]! * grain));
    data[4 * i + 3] = 255;
  }
}

function colourAt(at: Point): readonly [number, number, number] {
  const [x, y] = at;
  const inside = isInside(boundary, at);
  if (y < -1_500 + x * 0.094 && y > -4_800 + x * 0.094) return [142, 136, 128];
  if (isInside(shed, at)) return y - 9_000 - (x - 48_000) * 0.083 > 2_000 ? [150, 84, 66] : [128, 70, 56];
  if (edgeDistance([wall[0]!, wall[1]!], at) < 180) return [164, 108, 84];
  if (edgeDistance(boundary, at) < 450) return [58, 84, 48];
  const [row, column] = [Math.round((y - x * 0.094) / 5_000), Math.round(x / 5_500)];
  const tree: Point = [column * 5_500, row * 5_000 + column * 5_500 * 0.094];
  const crown = 1_500 + 500 * hash(row, column, 9) + 300 * smooth(x * 0.003, y * 0.003, 4);
  if (inside && row > 0 && row < 5 && column > 0 && column < 8 && Math.hypot(x - tree[0], y - tree[1]) < crown)
    return [70 + 20 * hash(row, column, 1), 104, 58];
  const grass = 0.85 + 0.3 * smooth(x * 0.0006, y * 0.0006, 5);
  return inside ? [128 * grass, 150 * grass, 84 * grass] : [150 * grass, 152 * grass, 104 * grass];
}
