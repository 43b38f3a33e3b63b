import type { Point } from '../generator/profile';
import type { Drawing, Line } from '../generator/scan';

/**
 * The workshop's nest box, front and side, drawn at half size; mm of the thing. It was printed "to fit the page", which
 * stretched it across, and laid on the scanner askew. One printed figure is wrong: the hole sits 175 up, and it says 165.
 */
export const NEST_BOX = {
  width: 150,
  front: 250,
  back: 220,
  depth: 170,
  hole: { centre: [75, 175] as Point, diameter: 32 },
  misprint: 165,
};

const { width, front, back, depth, hole } = NEST_BOX;
const SIDE = 230;
const rectangle = (x: number, y: number, w: number, h: number): Line[] => [
  [
    [x, y],
    [x + w, y],
  ],
  [
    [x + w, y],
    [x + w, y + h],
  ],
  [
    [x + w, y + h],
    [x, y + h],
  ],
  [
    [x, y + h],
    [x, y],
  ],
];

/** Where the printed sizes end: what a practitioner would point at. */
export const NEST_BOX_SIZES: readonly {
  readonly name: string;
  readonly from: Point;
  readonly to: Point;
  readonly printed: number;
}[] = [
  { name: 'width', from: [0, 0], to: [width, 0], printed: width },
  { name: 'front', from: [0, 0], to: [0, front], printed: front },
  { name: 'depth', from: [SIDE, 0], to: [SIDE + depth, 0], printed: depth },
  { name: 'back', from: [SIDE + depth, 0], to: [SIDE + depth, back], printed: back },
  { name: 'hole height', from: [width / 2, 0], to: [width / 2, hole.centre[1]], printed: NEST_BOX.misprint },
];

export const nestBox: Drawing = {
  name: 'nest-box',
  paper: [297, 210],
  dpi: 300,
  ratio: 0.5,
  place: [52, 48],
  stretch: 1.018,
  askew: 1.3,
  lines: [
    ...rectangle(0, 0, width, front),
    [
      [-18, front],
      [width + 18, front],
    ],
    [
      [-18, front],
      [-18, front + 14],
    ],
    [
      [width + 18, front],
      [width + 18, front + 14],
    ],
    [
      [-18, front + 14],
      [width + 18, front + 14],
    ],
    [
      [SIDE, 0],
      [SIDE + depth, 0],
    ],
    [
      [SIDE + depth, 0],
      [SIDE + depth, back],
    ],
    [
      [SIDE + depth, back],
      [SIDE, front],
    ],
    [
      [SIDE, front],
      [SIDE, 0],
    ],
    [
      [SIDE - 24, front + 4.2],
      [SIDE + depth + 12, back - 2.1],
    ],
    [
      [SIDE - 22, front + 18],
      [SIDE + depth + 14, back + 11.5],
    ],
    [
      [SIDE - 24, front + 4.2],
      [SIDE - 22, front + 18],
    ],
    [
      [SIDE + depth + 12, back - 2.1],
      [SIDE + depth + 14, back + 11.5],
    ],
  ],
  circles: [{ centre: hole.centre, diameter: hole.diameter }],
  dimensions: [
    { from: [0, 0], to: [width, 0], away: -26, says: String(width) },
    { from: [0, 0], to: [0, front], away: 34, says: String(front) },
    { from: [SIDE, 0], to: [SIDE + depth, 0], away: -26, says: String(depth) },
    { from: [SIDE + depth, 0], to: [SIDE + depth, back], away: -28, says: String(back) },
    { from: [width, 0], to: [width, hole.centre[1]], away: -26, says: String(NEST_BOX.misprint) },
    {
      from: [width / 2 - hole.diameter / 2, hole.centre[1]],
      to: [width / 2 + hole.diameter / 2, hole.centre[1]],
      away: 30,
      says: String(hole.diameter),
    },
  ],
};
