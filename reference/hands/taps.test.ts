/**
 * One tap on a card: of a printed card, on slate by a long lens with a corner covered and on grained wood beside steel, its four sides are found from anywhere on it; white on white squared
 * paper, an honest "not found" is better than sides of other things.
 */
import { createPyramid, colourPictureFrom, findSides } from '../../src/core/raster';
import { misfitOfRectangle, type PictureGeometry } from '../../src/core/calibrate';
import { createRandom } from '../../src/core/calibrate/simulation';
import { crossingOfLines, distance, lineThrough, type Vec } from '../../src/core/geometry';
import { optics } from '../../demo/generator/camera';
import type { Scene } from '../../demo/generator/render';
import { CARD_PHOTOS, photograph, seeOnCard } from './cards';
import { onThing, sceneOf } from './plate';
import { drawWorld, type World } from './world';

const CORNERS: readonly Vec[] = [
  [0, 0],
  [85.6, 0],
  [85.6, 53.98],
  [0, 53.98],
];

const tapOn = (name: string, taps: number) =>
  tapIn(CARD_PHOTOS[name]!, (at) => seeOnCard(CARD_PHOTOS[name]!, at), taps);

function tapIn(scene: Scene, see: (onCard: Vec) => Vec, taps: number) {
  const { width, height, data } = photograph(scene);
  const pyramid = createPyramid(colourPictureFrom(width, height, data));
  const picture: PictureGeometry = { width, height, kind: 'photo', focal35mm: scene.camera.focal35mm };
  const random = createRandom(9);
  const truth = CORNERS.map(see);
  return Array.from({ length: taps }, () => {
    const [u, v] = [3 + 79 * random.uniform(), 3 + 48 * random.uniform()];
    const tap = see([u, v]);
    const sides = findSides(pyramid, tap, (corners) => misfitOfRectangle(picture, corners, 85.6 / 53.98));
    if (!sides) return 'not found';
    const lines = sides.map((side) => lineThrough(side.map(({ at }) => at)));
    const corners = lines.map((line, i) => crossingOfLines(lines[(i + 3) % 4]!, line));
    // Lens and slant bend a side by a pixel or so between its ends.
    return truth.every((corner) => Math.min(...corners.map((other) => distance(other, corner))) < 3)
      ? 'right'
      : u > 40 && u < 80 && v > 8 && v < 33
        ? 'its picture'
        : 'wild';
  });
}

it.each(['on slate by a long lens, a corner covered', 'on wood, square-on'])(
  '%s: found from 19 of 20 places, and never wrong',
  (name) => {
    const found = tapOn(name, 20);
    expect(found.filter((one) => one === 'right').length).toBeGreaterThanOrEqual(19);
    expect(found.filter((one) => one === 'right' || one === 'not found')).toHaveLength(20);
  },
);

// The paper is hardly brighter than the card: on two sides a thin shadow lies between them, on the others nothing does.
it('plain, on white paper, by a wide lens: found from everywhere', () => {
  const { camera } = drawWorld({ focal35mm: [24, 30], tilt: [0, 30], told: true, fill: [0.6, 0.75] }, 991300);
  const half = { ...camera, width: 2016, height: 1512, lens: { ...camera.lens, shift: [3, -2] as const } };
  const seen = optics(half);
  const found = tapIn(sceneOf({ camera: half } as World), (at) => seen.project(...onThing('card', at)) as Vec, 10);
  expect(found).toEqual(Array.from({ length: 10 }, () => 'right'));
});

// White on white: only its shadow shows, and where that is too faint what is printed on it, of a card's own proportion, is the only card there is to see.
it('white on white squared paper, from aside: found from most places, and wrong only inside the picture that is printed on it', () => {
  const found = tapOn('on squared paper, from aside', 12);
  expect(found.filter((one) => one === 'right').length).toBeGreaterThanOrEqual(6);
  expect(found.filter((one) => one === 'its picture').length).toBeLessThanOrEqual(3);
  expect(found).not.toContain('wild');
});

it('fits a card seen by some camera, and no shape that none would see so', () => {
  const scene = CARD_PHOTOS['on squared paper, from aside']!;
  const picture: PictureGeometry = { width: 2016, height: 1512, kind: 'photo', focal35mm: 27 };
  const corners = CORNERS.map((corner) => seeOnCard(scene, corner));
  expect(misfitOfRectangle(picture, corners, 85.6 / 53.98)).toBeLessThan(0.3);
  expect(misfitOfRectangle(picture, [...corners.slice(1), corners[0]!], 85.6 / 53.98)).toBeLessThan(0.3);
  expect(misfitOfRectangle(picture, corners, 1)).toBeGreaterThan(1);
  expect(
    misfitOfRectangle(
      picture,
      [
        [100, 100],
        [900, 140],
        [700, 500],
        [300, 900],
      ],
      undefined,
    ),
  ).toBeGreaterThan(1);
});
