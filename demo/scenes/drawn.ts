import type { Point } from '../generator/profile';
import type { Drawing, Line } from '../generator/scan';

/** The potting shed as a ruled plan, mm: outer walls, a partition, a door, a window. */
export const SHED_PLAN = {
  width: 3600,
  depth: 2400,
  wall: 120,
  partition: 80,
  at: 2300,
  door: { from: 500, width: 820 },
  window: { from: 700, width: 1400 },
} as const;

const { width, depth, wall, partition, at, door, window } = SHED_PLAN;
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
const half = partition / 2;

export const shedPlan: Drawing = {
  name: 'shed-plan',
  paper: [297, 210],
  dpi: 200,
  ratio: 0.05,
  place: [56, 44],
  stretch: 1,
  askew: 0.6,
  lines: [
    ...rectangle(0, 0, width, depth),
    ...rectangle(wall, wall, at - half - wall, depth - 2 * wall),
    ...rectangle(at + half, wall, width - wall - at - half, depth - 2 * wall),
    [
      [door.from, 0],
      [door.from, wall],
    ],
    [
      [door.from + door.width, 0],
      [door.from + door.width, wall],
    ],
    [
      [window.from, depth - wall],
      [window.from, depth],
    ],
    [
      [window.from + window.width, depth - wall],
      [window.from + window.width, depth],
    ],
    [
      [window.from, depth - wall / 2],
      [window.from + window.width, depth - wall / 2],
    ],
  ],
  circles: [],
  dimensions: [
    { from: [0, 0], to: [width, 0], away: -420, says: String(width), figures: 10 },
    { from: [width, 0], to: [width, depth], away: -380, says: String(depth) },
  ],
};

/** A hook for a flower pot, bent from flat bar: the line along the middle of its thickness. mm */
export const HANGER = { thick: 4, straight: 60, hook: 18, drop: 45, foot: 12 } as const;

/** Pieces of the middle line as a draughtsman has them: up, around the hook, down. */
export const HANGER_LINE: readonly Point[] = [
  [0, 0],
  [0, HANGER.straight],
  [HANGER.hook, HANGER.straight + HANGER.hook],
  [2 * HANGER.hook, HANGER.straight],
  [2 * HANGER.hook, HANGER.straight - HANGER.drop],
];

function besideHanger(away: number): Point[] {
  const { straight, hook, drop } = HANGER;
  const arc = Array.from({ length: 41 }, (_, i): Point => {
    const angle = Math.PI - (i / 40) * Math.PI;
    return [hook + (hook + away) * Math.cos(angle), straight + (hook + away) * Math.sin(angle)];
  });
  return [[-away, 0], ...arc, [2 * hook + away, straight - drop]];
}

const through = (points: readonly Point[]): Line[] => points.slice(1).map((b, i) => [points[i]!, b]);
const [outer, inner] = [besideHanger(HANGER.thick / 2), besideHanger(-HANGER.thick / 2)];

export const hanger: Drawing = {
  name: 'hanger',
  paper: [148, 210],
  dpi: 300,
  ratio: 1,
  place: [55, 60],
  stretch: 1,
  askew: 0,
  lines: [...through(outer), ...through(inner), [outer[0]!, inner[0]!], [outer.at(-1)!, inner.at(-1)!]],
  circles: [],
  dimensions: [{ from: [0, 0], to: [0, HANGER.straight], away: 24, says: String(HANGER.straight), figures: 1 }],
};
