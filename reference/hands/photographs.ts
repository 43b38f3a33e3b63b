import { readFileSync } from 'node:fs';
import path from 'node:path';
import jpeg from 'jpeg-js';
import { encodePhoto } from '../../demo/generator/picture-file';
import { render, type Scene } from '../../demo/generator/render';
import { colourPictureFrom, createPyramid, type Pyramid } from '../../src/core/raster';
import { CARD_SCENES } from './cards';
import { sceneOf } from './plate';
import { atHalfSize, drawWorld } from './world';

/** The hinge plate on a sheet of paper, beside a light card, a token and a rule, up to 30° aside. */
const plateBy = (focal35mm: readonly [number, number], seed: number): Scene =>
  sceneOf({
    camera: atHalfSize(drawWorld({ focal35mm, tilt: [0, 30], told: true, fill: [0.6, 0.75] }, seed).camera),
  });

const SCENES = {
  ...CARD_SCENES,
  'plate-by-wide-lens': plateBy([24, 30], 991302),
  'plate-by-normal-lens': plateBy([40, 60], 991303),
  'plate-by-long-lens': plateBy([70, 110], 991301),
} satisfies Record<string, Scene>;

export type PhotographName = keyof typeof SCENES;
export const PHOTOGRAPHS: Readonly<Record<PhotographName, Scene>> = SCENES;

const FOLDER = path.join(__dirname, 'photographs');
export const photographFile = (name: PhotographName) => path.join(FOLDER, `${name}.jpg`);

/** A photograph as a file. It takes up to half a minute: they are kept beside this file, drawn again by draw-photographs.ts. */
export function drawPhotograph(name: PhotographName): Uint8Array {
  const scene = SCENES[name];
  const focal35mm = Math.round(scene.camera.focal35mm);
  return encodePhoto(
    render(scene),
    { camera: 'Phone', focalMm: focal35mm / 7, focal35mm, time: '2026:03:14 10:15:00' },
    92,
  );
}

/** As it is searched by a tap. */
export function openPhotograph(name: PhotographName): Pyramid {
  const { width, height, data } = jpeg.decode(readFileSync(photographFile(name)), { useTArray: true });
  return createPyramid(colourPictureFrom(width, height, data));
}
