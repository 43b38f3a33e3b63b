import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import jpeg from 'jpeg-js';
import {
  awayFrom,
  distance,
  findEllipse,
  lineThrough,
  onEllipse,
  outsideEllipse,
  type Ellipse,
  type Vec,
} from '../geometry';
import {
  colourPictureFrom,
  createPyramid,
  findCornerNear,
  findEdgeAcross,
  findEdgeNear,
  findRim,
  findSides,
  findStraight,
  straightenRows,
  type ColourPicture,
} from '.';
import { draw } from './draw-for-tests';

/** A straight edge through (20 + offset, 20), its normal at `angle`. */
const edgeAt = (offset: number, angle: number) => (x: number, y: number) =>
  (x - 20 - offset) * Math.cos(angle) + (y - 20) * Math.sin(angle) > 0 ? 170 : 80;

describe('an edge', () => {
  it('is found to a few hundredths of a pixel, whichever way it runs', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        (offset, angle) => {
          const edge = findEdgeAcross(draw(40, 40, 0, 1, edgeAt(offset, angle)), [20, 20], angle, {
            reach: 5,
            beside: 2,
          })!;
          const away = (edge.at[0] - 20 - offset) * Math.cos(angle) + (edge.at[1] - 20) * Math.sin(angle);
          expect(Math.abs(away)).toBeLessThan(0.06);
        },
      ),
      { numRuns: 40, seed: 3 },
    );
  });

  it('scatters in noise no more than it says; the rest of what it says is what real edges do', () => {
    const angle = 0.4;
    const errors = Array.from({ length: 80 }, (_, i) =>
      findEdgeAcross(draw(40, 40, 12, i + 1, edgeAt(0.3, angle)), [20, 20], angle, { reach: 4, beside: 2 })!,
    ).map(({ at, sigma }) => ({ away: (at[0] - 20.3) * Math.cos(angle) + (at[1] - 20) * Math.sin(angle), sigma }));
    const spread = Math.sqrt(errors.reduce((sum, { away }) => sum + away * away, 0) / errors.length);
    const said = errors.reduce((sum, { sigma }) => sum + sigma, 0) / errors.length;
    expect(spread).toBeLessThan(1.1 * said);
    expect(said).toBeLessThan(4 * spread);
  });

  it('is nothing in an even surface, however noisy, nor where edges cross', () => {
    expect(
      findEdgeNear(
        draw(40, 40, 12, 5, () => 120),
        [20, 20],
        8,
      ),
    ).toBeUndefined();
    expect(
      findEdgeNear(
        draw(40, 40, 0, 5, (x, y) => (x > 20 && y > 20 ? 200 : 60)),
        [20, 20],
        6,
      ),
    ).toBeUndefined();
  });

  it('of a thin line is its middle', () => {
    const edge = findEdgeNear(
      draw(40, 40, 2, 7, (x) => (Math.abs(x - 21.3) < 1.5 ? 30 : 220)),
      [19, 20],
      6,
    )!;
    expect(edge.kind).toBe('line');
    expect(edge.at[0]).toBeCloseTo(21.3, 1);
    // One that is broader than the reach, from anywhere on it and beside it.
    for (const from of [20, 21.3, 23])
      expect(
        findEdgeNear(
          draw(40, 40, 2, 7, (x) => (Math.abs(x - 21.3) < 3 ? 30 : 220)),
          [from, 20],
          1.1,
        ),
      ).toMatchObject({ kind: 'line', at: [expect.closeTo(21.3, 0), expect.anything()] });
    for (const from of [17, 18, 20, 21.3, 23, 25])
      expect(
        findEdgeNear(
          draw(40, 40, 2, 7, (x) => (Math.abs(x - 21.3) < 3 ? 30 : 220)),
          [from, 20],
          3.6,
        ),
      ).toMatchObject({ kind: 'line', at: [expect.closeTo(21.3, 0), expect.anything()] });
  });

  it('is no line where a dark wall stands between a thing and a bench that is nearly alike', () => {
    const thing = draw(40, 40, 3, 7, (x) => (x < 20 ? 121 : x < 23 ? 37 : 105));
    for (const [from, to] of [
      [19.8, 20],
      [20.4, 20],
      [22.8, 23],
    ] as const) {
      const edge = findEdgeNear(thing, [from, 20], 6, 0.8)!;
      expect(edge.kind).toBe('step');
      expect(Math.abs(edge.at[0] - to)).toBeLessThan(3 * edge.sigma);
    }
  });

  it('where a hand pointed, is the one that it meant; what else it may have meant is in its sigma', () => {
    // The wall of a hole between a plate and the ground: two edges, three pixels apart.
    const wall = draw(40, 40, 2, 7, (x) => (x < 20 ? 120 : x < 23 ? 50 : 190));
    for (const [from, to] of [
      [19.8, 20],
      [20.3, 20],
      [22.8, 23],
      [23.4, 23],
    ] as const) {
      const edge = findEdgeNear(wall, [from, 20], 6, 0.5)!;
      expect(edge.at[0]).toBeCloseTo(to, 0);
      expect(edge.sigma).toBeLessThan(0.4);
    }
    expect(findEdgeNear(wall, [21.5, 20], 6, 1.5)!.sigma).toBeGreaterThan(0.8);
    const alone = draw(40, 40, 2, 7, (x) => (x < 20 ? 120 : 190));
    expect(findEdgeNear(alone, [20.4, 20], 8, 1.5)!.sigma).toBeLessThan(0.2);
    // The farther off, the more it may be that nothing was meant that stands out.
    expect(findEdgeNear(alone, [24.5, 20], 8, 1.5)!.sigma).toBeGreaterThan(0.4);
    expect(findEdgeNear(alone, [27, 20], 8, 1.5)!.sigma).toBeGreaterThan(1);
  });

  it('of a thing beside its shadow is the thing’s, and no line between the two', () => {
    const shaded = draw(40, 40, 2, 7, (x) => (x < 20 ? 215 : x < 22 ? 80 : Math.min(228, 80 + 40 * (x - 22))));
    for (const from of [19, 20, 20.7])
      expect(findEdgeNear(shaded, [from, 20], 8, 1.2)).toMatchObject({
        kind: 'step',
        at: [expect.closeTo(20, 0), expect.anything()],
      });
  });

  it('is seen by its colour where its brightness does not change', () => {
    const width = 40;
    const data = Uint8Array.from(
      { length: 3 * width * width },
      (_, i) =>
        [
          [150, 100, 60],
          [80, 130, 105],
        ][Math.floor(i / 3) % width < 18 ? 0 : 1]![i % 3]!,
    );
    expect(findEdgeNear({ width, height: width, data }, [20, 20], 6)!.at[0]).toBeCloseTo(18, 1);
  });
});

