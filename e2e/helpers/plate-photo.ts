import { optics } from '../../demo/generator/camera';
import { encodePhoto } from '../../demo/generator/picture-file';
import { render } from '../../demo/generator/render';
import { onThing, sceneOf, type ThingName } from '../../reference/hands/plate';
import { atHalfSize, drawWorld, type World } from '../../reference/hands/world';
import type { Vec } from '../../src/core/geometry';
import type { Px } from './hand';

/** A photograph of the hinge plate on a sheet of paper, beside a light card and a rule: no demo shows it. */
export interface PlatePhoto {
  /** Drawn when it is asked for: it takes a while. */
  develop(): { readonly name: string; readonly mimeType: string; readonly buffer: Buffer };
  /** Where a place on a thing (its own mm) is seen. */
  see(thing: ThingName, at: Vec): Px;
}

/** By a phone that is held somewhat aslant. */
export function photographPlate(): PlatePhoto {
  const { camera } = drawWorld({ focal35mm: [24, 30], tilt: [0, 30], told: true, fill: [0.6, 0.75] }, 991302);
  const half = atHalfSize(camera);
  const seen = optics(half);
  const focal35mm = Math.round(camera.focal35mm);
  const tags = { camera: 'Phone', focalMm: focal35mm / 7, focal35mm, time: '2026:03:14 10:15:00' };
  return {
    develop: () => ({
      name: 'hinge-plate.jpg',
      mimeType: 'image/jpeg',
      buffer: Buffer.from(encodePhoto(render(sceneOf({ camera: half } as World)), tags, 92)),
    }),
    see: (thing, at) => seen.project(...onThing(thing, at)) as Px,
  };
}
