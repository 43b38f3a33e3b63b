import fc from 'fast-check';
import { findEdgeAcross } from './edge';
import { draw } from './draw-for-tests';
import { findFirstAcross } from './first-across';

/** The upper side of a light card, a slit of shadow beside it that is so wide, and the paper. */
const beside = (rim: number, slit: number, shadow: number) => (_x: number, y: number) =>
  214 + (shadow - 214) * blurred(y - rim) + (236 - shadow) * blurred(y - rim - slit);
/** From 0 to 1, as a lens has a step: within a pixel or so. */
const blurred = (away: number) => 1 / (1 + Math.exp(-2.6 * away));
const [MIDDLE, DOWN] = [[30, 30] as const, Math.PI / 2];
const scan = { reach: 5, beside: 2 };

describe('the rim of a thing, met from within', () => {
  it('is found at the thing and not at the rim of its shadow, off by what it says it may be', () => {
    const off: number[] = [];
    fc.assert(
      fc.property(
        fc.double({ min: 31, max: 34, noNaN: true }),
        fc.double({ min: 1.5, max: 6, noNaN: true }),
        fc.integer({ min: 60, max: 170 }),
        fc.nat(1000),
        (rim, slit, shadow, seed) => {
          const found = findFirstAcross(draw(60, 60, 2, seed, beside(rim, slit, shadow)), MIDDLE, DOWN, scan)!;
          const away = found.at[1] - rim;
          off.push(away / found.sigma);
          expect(away).toBeLessThan(slit / 2);
          // A slit as narrow as the lens is soft draws its two rims apart.
          expect(away).toBeGreaterThan(-0.7);
        },
      ),
      { numRuns: 120 },
    );
    expect(off.filter((sigmas) => Math.abs(sigmas) < 2).length).toBeGreaterThan(0.95 * off.length);
  });

  it('is where any edge is, as surely, where no shadow lies beside it', () => {
    fc.assert(
      fc.property(fc.double({ min: 29, max: 33, noNaN: true }), fc.nat(1000), (rim, seed) => {
        const picture = draw(60, 60, 2, seed, (_x, y) => 214 - 124 * blurred(y - rim));
        const found = findFirstAcross(picture, MIDDLE, DOWN, scan)!;
        expect(Math.abs(found.at[1] - rim)).toBeLessThan(0.15);
        expect(found.sigma).toBeLessThan(1.5 * findEdgeAcross(picture, MIDDLE, DOWN, scan)!.sigma);
      }),
      { numRuns: 60 },
    );
  });

  it('is not found on plain paper', () => {
    expect(
      findFirstAcross(
        draw(60, 60, 3, 7, () => 236),
        MIDDLE,
        DOWN,
        scan,
      ),
    ).toBeUndefined();
  });
});