const cornerNear = (picture: ColourPicture, near: Vec, reach: number) =>
  findCornerNear(createPyramid(picture), near, reach);

describe('a corner', () => {
  /** A wedge with its tip at a place, as wide as `open`, turned by `turn`. */
  const wedge =
    ([tipX, tipY]: Vec, open: number, turn: number) =>
    (x: number, y: number) => {
      const angle = Math.atan2(y - tipY, x - tipX) - turn;
      return Math.abs(Math.atan2(Math.sin(angle), Math.cos(angle))) < open / 2 ? 190 : 70;
    };
  it('is where two edges meet, to a fifth of a pixel, from wherever near it one points', () => {
    const place = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        place,
        place,
        place,
        place,
        fc.double({ min: 1, max: 2.2, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        (x, y, fromX, fromY, open, turn) => {
          const tip: Vec = [24 + x, 24 + y];
          const corner = cornerNear(
            draw(48, 48, 2, 3, wedge(tip, open, turn)),
            [tip[0] + 3 * fromX, tip[1] + 3 * fromY],
            6,
          )!;
          expect(Math.hypot(corner.at[0] - tip[0], corner.at[1] - tip[1])).toBeLessThan(0.2);
        },
      ),
      { numRuns: 40, seed: 5 },
    );
  });
  it('of thin strokes is where their middles meet, or none: never a corner of their ink', () => {
    const away: (number | undefined)[] = [];
    for (const [thick, noise] of [
      [3, 0],
      [3, 3],
      [4.1, 0],
      [4, 3],
      [5, 3],
    ] as const) {
      const tee = draw(60, 60, noise, 3, (x, y) =>
        (Math.abs(x - 30.4) < thick / 2 && Math.abs(y - 30.2) < 20) || (Math.abs(y - 30.2) < thick / 2 && x > 30)
          ? 40
          : 225,
      );
      const ell = draw(60, 60, noise, 3, (x, y) =>
        (Math.abs(x - 30.4) < thick / 2 && y > 30.2 - thick / 2) ||
        (Math.abs(y - 30.2) < thick / 2 && x > 30.4 - thick / 2)
          ? 40
          : 225,
      );
      for (const picture of [tee, ell]) {
        for (const [x, y] of [
          [29, 31.5],
          [30, 30],
          [32, 28],
          [33, 33],
        ] as const) {
          const corner = cornerNear(picture, [x, y], 6);
          away.push(corner ? Math.hypot(corner.at[0] - 30.4, corner.at[1] - 30.2) : undefined);
        }
      }
    }
    const found = away.filter((distance) => distance !== undefined);
    expect(found.length).toBeGreaterThan(away.length / 2);
    expect(Math.max(...found)).toBeLessThan(0.35);
  });
  it('is none on a round rim of any size, nor where a corner is rounded', () => {
    const around = fc.record({
      radius: fc.double({ min: 8, max: 250, noNaN: true }),
      at: fc.double({ min: 0, max: 6.28, noNaN: true }),
      x: fc.double({ min: -3, max: 3, noNaN: true }),
      y: fc.double({ min: -3, max: 3, noNaN: true }),
    });
    fc.assert(
      fc.property(around, ({ radius, at, x, y }) => {
        const centre: Vec = [32 - radius * Math.cos(at), 32 - radius * Math.sin(at)];
        expect(
          cornerNear(
            draw(64, 64, 4, 3, (u, v) => (Math.hypot(u - centre[0], v - centre[1]) < radius ? 190 : 70)),
            [32 + x, 32 + y],
            6,
          ),
        ).toBeUndefined();
      }),
      { numRuns: 120, seed: 8 },
    );
    for (const radius of [4, 6, 9, 12, 18, 24, 40]) {
      const rounded = draw(96, 96, 4, 3, (u, v) =>
        u > 20 &&
        v > 20 &&
        (u > 20 + radius || v > 20 + radius || Math.hypot(u - 20 - radius, v - 20 - radius) < radius)
          ? 190
          : 70,
      );
      const middle = 20 + radius * (1 - Math.SQRT1_2);
      for (const near of [
        [middle, middle],
        [20.5, 20 + radius],
        [20 + radius / 2, 20 + radius / 6],
      ] as const)
        expect(cornerNear(rounded, near, 6)).toBeUndefined();
    }
  });
  it('is found from as far off as somebody points who sees a tenth of the picture, and as well as from beside it', () => {
    const place = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        place,
        place,
        fc.double({ min: 1.2, max: 2.2, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        (x, y, open, turn) => {
          const corner = cornerNear(
            draw(200, 200, 4, 3, wedge([100.3, 99.8], open, turn)),
            [100.3 + 25 * x, 99.8 + 25 * y],
            48,
          )!;
          expect(Math.hypot(corner.at[0] - 100.3, corner.at[1] - 99.8)).toBeLessThan(0.25);
        },
      ),
      { numRuns: 12, seed: 5 },
    );
  });
  it('is none on one edge, on a rim that bends, in grain, or too far away', () => {
    expect(cornerNear(draw(40, 40, 2, 3, edgeAt(0, 0.7)), [20, 20], 6)).toBeUndefined();
    expect(
      cornerNear(
        draw(60, 60, 2, 3, (x, y) => (Math.hypot(x - 30, y - 30) < 12 ? 190 : 70)),
        [42, 30],
        6,
      ),
    ).toBeUndefined();
    expect(
      cornerNear(
        draw(40, 40, 25, 3, () => 120),
        [20, 20],
        6,
      ),
    ).toBeUndefined();
    expect(cornerNear(draw(48, 48, 2, 3, wedge([24, 24], 1.6, 0.3)), [33, 33], 6)).toBeUndefined();
  });
});

