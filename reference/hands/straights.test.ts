/** Straight edges that the picture offers by itself, on photographs from our own generator: of things, not of grain, those far from its middle first, and each where the thing's edge is seen. */
import { optics, type Camera } from '../../demo/generator/camera';
import { mix, distance, type Vec } from '../../src/core/geometry';
import { isOnEdge, listStraights } from '../../src/core/raster';
import { openPhotograph, PHOTOGRAPHS } from './photographs';
import { onThing, PLATE, type ThingName } from './plate';

const around = (width: number, depth: number): readonly Vec[] => [
  [0, 0],
  [width, 0],
  [width, depth],
  [0, depth],
  [0, 0],
];
const OUTLINES: readonly (readonly [ThingName, readonly Vec[]])[] = [
  ['sheet', around(297, 210)],
  ['card', around(85.6, 53.98)],
  ['rule', around(312, 25)],
  ['plate', [...around(PLATE.width, PLATE.depth).slice(0, 4), [0, 0]]],
];

/** How far a place of the picture is from where the straight sides of things are seen. px */
function awayFromThings(camera: Camera, place: Vec): number {
  const { project } = optics(camera);
  const seen = OUTLINES.flatMap(([name, corners]) =>
    corners
      .slice(1)
      .flatMap((to, i) =>
        Array.from({ length: 200 }, (_, k) => project(...onThing(name, mix(corners[i]!, to, k / 199))) as Vec),
      ),
  );
  return Math.min(...seen.map((at) => distance(at, place)));
}

it('are of things, far from the middle, and each another one', () => {
  const { camera } = PHOTOGRAPHS['plate-by-wide-lens'];
  const offered = listStraights(openPhotograph('plate-by-wide-lens'), 3);
  expect(offered).toHaveLength(3);
  for (const edges of offered) {
    expect(distance(edges[0]!.at, edges.at(-1)!.at)).toBeGreaterThan(0.12 * Math.hypot(camera.width, camera.height));
    // A sheet's edge, its rule's and their shadows lie side by side; none is grain.
    for (const { at } of edges) expect(awayFromThings(camera, at)).toBeLessThan(5);
  }
  offered.forEach((edges, i) =>
    offered.slice(0, i).forEach((other) => expect(isOnEdge(edges[edges.length >> 1]!.at, other)).toBe(false)),
  );
});
