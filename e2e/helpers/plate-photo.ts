import { readFileSync } from 'node:fs';
import { optics } from '../../demo/generator/camera';
import { photographFile, PHOTOGRAPHS } from '../../reference/hands/photographs';
import { onThing, type ThingName } from '../../reference/hands/plate';
import type { Vec } from '../../src/core/geometry';
import type { Px } from './hand';

/** A photograph of the hinge plate on a sheet of paper, beside a light card and a rule, by a phone that is held somewhat aslant: no demo shows it. */
const NAME = 'plate-by-wide-lens';
const seen = optics(PHOTOGRAPHS[NAME].camera);

export const platePhoto = () => ({
  name: 'hinge-plate.jpg',
  mimeType: 'image/jpeg',
  buffer: readFileSync(photographFile(NAME)),
});

/** Where a place on a thing (its own mm) is seen on it. */
export const seeOnPlatePhoto = (thing: ThingName, at: Vec) => seen.project(...onThing(thing, at)) as Px;