describe('an ellipse', () => {
  const ellipse = fc.record({
    centre: fc.tuple(fc.double({ min: -500, max: 500, noNaN: true }), fc.double({ min: -500, max: 500, noNaN: true })),
    a: fc.double({ min: 20, max: 300, noNaN: true }),
    flat: fc.double({ min: 0.3, max: 0.95, noNaN: true }),
    direction: fc.double({ min: 0, max: 3, noNaN: true }),
  });
  it('is the one that its points lie on', () => {
    fc.assert(
      fc.property(ellipse, ({ centre, a, flat, direction }) => {
        const truth: Ellipse = { centre: centre as Vec, axes: [a, a * flat], direction };
        const found = findEllipse([0.1, 0.9, 2, 3, 4.4, 5.5].map((at) => onEllipse(truth, at).point))!;
        for (let at = 0; at < 6; at++)
          expect(Math.abs(outsideEllipse(truth, onEllipse(found, at).point))).toBeLessThan(1e-6 * a);
      }),
    );
  });
  it('is none through points of a line, or too few', () => {
    expect(
      findEllipse([
        [0, 0],
        [1, 1],
        [2, 2],
        [3, 3],
        [4, 4],
        [5, 5],
      ]),
    ).toBeUndefined();
    expect(
      findEllipse([
        [0, 0],
        [1, 3],
        [2, 2],
        [3, 0],
      ]),
    ).toBeUndefined();
  });
});

