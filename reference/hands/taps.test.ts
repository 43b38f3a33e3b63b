/**
 * One tap on a card: of a printed card, on slate by a long lens with a corner covered and on grained wood beside steel, its four sides are found from anywhere on it; white on white squared
 * paper, an honest "not found" is better than sides of other things.
 */
import { findRim, findSides, type Pyramid, type Sides } from '../../src/core/raster';
import { misfitOfRectangle, type PictureGeometry } from '../../src/core/calibrate';
import { createRandom } from '../../src/core/calibrate/simulation';
import {
  awayFrom,
  crossingOfLines,
  distance,
  lineThrough,
  mix,
  outsideEllipse,
  polar,
  type Vec,
} from '../../src/core/geometry';
import { optics } from '../../demo/generator/camera';
import { seeOnCard } from './cards';
import { openPhotograph, PHOTOGRAPHS, type PhotographName } from './photographs';
import { onThing, PLATE_HOLES } from './plate';

const CORNERS: readonly Vec[] = [
  [0, 0],
  [85.6, 0],
  [85.6, 53.98],
  [0, 53.98],
];

function tapOn(name: PhotographName, taps: number) {
  const scene = PHOTOGRAPHS[name];
  const find = lookIn(openPhotograph(name), scene.camera.focal35mm);
  const see = (onCard: Vec) => seeOnCard(scene, onCard);
  const random = createRandom(9);
  const truth = CORNERS.map(see);
  return Array.from({ length: taps }, () => {
    const [u, v] = [3 + 79 * random.uniform(), 3 + 48 * random.uniform()];
    const found = judge(find(see([u, v])), truth);
    return found === 'wrong' && u > 40 && u < 80 && v > 8 && v < 33 ? 'its picture' : found;
  });
}

/** What a tap on a photograph finds as a card. */
function lookIn(pyramid: Pyramid, focal35mm: number | undefined): (tap: Vec) => Sides | undefined {
  const { width, height } = pyramid.levels[0]!;
  const picture: PictureGeometry = { width, height, kind: 'photo', focal35mm };
  return (tap) => findSides(pyramid, tap, (corners) => misfitOfRectangle(picture, corners, 85.6 / 53.98));
}

function judge(sides: Sides | undefined, truth: readonly Vec[]) {
  if (!sides) return 'not found';
  const lines = sides.map((side) => lineThrough(side.map(({ at }) => at)));
  const corners = lines.map((line, i) => crossingOfLines(lines[(i + 3) % 4]!, line));
  // Lens and slant bend a side by a pixel or so between its ends.
  return truth.every((corner) => Math.min(...corners.map((other) => distance(other, corner))) < 3) ? 'right' : 'wrong';
}

it.each([
  ['on slate by a long lens, a corner covered', 'card-on-slate'],
  ['on wood, square-on', 'card-on-wood'],
] as const)('%s: found from 19 of 20 places, and never wrong', (_title, name) => {
  const found = tapOn(name, 20);
  expect(found.filter((one) => one === 'right').length).toBeGreaterThanOrEqual(19);
  expect(found.filter((one) => one === 'right' || one === 'not found')).toHaveLength(20);
});

/**
 * A plain card on a sheet of paper that is hardly brighter: on two sides a thin shadow lies between them, on the others nothing does. A rule lies over the end of the sheet, and what is left of that
 * has a card's proportion to one part in eighty.
 */
describe.each([
  ['a wide lens', 'plate-by-wide-lens'],
  ['a normal lens', 'plate-by-normal-lens'],
  ['a long lens', 'plate-by-long-lens'],
] as const)('plain, on white paper cut to its proportion, by %s', (_title, name) => {
  const { camera } = PHOTOGRAPHS[name];
  const seen = optics(camera);
  const see = (at: Vec) => seen.project(...onThing('card', at)) as Vec;
  const pyramid = openPhotograph(name);
  const found = lookIn(pyramid, camera.focal35mm);

  it('the card is found from everywhere on it, and never the sheet', () => {
    const spots: readonly Vec[] = [
      [8, 8],
      [43, 27],
      [70, 40],
      [20, 48],
    ];
    expect(spots.map((spot) => judge(found(see(spot)), CORNERS.map(see)))).toEqual(spots.map(() => 'right'));
  });

  it('its sides lie where the card ends, and not where its shadow does, by what they say', () => {
    const off = found(see([43, 27]))!.flatMap((side) => {
      const away = side.map(({ at }) => awayFromCard(see, at));
      // What is wrong with an edge is wrong with all of it: its places together are known as two of them would be.
      return away.reduce((sum, one) => sum + one) / away.length / (side[0]!.sigma / Math.sqrt(side.length));
    });
    expect(Math.hypot(...off) / 2).toBeLessThan(1.5);
    expect(Math.max(...off.map(Math.abs))).toBeLessThan(3);
  });

  // In their shade the paper is as dark as the steel in places, and brighter elsewhere.
  it.each(PLATE_HOLES)('a hole of $diameter mm in steel is found from anywhere in it', (hole) => {
    const radius = hole.diameter / 2;
    const seeHole = (out: number, way: number) => {
      const [x, y] = polar(out * radius, way);
      return seen.project(...onThing('plate', [hole.centre[0] + x, hole.centre[1] + y])) as Vec;
    };
    for (const tap of [seeHole(0, 0), seeHole(0.5, 2.2), seeHole(0.6, -1.6)]) {
      const rim = findRim(pyramid, tap);
      expect(rim).toBeDefined();
      const away = Array.from({ length: 36 }, (_, i) => outsideEllipse(rim!.ellipse, seeHole(1, (i * Math.PI) / 18)));
      expect(Math.max(...away.map(Math.abs))).toBeLessThan(1.5);
      expect(Math.abs(away.reduce((sum, one) => sum + one) / away.length)).toBeLessThan(2 * rim!.edges[0]!.sigma);
    }
  });
});

/** How far outside the card's rim a place of the picture is, px. */
function awayFromCard(see: (onCard: Vec) => Vec, at: Vec): number {
  const rims = CORNERS.flatMap((from, i) => {
    const to = CORNERS[(i + 1) % 4]!;
    return Array.from({ length: 40 }, (_, k) => lineThrough([k, k + 1].map((j) => see(mix(from, to, j / 40)))));
  });
  const middle = see([42.8, 27]);
  // The card's rim is convex, but for what a lens bends it by: the outermost of the lines along it is the one that counts.
  return Math.max(...rims.map((rim) => -awayFrom(rim, at) * Math.sign(awayFrom(rim, middle))));
}

// White on white: only its shadow shows, and where that is too faint what is printed on it, of a card's own proportion, is the only card there is to see.
it('white on white squared paper, from aside: found from most places, and wrong only inside the picture that is printed on it', () => {
  const found = tapOn('card-on-paper', 12);
  expect(found.filter((one) => one === 'right').length).toBeGreaterThanOrEqual(6);
  expect(found.filter((one) => one === 'its picture').length).toBeLessThanOrEqual(3);
  expect(found).not.toContain('wrong');
});

it('fits a card seen by some camera, and no shape that none would see so', () => {
  const scene = PHOTOGRAPHS['card-on-paper'];
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
