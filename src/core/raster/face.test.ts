import fc from 'fast-check';
import { add, distance, findEllipse, polar, type Vec } from '../geometry';
import { draw } from './draw-for-tests';
import { listFacesAround } from './face';
import { createPyramid } from './pyramid';

const [FACE, WALL, GROUND] = [120, 40, 226];
const MIDDLE: Vec = [65, 65];

/** A hole in a grey face over bright ground: its wall seen on one side, and from there a shade across the ground that grows brighter through all that lies between, the face's own grey as well. */
const hole = (radius: number, wall: number, shade: number, way: number) => (x: number, y: number) => {
  if (distance([x, y], MIDDLE) > radius) return FACE;
  const [across, along] = [Math.cos(way), Math.sin(way)];
  if (distance([x, y], add(MIDDLE, polar(wall, way))) > radius) return WALL;
  const far = (x - MIDDLE[0]) * across + (y - MIDDLE[1]) * along + radius - wall;
  return Math.min(GROUND, WALL + ((GROUND - WALL) * far) / shade);
};

describe('the face about a hole', () => {
  it('ends at its rim all around, whatever is seen in it, from anywhere in it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 14, max: 26, noNaN: true }),
        fc.double({ min: 0.1, max: 0.5, noNaN: true }),
        fc.double({ min: 0.1, max: 0.8, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.tuple(fc.double({ min: 0, max: 0.5, noNaN: true }), fc.double({ min: 0, max: 6.28, noNaN: true })),
        (radius, wall, shade, way, [out, where]) => {
          const picture = draw(130, 130, 3, 5, hole(radius, wall * radius, shade * radius, way));
          const [dx, dy] = polar(out * radius, where);
          const faces = listFacesAround(createPyramid(picture), [MIDDLE[0] + dx, MIDDLE[1] + dy], 1.7);
          const rims = faces.map((ends) => findEllipse(ends)!);
          // A ring on the lit ground alone may be offered before it: the largest is the rim.
          const [rim] = rims.sort((a, b) => b.axes[0] - a.axes[0]);
          expect(rim).toBeDefined();
          expect(distance(rim!.centre, MIDDLE)).toBeLessThan(0.06 * radius);
          rim!.axes.forEach((axis) => expect(Math.abs(axis / radius - 1)).toBeLessThan(0.08));
        },
      ),
      { numRuns: 25 },
    );
  });

  it('is not there on an even face, nor in grain', () => {
    for (const noise of [0, 6])
      expect(listFacesAround(createPyramid(draw(130, 130, noise, 9, () => FACE)), MIDDLE, 1.7)).toEqual([]);
  });
});