describe('a picture squared up', () => {
  const [width, height] = [120, 90];
  const source = {
    width,
    height,
    data: Uint8ClampedArray.from(
      { length: 4 * width * height },
      (_, i) => [(i >> 2) % width, Math.floor((i >> 2) / width) * 2, 90, 255][i % 4]!,
    ),
  };
  it('shows at every pixel what lies there, slant and bow and all, and nothing beyond the rim', () => {
    const toSource = ([x, y]: Vec): Vec => {
      const w = 1 + 0.002 * x - 0.001 * y;
      return [(10 + 1.1 * x + 0.1 * y) / w, (5 + 0.9 * y + 0.0005 * x * x) / w];
    };
    const [w, h] = [110, 80];
    const strips = [0, 32, 64].map((top) => straightenRows(source, w, top, Math.min(32, h - top), toSource));
    let seen = 0;
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        const [u, v] = toSource([x + 0.5, y + 0.5]);
        const at = 4 * ((y % 32) * w + x);
        const pixel = strips[Math.floor(y / 32)]!;
        const inside = u > 1 && v > 1 && u < width - 1 && v < height - 1;
        if (inside)
          expect(Math.max(Math.abs(pixel[at]! - (u - 0.5)), Math.abs(pixel[at + 1]! - 2 * (v - 0.5)))).toBeLessThan(
            0.75,
          );
        if (u < -0.1 || v < -0.1 || u > width + 0.1 || v > height + 0.1) expect(pixel[at + 3]).toBe(0);
        seen += inside ? 1 : 0;
      }
    }
    expect(seen).toBeGreaterThan(4000);
  });
});

