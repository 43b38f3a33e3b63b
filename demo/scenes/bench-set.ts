import { smooth } from '../generator/noise';
import type { Point } from '../generator/profile';
import type { Drawing, Ground, Line } from '../generator/scan';

/** The garden bench, mm: seat, back, legs. */
export const BENCH = { length: 1500, height: 850, seat: 440, depth: 580, board: 45, leg: 90 } as const;

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
const { length, height, seat, depth, board, leg } = BENCH;
const SIDE = 1900;
const TOP = 1150;
const slats = (x: number, y: number, count: number): Line[] =>
  Array.from({ length: count }, (_, i) => rectangle(x, y + i * (depth / count), length, depth / count - 18)).flat();
const figures = 5;

/** What is printed for the depth of the seat, which is 580: somebody misread a figure when the sheet was drawn anew. */
export const WRONG_DEPTH = 560;

/** Front, side and top at 1:10 on a sheet of 420 × 297 mm (ISO 216 A3). */
export const benchSet: Drawing = {
  name: 'bench',
  paper: [420, 297],
  dpi: 200,
  ratio: 0.1,
  place: [55, 50],
  stretch: 1,
  askew: 0,
  lines: [
    ...rectangle(0, 0, leg, seat - board),
    ...rectangle(length - leg, 0, leg, seat - board),
    ...rectangle(0, seat - board, length, board),
    ...rectangle(0, seat, 60, height - seat),
    ...rectangle(length - 60, seat, 60, height - seat),
    ...rectangle(60, height - 110, length - 120, 110),
    ...rectangle(60, seat + 90, length - 120, 90),
    ...rectangle(SIDE, 0, leg, seat - board),
    ...rectangle(SIDE + depth - leg, 0, leg, seat - board),
    ...rectangle(SIDE, seat - board, depth, board),
    [
      [SIDE + depth - 60, seat],
      [SIDE + depth + 40, height],
    ],
    [
      [SIDE + depth + 40, height],
      [SIDE + depth - 20, height],
    ],
    [
      [SIDE + depth - 20, height],
      [SIDE + depth - 110, seat],
    ],
    ...slats(0, TOP, 5),
  ],
  circles: [
    { centre: [leg / 2, seat - board / 2], diameter: 14 },
    { centre: [length - leg / 2, seat - board / 2], diameter: 14 },
  ],
  dimensions: [
    { from: [0, 0], to: [length, 0], away: -150, says: String(length), figures },
    { from: [0, 0], to: [0, height], away: 150, says: String(height) },
    { from: [SIDE, 0], to: [SIDE + depth, 0], away: -150, says: String(WRONG_DEPTH) },
    { from: [length, 0], to: [length, seat], away: -110, says: String(seat) },
  ],
};

/** Where side and top begin on the sheet beside the front, mm of the bench. */
export const BENCH_PLACES = { side: SIDE, top: TOP, leansBack: 40 } as const;

/** The same set as an old print, scanned a little askew. */
export const benchViews: Drawing = { ...benchSet, name: 'bench-views', dpi: 150, askew: 0.4 };

/** The same workshop's sheet of details, as an old scan: yellowed, dusty, folded across the middle, askew. */
export const benchDetails: Drawing = {
  name: 'bench-details',
  paper: [420, 297],
  dpi: 150,
  ratio: 0.5,
  place: [70, 60],
  stretch: 1,
  askew: -1.4,
  lines: [
    ...rectangle(0, 0, 220, 300),
    ...rectangle(0, 300, 220, 45),
    ...rectangle(60, 180, 100, 120),
    ...rectangle(330, 40, 180, 60),
    ...rectangle(350, 230, 160, 95),
    ...rectangle(365, 245, 130, 65),
    [
      [330, 100],
      [370, 140],
    ],
    [
      [510, 100],
      [550, 140],
    ],
    [
      [370, 140],
      [550, 140],
    ],
    [
      [550, 140],
      [550, 80],
    ],
    [
      [550, 80],
      [510, 40],
    ],
  ],
  circles: [
    { centre: [110, 240], diameter: 14 },
    { centre: [420, 70], diameter: 10 },
  ],
  dimensions: [
    { from: [0, 0], to: [220, 0], away: -30, says: '220' },
    { from: [330, 40], to: [510, 40], away: -34, says: '180' },
    { from: [0, 0], to: [0, 300], away: 34, says: '300' },
  ],
};

export const dustyFold: Ground = {
  paper(x, y, width, height) {
    const fold = Math.abs(y - height * 0.5 - 6 * smooth(x * 0.01, 1, 5));
    const shade = 1 - 0.16 * Math.exp(-((fold / 3) ** 2)) - 0.05 * Math.exp(-((fold / 40) ** 2));
    const tone = (226 + 12 * smooth(x * 0.003, y * 0.003, 7) - 26 * (x / width) ** 2) * shade;
    return [tone, tone * 0.965, tone * 0.86];
  },
  ink: 0.7,
  specks: { count: 900, largest: 5 },
};

/** The potting shed's plan as a pencil sketch without sizes on brown wrapping paper: walls, door, bench, window. mm of the shed. */
export const SHED = { width: 3600, depth: 2400, wall: 120 } as const;
const wall = SHED.wall;
export const SHED_LINES: readonly Line[] = [
  ...rectangle(0, 0, SHED.width, SHED.depth),
  ...rectangle(wall, wall, SHED.width - 2 * wall, SHED.depth - 2 * wall),
  [
    [1300, 0],
    [1300, wall],
  ],
  [
    [2120, 0],
    [2120, wall],
  ],
  [
    [1300, wall],
    [1300, 940],
  ],
  ...rectangle(wall, SHED.depth - wall - 620, SHED.width - 2 * wall, 620),
  [
    [900, SHED.depth - wall],
    [900, SHED.depth],
  ],
  [
    [2500, SHED.depth - wall],
    [2500, SHED.depth],
  ],
  [
    [900, SHED.depth - wall / 2],
    [2500, SHED.depth - wall / 2],
  ],
];
/** The swing of the door. */
export const SHED_SWING: readonly Line[] = Array.from({ length: 12 }, (_, i): Line => [swing(i), swing(i + 1)]);

function swing(i: number): Point {
  const angle = (i / 12) * (Math.PI / 2);
  return [1300 + 820 * Math.sin(angle), wall + 820 * Math.cos(angle)];
}

export const wrappingPaper: Ground = {
  paper(x, y) {
    const fibre = 0.93 + 0.07 * smooth(x * 0.25, y * 0.02, 3) + 0.05 * smooth(x * 0.01, y * 0.01, 8);
    return [186 * fibre, 148 * fibre, 104 * fibre];
  },
  ink: 0.68,
};
