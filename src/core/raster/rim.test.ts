import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import jpeg from 'jpeg-js';
import { distance, mix, onEllipse, outsideEllipse, polar, type Ellipse, type Vec } from '../geometry';
import { colourPictureFrom } from './colour-picture';
import { draw } from './draw-for-tests';
import { createPyramid } from './pyramid';
import { findRim, type Rim } from './rim';

const [FACE, LIT, WALL, GROUND, SHADE] = [120, 190, 60, 215, 20];
const MIDDLE: Vec = [65, 65];

/** How far a place of a circle about the middle lies outside of a rim, px, the farthest. */
const offOf = ({ ellipse }: Rim, radius: number) =>
  Math.max(
    ...Array.from({ length: 36 }, (_, i) => {
      const [dx, dy] = polar(radius, (i * Math.PI) / 18);
      return Math.abs(outsideEllipse(ellipse, [MIDDLE[0] + dx, MIDDLE[1] + dy]));
    }),
  );

const tapped = (shade: (x: number, y: number) => number, [dx, dy]: Vec = [0, 0], seed = 4) =>
  findRim(createPyramid(draw(130, 130, 3, seed, shade)), [MIDDLE[0] + dx, MIDDLE[1] + dy]);

/** A hole through a thick face: its wall is seen on one side, between the rim and the foot, which is as large. */
const walled = (radius: number, seen: number, way: number) => (x: number, y: number) => {
  const [dx, dy] = polar(seen, way);
  if (distance([x, y], MIDDLE) > radius) return FACE;
  return distance([x, y], [MIDDLE[0] - dx, MIDDLE[1] - dy]) > radius ? WALL : GROUND;
};

/** A round hole of a demo's picture: its middle and places on its rim, as they are seen. */
interface Seen {
  readonly px: Vec;
  readonly rimPx: readonly Vec[];
}
const truthOf = <Truth>(name: string) => JSON.parse(readFileSync(`demo/truth/${name}.json`, 'utf8')) as Truth;

function open(name: string) {
  const { width, height, data } = jpeg.decode(readFileSync(`public/demo/${name}.jpg`), { useTArray: true });
  return createPyramid(colourPictureFrom(width, height, data));
}

describe('the rim of a hole', () => {
  it('is where the face ends, however much of the wall is seen, and not the near rim with the foot opposite', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 16, max: 30, noNaN: true }),
        // What is narrower is no band of its own.
        fc.double({ min: 2, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        (radius, seen, way, out) => {
          const rim = tapped(walled(radius, seen, way), polar(out * radius, way + 2));
          expect(rim).toBeDefined();
          expect(offOf(rim!, radius)).toBeLessThan(0.5);
        },
      ),
      { numRuns: 20 },
    );
  });

  it('is the inner side of a bevel, one half of which is as bright as the face and the other not', () => {
    for (const way of [0.3, 2, 4.4]) {
      const bevelled = (x: number, y: number) => {
        const away = distance([x, y], MIDDLE);
        if (away < 24) return SHADE;
        if (away > 28) return FACE;
        // A slope takes light by how it faces it.
        return FACE + (LIT - FACE) * Math.max(0, Math.cos(Math.atan2(y - MIDDLE[1], x - MIDDLE[0]) - way));
      };
      const rim = tapped(bevelled);
      expect(rim).toBeDefined();
      expect(offOf(rim!, 24)).toBeLessThan(0.5);
    }
  });

  it('of a circle that was drawn is the middle of its line; of a small disc its rim', () => {
    for (const [width, radius] of [
      [2, 12],
      [3, 30],
      [4, 24],
      [6, 40],
      [7, 20],
    ] as const) {
      const rim = tapped((x, y) => (Math.abs(distance([x, y], MIDDLE) - radius) < width / 2 ? 50 : 230))!;
      expect(offOf(rim, radius)).toBeLessThan(0.2);
      expect(rim.edges.every(({ kind }) => kind === 'line')).toBe(true);
    }
    const disc = tapped((x, y) => (distance([x, y], MIDDLE) < 4 ? 50 : 230))!;
    expect(offOf(disc, 4)).toBeLessThan(0.3);
  });

  it('of the hole in the scan of the nest box is where it was drawn, from anywhere in it', () => {
    const { hole } = truthOf<{ readonly hole: Seen }>('nest-box');
    const pyramid = open('nest-box');
    for (const [dx, dy] of [
      [0, 0],
      [15, 8],
      [5, -25],
    ] as const) {
      const { ellipse, edges } = findRim(pyramid, [hole.px[0] + dx, hole.px[1] + dy])!;
      for (const place of hole.rimPx)
        expect(Math.abs(outsideEllipse(ellipse, place))).toBeLessThan(2 * edges[0]!.sigma);
    }
  });

  it('of holes with a bevel, seen aslant, is theirs or none, however far off their middle one taps', () => {
    const { holes } = truthOf<{ readonly blade: { readonly holes: readonly Seen[] } }>('blade-slanted').blade;
    const pyramid = open('blade-slanted');
    const found = [holes[0]!, holes[3]!].flatMap(({ px, rimPx }) =>
      [0, 3].flatMap((way) =>
        [0.5, 0.65].map((share) => {
          const rim = findRim(pyramid, mix(px, rimPx[way]!, share));
          return rim && Math.max(...rimPx.map((place) => Math.abs(outsideEllipse(rim.ellipse, place))));
        }),
      ),
    );
    expect(found.filter((off) => off !== undefined).length).toBeGreaterThanOrEqual(6);
    for (const off of found) if (off !== undefined) expect(off).toBeLessThan(0.5);
  });

  it('is said to lie as far off as it may', () => {
    const offs = Array.from({ length: 16 }, (_, i) => {
      const rim = tapped(walled(20 + (i % 5), 2 + (i % 6), i), [0, 0], 30 + i)!;
      const mean = rim.edges.reduce((sum, { at }) => sum + distance(at, MIDDLE) - 20 - (i % 5), 0) / rim.edges.length;
      return Math.abs(mean) / rim.edges[0]!.sigma;
    });
    expect(offs.filter((off) => off <= 2).length).toBeGreaterThanOrEqual(15);
  });

  it('is none in the grain of wood, whose streaks are long and narrow', () => {
    const streak: Ellipse = { centre: MIDDLE, axes: [50, 18], direction: 0.1 };
    const grain = (x: number, y: number) => (outsideEllipse(streak, [x, y]) < 0 ? 120 : 170);
    expect(tapped(grain)).toBeUndefined();
    const round: Ellipse = { ...streak, axes: [40, 30] };
    const disc = tapped((x, y) => (outsideEllipse(round, [x, y]) < 0 ? 120 : 170));
    const { point } = onEllipse(round, 1);
    expect(Math.abs(outsideEllipse(disc!.ellipse, point))).toBeLessThan(0.3);
  });
});