/** The generator's pictures: real thickness, bevels, shadows, lens, grain and compression, and it shares no code with the core. */
describe.each(['blade', 'blade-slanted'])('on the photo %s', (name) => {
  const { width, height, data } = jpeg.decode(readFileSync(`public/demo/${name}.jpg`), { maxMemoryUsageInMB: 1024 });
  const pyramid = createPyramid(colourPictureFrom(width, height, data));
  const truth = JSON.parse(readFileSync(`demo/truth/${name}.json`, 'utf8')) as {
    blade: { holes: { px: Vec; rimPx: Vec[] }[] };
    rule: { upperEdgePx: Vec[] };
    card: { sidesPx: [Vec, Vec][]; left: Vec; right: Vec; top: Vec; bottom: Vec };
  };

  it('the rim of a hole is caught from beside it, and its bevel is no line', () => {
    const picture = colourPictureFrom(width, height, data);
    const off = truth.blade.holes
      .flatMap(({ px, rimPx }) =>
        rimPx.flatMap((rim) => {
          const [dx, dy] = [rim[0] - px[0], rim[1] - px[1]].map(
            (d) => d / Math.hypot(rim[0] - px[0], rim[1] - px[1]),
          ) as [number, number];
          return [-2, -1, 0, 1, 2].map((by) => {
            const edge = findEdgeNear(picture, [rim[0] + by * dx, rim[1] + by * dy], 8)!;
            expect(edge.kind).toBe('step');
            return Math.abs((edge.at[0] - rim[0]) * dx + (edge.at[1] - rim[1]) * dy);
          });
        }),
      )
      .sort((a, b) => a - b);
    expect(off[Math.floor(0.9 * off.length)]).toBeLessThan(0.35);
  });

  it('one tap in a hole finds its rim within its own doubt', () => {
    for (const { px, rimPx } of truth.blade.holes) {
      for (const [dx, dy] of [
        [0, 0],
        [-9, 4],
        [7, 6],
      ] as const) {
        const { ellipse, edges } = findRim(pyramid, [px[0] + dx, px[1] + dy])!;
        for (const place of rimPx) expect(Math.abs(outsideEllipse(ellipse, place))).toBeLessThan(3 * edges[0]!.sigma);
        expect(Math.max(...edges.map(({ sigma }) => sigma))).toBeLessThan(0.4);
      }
    }
  });

  it('one tap on the card finds its four sides within their own doubt, wherever it is tapped', () => {
    const { left, right, top, bottom, sidesPx } = truth.card;
    const away = (at: Vec) =>
      Math.min(
        ...sidesPx.map(
          ([a, b]) =>
            Math.abs((b[0] - a[0]) * (at[1] - a[1]) - (b[1] - a[1]) * (at[0] - a[0])) /
            Math.hypot(b[0] - a[0], b[1] - a[1]),
        ),
      );
    for (const [u, v] of [
      [0.5, 0],
      [0.45, 0],
      [0.3, 0.25],
      [0.7, -0.25],
    ] as const) {
      const inside: Vec = [
        left[0] * (1 - u) + right[0] * u + v * (top[0] - bottom[0]),
        left[1] * (1 - u) + right[1] * u + v * (top[1] - bottom[1]),
      ];
      const sides = findSides(pyramid, inside)!;
      for (const { at, sigma } of sides.flat()) expect(away(at)).toBeLessThan(3 * sigma);
      const [across, down] = [0, 1].map((i) => distance(sides[i]![0]!.at, sides[i]!.at(-1)!.at)) as [number, number];
      expect(across).toBeGreaterThan(down);
    }
  });

  it('one tap on the rule’s edge follows it from end to end, bowed by the lens as it is; on the bench there is none', () => {
    const known = truth.rule.upperEdgePx;
    for (const [x, y] of known) {
      const places = findStraight(pyramid, [x + 3, y + 1])!.map(({ at }) => at);
      expect(places).toHaveLength(9);
      expect(distance(places[0]!, places.at(-1)!)).toBeGreaterThan(0.75 * distance(known[0]!, known.at(-1)!));
      // Those of the known places that lie between found ones: there the edge bends by a tenth of a pixel.
      for (const place of known.slice(2, 4)) {
        const away = places
          .slice(1)
          .map(
            (to, i) =>
              Math.abs(awayFrom(lineThrough([places[i]!, to]), place)) +
              (place[0] > Math.min(places[i]![0], to[0]) - 5 && place[0] < Math.max(places[i]![0], to[0]) + 5
                ? 0
                : Infinity),
          );
        expect(Math.min(...away)).toBeLessThan(0.5);
      }
    }
    expect(findStraight(pyramid, [0.5 * width, 0.04 * height])).toBeUndefined();
  });

  it('finds no rim and no sides on the bare bench', () => {
    expect(findSides(pyramid, [0.8 * width, 0.12 * height])).toBeUndefined();
    expect(findRim(pyramid, [0.8 * width, 0.12 * height])).toBeUndefined();
  });
});
