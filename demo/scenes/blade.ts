import { card, rule, steel, wood } from '../generator/materials';
import { circleProfile, roundedRectangle, type Point, type Profile } from '../generator/profile';
import type { Scene, Thing } from '../generator/render';

/**
 * The workshop's pruner blade: 3 mm steel with two straight edges, tangent arcs, a free cutting curve, a worn tip, and four
 * holes of two sizes, beside a plain card of bank-card size and a steel rule. Photographed almost square-on.
 */
const BLADE: Profile = {
  start: [16, 14],
  strokes: [
    { kind: 'line', to: [92, 14] },
    // Leaves the lower edge tangentially: from (92, 14) along x, to (120, 5).
    { kind: 'arc', through: arcThrough([92, 14], [120, 5]), to: [120, 5] },
    { kind: 'curve', out: [150.9, -17.1], in: [204, 14], to: [209, 58] },
    { kind: 'arc', through: [209.4, 63.4], to: [205, 66] },
    // Meets the upper edge tangentially at (92, 46).
    { kind: 'arc', through: arcThrough([92, 46], [205, 66]), to: [92, 46] },
    { kind: 'line', to: [16, 46] },
    { kind: 'arc', through: [0, 30], to: [16, 14] },
  ],
};

/** A middle place of the arc that leaves `from` along x and ends at `to`. */
function arcThrough(from: Point, to: Point): Point {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const radius = (dx * dx + dy * dy) / (2 * dy);
  const half = Math.atan2(dy, dx);
  return [from[0] + radius * Math.sin(half), from[1] + radius * (1 - Math.cos(half))];
}

export const BLADE_HOLES: readonly { readonly centre: Point; readonly diameter: number }[] = [
  { centre: [18, 30], diameter: 8 },
  { centre: [66, 30], diameter: 8 },
  { centre: [112, 30], diameter: 14 },
  { centre: [150, 40], diameter: 8 },
];

export const blade: Thing = {
  name: 'pruner blade',
  outer: BLADE,
  holes: BLADE_HOLES.map(({ centre, diameter }) => circleProfile(centre, diameter / 2)),
  height: 3,
  bevel: 0.3,
  place: [-88, -38],
  turn: 4,
  material: steel,
};

/** ISO/IEC 7810 ID-1: 85.60 × 53.98 mm, 0.76 mm thick; corner radius 3.18 mm from memory. */
export const clubCard: Thing = {
  name: 'card',
  outer: roundedRectangle(85.6, 53.98, 3.18),
  holes: [],
  height: 0.76,
  bevel: 0,
  place: [-150, 46],
  turn: -3,
  material: card,
};

const RULE_ZERO = 6;
export const steelRule: Thing = {
  name: 'rule',
  outer: roundedRectangle(312, 25, 0.5),
  holes: [circleProfile([308, 18], 2.5)],
  height: 0.8,
  bevel: 0.1,
  place: [-158, -104],
  turn: 1,
  material: rule(RULE_ZERO, 300),
};

/** Strokes of the rule that the truth file names: mm on the rule, at the lower edge. */
export const RULE_MARKS: readonly { readonly mark: number; readonly at: Point }[] = [0, 20, 240, 260, 300].map(
  (mark) => ({ mark, at: [RULE_ZERO + mark, 0] }),
);

export const scene: Scene = {
  name: 'blade',
  camera: {
    width: 4032,
    height: 3024,
    focal35mm: 52,
    place: [6, 4, 566],
    tilt: [0.55, -0.4, 0.8],
    lens: { k1: -0.006, k2: 0.0015, p1: 0.0003, p2: -0.0002, shift: [11, -7] },
  },
  ground: wood,
  things: [blade, clubCard, steelRule],
  light: [0.9, -0.7],
  grain: 2.2,
};
