import { optics } from './generator/camera';
import { toPolygon, type Point, type Stroke } from './generator/profile';
import type { Scene, Thing } from './generator/render';
import { scanner, type Drawing } from './generator/scan';
import { blade, BLADE_HOLES, clubCard, RULE_MARKS } from './scenes/blade';
import { NEST_BOX, NEST_BOX_SIZES } from './scenes/nest-box';
import { HANGER, HANGER_LINE, hanger, SHED_PLAN, shedPlan } from './scenes/drawn';

/** Two places on each side of the card, around from the lower one, clear of the rounded corners. mm on the card. */
const CARD_SIDES: readonly (readonly Point[])[] = [
  [
    [14, 0],
    [71, 0],
  ],
  [
    [85.6, 10],
    [85.6, 44],
  ],
  [
    [71, 53.98],
    [14, 53.98],
  ],
  [
    [0, 44],
    [0, 10],
  ],
];

const onBench = (thing: Thing, [x, y]: Point): Point => {
  const angle = (thing.turn * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [thing.place[0] + c * x - s * y, thing.place[1] + s * x + c * y];
};

/** What is true of the blade scene: sizes in mm on the things themselves, and where their points are seen, in pixels. */
export function truthOf(scene: Scene) {
  const { project } = optics(scene.camera);
  const seen = (thing: Thing, at: Point, z: number): Point => project(...onBench(thing, at), z);
  // The rim that a camera above sees is the widest one: below the bevel.
  const steelRule = scene.things.find(({ name }) => name === 'rule')!;
  const rim = blade.height - blade.bevel;
  const polygon = toPolygon(blade.outer);
  const xs = polygon.map((p) => p[0]);
  const ys = polygon.map((p) => p[1]);
  const stroke = (s: Stroke) => ({
    kind: s.kind,
    to: { mm: s.to, px: seen(blade, s.to, rim) },
    ...(s.kind === 'arc' ? { through: { mm: s.through, px: seen(blade, s.through, rim) } } : {}),
    ...(s.kind === 'curve'
      ? { out: { mm: s.out, px: seen(blade, s.out, rim) }, in: { mm: s.in, px: seen(blade, s.in, rim) } }
      : {}),
  });
  return {
    picture: { width: scene.camera.width, height: scene.camera.height },
    blade: {
      height: blade.height,
      rim,
      turn: blade.turn,
      width: Math.max(...xs) - Math.min(...xs),
      depth: Math.max(...ys) - Math.min(...ys),
      area: areaOf(polygon),
      start: { mm: blade.outer.start, px: seen(blade, blade.outer.start, rim) },
      strokes: blade.outer.strokes.map(stroke),
      holes: BLADE_HOLES.map(({ centre, diameter }) => ({
        centre,
        diameter,
        px: seen(blade, centre, rim),
        rimPx: [0, 90, 180, 270].map((angle): Point => {
          const a = (angle * Math.PI) / 180;
          return seen(blade, [centre[0] + (diameter / 2) * Math.cos(a), centre[1] + (diameter / 2) * Math.sin(a)], rim);
        }),
      })),
    },
    card: {
      width: 85.6,
      height: 53.98,
      rim: clubCard.height,
      left: seen(clubCard, [0, 26.99], clubCard.height),
      right: seen(clubCard, [85.6, 26.99], clubCard.height),
      sidesPx: CARD_SIDES.map((side) => side.map((at) => seen(clubCard, at, clubCard.height))),
      bottom: seen(clubCard, [42.8, 0], clubCard.height),
      top: seen(clubCard, [42.8, 53.98], clubCard.height),
    },
    rule: {
      rim: steelRule.height,
      upperEdgePx: RULE_MARKS.map(({ at }) => seen(steelRule, [at[0], 25], steelRule.height)),
      marks: RULE_MARKS.map(({ mark, at }) => ({ mark, px: seen(steelRule, at, steelRule.height) })),
    },
  };
}

/** What is true of the nest box drawing: sizes of the thing, and where their ends are seen. */
export function truthOfNestBox(drawing: Drawing) {
  const { width, height, project } = scanner(drawing);
  const { hole } = NEST_BOX;
  return {
    picture: { width, height },
    stretch: drawing.stretch,
    askew: drawing.askew,
    sizes: NEST_BOX_SIZES.map(({ name, from, to, printed }) => ({
      name,
      printed,
      mm: Math.hypot(to[0] - from[0], to[1] - from[1]),
      from: project(from),
      to: project(to),
    })),
    hole: {
      ...hole,
      px: project(hole.centre),
      rimPx: [0, 60, 120, 180, 240, 300].map((a) =>
        project([
          hole.centre[0] + (hole.diameter / 2) * Math.cos((a * Math.PI) / 180),
          hole.centre[1] + (hole.diameter / 2) * Math.sin((a * Math.PI) / 180),
        ]),
      ),
    },
  };
}

/** What is true of the shed's plan and of the hanger, and where it is seen: corners of the shed, ends of the partition, places along the hanger's middle line. */
export function truthOfDrawn() {
  const [plan, hook] = [scanner(shedPlan), scanner(hanger)];
  const { width, depth, wall, partition, at } = SHED_PLAN;
  const inside = depth - 2 * wall;
  return {
    shed: {
      picture: { width: plan.width, height: plan.height },
      ...SHED_PLAN,
      rooms: [(at - partition / 2 - wall) * inside, (width - wall - at - partition / 2) * inside],
      cornersPx: (
        [
          [0, 0],
          [width, 0],
          [width, depth],
          [0, depth],
        ] as const
      ).map(plan.project),
      partitionPx: (
        [
          [at, wall],
          [at, depth - wall],
        ] as const
      ).map(plan.project),
    },
    hanger: { picture: { width: hook.width, height: hook.height }, ...HANGER, linePx: HANGER_LINE.map(hook.project) },
  };
}

/** Gauss's area formula over the fine polygon. */
function areaOf(polygon: readonly Point[]): number {
  return (
    Math.abs(
      polygon.reduce((sum, a, i) => {
        const b = polygon[(i + 1) % polygon.length]!;
        return sum + a[0] * b[1] - b[0] * a[1];
      }, 0),
    ) / 2
  );
}
