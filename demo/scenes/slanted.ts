import { wood } from '../generator/materials';
import type { Scene } from '../generator/render';
import { blade, clubCard, steelRule } from './blade';

/** The same bench from a step aside: slanted by some 35°, through a lens that bows what is straight. */
export const slanted: Scene = {
  name: 'blade-slanted',
  camera: {
    width: 4032,
    height: 3024,
    focal35mm: 27,
    place: [0, -258, 318],
    tilt: [35, 1.5, 1.2],
    lens: { k1: -0.032, k2: 0.006, p1: 0.0003, p2: -0.0002, shift: [11, -7] },
  },
  ground: wood,
  things: [blade, clubCard, { ...steelRule, place: [-150, -162], turn: 0.4 }],
  light: [0.9, -0.7],
  grain: 2.2,
};
