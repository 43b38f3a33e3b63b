import type { Point } from '../generator/profile';
import { byHand, scanner, type Drawing, type Line } from '../generator/scan';
import { around, GLASSHOUSE } from './glasshouse';

const { length, width, gutter, door, hatch, low, eaves, ridge } = GLASSHOUSE;
const GLAZED = 8;
const GUTTER = 90;

/** A long side, as wide as it is long: the low wall, the glass above it, the roof. */
const longSide = (): Line[] => [
  ...around(0, 0, length, low),
  ...around(0, low, length, eaves),
  ...around(0, eaves, length, ridge),
  ...Array.from({ length: GLAZED - 1 }, (_, i): Line => {
    const across = ((i + 1) * length) / GLAZED;
    return [
      [across, low],
      [across, ridge],
    ];
  }),
];

/** A gable, its front at the left, with what is in it, and the gutters beside it. */
function gable(inIt: readonly Line[]): Line[] {
  const corners: readonly Point[] = [
    [0, 0],
    [width, 0],
    [width, eaves],
    [width / 2, ridge],
    [0, eaves],
  ];
  return [
    ...corners.map((corner, i): Line => [corner, corners[(i + 1) % corners.length]!]),
    ...around(-gutter, eaves - GUTTER, 0, eaves),
    ...around(width, eaves - GUTTER, width + gutter, eaves),
    ...inIt,
  ];
}
const flipped = (lines: readonly Line[], wide: number): Line[] =>
  lines.map((line) => line.map(([x, y]): Point => [wide - x, y]) as unknown as Line);
const moved = (lines: readonly Line[], by: number): Line[] =>
  lines.map((line) => line.map(([x, y]): Point => [x + by, y]) as unknown as Line);

/** Where the front begins on its sheet, right of the left gable: third angle. mm of the glasshouse */
export const FRONT_AT = 4400;
const figures = 12;

/** The left gable and the front on one old sheet of 420 × 297 mm (ISO 216 A3), with their printed sizes. */
export const glasshouseSides: Drawing = {
  name: 'glasshouse-sides',
  paper: [420, 297],
  dpi: 150,
  ratio: 1 / 25,
  place: [24, 80],
  stretch: 1,
  askew: 0.5,
  lines: [
    // Seen from the left the front is at the right.
    ...flipped(gable(around(door.from, 0, door.from + door.width, door.height)), width),
    ...moved(longSide(), FRONT_AT),
  ],
  circles: [],
  dimensions: [
    { from: [FRONT_AT, 0], to: [FRONT_AT + length, 0], away: -620, says: String(length), figures },
    { from: [FRONT_AT, 0], to: [FRONT_AT, ridge], away: 420, says: String(ridge) },
  ],
};

/** The back as somebody drew it from memory of its ratio: by hand on a small sheet, without any size. */
export const glasshouseBack: Drawing = {
  name: 'glasshouse-back',
  paper: [210, 148],
  dpi: 150,
  ratio: 1 / 37,
  place: [34, 40],
  stretch: 1,
  askew: -1.2,
  lines: longSide().flatMap((line, i) => byHand(line, 6, i)),
  circles: [],
  dimensions: [],
};

/** The right gable, drawn right. Its sheet was scanned from behind: see `fromBehind`. */
export const glasshouseRight: Drawing = {
  name: 'glasshouse-right',
  paper: [210, 148],
  dpi: 150,
  ratio: 1 / 25,
  place: [40, 26],
  stretch: 1,
  askew: 0.3,
  lines: gable(around(hatch.from, 0, hatch.from + hatch.width, hatch.height)),
  circles: [],
  dimensions: [{ from: [0, 0], to: [width, 0], away: -420, says: String(width), figures }],
};

/** Where a place of the right gable is seen on the scan that was taken through the back of its sheet, px. */
export function fromBehind(at: Point): Point {
  const { width: wide, project } = scanner(glasshouseRight);
  const [x, y] = project(at);
  return [wide - x, y];
}
