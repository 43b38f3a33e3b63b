/** The photographs that are kept are what the generator draws today. */
import jpeg from 'jpeg-js';
import { readFileSync } from 'node:fs';
import { createDarkroom, type Picture } from '../../demo/generator/render';
import { photographFile, PHOTOGRAPHS, type PhotographName } from './photographs';

/** Windows that are compared, px across, and how many of them from rim to rim. */
const WINDOW = 24;
const ACROSS = 9;

/** Mean colours of a part of a picture: grain, and what compression adds, is gone in them. */
function meanOf({ width, data }: Picture, left: number, top: number): readonly number[] {
  const sums = [0, 0, 0];
  for (let y = top; y < top + WINDOW; y++)
    for (let x = left; x < left + WINDOW; x++)
      for (let c = 0; c < 3; c++) sums[c]! += data[4 * (y * width + x) + c]! / WINDOW ** 2;
  return sums;
}

it.each(Object.keys(PHOTOGRAPHS) as PhotographName[])('%s', (name) => {
  const kept = jpeg.decode(readFileSync(photographFile(name)), { useTArray: true });
  const { camera } = PHOTOGRAPHS[name];
  expect([kept.width, kept.height]).toEqual([camera.width, camera.height]);
  const develop = createDarkroom(PHOTOGRAPHS[name]);
  const spread = (size: number, i: number) => Math.round(((size - WINDOW) * i) / (ACROSS - 1));
  for (let i = 0; i < ACROSS; i++)
    for (let k = 0; k < ACROSS; k++) {
      const [left, top] = [spread(camera.width, i), spread(camera.height, k)];
      const drawn = meanOf(develop(left, top, WINDOW, WINDOW, 5), 0, 0);
      meanOf(kept, left, top).forEach((value, c) => expect(Math.abs(value - drawn[c]!)).toBeLessThan(2.5));
    }
});
