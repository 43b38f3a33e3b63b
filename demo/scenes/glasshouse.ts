import type { Point } from '../generator/profile';
import type { Drawing, Line } from '../generator/scan';

/** The glasshouse from above as it is drawn, mm: its low wall, the gutter that stands out over it at both long sides, the ridge, the door in its gable. */
export const GLASSHOUSE = {
  length: 5100,
  width: 3200,
  wall: 215,
  gutter: 180,
  door: { from: 1150, width: 900 },
} as const;

const { length, width, wall, gutter, door } = GLASSHOUSE;
const around = (left: number, low: number, right: number, high: number): Line[] => {
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
  ],
  circles: [],
  dimensions: [
    { from: [0, 0], to: [length, 0], away: -620, says: String(length), figures: 12 },
    { from: [length, 0], to: [length, width], away: -420, says: String(width) },
  ],
};
