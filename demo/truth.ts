import { optics } from './generator/camera';
import { toPolygon, type Point, type Stroke } from './generator/profile';
import type { Scene, Thing } from './generator/render';
import { blade, BLADE_HOLES, clubCard, RULE_MARKS, steelRule } from './scenes/blade';

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
  const rim = blade.height - blade.bevel;
  const polygon = toPolygon(blade.outer);
  const xs = polygon.map((p) => p[0]);
  const ys = polygon.map((p) => p[1]);
  const stroke = (s: Stroke) => ({
    kind: s.kind,
    to: { mm: s.to, px: seen(blade, s.to, rim) },
    ...(s.kind === 'arc' ? { through: { mm: s.through, px: seen(blade, s.through, rim) } } : {}),
    ...(s.kind === 'curve' ? { out: { mm: s.out, px: seen(blade, s.out, rim) }, in: { mm: s.in, px: seen(blade, s.in, rim) } } : {}),
  });
  return {
    picture: { width: scene.camera.width, height: scene.camera.height },
    blade: {
      height: blade.height, rim, turn: blade.turn,
      width: Math.max(...xs) - Math.min(...xs), depth: Math.max(...ys) - Math.min(...ys), area: areaOf(polygon),
      start: { mm: blade.outer.start, px: seen(blade, blade.outer.start, rim) },
      strokes: blade.outer.strokes.map(stroke),
      holes: BLADE_HOLES.map(({ centre, diameter }) => ({
        centre, diameter, px: seen(blade, centre, rim),
        rimPx: [0, 90, 180, 270].map((angle): Point => {
          const a = (angle * Math.PI) / 180;
          return seen(blade, [centre[0] + (diameter / 2) * Math.cos(a), centre[1] + (diameter / 2) * Math.sin(a)], rim);
        }),
      })),
    },
    card: {
      width: 85.6, height: 53.98, rim: clubCard.height,
      left: seen(clubCard, [0, 26.99], clubCard.height), right: seen(clubCard, [85.6, 26.99], clubCard.height),
      bottom: seen(clubCard, [42.8, 0], clubCard.height), top: seen(clubCard, [42.8, 53.98], clubCard.height),
    },
    rule: { rim: steelRule.height, marks: RULE_MARKS.map(({ mark, at }) => ({ mark, px: seen(steelRule, at, steelRule.height) })) },
  };
}

/** Gauss's area formula over the fine polygon. */
function areaOf(polygon: readonly Point[]): number {
  return Math.abs(polygon.reduce((sum, a, i) => {
    const b = polygon[(i + 1) % polygon.length]!;
    return sum + a[0] * b[1] - b[0] * a[1];
  }, 0)) / 2;
}
