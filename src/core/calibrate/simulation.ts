/** For tests only: a true map, true places, and pictures of them with the noise of pointing. */
import type { Random } from '../basics';
import type { Vec } from '../geometry';
import { chooseModel, type LensWish, type ModelWish } from './models';
import type { Points } from './evidence';
import type { PictureGeometry } from './picture';
import { atHeight } from './projection';
import { toPlane, toSheet, type SheetMap } from './sheet-map';

/** A seeded generator of uniform and normal deviates (mulberry32; Box & Muller 1958). */
export function createRandom(seed: number): Random {
  let state = seed;
  const uniform = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return { uniform, normal: () => Math.sqrt(-2 * Math.log(uniform() + 1e-300)) * Math.cos(2 * Math.PI * uniform()) };
}

/** The true map of a model for these numbers, for what lies at a height. */
export function trueMap(
  picture: PictureGeometry,
  model: ModelWish,
  lens: LensWish,
  numbers: readonly number[],
  height = 0,
): SheetMap {
  return chooseModel(picture, model, lens, { turns: false, shifts: false }).mapAt(numbers, atHeight(height));
}

/** Named sheet places and where they truly lie on the plane. */
export function placesUnder(map: SheetMap, sheet: Readonly<Record<string, Vec>>): Readonly<Record<string, Vec>> {
  return Object.fromEntries(Object.entries(sheet).map(([name, at]) => [name, toPlane(map, at)]));
}

/** Pictures of plane places as somebody points at them. */
export function pointedByHand(
  map: SheetMap,
  plane: Readonly<Record<string, Vec>>,
  sigma: number,
  random: Random | undefined,
): Points {
  return Object.fromEntries(
    Object.entries(plane).map(([name, place]) => {
      const [x, y] = toSheet(map, place);
      return [
        name,
        { at: random ? ([x + sigma * random.normal(), y + sigma * random.normal()] as Vec) : ([x, y] as Vec), sigma },
      ];
    }),
  );
}
