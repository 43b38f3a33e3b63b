import type { Point } from '../generator/profile';
import type { Drawing, Line } from '../generator/scan';

/** The glasshouse from above as it is drawn, mm: its low wall, the gutter that stands out over it at both long sides, the ridge, the door in its gable. */
export const GLASSHOUSE = {
  length: 5100,
  width: 3200,
  wall: 215,
  gutter: 180,
  door: { from: 1150, width: 900, height: 1950 },
  /** A hatch in the other gable, nearer the front. */
  hatch: { from: 420, width: 700, height: 900 },
  /** How high the low wall, the gutter and the ridge are. */
  low: 600,
  eaves: 1600,
  ridge: 2750,
} as const;

const { length, width, wall, gutter, door, hatch } = GLASSHOUSE;
export const around = (left: number, low: number, right: number, high: number): Line[] => {
  const corners: readonly Point[] = [
    [left, low],
    [right, low],
    [right, high],
    [left, high],
  ];
  return corners.map((corner, i) => [corner, corners[(i + 1) % corners.length]!]);
};

export const glasshousePlan: Drawing = {
  name: 'glasshouse-plan',
  paper: [297, 210],
  dpi: 200,
  ratio: 1 / 25,
  place: [46, 50],
  stretch: 1,
  askew: -0.7,
  lines: [
    ...around(0, 0, length, width),
    ...around(wall, wall, length - wall, width - wall),
    ...around(0, -gutter, length, width + gutter),
    [
      [0, width / 2],
      [length, width / 2],
    ],
    [
      [0, door.from],
      [wall, door.from],
    ],
    [
      [0, door.from + door.width],
      [wall, door.from + door.width],
    ],
    ...[hatch.from, hatch.from + hatch.width].map((deep): Line => [
      [length - wall, deep],
      [length, deep],
    ]),
  ],
  circles: [],
  dimensions: [
    { from: [0, 0], to: [length, 0], away: -620, says: String(length), figures: 12 },
    { from: [length, 0], to: [length, width], away: -420, says: String(width) },
  ],
};
