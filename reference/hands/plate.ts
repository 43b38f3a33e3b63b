import { card, rule, steel, wood, type Material } from '../../demo/generator/materials';
import { circleProfile, roundedRectangle, type Profile } from '../../demo/generator/profile';
import type { Scene, Thing } from '../../demo/generator/render';
import { smooth } from '../../demo/generator/noise';
import { dot, polar, type Vec } from '../../src/core/geometry';
import type { World } from './world';

/** A gate's hinge plate of 4 mm steel: three square corners, one rounded, one end cut off at an angle, holes of four sizes. mm, lower left corner at zero. */
const [WIDTH, DEPTH, ROUND, CUT] = [130, 76, 14, 24];
const k = ROUND * (1 - Math.SQRT1_2);
const PROFILE: Profile = {
  start: [0, 0],
  strokes: [
    { kind: 'line', to: [WIDTH, 0] },
    { kind: 'line', to: [WIDTH, DEPTH - ROUND] },
    { kind: 'arc', through: [WIDTH - k, DEPTH - k], to: [WIDTH - ROUND, DEPTH] },
    { kind: 'line', to: [CUT, DEPTH] },
    { kind: 'line', to: [0, 0] },
  ],
};
export const PLATE_HOLES: readonly { readonly centre: Vec; readonly diameter: number }[] = [
  { centre: [36, 22], diameter: 6 },
  { centre: [76, 22], diameter: 8 },
  { centre: [108, 40], diameter: 12 },
  { centre: [52, 52], diameter: 20 },
];
export const PLATE = {
  width: WIDTH,
  depth: DEPTH,
  round: ROUND,
  slope: Math.atan2(DEPTH, CUT),
  height: 4,
  place: [-62, -34] as Vec,
  turn: 3,
};

const paper: Material = (x, y) => [232 + 4 * smooth(x * 0.4, y * 0.4, 5), 231, 226];
const things = {
  plate: {
    name: 'hinge plate',
    outer: PROFILE,
    holes: PLATE_HOLES.map(({ centre, diameter }) => circleProfile([centre[0], centre[1]], diameter / 2)),
    height: PLATE.height,
    bevel: 0.1,
    place: PLATE.place,
    turn: PLATE.turn,
    material: steel,
  },
  sheet: {
    name: 'sheet',
    outer: roundedRectangle(297, 210, 0.1),
    holes: [],
    height: 0.1,
    bevel: 0,
    place: [-148, -103],
    turn: 0,
    material: paper,
  },
  card: {
    name: 'card',
    outer: roundedRectangle(85.6, 53.98, 3.18),
    holes: [],
    height: 0.76,
    bevel: 0,
    place: [-140, -96],
    turn: 2,
    material: card,
  },
  coin: {
    name: 'token',
    outer: circleProfile([0, 0], 12.5),
    holes: [],
    height: 2,
    bevel: 0,
    place: [112, -72],
    turn: 0,
    material: (): [number, number, number] => [176, 128, 62],
  },
  rule: {
    name: 'rule',
    outer: roundedRectangle(312, 25, 0.5),
    holes: [],
    height: 0.8,
    bevel: 0,
    place: [-156, 82],
    turn: 0,
    material: rule(6, 300),
  },
} satisfies Record<string, Thing>;
export type ThingName = keyof typeof things;

export const sceneOf = ({ camera }: Pick<World, 'camera'>): Scene => ({
  name: 'plate',
  camera,
  ground: wood,
  things: Object.values(things),
  light: [0.7, -0.5],
  grain: 3,
});

/** A place on a thing's upper face (its own mm), in the world. */
export function onThing(name: ThingName, [u, v]: Vec): readonly [number, number, number] {
  const { place, turn, height } = things[name];
  const along = polar(1, (turn * Math.PI) / 180);
  return [place[0] + dot([along[0], -along[1]], [u, v]), place[1] + dot([along[1], along[0]], [u, v]), height];
}

export const heightOf = (name: ThingName) => things[name].height;
